/**
 * Zero and span screws that pull on each other: y = b (x + c) + z, x the share of the input span. The zero screw moves both
 * ends alike, the span screw moves zero by r = c / (1 + c) of what it moves full scale (common practice; linear algebra).
 * What the passes say of r is added up by Bayes' rule to what is usual of such instruments, each weighed by what is uncertain
 * of it, so that a small move, which tells little, moves the estimate little.
 */
import { CoreError, requireFinite, requireNotNegative, requirePositive } from '../errors';

export type Screw = 'zero' | 'span';

/** A screw turned at its own end of the range: zero at the low one, span at the high one. Output unit. */
export interface ScrewMove {
  readonly screw: Screw;
  readonly before: number;
  readonly after: number;
}

/** A value at one end of the range and at the other, output unit. */
export type Ends = readonly [low: number, high: number];

export interface ScrewSituation {
  /** What the output should be at both ends. */
  readonly targets: Ends;
  /** What it was before the first move. */
  readonly found: Ends;
  readonly moves: readonly ScrewMove[];
  /** What is read now at an end, before its screw is turned. */
  readonly now?: { readonly at: Screw; readonly reading: number } | undefined;
  /** Standard deviation of one reading, output unit. */
  readonly noise: number;
  /** How near to its target each end is to come, output unit. */
  readonly tolerance: number;
}

export interface Coupling {
  readonly value: number;
  /** Standard uncertainty. */
  readonly uncertainty: number;
}

export interface NextSetting {
  readonly screw: Screw;
  /** What to set the reading to, output unit. */
  readonly setTo: number;
  /** What it will stand at once the other screw is set. */
  readonly willStandAt: number;
}

export interface ScrewAdvice {
  /** Null where nothing is to be turned. */
  readonly next: NextSetting | null;
  readonly state: 'go on' | 'done' | 'useless';
  /** How much the span screw moves zero for what it moves full scale. */
  readonly spanOnZero: Coupling;
  /** How much the zero screw moves full scale for what it moves zero. */
  readonly zeroOnSpan: Coupling;
  /** Where the pivot of the span lies; null where a span move shifts both ends alike. */
  readonly pivot: number | null;
  /** Coarse while the coupling is too uncertain to end with the next two settings. */
  readonly phase: 'coarse' | 'fine';
  /** Settings still to make, as far as can be told. */
  readonly settingsLeft: number;
  /** Settings made so far; two are a pass. */
  readonly settingsMade: number;
  /** By how much both ends are believed to be off their targets. */
  readonly off: Ends;
}

/** Pivots of 0 to 0.4 are usual, so r lies about here; wide enough that one good pass overrules it. From memory. */
const USUAL_SPAN_ON_ZERO: Coupling = { value: 0.15, uncertainty: 0.15 };
const USUAL_ZERO_ON_SPAN: Coupling = { value: 1, uncertainty: 0.03 };

/** No linkage moves one end by more than this times the other. */
const FARTHEST = 20;

/** Adds what a move of `by` shifted at the other end to what is believed of the coupling. */
function learnt(coupling: Coupling, by: number, shifted: number, noise: number): Coupling {
  // Two readings make the shift, and two more the move itself.
  const variance = 2 * noise ** 2 * (1 + coupling.value ** 2);
  const precision = by ** 2 / Math.max(variance, Number.MIN_VALUE);
  const before = 1 / coupling.uncertainty ** 2;
  // A move that is small beside what shifted tells nothing: something else has moved.
  if (!(Math.abs(shifted) <= FARTHEST * Math.abs(by)) || by === 0) return coupling;
  // Without noise one look is the whole truth.
  if (!Number.isFinite(precision)) return { value: shifted / by, uncertainty: 0 };
  if (coupling.uncertainty === 0) return coupling;
  const sum = before + precision;
  return {
    value: (before * coupling.value + precision * (shifted / by)) / sum,
    uncertainty: 1 / Math.sqrt(sum),
  };
}

interface Believed {
  readonly ends: Ends;
  readonly spanOnZero: Coupling;
  readonly zeroOnSpan: Coupling;
  /** Moved at the other end since this end was last read. */
  readonly sinceLow: number;
  readonly sinceHigh: number;
  /** What each end was when it was last read. */
  readonly read: Ends;
}

