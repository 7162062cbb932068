export const dynamic = 'force-dynamic';

/** Whether the web server runs, whatever the database does; `/api/v1/health` says whether both are ready. */
export function GET(): Response {
  return Response.json({ status: 'alive' });
}
