/**
 * The way from what is applied to a tap as one range: linear items on each side of the one that takes a root make a range again, in
 * exact numbers, so that a reading at a tap is judged by the same code as the output of an instrument.
 */
import { CoreError } from '../errors';
import { exact, toNumber, type Exact } from '../exact';
import { judgeReading, type JudgedReading, type RunReading, type Tolerance } from '../run';
import { LINEAR, type SignalRange, type Transfer } from '../signal';
import { tapsOf, toleranceAt, wayTo, type LoopItem } from './chain';

/** a + b x, exact. */
interface Line {
  readonly a: Exact;
  readonly b: Exact;
}

const shareOn = ({ a, b }: Line, { low, high }: LoopItem['input']): Line => {
  const span = exact(high).sub(exact(low));
  return { a: a.sub(exact(low)).div(span), b: b.div(span) };
};
const valueOn = ({ a, b }: Line, { low, high }: LoopItem['output']): Line => {
  const span = exact(high).sub(exact(low));
  return { a: a.mul(span).add(exact(low)), b: b.mul(span) };
};
const at = ({ a, b }: Line, x: Exact): number => toNumber(b.mul(x).add(a));

/**
 * What a tap shows of what is applied, as a range in the units of both.
 * @throws CoreError as `tapsOf`; `undefined-result` where a root, or a table, is taken more than once on the way, or its ends cannot be told apart
 */
export function rangeOfTap(items: readonly LoopItem[], place: number): SignalRange {
  const [first] = wayTo(items, place).map((one) => items[one] as LoopItem);
  if (first === undefined)
    throw new CoreError({ code: 'missing', name: 'The tap', why: 'the loop has no such item' }, 'place');
  tapsOf(items, first.input.low);
  let line: Line = { a: exact(0), b: exact(1) };
  let bent: { readonly transfer: Transfer; readonly lrv: number; readonly urv: number } | null = null;
  for (const one of wayTo(items, place).map((each) => items[each] as LoopItem)) {
    const share = shareOn(line, one.input);
    if (one.transfer.kind === 'linear') {
      line = valueOn(share, one.output);
      continue;
    }
    if (bent !== null) throw noRange(items, place, 'a root is taken more than once on the way');
    bent = {
      transfer: one.transfer,
      lrv: toNumber(share.a.neg().div(share.b)),
      urv: toNumber(exact(1).sub(share.a).div(share.b)),
    };
    line = valueOn({ a: exact(0), b: exact(1) }, one.output);
  }
  const { low, high } = first.input;
  const [lrv, urv] = bent === null ? [low, high] : [bent.lrv, bent.urv];
  const range: SignalRange = {
    lrv,
    urv,
    outputLow: at(line, exact(bent === null ? low : 0)),
    outputHigh: at(line, exact(bent === null ? high : 1)),
    transferFunction: bent?.transfer ?? LINEAR,
  };
  // Ends that lie too far off for their difference to be a number.
  if (range.lrv === range.urv || range.outputLow === range.outputHigh)
    throw noRange(items, place, 'its ends are not to be told apart');
  return range;
}

const noRange = (items: readonly LoopItem[], place: number, why: string): CoreError =>
  new CoreError({ code: 'undefined-result', name: `The range to ${items[place]?.name ?? ''}`, why }, 'items');

/** How the tolerances of a chain come together. */
export const TOLERANCE_SUMS = ['sum', 'root of the sum of squares'] as const;
export type ToleranceSum = (typeof TOLERANCE_SUMS)[number];

/**
 * The limit at a tap where something is applied, per cent of the span of its range; null at no flow behind a root, where the slope
 * of what stands before it has no bound.
 * @throws CoreError as `tapsOf`
 */
export function limitOfTap(
  items: readonly LoopItem[],
  place: number,
  applied: number,
  by: ToleranceSum = 'sum',
): number | null {
  try {
    const { sum, rootSumSquare } = toleranceAt(items, place, applied);
    return by === 'sum' ? sum : rootSumSquare;
  } catch (error) {
    if (error instanceof CoreError && error.problem.code === 'undefined-result') return null;
    throw error;
  }
}

/**
 * Judges what was read at a tap, exact on the limit; null where there is no limit, or the way has no range.
 * @throws CoreError as `tapsOf` and `judgeReading`
 */
export function judgeTap(
  items: readonly LoopItem[],
  place: number,
  reading: RunReading,
  by: ToleranceSum = 'sum',
): JudgedReading | null {
  let percent: number | null;
  let range: SignalRange;
  const item = items[place];
  try {
    range = rangeOfTap(items, place);
    percent = limitOfTap(items, place, reading.applied, by);
  } catch (error) {
    if (error instanceof CoreError && error.problem.code === 'undefined-result') return null;
    throw error;
  }
  if (percent === null || item === undefined) return null;
  // The limit counts in the span of the item; the range to it may be a part of that.
  const own = exact(item.output.high).sub(exact(item.output.low)).abs();
  const whole = exact(range.outputHigh).sub(exact(range.outputLow)).abs();
  const tolerance: Tolerance = {
    terms: [{ kind: 'percent-of-span', percent: toNumber(exact(percent).mul(own).div(whole)) }],
    combine: 'sum',
    domain: 'output',
    adjustAbovePercentOfLimit: 100,
  };
  return judgeReading(range, tolerance, reading, { kind: 'simple' });
}

/**
 * The items from behind one tap up to another as a chain of their own, which reads what stands at the first.
 * @param from place of the tap that it begins behind; null for what is applied
 * @returns the last is the one that was asked for
 * @throws CoreError `missing` where the one does not lie on the way to the other
 */
export function segmentOf(
  items: readonly LoopItem[],
  from: number | null,
  place: number,
): readonly LoopItem[] {
  const way = wayTo(items, place);
  const start = from === null ? 0 : way.indexOf(from) + 1;
  if ((from !== null && start === 0) || start >= way.length)
    throw new CoreError({
      code: 'missing',
      name: `The way to ${items[place]?.name ?? ''}`,
      why: 'the other tap does not lie on it',
    });
  return way.slice(start).map((at, i) => ({ ...(items[at] as LoopItem), from: i === 0 ? null : i - 1 }));
}

export interface TrimEffect {
  /** What the instrument would be off by, per cent of its own span. */
  readonly percent: number;
  /** Every other end of the loop, and what it would then be off by, per cent of its span. */
  readonly others: readonly { readonly place: number; readonly percent: number }[];
}

/**
 * What comes of trimming the instrument until a receiver that is off agrees; null where it does not see the instrument there, or is
 * no end of the loop.
 * @param offPercent what the receiver shows too much, per cent of its span, with the instrument as it is
 * @throws CoreError as `tapsOf`
 */
export function trimEffectOn(
  items: readonly LoopItem[],
  place: number,
  offPercent: number,
  applied: number,
): TrimEffect | null {
  const isEnd = (at: number): boolean => !items.some(({ from }) => from === at);
  const seenFrom = (at: number): number => {
    const [head] = wayTo(items, at);
    return toleranceAt(items, at, applied).contributions.find(({ item }) => item === head)?.sensitivity ?? 0;
  };
  if (items[place]?.from == null || !isEnd(place)) return null;
  try {
    const through = seenFrom(place);
    if (through === 0) return null;
    const percent = -offPercent / through;
    return {
      percent,
      others: items.flatMap((_one, at) =>
        at === place || !isEnd(at) ? [] : [{ place: at, percent: percent * seenFrom(at) }],
      ),
    };
  } catch (error) {
    if (error instanceof CoreError && error.problem.code === 'undefined-result') return null;
    throw error;
  }
}
