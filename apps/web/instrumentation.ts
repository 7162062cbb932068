/** What begins with the server. */
export async function register(): Promise<void> {
  if (process.env['NEXT_RUNTIME'] !== 'nodejs') return;
  const { startSealer } = await import('./server/sealer');
  startSealer();
}
