import type { Actor } from '@barys/store/people';
import { saveReading, saveReadings } from '@barys/store/runs';
import { z } from 'zod';
import { database } from '@/server/database';
import { showClock } from '@/server/dates';
import { problemResponse } from '@/server/problem';
import { readingSchema, readingsSchema } from './schema';

const runNumber = z.coerce.number().int().positive();

const lineOf = ({ id, savedAt }: { id: number; savedAt: Date }) => ({ id, savedClock: showClock(savedAt) });

/**
 * Keeps one reading, or a list of them, all or none; sent twice with the same key, each is kept once.
 * @param id of the run, as the address has it
 */
export async function keepReadings(
  id: string,
  body: () => Promise<unknown>,
  actor: () => Promise<Actor>,
): Promise<Response> {
  // A line is not worth packing, which would cost more than it takes to send.
  const headers = { 'cache-control': 'no-store, no-transform' };
  try {
    const runId = runNumber.parse(id);
    const entry = await body();
    const who = await actor();
    if (Array.isArray(entry)) {
      const readings = readingsSchema.parse(entry);
      const saved = await database().transaction((tx) => saveReadings(tx, who, runId, readings));
      return Response.json(saved.map(lineOf), { status: 201, headers });
    }
    const reading = readingSchema.parse(entry);
    const saved = await database().transaction((tx) => saveReading(tx, who, runId, reading));
    return Response.json(lineOf(saved), { status: 201, headers });
  } catch (error) {
    return problemResponse(error instanceof SyntaxError ? new z.ZodError([]) : error);
  }
}
