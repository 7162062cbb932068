/**
 * What a job keeps of its instrument: what it was called, where it was and how it hung on its process. The register may
 * say otherwise later; the job's pages and documents go on saying what was so when it was done.
 */
import { ARRANGEMENTS } from '@barys/core/hookup';
import { PRESSURE_KINDS } from '@barys/core/units';
import { z } from 'zod';
import type { Queryable } from '../db/database';
import { CRITICALITIES, findInstrument, MEASURES, type Instrument } from '../registers/instruments';

export const instrumentCopySchema = z.object({
  tag: z.string(),
  serial: z.string(),
  service: z.string(),
  description: z.string(),
  site: z.string(),
  area: z.string(),
  loop: z.string(),
  criticality: z.enum(CRITICALITIES),
  hazards: z.array(z.string()),
  measures: z.enum(MEASURES),
  kind: z.enum(PRESSURE_KINDS),
  hookUp: z.enum(ARRANGEMENTS),
});
export type InstrumentCopy = z.infer<typeof instrumentCopySchema>;

export const copyOf = (instrument: Instrument): InstrumentCopy => instrumentCopySchema.parse(instrument);

/** What the register says today where the copy says something else. */
export interface Since {
  readonly name: keyof InstrumentCopy;
  readonly today: string;
}

const words = (value: string | readonly string[]): string =>
  typeof value === 'string' ? value : value.join(', ');

export const changedSince = (copy: InstrumentCopy, register: Instrument): Since[] =>
  (Object.keys(instrumentCopySchema.shape) as (keyof InstrumentCopy)[])
    .filter((name) => words(copy[name]) !== words(register[name]))
    .map((name) => ({ name, today: words(register[name]) }));

/**
 * The instrument of a job: the register's entry with what the job keeps of it in its place.
 * @throws StoreError `no-such`
 */
export async function instrumentOfJob(db: Queryable, jobId: number): Promise<Instrument> {
  const [job] = await db.query<{ instrumentId: number; copy: unknown }>(
    'select instrument_id as "instrumentId", instrument_copy as copy from job where id = $1',
    [jobId],
  );
  const instrument = await findInstrument(db, { id: job?.instrumentId ?? 0 });
  return { ...instrument, ...instrumentCopySchema.parse(job?.copy) };
}

/**
 * Makes the copy anew, so that it says what the register says now.
 * @param keepsHookUp whether valves were moved on the arrangement that it names
 */
export async function copyInstrument(
  tx: Queryable,
  jobId: number,
  instrumentId: number,
  keepsHookUp: boolean,
): Promise<void> {
  const now = copyOf(await findInstrument(tx, { id: instrumentId }));
  const copy = keepsHookUp ? { ...now, hookUp: (await instrumentOfJob(tx, jobId)).hookUp } : now;
  await tx.query('update job set instrument_copy = $2 where id = $1 and instrument_copy <> $2', [
    jobId,
    JSON.stringify(copy),
  ]);
}
