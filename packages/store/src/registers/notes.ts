/** What the workshop found out about an instrument: notes, and offsets that were entered hot. */
import { z } from 'zod';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import type { Actor } from '../people/actor';
import { requireWorker } from '../people/people';
import { findInstrument } from './instruments';
import { requireOpenJob } from './open-job';

/** As long as an address can get that a browser still asks for: a strapping table, or a loop of twenty items. */
const LONGEST_ADDRESS = 14_000;

/** Where it was worked out, with what was typed there. */
const addressLike = (pattern: RegExp, of: string) =>
  z
    .string()
    .max(LONGEST_ADDRESS, 'What is typed here is too long to go with a note. Keep the CSV instead.')
    .refine((text) => text === '' || pattern.test(text), `The address is one of ${of}.`);

export const noteSchema = z.object({
  text: z.string().trim().min(1, 'A note says something.').max(2000, 'At most 2000 characters, please.'),
  address: addressLike(
    /^\/(workshop\/|instruments\/[^/?]+\/set-up(\?|$))/,
    'the workshop or of a set-up walk',
  ),
});

export interface InstrumentNote {
  readonly id: number;
  readonly text: string;
  readonly address: string;
  readonly madeBy: string;
  readonly madeAt: Date;
}

/** @throws StoreError `no-such`, `unknown-person`, `not-allowed` */
export async function addNote(
  tx: Queryable,
  actor: Actor,
  tag: string,
  note: z.infer<typeof noteSchema>,
): Promise<void> {
  await requireWorker(tx, actor);
  const { id } = await findInstrument(tx, { tag });
  await tx.query(
    'insert into instrument_note (instrument_id, text, address, made_by, made_at) values ($1, $2, $3, $4, $5)',
    [id, note.text, note.address, actor.personId, actor.at],
  );
  await appendToTrail(tx, actor, { act: 'note', subject: { kind: 'instrument', id }, detail: { ...note } });
}

/** Notes on an instrument, the newest first. */
export const notesOf = (db: Queryable, instrumentId: number, limit: number): Promise<InstrumentNote[]> =>
  db.query<InstrumentNote>(
    `select id, text, address, name_at(made_by, made_at) as "madeBy", made_at as "madeAt"
     from instrument_note where instrument_id = $1 order by instrument_note.id desc limit $2`,
    [instrumentId, limit],
  );

const figure = (name: string) => z.number({ error: `${name} is a number.` });

export const biasSchema = z.object({
  /** Per cent of the range of the level. */
  biasPercent: figure('The bias'),
  pressurePa: figure('The pressure of the drum').positive(
    'The pressure of the drum is absolute and above zero.',
  ),
  glassPercent: figure('What the glass shows'),
  shownPercent: figure('What the transmitter shows'),
  explainedPercent: figure('What the densities explain'),
  unexplainedPercent: figure('What is left'),
  reason: z.string().trim().min(1, 'Say why a bias is entered: it stays with it.').max(500),
  address: addressLike(/^\/workshop\//, 'the workshop'),
});
export type NewBias = z.infer<typeof biasSchema>;

export interface Bias extends Readonly<NewBias> {
  readonly id: number;
  readonly jobId: number | null;
  readonly madeBy: string;
  readonly madeAt: Date;
}

/**
 * Keeps a bias with the pressure and the level at which it is right.
 * @param jobId the hot check in which it was found; null outside of one
 * @throws StoreError `no-such`, `wrong-stage`, `unknown-person`, `not-allowed`
 */
export async function keepBias(
  tx: Queryable,
  actor: Actor,
  tag: string,
  jobId: number | null,
  bias: NewBias,
): Promise<void> {
  await requireWorker(tx, actor);
  const instrument = await findInstrument(tx, { tag });
  const { id } = instrument;
  if (jobId !== null) await requireOpenJob(tx, jobId, instrument);
  await tx.query(
    `insert into bias (instrument_id, job_id, bias_percent, pressure_pa, glass_percent, shown_percent,
       explained_percent, unexplained_percent, reason, address, made_by, made_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12)`,
    [
      id,
      jobId,
      bias.biasPercent,
      bias.pressurePa,
      bias.glassPercent,
      bias.shownPercent,
      bias.explainedPercent,
      bias.unexplainedPercent,
      bias.reason,
      bias.address,
      actor.personId,
      actor.at,
    ],
  );
  await appendToTrail(tx, actor, {
    act: 'enter bias',
    subject: jobId === null ? { kind: 'instrument', id } : { kind: 'job', id: jobId },
    detail: { tag, ...bias },
  });
}

const BIAS_SQL = `
  select id, job_id as "jobId", bias_percent as "biasPercent", pressure_pa as "pressurePa",
       glass_percent as "glassPercent", shown_percent as "shownPercent", explained_percent as "explainedPercent",
       unexplained_percent as "unexplainedPercent", reason, address, name_at(made_by, made_at) as "madeBy",
       made_at as "madeAt"
  from bias`;

/** Biases of an instrument, the one in force first. */
export const biasesOf = (db: Queryable, instrumentId: number, limit: number): Promise<Bias[]> =>
  db.query<Bias>(`${BIAS_SQL} where instrument_id = $1 order by bias.id desc limit $2`, [
    instrumentId,
    limit,
  ]);

/** Biases that were entered in a job, in order. */
export const biasesOfJob = (db: Queryable, jobId: number): Promise<Bias[]> =>
  db.query<Bias>(`${BIAS_SQL} where job_id = $1 order by bias.id`, [jobId]);
