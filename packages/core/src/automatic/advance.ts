/**
 * The automatic run: at each moment it looks at what is seen and says what to do. It keeps no clock and opens no connection, so
 * that the same run goes in a test, at a simulated bench and at a real one. It never reads what is not settled, not fresh, or
 * come to from the wrong side; what it cannot do by itself it holds, and says why. Common practice.
 */
import { isSettled, type Sample } from '../procedure';
import { NAMUR_LIMITS } from '../signal';
import { formatSignificant } from '../text';
import type { Plan, PlannedStop, Seen, Value } from './plan';

export type Why = 'by hand' | 'overshot' | 'not settled' | 'leak' | 'end of range' | 'alarm' | 'no contact';

/**
 * Where it stands at a point: away from it to come from the right side, on its way, near it, waiting, ready to be taken by
 * whoever works the pressure; or not going on.
 */
export const PHASES = [
  'backing off',
  'approaching',
  'closing in',
  'settling',
  'ready',
  'held',
  'finished',
] as const;
export type Phase = (typeof PHASES)[number];

export interface AutoState {
  readonly phase: Phase;
  /** Of the stop in hand, from 0; their number when it is finished. */
  readonly index: number;
  /** When the stop and the phase were begun, s. */
  readonly begunS: number;
  readonly phaseS: number;
  /** When the reference was near the point, and within its band, for the first time, s; null before. */
  readonly nearS: number | null;
  readonly arrivedS: number | null;
  readonly references: readonly Sample[];
  readonly outputs: readonly Sample[];
  /** Of each tap, in the order of the plan. */
  readonly taps: readonly (readonly Sample[])[];
  /** Since when something could not be read, s; null where all can. */
  readonly blindS: number | null;
  readonly held: { readonly why: Why; readonly words: string } | null;
  /** Whether it stands still after each point, until it is told to go on. */
  readonly isStepping: boolean;
  /** Whether whoever works the pressure wants the point taken as soon as it stands. */
  readonly isWanted: boolean;
}

export type Act =
  | { readonly kind: 'set'; readonly pressure: number; readonly ratePerS: number }
  | { readonly kind: 'hold' }
  | { readonly kind: 'vent' };

/** A point that is read: both were stable, and fresh. */
export interface Taken {
  readonly position: number;
  readonly reference: Value;
  readonly output: Value;
  readonly digital: Value | null;
  /** In the order of the plan. */
  readonly taps: readonly Value[];
}

export interface Step {
  readonly state: AutoState;
  readonly act: Act | null;
  readonly taken: Taken | null;
  /** Seconds that are left at least until the point can be read; null while nobody knows. */
  readonly leftS: number | null;
}

export const begin = (index: number, s: number, isStepping = false): AutoState => ({
  phase: 'approaching',
  index,
  begunS: s,
  phaseS: -Infinity,
  nearS: null,
  arrivedS: null,
  references: [],
  outputs: [],
  taps: [],
  blindS: null,
  held: null,
  isStepping,
  isWanted: false,
});

/** The last part of the way is gone more slowly, so that nothing goes past the point. */
const CLOSE_PERCENT = 2;
const CLOSE_RATE = 0.4;
/** From here the output is given its time to follow: what is left of the way is no step any more. */
const NEAR_ENOUGH_PERCENT = 1;
/** How far it goes back to come from the right side. */
const BACK_PERCENT = 8;
/** A reference this near an end of its range can no longer be trusted to follow, per cent of its range. */
const END_PERCENT = 0.05;
/** Samples that come seldom still have to cover the time that they stand for, s. */
const LEAST_KEPT_S = 10;
/** Without a value for as long as this, nobody knows what is at the other end. */
const BLIND_S = 10;

const wayOf = ({ direction }: PlannedStop): 1 | -1 => (direction === 'up' ? 1 : -1);
const share = (percent: number, span: number): number => (percent / 100) * span;

const still = (state: AutoState, leftS: number | null = null): Step => ({
  state,
  act: null,
  taken: null,
  leftS,
});

const hold = (state: AutoState, why: Why, words: string): Step => ({
  state: { ...state, phase: 'held', held: { why, words } },
  // What is under pressure stays as it is until somebody has looked.
  act: { kind: 'hold' },
  taken: null,
  leftS: null,
});

const enter = (state: AutoState, phase: Phase, seen: Seen, act: Act | null): Step => ({
  state: { ...state, phase, phaseS: seen.s },
  act,
  taken: null,
  leftS: null,
});

