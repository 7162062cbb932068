import { lastCalculation } from '@barys/store/intervals';
import { database } from '@/server/database';
import { requireReader } from '@/server/person';
import { problemResponse } from '@/server/problem';

/** How far the newest calculation is. */
export async function GET(): Promise<Response> {
  try {
    await requireReader();
    const last = await lastCalculation(database());
    return Response.json(
      last === null ? {} : { id: last.id, state: last.state, done: last.done, total: last.total },
    );
  } catch (error) {
    return problemResponse(error);
  }
}
