/** What is changed at an instrument over a link, in a job: only while nothing follows its loop, and never without a trace. */
import { guardsAt, type GuardedAct } from '@barys/core/adjust';
import { digitalWords, unitWords, type InstrumentAct, type ReadSetup } from '@barys/core/port';
import { formatSignificant, parseTyped } from '@barys/core/text';
import { isPressureUnit } from '@barys/core/units';
import { z } from 'zod';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import { logAdjustment, refuseAtAtmosphere } from '../jobs/adjust';
import type { AdjustmentKind } from '../jobs/adjustment-kinds';
import { guardedJob, isLoopFree } from '../jobs/guards';
import { lockJobAt } from '../jobs/move';
import type { Actor } from '../people/actor';
import { requireWorker } from '../people/people';
import { findSite } from '../people/site';
import { findInstrument } from '../registers/instruments';
import { AWAY_MS, type Bench } from './benches';
import { addRequest, type RequestOfJob } from './requests';
import { thereAt, whyStrange } from './there';

const figure = (name: string) => z.number({ error: `${name} is a number.` });
const unit = z.string().refine(isPressureUnit, 'This is no unit of pressure.');

/** `InstrumentAct` of the core, with what an instrument could ever take. */
export const instrumentActSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('zero trim') }),
  z.object({
    kind: z.literal('output trim'),
    at: z.union([z.literal(4), z.literal(20)]),
    measured: figure('What was measured')
      .min(3, 'What was measured is a current near 4 or 20 mA.')
      .max(22, 'What was measured is a current near 4 or 20 mA.'),
  }),
  z.object({
    kind: z.literal('fixed current'),
    milliamp: figure('The current')
      .min(3.5, 'A loop is fixed between 3.5 and 22.5 mA.')
      .max(22.5, 'A loop is fixed between 3.5 and 22.5 mA.')
      .nullable(),
  }),
  z.object({
    kind: z.literal('damping'),
    seconds: figure('The damping')
      .min(0, 'A damping is not negative.')
      .max(600, 'A damping is at most 600 s.'),
  }),
  z
    .object({ kind: z.literal('range'), lrv: figure('The lower end'), urv: figure('The upper end'), unit })
    .refine(({ lrv, urv }) => lrv !== urv, { path: ['urv'], message: 'A range has a span.' }),
  z.object({ kind: z.literal('unit'), unit }),
  z.object({ kind: z.literal('transfer function'), transfer: z.enum(['linear', 'square-root']) }),
]) satisfies z.ZodType<InstrumentAct>;

export const writeSchema = z.object({
  bench: z.number().int().positive(),
  device: z.string().min(1).max(60),
  /** The number of the instrument that was shown to whoever asks. */
  serial: z.string().min(1).max(40),
  act: instrumentActSchema,
  /** What is applied meanwhile, in the input unit, as typed. */
  atAppliedText: z.string().trim().min(1, 'Say what is applied: the log keeps it.').max(40),
});
export type NewWrite = z.infer<typeof writeSchema>;

const KIND: Readonly<Record<InstrumentAct['kind'], AdjustmentKind>> = {
  'zero trim': 'zero',
  'output trim': 'output trim',
  'fixed current': 'other',
  damping: 'other',
  range: 'other',
  unit: 'other',
  'transfer function': 'other',
};

/** What is changed, as guards know it; null of what no guard looks at. */
const GUARDED_ACT: Readonly<Partial<Record<InstrumentAct['kind'], GuardedAct>>> = {
  'zero trim': 'zero',
  'output trim': 'output trim',
};

/** Whether a reference at the bench says that it does not stand. */
async function isMovingAt(tx: Queryable, bench: number, now: Date): Promise<boolean | null> {
  const [said] = await tx.query<{ isMoving: boolean | null }>(
    `select bool_or(not is_stable) as "isMoving" from bench_value
     where token_id = $1 and channel = 'pressure' and seen_at > $2`,
    [bench, new Date(now.getTime() - AWAY_MS)],
  );
  return said?.isMoving ?? null;
}

/**
 * Wants something changed at an instrument.
 * @throws StoreError `wrong-stage`, `not-writable`, `bench-busy`, `at-atmosphere`, `unknown-person`, `not-allowed`; CoreError for
 *   a text that is no number
 */