/** An instrument that says that something is wrong with it; null where none does. */
function failure(plan: Plan, state: AutoState, seen: Seen): Step | null {
  if (seen.alarm !== null) return hold(state, 'alarm', seen.alarm);
  if (!plan.isCurrent || seen.output === null) return null;
  const { value } = seen.output;
  return value <= NAMUR_LIMITS.failureLow || value >= NAMUR_LIMITS.failureHigh
    ? hold(state, 'alarm', `The output stands at ${formatSignificant(value, 4)} mA and says failure.`)
    : null;
}

/** What must not be gone on with; null where nothing is in the way. */
function obstacle(plan: Plan, stop: PlannedStop, state: AutoState, seen: Seen): Step | null {
  const failed = failure(plan, state, seen);
  if (failed !== null) return failed;
  const { low, high } = plan.reference;
  const margin = share(END_PERCENT, high - low);
  if (stop.applied > high + 1e-9 * (high - low) || stop.applied < low - 1e-9 * (high - low))
    return hold(
      state,
      'end of range',
      `The point at ${formatSignificant(stop.applied, 6)} ${plan.unit} lies beyond the range of the reference.`,
    );
  const isNearEnd =
    seen.reference !== null &&
    ((seen.reference.value > high - margin && stop.applied < high - margin) ||
      (seen.reference.value < low + margin && stop.applied > low + margin && state.arrivedS !== null));
  if (isNearEnd) return hold(state, 'end of range', 'The reference stands at the end of its range.');
  if (seen.s - state.begunS > plan.patienceS + plan.settle.waitS + plan.settle.holdS)
    return notSettled(plan, stop, state);
  return null;
}

/** What did not come to rest, and how. */
function notSettled(plan: Plan, stop: PlannedStop, state: AutoState): Step {
  const at = `${formatSignificant(stop.applied, 6)} ${plan.unit}`;
  if (state.arrivedS === null)
    return hold(
      state,
      'not settled',
      `The pressure does not come to ${at}. Look at the supply, and for a leak.`,
    );
  const band = share(plan.settle.bandPercent, plan.inputSpan);
  const values = state.references.map(({ value }) => value);
  const wanders = values.length > 0 && Math.max(...values) - Math.min(...values) > band;
  return hold(
    state,
    'not settled',
    `At ${at} the ${wanders ? 'pressure' : 'output'} does not come to rest in its time.`,
  );
}

const isFresh = (plan: Plan, seen: Seen, value: Value | null): value is Value =>
  value !== null && Number.isFinite(value.value) && seen.s - value.s <= plan.staleS && value.s <= seen.s + 1;

/** What is read at the taps; null where one of them gives nothing. */
function freshTaps(plan: Plan, seen: Seen): readonly Value[] | null {
  const values = (plan.taps ?? []).map((_tap, i) => seen.taps?.[i] ?? null);
  const fresh = values.filter((value): value is Value => isFresh(plan, seen, value));
  return fresh.length === values.length ? fresh : null;
}

/** Whether all taps stand, as the output has to. */
const areTapsStill = (plan: Plan, { taps, phaseS }: AutoState, seen: Seen, waitS: number): boolean =>
  (plan.taps ?? []).every(
    ({ span }, i) =>
      seen.taps?.[i]?.isStable !== false &&
      isSettled(
        (taps[i] ?? []).filter(({ s }) => s >= phaseS),
        { waitS, holdS: plan.settle.holdS, band: share(plan.settle.bandPercent, span) },
      ),
  );

/** Samples of as long as they are looked at; one that was seen before is the same one. */
function withSample(samples: readonly Sample[], value: Value, keepS: number): readonly Sample[] {
  const last = samples.at(-1);
  if (last !== undefined && value.s <= last.s) return samples;
  return [...samples.filter(({ s }) => s >= value.s - keepS), { s: value.s, value: value.value }];
}

/**
 * One look. Called as often as values come, ten times a second to once in two.
 * @throws CoreError for a plan that cannot be judged, as `isSettled`
 */
export function advance(plan: Plan, state: AutoState, seen: Seen): Step {
  const step = look(plan, state, seen);
  // What a person works is watched, and neither set, shut in nor vented.
  return plan.isByHand ? { ...step, act: null } : step;
}

