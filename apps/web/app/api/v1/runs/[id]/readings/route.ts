import { saveReading } from '@barys/store/runs';
import { z } from 'zod';
import { readingSchema } from '@/places/jobs/run/schema';
import { act } from '@/server/act';
import { showClock } from '@/server/dates';
import { problemResponse } from '@/server/problem';
import { routeId } from '@/server/routeId';

/** Keeps one reading; sent twice with the same key, it is kept once. */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  try {
    const runId = await routeId(params);
    const entry = readingSchema.parse(await request.json());
    const { id, savedAt } = await act((tx, actor) => saveReading(tx, actor, runId, entry));
    // A line is not worth packing, which would cost more than it takes to send.
    const headers = { 'cache-control': 'no-store, no-transform' };
    return Response.json({ id, savedClock: showClock(savedAt) }, { status: 201, headers });
  } catch (error) {
    return problemResponse(error instanceof SyntaxError ? new z.ZodError([]) : error);
  }
}
