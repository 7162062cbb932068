/** Visits of the past two years and jobs in hand, walked through the store as a technician would. */
import { HOOK_UPS, type ValveMove } from '@barys/core/hookup';
import type { SignalRange } from '@barys/core/signal';
import { decimalsForResolution, formatFixed, resolutionForSpan } from '@barys/core/text';
import { makeTransmitter, type SimulatedTransmitter } from '@barys/rig/transmitter';
import type { Queryable } from '@barys/store/db';
import {
  beginAsLeft,
  connectJob,
  CONNECT_CHECKS,
  decideOnRun,
  finishRun,
  keepMove,
  loadJob,
  logAdjustment,
  openJob,
  passAsked,
  questionsAt,
  reviewJob,
  signJob,
  asFoundRun,
  type AskingStage,
  type ValveStage,
} from '@barys/store/jobs';
import type { Actor } from '@barys/store/people';
import { listReferences, type Reference, type Instrument } from '@barys/store/registers';
import {
  rankReferences,
  saveReading,
  evaluateStoredRun,
  fitOf,
  measuresSide,
  type Fit,
  type RunKind,
  type Side,
} from '@barys/store/runs';
import type { Dayjs } from 'dayjs';
import { randomUUID } from 'node:crypto';

export interface DemoInstrument {
  readonly tag: string;
  readonly zeroErrorPercent: number;
  readonly spanErrorPercent: number;
  readonly driftPercentPerVisit: number;
  readonly hysteresisPercent: number;
  readonly openAt?: string;
}

/** A clock that a visit moves on as it works. */
export interface Visit {
  readonly instrument: DemoInstrument;
  readonly personId: number;
  readonly reviewerId: number;
  readonly start: Dayjs;
  /** Which visit to this instrument, from 0: the errors drift with it. */
  readonly number: number;
  readonly seed: number;
  /** Where to leave the job, or undefined to sign it. */
  readonly stopAt?: string;
}

/** A little over two years, so that a yearly interval has two visits. */
export const OLDEST_MONTHS = 25;

const RESIDUAL_PERCENT = 0.012;
const NOISE_PERCENT = 0.008;
/** Readings taken of a run that was left in the middle. */
const READINGS_OF_HALF_RUN = 6;
const NONE_BETTER = 'The best of the works; none in date reaches the ratio that is asked for.';

/** What a careful technician of the demo answers. */
const answersAt = (stage: AskingStage | 'connect', instrument: Instrument): Record<string, string> =>
  Object.fromEntries(
    questionsAt(stage, instrument).map(({ key, kind, options, example }) => [
      key,
      kind === 'tick' ? 'done' : kind === 'choice' ? (options?.[0] ?? '') : (example ?? 'as usual'),
    ]),
  );

/** The best standard, or two that share the points where no single one is good enough for all. */
function standardsFor(
  references: readonly Reference[],
  instrument: Instrument,
  best: Fit,
  today: string,
): { readonly first: Fit; readonly second: Fit | null } {
  if (best.unfit === null) return { first: best, second: null };
  const all = references.filter((reference) => measuresSide(reference, instrument, 'input'));
  const fit = (one: Reference, other: Reference) => fitOf(one, instrument, 'input', { today }, other);
  for (const one of all)
    for (const other of all) {
      const [first, second] = [fit(one, other), fit(other, one)];
      if (one !== other && first.unfit === null && second.unfit === null) return { first, second };
    }
  return { first: best, second: null };
}

const inputDecimals = ({ lrv, urv }: SignalRange): number =>
  decimalsForResolution(resolutionForSpan(urv - lrv));

/** A line that loses a little, as each does. */
const leakOf = (range: SignalRange, seed: number) => ({
  startText: formatFixed(range.urv, inputDecimals(range)),
  endText: formatFixed(range.urv - (range.urv - range.lrv) * 0.00005 * (seed % 4), inputDecimals(range)),
  minutes: 2,
});