function look(plan: Plan, state: AutoState, seen: Seen): Step {
  const stop = plan.stops[state.index];
  if (stop === undefined || state.phase === 'finished')
    return state.phase === 'finished'
      ? still(state)
      : enter({ ...state, held: null }, 'finished', seen, { kind: 'vent' });
  if (state.phase === 'held') return still(state);
  const { reference, output } = seen;
  const taps = freshTaps(plan, seen);
  if (!isFresh(plan, seen, reference) || !isFresh(plan, seen, output) || taps === null) {
    const blindS = state.blindS ?? seen.s;
    // Nothing that was seen before the gap says anything of what stands still now.
    const blind = { ...state, blindS, references: [], outputs: [], taps: [] };
    return seen.s - blindS > BLIND_S
      ? hold(
          blind,
          'no contact',
          `${isFresh(plan, seen, reference) ? (isFresh(plan, seen, output) ? 'A tap of the loop' : 'The output') : 'The reference'} gives no value.`,
        )
      : still(blind);
  }
  const keepS = Math.max(2 * plan.settle.holdS, plan.settle.waitS + plan.settle.holdS + 2, LEAST_KEPT_S);
  const now: AutoState = {
    ...state,
    blindS: null,
    references: withSample(state.references, reference, keepS),
    outputs: withSample(state.outputs, output, keepS),
    taps: taps.map((tap, i) => withSample(state.taps[i] ?? [], tap, keepS)),
  };
  const fresh = { reference, output };
  if (plan.isByHand) return failure(plan, now, seen) ?? watch(plan, stop, now, seen, fresh);
  return obstacle(plan, stop, now, seen) ?? goOn(plan, stop, now, seen, fresh);
}

function goOn(
  plan: Plan,
  stop: PlannedStop,
  state: AutoState,
  seen: Seen,
  fresh: { readonly reference: Value; readonly output: Value },
): Step {
  const way = wayOf(stop);
  const rate = share(plan.approach.ratePercentPerS, plan.inputSpan);
  const close = share(CLOSE_PERCENT, plan.inputSpan);
  const band = share(plan.settle.bandPercent, plan.inputSpan);
  const past = (fresh.reference.value - stop.applied) * way;
  const set = (pressure: number, ratePerS: number): Act => ({ kind: 'set', pressure, ratePerS });
  const within = (pressure: number): number =>
    Math.min(plan.reference.high, Math.max(plan.reference.low, pressure));
  switch (state.phase) {
    case 'approaching': {
      const target = within(stop.applied - way * close);
      if (past > share(plan.approach.overshootPercent, plan.inputSpan) && canBackOff(plan, stop))
        return enter(
          state,
          'backing off',
          seen,
          set(within(stop.applied - way * share(BACK_PERCENT, plan.inputSpan)), rate),
        );
      if (past >= -close * 1.25)
        return enter(state, 'closing in', seen, set(stop.applied, rate * CLOSE_RATE));
      return state.phaseS === -Infinity ? enter(state, 'approaching', seen, set(target, rate)) : still(state);
    }
    case 'backing off':
      return past <= -close
        ? enter(state, 'closing in', seen, set(stop.applied, rate * CLOSE_RATE))
        : still(state);
    case 'closing in': {
      const isNear = Math.abs(past) <= share(NEAR_ENOUGH_PERCENT, plan.inputSpan);
      const near = { ...state, nearS: state.nearS ?? (isNear ? seen.s : null) };
      if (Math.abs(past) > band / 2) return overshoot(plan, stop, near, past) ?? still(near);
      return enter({ ...near, arrivedS: state.arrivedS ?? seen.s }, 'settling', seen, null);
    }
    case 'settling':
      return settle(plan, stop, state, seen, { ...fresh, past, band });
    case 'ready':
    case 'held':
    case 'finished':
      return still(state);
  }
}

/** A point at the end of what the reference can do is come to from the one side that it has. */
const canBackOff = ({ reference, inputSpan }: Plan, stop: PlannedStop): boolean => {
  const back = stop.applied - wayOf(stop) * share(CLOSE_PERCENT, inputSpan);
  return back >= reference.low && back <= reference.high;
};

function overshoot(plan: Plan, stop: PlannedStop, state: AutoState, past: number): Step | null {
  if (past <= share(plan.approach.overshootPercent, plan.inputSpan)) return null;
  if (!canBackOff(plan, stop) && state.phase !== 'settling') return null;
  return hold(
    state,
    'overshot',
    `The pressure went past ${formatSignificant(stop.applied, 6)} ${plan.unit} by ${formatSignificant((past / plan.inputSpan) * 100, 2)} % of span: the point has to be come to again from the right side.`,
  );
}

/** How far it has to fall away from where it had arrived to be a leak, in bands. */
const LEAK_BANDS = 2;

