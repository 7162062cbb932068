/**
 * Which item of a loop is wrong, from what was measured at some taps, how sure that is, and which tap decides most.
 *
 * One item at most is wrong (the usual case). A sound item is off by its tolerance at two standard deviations, all the same way
 * wherever it is read; a wrong one by any zero and gain of usual size. What is measured is then normal under each hypothesis, and
 * Bayes' rule weighs them; more parameters spread the same probability over more readings, so that they punish themselves. The
 * next tap is the one whose reading is expected to take away most of the entropy of what is believed (textbook statistics;
 * sizes of faults are common practice, from memory).
 */
import { CoreError, requirePositive } from '../errors';
import { solve } from '../normal';
import { slope } from '../signal/transfer';
import { tapsOf, wayTo, type LoopItem } from './chain';

export interface TapReading {
  /** Place of the item at whose output it was read. */
  readonly item: number;
  /** What was applied at the input of the loop, in its unit. */
  readonly applied: number;
  readonly value: number;
  /** Standard uncertainty of the reading, in the unit of the tap. */
  readonly uncertainty: number;
}

export interface Suspicion {
  /** Place of the item that is wrong; null where none is. */
  readonly item: number | null;
  readonly probability: number;
  /** What it would be off by in the middle of the readings, per cent of its output span, and how sure that is. */
  readonly offPercent: number | null;
  readonly uncertaintyPercent: number | null;
}

export interface NextTap {
  readonly item: number;
  /** What it is expected to take away of the doubt, bits. */
  readonly bits: number;
}

export interface Diagnosis {
  /** The likeliest first. */
  readonly suspicions: readonly Suspicion[];
  /** Doubt that is left, bits. */
  readonly doubt: number;
  /** Taps that were not measured, the one that decides most first. */
  readonly next: readonly NextTap[];
  /** What was read less what was expected, per cent of the span at the tap, in the order of the readings. */
  readonly errors: readonly number[];
}

/** A priori: three loops in four that are looked at have something wrong; each item as likely as another. */
const SOUND_PRIOR = 0.25;
/** Usual size of what is wrong: standard deviation of a zero and of a gain, per cent of span. */
const FAULT_PERCENT = 4;

type Vector = readonly number[];

const dot = (a: Vector, b: Vector): number => a.reduce((sum, value, i) => sum + value * (b[i] ?? 0), 0);

/** How one reading sees each item: the slope of all behind it, and where on its scale the item stood. */
interface Sight {
  readonly error: number;
  readonly noise: number;
  /** By item: sensitivity (none where it is not on the way), and share of the item's output, from its middle. */
  readonly sees: readonly (readonly [sensitivity: number, share: number])[];
}

function sightOf(
  items: readonly LoopItem[],
  { item: at, applied, value, uncertainty }: TapReading,
  place: number,
): Sight {
  const item = items[at];
  if (item === undefined)
    throw new CoreError(
      { code: 'missing', name: 'The tap', why: 'the loop has no such item' },
      `readings.${place}.item`,
    );
  requirePositive('The uncertainty of a reading', uncertainty, `readings.${place}.uncertainty`);
  const taps = tapsOf(items, applied);
  const span = item.output.high - item.output.low;
  const sees = items.map((): [number, number] => [0, 0]);
  let through = 1;
  for (const one of [...wayTo(items, at)].reverse()) {
    const here = items[one] as LoopItem;
    const share = ((taps[one] ?? 0) - here.output.low) / (here.output.high - here.output.low);
    sees[one] = [through, share - 0.5];
    const given = here.from === null ? applied : (taps[here.from] ?? 0);
    const before = here.from === null ? here.input : (items[here.from]?.output ?? here.input);
    const part = (given - here.input.low) / (here.input.high - here.input.low);
    // The first on the way has nothing before it, so that its slope is not asked for: it may be a root at no flow.
    if (here.from !== null)
      through *=
        (slope(here.transfer, part) * (before.high - before.low)) / (here.input.high - here.input.low);
  }
  return {
    error: ((value - (taps[at] ?? 0)) / span) * 100,
    noise: Math.abs(uncertainty / span) * 100,
    sees,
  };
}

/** Covariance of the readings where one item, or none, is wrong; per cent of span squared. */
function covarianceOf(
  items: readonly LoopItem[],
  sights: readonly Sight[],
  wrong: number | null,
): number[][] {
  return sights.map((a, i) =>
    sights.map((b, j) => {
      let sum = i === j ? a.noise ** 2 : 0;
      items.forEach(({ tolerancePercent }, item) => {
        const [[sa, pa], [sb, pb]] = [a.sees[item] ?? [0, 0], b.sees[item] ?? [0, 0]];
        const sound = (tolerancePercent / 2) ** 2;
        const fault = item === wrong ? FAULT_PERCENT ** 2 * (1 + pa * pb) : 0;
        sum += sa * sb * (sound + fault);
      });
      return sum;
    }),
  );
}

const hypotheses = (items: readonly LoopItem[]): readonly (number | null)[] => [
  null,
  ...items.map((_one, i) => i),
];
const priorOf = (items: readonly LoopItem[], wrong: number | null): number =>
  wrong === null ? SOUND_PRIOR : (1 - SOUND_PRIOR) / items.length;

/** Probabilities of the hypotheses from logarithms of their weights. */
function normalised(logs: readonly number[]): number[] {
  const most = Math.max(...logs);
  const weights = logs.map((log) => Math.exp(log - most));
  const sum = weights.reduce((total, one) => total + one, 0);
  return weights.map((one) => one / sum);
}