export async function makeVisit(tx: Queryable, visit: Visit): Promise<void> {
  const { instrument, number } = visit;
  let minutes = 0;
  const actor = (): Actor => {
    const at = visit.start.add((minutes += 2), 'minute');
    return { personId: visit.personId, at: at.toDate(), today: at.format('YYYY-MM-DD') };
  };
  const jobId = await openJob(tx, actor(), instrument.tag, 'due');
  const job = await loadJob(tx, jobId);
  const pass = (stage: AskingStage) =>
    passAsked(tx, actor(), jobId, stage, { given: answersAt(stage, job.instrument), skipReason: '' });
  const { isolate, restore } = HOOK_UPS[job.instrument.hookUp];
  const turn = async (stage: ValveStage, moves: readonly ValveMove[], before: number) => {
    for (const [index, move] of moves.entries())
      await keepMove(tx, actor(), jobId, { ...move, stage, isMadeAnyway: false, known: before + index });
  };
  await pass('brief');
  if (visit.stopAt === 'authorise') return;
  await pass('authorise');
  if (visit.stopAt === 'isolate') return turn('isolate', isolate.slice(0, 1), 0);
  await turn('isolate', isolate, 0);
  await pass('isolate');
  if (visit.stopAt === 'connect') return;
  const range = job.instrument.configuration;
  await connectVisit(tx, actor, jobId, job.instrument, visit);
  const faulty = makeTransmitter(
    range,
    {
      zeroErrorPercent: instrument.zeroErrorPercent + number * instrument.driftPercentPerVisit,
      spanErrorPercent: instrument.spanErrorPercent,
      hysteresisPercent: instrument.hysteresisPercent,
      noisePercent: NOISE_PERCENT,
    },
    visit.seed,
  );
  await climb(
    tx,
    actor,
    jobId,
    'as-found',
    faulty,
    visit.stopAt === 'as-found' ? READINGS_OF_HALF_RUN : Infinity,
  );
  if (visit.stopAt === 'as-found') return;
  await finishRun(tx, actor(), jobId, 'as-found');
  if (visit.stopAt === 'judge') return;

  const found = asFoundRun(await loadJob(tx, jobId));
  if (found !== null && evaluateStoredRun(found).verdict === 'within') {
    await decideOnRun(tx, actor(), jobId, { decision: 'leave', note: '' });
  } else {
    await decideOnRun(tx, actor(), jobId, { decision: 'adjust', note: '' });
    if (visit.stopAt === 'adjust') return turnSpan(tx, actor(), jobId, range, faulty);
    const trimmed = await adjustVisit(tx, actor, jobId, { instrument: job.instrument, faulty, visit });
    await beginAsLeft(tx, actor(), jobId);
    await climb(tx, actor, jobId, 'as-left', trimmed, Infinity);
    await finishRun(tx, actor(), jobId, 'as-left');
  }
  if (visit.stopAt === 'return') return;
  await turn('return', restore, isolate.length);
  await pass('return');
  if (visit.stopAt === 'sign') return;
  await signJob(tx, actor(), jobId, { remark: '', password: '' });
  if (visit.stopAt === 'review') return;
  await reviewJob(tx, { ...actor(), personId: visit.reviewerId }, jobId, {
    isAccepted: true,
    remark: '',
    password: '',
  });
}

/** The best standards there are, a tight line, and all that is asked before the first point. */
async function connectVisit(
  tx: Queryable,
  actor: () => Actor,
  jobId: number,
  instrument: Instrument,
  visit: Visit,
): Promise<void> {
  const references = await listReferences(tx);
  const chosenAt = actor().today;
  const best = (side: Side): Fit => {
    const [fit] = rankReferences(references, instrument, side, { today: chosenAt });
    if (fit === undefined) throw new Error(`the demo has no reference for the ${side} of ${instrument.tag}`);
    return fit;
  };
  const meter = best('output');
  const { first, second } = standardsFor(references, instrument, best('input'), chosenAt);
  const isWeak = first.unfit !== null || meter.unfit !== null;
  await connectJob(tx, actor(), jobId, {
    pressureReference: first.reference.id,
    meter: meter.reference.id,
    ambient: {
      temperatureC: 21 + (visit.seed % 5),
      humidityPercent: 45 + (visit.seed % 12),
      barometerHpa: 1006 + (visit.seed % 15),
    },
    checksDone: CONNECT_CHECKS,
    referenceReason: isWeak ? NONE_BETTER : '',
    secondReference: second?.reference.id ?? null,
    leak: leakOf(instrument.configuration, visit.seed),
    place: visit.seed % 5 === 0 ? 'at the bench' : 'on site',
    heightM: 0,
    liquidDensityKgPerM3: 0,
    readsDigital: false,
    secondIndication: '',
    given: answersAt('connect', instrument),
    note: '',
  });
}