function sees(so: Believed, at: Screw, reading: number, noise: number): Believed {
  return at === 'zero'
    ? {
        ...so,
        spanOnZero: learnt(so.spanOnZero, so.sinceLow, reading - so.read[0], noise),
        ends: [reading, so.ends[1]],
        read: [reading, so.read[1]],
        sinceLow: 0,
      }
    : {
        ...so,
        zeroOnSpan: learnt(so.zeroOnSpan, so.sinceHigh, reading - so.read[1], noise),
        ends: [so.ends[0], reading],
        read: [so.read[0], reading],
        sinceHigh: 0,
      };
}

function turns(so: Believed, { screw, before, after }: ScrewMove): Believed {
  const by = after - before;
  return screw === 'zero'
    ? {
        ...so,
        ends: [after, so.ends[1] + so.zeroOnSpan.value * by],
        read: [after, so.read[1]],
        sinceHigh: so.sinceHigh + by,
      }
    : {
        ...so,
        ends: [so.ends[0] + so.spanOnZero.value * by, after],
        read: [so.read[0], after],
        sinceLow: so.sinceLow + by,
      };
}

function believe({ found, moves, now, noise }: ScrewSituation): Believed {
  let so: Believed = {
    ends: found,
    read: found,
    spanOnZero: USUAL_SPAN_ON_ZERO,
    zeroOnSpan: USUAL_ZERO_ON_SPAN,
    sinceLow: 0,
    sinceHigh: 0,
  };
  for (const move of moves) so = turns(sees(so, move.screw, move.before, noise), move);
  return now === undefined ? so : sees(so, now.at, now.reading, noise);
}

/** What both screws have still to move at their own end: e0 + d + r D = 0 and e1 + q d + D = 0. */
export function movesLeft(
  [atLow, atHigh]: Ends,
  spanOnZero: number,
  zeroOnSpan: number,
): { readonly zero: number; readonly span: number } | null {
  const determinant = 1 - zeroOnSpan * spanOnZero;
  if (Math.abs(determinant) < 1e-6) return null;
  const span = (zeroOnSpan * atLow - atHigh) / determinant;
  return { span, zero: -atLow - spanOnZero * span };
}

/** Below this many standard deviations a difference is no difference. */
const IN_THE_NOISE = 2;
/** From here on passes that gained nothing are enough. */
const MOST_SETTINGS = 12;

function check({ targets, found, moves, now, noise, tolerance }: ScrewSituation): void {
  requireNotNegative('The scatter of a reading', noise, 'noise');
  requirePositive('How near the ends are to come', tolerance, 'tolerance');
  for (const [name, ends] of [
    ['targets', targets],
    ['found', found],
  ] as const)
    ends.forEach((value, i) => requireFinite('A reading', value, `${name}.${i}`));
  if (targets[0] === targets[1])
    throw new CoreError({ code: 'zero-span', name: 'The output', value: targets[0] }, 'targets');
  moves.forEach(({ before, after }, i) => {
    requireFinite('A reading', before, `moves.${i}.before`);
    requireFinite('A reading', after, `moves.${i}.after`);
  });
  if (now !== undefined) requireFinite('A reading', now.reading, 'now.reading');
}

/**
 * Where to set the next reading, from the passes so far. The span is set beyond its target by what the zero that follows
 * takes back, or zero short of its own by what the span that follows adds, so that the two settings end at the targets.
 * @throws CoreError `not-finite`, `negative`, `not-positive`, `zero-span`
 */
