import { sitDown } from '@barys/store/jobs';
import { z } from 'zod';
import { act } from '@/server/act';
import { showClock } from '@/server/dates';
import { problemOfBody } from '@/server/problem';
import { routeId } from '@/server/routeId';

const schema = z.object({ desk: z.uuid(), isTakingOver: z.boolean().default(false) });

/** Says that a browser is at a job, or whose it is; `isTakingOver` takes it from another one. */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  try {
    const jobId = await routeId(params);
    const entry = schema.parse(await request.json());
    const { isMine, by, since } = await act((tx, actor) => sitDown(tx, actor, jobId, entry));
    return Response.json({ isMine, by, sinceClock: showClock(since) });
  } catch (error) {
    return problemOfBody(error);
  }
}