const entropy = (probabilities: readonly number[]): number =>
  probabilities.reduce((sum, p) => (p > 0 ? sum - p * Math.log2(p) : sum), 0);

const GRID = 121;
const REACH = 6;

/** What a reading at a tap is expected to take away of the doubt: by the mixture of what each hypothesis expects there. */
function bitsOf(
  items: readonly LoopItem[],
  sights: readonly Sight[],
  beliefs: readonly number[],
  candidate: Sight,
): number {
  const errors = sights.map(({ error }) => error);
  const expected = hypotheses(items).map((wrong) => {
    const all = covarianceOf(items, [...sights, candidate], wrong);
    const size = sights.length;
    const known = all.slice(0, size).map((row) => row.slice(0, size));
    const cross = all[size]?.slice(0, size) ?? [];
    const weight = size === 0 ? [] : solve(known, cross).x;
    return {
      mean: dot(weight, errors),
      sd: Math.sqrt(Math.max(1e-12, (all[size]?.[size] ?? 0) - dot(weight, cross))),
    };
  });
  const low = Math.min(...expected.map(({ mean, sd }) => mean - REACH * sd));
  const high = Math.max(...expected.map(({ mean, sd }) => mean + REACH * sd));
  // Fine where the narrowest stands: both a wide grid and one round each mean.
  const places = new Set<number>();
  for (let i = 0; i < GRID; i += 1) places.add(low + ((high - low) * i) / (GRID - 1));
  for (const { mean, sd } of expected) for (let i = -12; i <= 12; i += 1) places.add(mean + (i / 2) * sd);
  const grid = [...places].sort((a, b) => a - b);
  let left = 0;
  let mass = 0;
  grid.forEach((at, i) => {
    const width = ((grid[i + 1] ?? at) - (grid[i - 1] ?? at)) / 2;
    const parts = expected.map(
      ({ mean, sd }, k) => ((beliefs[k] ?? 0) * Math.exp(-(((at - mean) / sd) ** 2) / 2)) / sd,
    );
    const sum = parts.reduce((total, one) => total + one, 0);
    if (sum <= 0) return;
    left += sum * width * entropy(parts.map((one) => one / sum));
    mass += sum * width;
  });
  return Math.max(0, entropy(beliefs) - (mass > 0 ? left / mass : entropy(beliefs)));
}

/**
 * Which item is wrong.
 * @param nextAt what would be applied for the next reading, in the input unit; where it was read last where nothing is said
 * @param nextUncertainty standard uncertainty of such a reading, per cent of the span at its tap
 * @throws CoreError as `tapsOf`; `missing` for a tap that the loop does not have; `not-positive` for an uncertainty of nothing;
 *   `undefined-result` where a root at no flow hides what stands before it
 */
export function diagnose(
  items: readonly LoopItem[],
  readings: readonly TapReading[],
  nextAt: number | null = readings.at(-1)?.applied ?? null,
  nextUncertainty = 0.05,
): Diagnosis {
  requirePositive('The uncertainty of the next reading', nextUncertainty, 'nextUncertainty');
  const sights = readings.map((reading, place) => sightOf(items, reading, place));
  const errors = sights.map(({ error }) => error);
  const solved = hypotheses(items).map((wrong) => {
    const covariance = covarianceOf(items, sights, wrong);
    const { x, logDeterminant } = solve(covariance, errors);
    return { wrong, x, log: Math.log(priorOf(items, wrong)) - (dot(errors, x) + logDeterminant) / 2 };
  });
  const beliefs = normalised(solved.map(({ log }) => log));
  const suspicions = solved
    .map(({ wrong, x }, i): Suspicion => {
      const probability = beliefs[i] ?? 0;
      if (wrong === null) return { item: null, probability, offPercent: null, uncertaintyPercent: null };
      const seen = sights.map(({ sees }) => sees[wrong]?.[0] ?? 0);
      if (seen.every((one) => one === 0))
        return { item: wrong, probability, offPercent: null, uncertaintyPercent: null };
      // What it is off by in the middle of its scale: its zero, by the normal equations of the same model.
      const variance = FAULT_PERCENT ** 2 + ((items[wrong]?.tolerancePercent ?? 0) / 2) ** 2;
      const cross = seen.map((one) => one * variance);
      const { x: weight } = solve(covarianceOf(items, sights, wrong), cross);
      return {
        item: wrong,
        probability,
        offPercent: dot(cross, x),
        uncertaintyPercent: Math.sqrt(Math.max(0, variance - dot(cross, weight))),
      };
    })
    .sort((a, b) => b.probability - a.probability);
  const measured = new Set(readings.filter(({ applied }) => applied === nextAt).map(({ item }) => item));
  const next =
    nextAt === null
      ? []
      : items
          .flatMap((one, item): NextTap[] => {
            if (measured.has(item)) return [];
            const uncertainty = (nextUncertainty / 100) * Math.abs(one.output.high - one.output.low);
            const value = tapsOf(items, nextAt)[item] ?? 0;
            const candidate = sightOf(items, { item, applied: nextAt, value, uncertainty }, readings.length);
            return [{ item, bits: bitsOf(items, sights, beliefs, candidate) }];
          })
          .sort((a, b) => b.bits - a.bits);
  return { suspicions, doubt: entropy(beliefs), next, errors };
}
