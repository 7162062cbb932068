/**
 * What a job keeps of its instrument: what it was called, where it was and how it hung on its process. The register may
 * say otherwise later; the job's pages and documents go on saying what was so when it was done.
 */
import { z } from 'zod';
import type { Queryable } from '../db/database';
import { keysWith, type RegisterField } from '../registers/fields';
import {
  INSTRUMENT_FIELDS,
  type CopiedField,
  type Instrument,
  type NewInstrument,
} from '../registers/instrument';
import { findInstrument } from '../registers/instruments';

const COPIED = keysWith(INSTRUMENT_FIELDS, 'isCopied') as CopiedField[];

export type InstrumentCopy = Readonly<Pick<NewInstrument, CopiedField>>;

/** A copy is read as loosely as it can be: what the register asks today was not asked when it was made. */
function looseOf(key: CopiedField): z.ZodType {
  const field: RegisterField = INSTRUMENT_FIELDS[key];
  if (field.read === 'list') return z.array(z.string()).default([]);
  return typeof field.read === 'object' ? z.enum(Object.values(field.read)) : z.string().default('');
}

const copySchema = z.object(Object.fromEntries(COPIED.map((key) => [key, looseOf(key)])));
export const instrumentCopySchema = copySchema as unknown as z.ZodType<InstrumentCopy>;

export const copyOf = (instrument: Instrument): InstrumentCopy => instrumentCopySchema.parse(instrument);

/** What the register says today where the copy says something else. */
export interface Since {
  readonly name: CopiedField;
  readonly today: string;
}

const words = (value: string | readonly string[]): string =>
  typeof value === 'string' ? value : value.join(', ');

export const changedSince = (copy: InstrumentCopy, register: Instrument): Since[] =>
  COPIED.filter((name) => words(copy[name]) !== words(register[name])).map((name) => ({
    name,
    today: words(register[name]),
  }));

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
