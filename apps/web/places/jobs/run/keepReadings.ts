import type { Actor } from '@barys/store/people';
import { saveReading, saveReadings, writingTogether, type WriteReading } from '@barys/store/runs';
import { z } from 'zod';
import { database } from '@/server/database';
import { showClock } from '@/server/dates';
import { readingSchema, readingsSchema } from './schema';

const runNumber = z.coerce.number().int().positive();

/** What is said of a reading that is kept. */
export interface KeptReading {
  readonly id: number;
  readonly savedClock: string;
}

const lineOf = ({ id, savedAt }: { id: number; savedAt: Date }): KeptReading => ({
  id,
  savedClock: showClock(savedAt),
});

/** What comes to this process at once. */
let together: WriteReading | undefined;

/**
 * Keeps one reading, or a list of them, all or none; sent twice with the same key, each is kept once.
 * @param id of the run, as the address has it
 * @throws what `problemOfBody` answers
 */
export async function keepReadings(
  id: string,
  body: () => Promise<unknown>,
  actor: () => Promise<Actor>,
): Promise<KeptReading | KeptReading[]> {
  const runId = runNumber.parse(id);
  const entry = await body();
  const who = await actor();
  if (Array.isArray(entry)) {
    const readings = readingsSchema.parse(entry);
    return (await database().transaction((tx) => saveReadings(tx, who, runId, readings))).map(lineOf);
  }
  const reading = readingSchema.parse(entry);
  const db = database();
  together ??= writingTogether(db);
  return lineOf(await saveReading(db, who, runId, reading, together));
}