export function adviseScrews(situation: ScrewSituation): ScrewAdvice {
  check(situation);
  const { targets, moves, now, noise, tolerance } = situation;
  const so = believe(situation);
  const errors: Ends = [so.ends[0] - targets[0], so.ends[1] - targets[1]];
  const left = movesLeft(errors, so.spanOnZero.value, so.zeroOnSpan.value);
  const r = so.spanOnZero.value;
  const common = {
    spanOnZero: so.spanOnZero,
    zeroOnSpan: so.zeroOnSpan,
    pivot: Math.abs(1 - r) < 1e-6 ? null : r / (1 - r),
    settingsMade: moves.length,
    off: errors,
  };
  const stop = (state: 'done' | 'useless'): ScrewAdvice => ({
    ...common,
    state,
    next: null,
    phase: 'fine',
    settingsLeft: 0,
  });
  const largest = Math.max(Math.abs(errors[0]), Math.abs(errors[1]));
  if (largest <= tolerance * (1 + 1e-9)) return stop('done');
  // Past this, what is turned after is the scatter of the readings and not the instrument.
  if (moves.length > 1 && (largest <= IN_THE_NOISE * noise || moves.length >= MOST_SETTINGS))
    return stop('useless');
  if (left === null) return stop('useless');
  const needsZero = Math.abs(left.zero) > tolerance / 2;
  const needsSpan = Math.abs(left.span) > tolerance / 2;
  // With both to set and nothing known, span first: its move tells the coupling before zero is set.
  const turn = now?.at ?? (moves.at(-1)?.screw === 'span' ? 'zero' : 'span');
  const screw: Screw = needsZero && needsSpan ? turn : needsSpan || !needsZero ? 'span' : 'zero';
  const isTwo = needsZero && needsSpan;
  const end = screw === 'zero' ? 0 : 1;
  const other = screw === 'zero' ? r * left.span : so.zeroOnSpan.value * left.zero;
  // What the other screw will move here, left standing for it.
  const setTo = targets[end] - (isTwo ? other : 0);
  const doubt = so.spanOnZero.uncertainty * Math.abs(left.span);
  const phase = doubt > tolerance ? 'coarse' : 'fine';
  return {
    ...common,
    state: 'go on',
    next: { screw, setTo, willStandAt: targets[end] },
    phase,
    settingsLeft: isTwo ? (phase === 'coarse' ? 3 : 2) : phase === 'coarse' && screw === 'span' ? 2 : 1,
  };
}

/** Plain alternation: a pass sets zero to its target and then the span to its own, until zero is found within the tolerance. */
export interface Alternation {
  /** What each pass leaves of the zero error. */
  readonly ratio: number;
  /** The first pass after which zero stands; null where none ever is. */
  readonly passes: number | null;
  /** Error of zero after each of some passes, output unit. */
  readonly zeroAfter: readonly number[];
}

/**
 * What setting each end to its target in turn comes to, without looking ahead.
 * @param errors as found, output unit
 * @param pivot c of the model
 */
export function plainAlternation(errors: Ends, pivot: number, tolerance: number, count = 6): Alternation {
  const ratio = pivot / (1 + pivot);
  // Once zero is set, the span is off by the difference; its correction shifts zero by c times the correction's share.
  const first = -ratio * (errors[1] - errors[0]);
  const zeroAfter = Array.from({ length: count }, (_, pass) => first * ratio ** pass);
  const isThere = Math.max(Math.abs(errors[0]), Math.abs(errors[1])) <= tolerance;
  if (isThere) return { ratio, passes: 0, zeroAfter };
  if (Math.abs(ratio) >= 1) return { ratio, passes: null, zeroAfter };
  let [pass, zero] = [1, first];
  for (; Math.abs(zero) > tolerance * (1 + 1e-9); pass += 1) zero *= ratio;
  return { ratio, passes: pass, zeroAfter };
}

/** What a turn of each screw moves at the ends, output unit. */
export interface TurnEffects {
  readonly zeroPerTurn: number;
  readonly spanPerTurnAtLow: number;
  readonly spanPerTurnAtHigh: number;
}

/**
 * Turns of both screws that take both errors away at once.
 * @throws CoreError `undefined-result` where the screws do the same
 */
export function turnsFor(
  { zeroPerTurn, spanPerTurnAtLow, spanPerTurnAtHigh }: TurnEffects,
  [atLow, atHigh]: Ends,
): { readonly zero: number; readonly span: number } {
  const width = spanPerTurnAtHigh - spanPerTurnAtLow;
  if (zeroPerTurn === 0 || width === 0)
    throw new CoreError({
      code: 'undefined-result',
      name: 'The number of turns',
      why: 'a screw that moves nothing, or both ends alike, sets no span',
    });
  const span = (atLow - atHigh) / width;
  return { zero: -(atLow + spanPerTurnAtLow * span) / zeroPerTurn + 0, span };
}
