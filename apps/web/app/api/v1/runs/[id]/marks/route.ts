import { keepMark } from '@barys/store/runs';
import { markSchema } from '@/places/jobs/run/schema';
import { act } from '@/server/act';
import { showClock } from '@/server/dates';
import { problemOfBody } from '@/server/problem';
import { routeId } from '@/server/routeId';

/** Keeps one mark at a point; sent twice with the same key, it is kept once. */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  try {
    const runId = await routeId(params);
    const { mark, ...entry } = markSchema.parse(await request.json());
    const { id, savedAt } = await act((tx, actor) => keepMark(tx, actor, runId, { ...entry, kind: mark }));
    return Response.json({ id, savedClock: showClock(savedAt) }, { status: 201 });
  } catch (error) {
    return problemOfBody(error);
  }
}