function settle(
  plan: Plan,
  stop: PlannedStop,
  state: AutoState,
  seen: Seen,
  {
    reference,
    output,
    past,
    band,
  }: { readonly reference: Value; readonly output: Value; readonly past: number; readonly band: number },
): Step {
  const tooFar = overshoot(plan, stop, state, past);
  if (tooFar !== null) return tooFar;
  const lost = (stop.applied - reference.value) * Math.sign(stop.applied);
  if (lost > LEAK_BANDS * band)
    return hold(
      state,
      'leak',
      `The pressure falls away from ${formatSignificant(stop.applied, 6)} ${plan.unit} where it had arrived: look for a leak.`,
    );
  const { holdS, bandPercent } = plan.settle;
  const outputBand = share(bandPercent, plan.outputSpan);
  const lookedAtS = outputCountsFrom(state, plan.settle);
  const since = (samples: readonly Sample[]) => samples.filter(({ s }) => s >= state.phaseS);
  const isReferenceStill =
    reference.isStable !== false &&
    Math.abs(past) <= band / 2 &&
    isSettled(since(state.references), { waitS: state.phaseS, holdS, band });
  const isOutputStill =
    output.isStable !== false &&
    isSettled(since(state.outputs), { waitS: lookedAtS, holdS, band: outputBand });
  if (!isReferenceStill || !isOutputStill || !areTapsStill(plan, state, seen, lookedAtS))
    return still(state, Math.max(0, lookedAtS + holdS - seen.s));
  return take(plan, stop, state, seen, { reference, output });
}

/** A person comes no nearer to a point than this, per cent of span; what was applied is read, and judged as it was. */
const NEAR_PERCENT = 5;

/** A person works the pressure: it is seen whether it stands, near which point, and taken when that is wanted. */
function watch(
  plan: Plan,
  stop: PlannedStop,
  state: AutoState,
  seen: Seen,
  fresh: { readonly reference: Value; readonly output: Value },
): Step {
  const { waitS, holdS, bandPercent } = plan.settle;
  const isNear = Math.abs(fresh.reference.value - stop.applied) <= share(NEAR_PERCENT, plan.inputSpan);
  if (!isNear) return state.phase === 'approaching' ? still(state) : enter(state, 'approaching', seen, null);
  if (state.phase === 'approaching') return enter(state, 'settling', seen, null);
  const since = (samples: readonly Sample[]) => samples.filter(({ s }) => s >= state.phaseS);
  // The pressure stands for as long as the damping takes to follow, the output for the time that it has to stand.
  const isStill =
    fresh.reference.isStable !== false &&
    fresh.output.isStable !== false &&
    isSettled(since(state.references), {
      waitS: state.phaseS,
      holdS: waitS + holdS,
      band: share(bandPercent, plan.inputSpan),
    }) &&
    isSettled(since(state.outputs), {
      waitS: state.phaseS,
      holdS,
      band: share(bandPercent, plan.outputSpan),
    }) &&
    areTapsStill(plan, state, seen, state.phaseS);
  if (!isStill) return still({ ...state, phase: 'settling' });
  if (!state.isWanted) return still({ ...state, phase: 'ready' });
  return take(plan, stop, state, seen, fresh);
}

/**
 * From when on the output has to stand. Its damping is given its time from when the pressure was near, since the step was over
 * then. What was left of the way, at most 1 % of span, has to fall to a hundredth of itself by the time of the reading, which
 * takes two thirds of the time in which a whole step falls to a thousandth (ln 100 / ln 1000); the time that it stands counts.
 */
const outputCountsFrom = (
  { nearS, phaseS }: Pick<AutoState, 'nearS' | 'phaseS'>,
  { waitS, holdS }: Plan['settle'],
): number => Math.max((nearS ?? phaseS) + waitS, phaseS + Math.max(0, (2 / 3) * waitS - holdS));

function take(
  plan: Plan,
  stop: PlannedStop,
  state: AutoState,
  seen: Seen,
  { reference, output }: { readonly reference: Value; readonly output: Value },
): Step {
  const digital = isFresh(plan, seen, seen.digital) ? seen.digital : null;
  const next = begin(state.index + 1, seen.s, state.isStepping);
  const isLast = next.index === plan.stops.length;
  const waits = state.isStepping && !isLast;
  return {
    state: waits
      ? { ...next, phase: 'held', held: { why: 'by hand', words: 'It waits after each point.' } }
      : isLast
        ? { ...next, phase: 'finished', phaseS: seen.s }
        : next,
    act: isLast ? { kind: 'vent' } : null,
    taken: { position: stop.position, reference, output, digital, taps: freshTaps(plan, seen) ?? [] },
    leftS: null,
  };
}