export async function askForWrite(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  { bench, device, serial, act, atAppliedText }: NewWrite,
): Promise<number> {
  await requireWorker(tx, actor);
  const { instrumentId } = await lockJobAt(tx, jobId, 'adjust');
  const { value: applied } = parseTyped(atAppliedText);
  const instrument = await findInstrument(tx, { id: instrumentId });
  if (act.kind === 'zero trim') await refuseAtAtmosphere(tx, jobId, instrument, 'zero', applied);
  const refuse = (why: string) => new StoreError({ code: 'not-writable', why });
  if (instrument.configuration.outputUnit !== 'mA') throw refuse('Its output is not a current.');
  if (!(await isLoopFree(tx, jobId)))
    throw refuse('The job does not say that its controller is in manual, or that none uses it.');
  const [there] = await tx.query<Bench & { isBusy: boolean }>(
    `select id, name, exists (select from automatic_run where token_id = api_token.id and ended_at is null) as "isBusy"
     from api_token where id = $1 and scope = 'link' and revoked_at is null and expires_at > $2 for share`,
    [bench, actor.at],
  );
  if (there === undefined) throw new StoreError({ code: 'no-such', what: 'bench', name: bench });
  if (there.isBusy) throw new StoreError({ code: 'bench-busy', bench: there.name });
  const found = (await thereAt(tx, bench, actor.at)).find(
    (one) => one.device === device && one.channel === 'digital value',
  );
  const isDemo = (await findSite(tx))?.isDemo === true;
  const guarded = GUARDED_ACT[act.kind];
  if (guarded !== undefined) {
    const against = guardsAt(await guardedJob(tx, jobId, instrument), guarded, instrument.configuration, {
      applied,
      before: null,
      // A loop that is fixed follows no pressure, so an output trim does not wait for one.
      isMoving: act.kind === 'output trim' ? null : await isMovingAt(tx, bench, actor.at),
    }).find(({ level }) => level === 'refused');
    if (against !== undefined) throw refuse(against.why);
  }
  const why = found === undefined ? `Nothing is heard of ${device}.` : whyStrange(found, null, isDemo);
  if (why !== null) throw refuse(why);
  const id = await addRequest(
    tx,
    actor,
    there,
    device,
    { kind: 'write', act, serial },
    { id: jobId, atAppliedText },
  );
  await appendToTrail(tx, actor, {
    act: 'write to instrument',
    subject: { kind: 'job', id: jobId },
    detail: { request: id, bench: there.name, device, serial, ...act },
  });
  return id;
}

const withUnit = (value: number, of: string): string => `${formatSignificant(value, 6)} ${unitWords(of)}`;

/** What was changed, with how it was before and after. */
export function writeWords(act: InstrumentAct, before: ReadSetup, after: ReadSetup): string {
  const both = (of: (setup: ReadSetup) => string): string => `${of(before)} before, ${of(after)} after`;
  switch (act.kind) {
    case 'zero trim':
      return `Zero trim: digital value ${both(digitalWords)}`;
    case 'output trim':
      return `Output trim at ${act.at} mA: ${formatSignificant(act.measured, 6)} mA was measured`;
    case 'fixed current':
      return act.milliamp === null
        ? 'Its loop current was let go'
        : `Its loop current was fixed at ${formatSignificant(act.milliamp, 5)} mA`;
    case 'damping':
      return `Damping: ${both(({ dampingS }) => `${formatSignificant(dampingS, 4)} s`)}`;
    case 'range':
      return `Range: ${both(({ lrv, urv, unit: of }) => `${formatSignificant(lrv, 6)} to ${withUnit(urv, of)}`)}`;
    case 'unit':
      return `Unit: ${both(({ unit: of }) => unitWords(of))}`;
    case 'transfer function':
      return `Transfer function: ${both(({ transfer }) => transfer ?? 'a curve of its own')}`;
  }
}

/**
 * What came of a change goes into the log of the job, in the name of who asked for it. The output before and after is what the
 * instrument believes it to be.
 * @throws StoreError `wrong-stage` where the job went on meanwhile
 */
export async function logWrite(
  tx: Queryable,
  bench: Bench,
  asked: {
    readonly device: string;
    readonly act: InstrumentAct;
    readonly askedBy: number;
    readonly job: RequestOfJob;
  },
  { before, after }: { readonly before: ReadSetup; readonly after: ReadSetup },
  now: Pick<Actor, 'at' | 'today'>,
): Promise<void> {
  const { act, device, job } = asked;
  const milliamp = (setup: ReadSetup) => setup.milliamp.toFixed(3);
  await logAdjustment(
    tx,
    { personId: asked.askedBy, ...now, via: 'program' },
    job.id,
    {
      kind: KIND[act.kind],
      description: `Over the link of ${bench.name}, ${device}, at ${before.tag || 'an instrument without a tag'}, number ${before.serial}. ${writeWords(act, before, after)}. The output is what it believes.`,
      atAppliedText: job.atAppliedText,
      beforeText: milliamp(before),
      afterText: milliamp(after),
    },
    { link: bench.name, device, serial: before.serial, act },
  );
}
