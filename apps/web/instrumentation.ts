/** What begins with the server. */
export async function register(): Promise<void> {
  if (process.env['NEXT_RUNTIME'] !== 'nodejs') return;
  const [{ startSealer }, { watchZone }] = await Promise.all([
    import('./server/sealer'),
    import('./server/zone'),
  ]);
  startSealer();
  await watchZone();
}