/** A first turn of the span screw, past its aim by what zero will take back; zero is still to be set. */
function turnSpan(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  range: SignalRange,
  faulty: SimulatedTransmitter,
): Promise<void> {
  const before = faulty.read(range.urv, 'up');
  return logAdjustment(tx, actor, jobId, {
    kind: 'span',
    description: '',
    atAppliedText: formatFixed(range.urv, inputDecimals(range)),
    beforeText: formatFixed(before, 3),
    afterText: formatFixed(before - (range.outputHigh - range.outputLow) * 0.0094, 3),
  });
}

/** Zero and span are set; what is left are the residuals of careful work. */
async function adjustVisit(
  tx: Queryable,
  actor: () => Actor,
  jobId: number,
  { instrument, faulty, visit }: { instrument: Instrument; faulty: SimulatedTransmitter; visit: Visit },
): Promise<SimulatedTransmitter> {
  const { configuration: range, body } = instrument;
  const isSmart = body.technology === 'smart';
  const trimmed = makeTransmitter(
    range,
    {
      zeroErrorPercent: RESIDUAL_PERCENT,
      spanErrorPercent: -RESIDUAL_PERCENT,
      hysteresisPercent: visit.instrument.hysteresisPercent,
      noisePercent: NOISE_PERCENT,
    },
    visit.seed + 1,
  );
  const show = (transmitter: SimulatedTransmitter, applied: number) =>
    formatFixed(transmitter.read(applied, 'up'), 3);
  for (const [kind, applied] of [
    [isSmart ? 'sensor trim' : 'zero', range.lrv],
    [isSmart ? 'sensor trim' : 'span', range.urv],
  ] as const)
    await logAdjustment(tx, actor(), jobId, {
      kind,
      description: '',
      atAppliedText: formatFixed(applied, inputDecimals(range)),
      beforeText: show(faulty, applied),
      afterText: show(trimmed, applied),
    });
  return trimmed;
}

async function climb(
  tx: Queryable,
  actor: () => Actor,
  jobId: number,
  kind: RunKind,
  transmitter: SimulatedTransmitter,
  most: number,
): Promise<void> {
  const run = (await loadJob(tx, jobId)).runs.filter((one) => one.kind === kind).at(-1);
  if (run === undefined) throw new Error(`job ${jobId} has no ${kind} run`);
  const decimals = inputDecimals(run.madeWith.configuration);
  for (const point of run.madeWith.points.filter(({ position }) => position <= most))
    await saveReading(tx, actor(), run.id, {
      position: point.position,
      clientKey: randomUUID(),
      appliedText: formatFixed(point.nominalApplied, decimals),
      appliedAs: 'set',
      outputText: formatFixed(transmitter.read(point.nominalApplied, point.direction), 3),
      supersedes: null,
    });
}

/** Starts of the visits that make an instrument due on a day, the oldest first, over two years back. */
export function pastVisits(now: Dayjs, dueOn: Dayjs, intervalMonths: number): Dayjs[] {
  const starts: Dayjs[] = [];
  const oldest = now.subtract(OLDEST_MONTHS, 'month');
  for (
    let start = dueOn.subtract(intervalMonths, 'month');
    start.isAfter(oldest);
    start = start.subtract(intervalMonths, 'month')
  )
    starts.unshift(start.hour(9).minute(10));
  return starts;
}
