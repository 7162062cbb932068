import { lastMaking } from '@barys/store/planning';
import { database } from '@/server/database';
import { requireReader } from '@/server/person';
import { problemResponse } from '@/server/problem';

/** How far the newest plan in the making is. */
export async function GET(): Promise<Response> {
  try {
    await requireReader();
    const last = await lastMaking(database());
    return Response.json(last === null ? {} : { id: last.id, state: last.state, part: last.part });
  } catch (error) {
    return problemResponse(error);
  }
}
