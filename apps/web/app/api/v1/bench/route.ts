import { listBenches } from '@barys/store/benches';
import { database } from '@/server/database';
import { requireReader } from '@/server/person';
import { problemResponse } from '@/server/problem';

/** What is connected at the benches now, and what it says. */
export async function GET(): Promise<Response> {
  try {
    await requireReader();
    const benches = await listBenches(database(), new Date());
    return Response.json(benches, { headers: { 'cache-control': 'no-store, no-transform' } });
  } catch (error) {
    return problemResponse(error);
  }
}
