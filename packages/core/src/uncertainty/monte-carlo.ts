/**
 * Propagation of distributions by Monte Carlo (JCGM 101:2008, from memory), for models that the law of propagation does
 * not fit, such as a square root near zero. The number of trials is given, or grows until the results are stable to
 * two digits of the standard uncertainty (7.9). Runs in blocks and yields after each, so that a worker can report
 * progress and stop; a seed makes it repeatable.
 */
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { CoreError, requireBetween, requireWhole } from '../errors';
import { blockEvaluator } from '../formula';
import { checkedModel, type BudgetModel } from './budget';
import { correlationMatrix } from './correlation';
import { drawOf, fillNormal, type Draw } from './draw';
import { standardUncertainties } from './input';
import { coverageIntervals, type Interval } from './interval';

export interface MonteCarloOptions {
  readonly seed: number;
  readonly probability?: number | undefined;
  /** A fixed number, or as many as stability takes, up to `mostTrials`. */
  readonly trials?: number | 'adaptive' | undefined;
  readonly mostTrials?: number | undefined;
}

export interface MonteCarloResult {
  readonly trials: number;
  readonly seed: number;
  readonly probability: number;
  readonly mean: number;
  readonly sd: number;
  readonly symmetric: Interval;
  readonly shortest: Interval;
  /** Whether an adaptive run met its tolerance; null of a fixed number of trials. */
  readonly isStable: boolean | null;
  /** Counts of the results in even classes over `histogramRange`, for a picture. */
  readonly histogram: readonly number[];
  readonly histogramRange: Interval;
}

export interface Progress {
  readonly done: number;
  /** The most that may be needed. */
  readonly of: number;
}

/** One block of an adaptive run (JCGM 101, 7.9.4 b). */
const BLOCK = 10000;
/** Fewer blocks may agree by chance; JCGM 101 asks for two. */
const LEAST_BLOCKS = 10;
const COLUMN = 2000;
const MOST_TRIALS = 10_000_000;
const CLASSES = 60;

function normalColumns(
  stated: BudgetModel,
  names: readonly string[],
  random: ReturnType<typeof xoroshiro128plus>,
  inputs: readonly { readonly estimate: number; readonly u: number }[],
  columns: readonly Float64Array[],
): ((count: number) => void) | null {
  const correlations = (stated.correlations ?? []).filter(({ r }) => r !== 0);
  const { factor } = correlationMatrix(names, stated.correlations ?? []);
  if (correlations.length === 0) return null;
  const correlated = new Set(correlations.flatMap(({ a, b }) => [a, b]));
  for (const input of stated.inputs) {
    const { kind } = input.distribution;
    if (correlated.has(input.name) && kind !== 'normal' && kind !== 'normal-95' && kind !== 'standard')
      throw new CoreError(
        {
          code: 'no-correlation-matrix',
          why: `the trials draw correlated inputs together as normal ones, and ${input.name} is ${kind}`,
        },
        'correlations',
      );
  }
  const picked = names.flatMap((name, index) => (correlated.has(name) ? [index] : []));
  const raw = picked.map(() => new Float64Array(COLUMN));
  return (count) => {
    raw.forEach((column) => fillNormal(random, column, count));
    picked.forEach((index) => {
      const [column, { estimate, u }] = [columns[index], inputs[index] ?? { estimate: 0, u: 0 }];
      if (column === undefined) return;
      column.fill(estimate, 0, count);
      picked.forEach((other, place) => {
        const weight = u * (factor[index]?.[other] ?? 0);
        const source = raw[place];
        if (weight === 0 || source === undefined) return;
        for (let i = 0; i < count; i += 1) column[i] = (column[i] as number) + weight * (source[i] as number);
      });
    });
  };
}

/** Fills stretches of a result array with trials. */
function trialsOf(
  stated: BudgetModel,
  seed: number,
): (values: Float64Array, from: number, to: number) => void {
  const formula = checkedModel(stated);
  const names = stated.inputs.map(({ name }) => name);
  const inputs = standardUncertainties(stated.inputs);
  const random = xoroshiro128plus(seed);
  const columns = names.map(() => new Float64Array(COLUMN));
  const correlated = normalColumns(stated, names, random, inputs, columns);
  const isCorrelated = (name: string) =>
    (stated.correlations ?? []).some(({ a, b, r }) => r !== 0 && (a === name || b === name));
  const draws: (Draw | null)[] = stated.inputs.map((input, index) => {
    const figures = inputs[index];
    return figures === undefined || isCorrelated(input.name) ? null : drawOf(random, input, figures);
  });
  const used = formula.names.map((name) => columns[names.indexOf(name)] ?? new Float64Array(COLUMN));
  const evaluate = blockEvaluator(formula, used, COLUMN);
  return (values, from, to) => {
    for (let start = from; start < to; start += COLUMN) {
      const count = Math.min(COLUMN, to - start);
      draws.forEach((draw, index) => {
        const column = columns[index];
        if (column !== undefined) draw?.(column, count);
      });
      correlated?.(count);
      values.set(evaluate(count).subarray(0, count), start);
    }
  };
}

function moments(values: Float64Array): { mean: number; sd: number } {
  let sum = 0;
  for (let i = 0; i < values.length; i += 1) sum += values[i] as number;
  const mean = sum / values.length;
  if (!Number.isFinite(mean))
    throw new CoreError(
      {
        code: 'undefined-result',
        name: 'The formula',
        why: 'some trials divide by zero or take the root of a negative number; max(x, 0) keeps them out',
      },
      'model',
    );
  let squares = 0;
  for (let i = 0; i < values.length; i += 1) squares += ((values[i] as number) - mean) ** 2;
  return { mean, sd: Math.sqrt(squares / (values.length - 1)) };
}

/** Half a unit in the second significant digit of the standard uncertainty (JCGM 101, 7.9.2). */
const numericalTolerance = (sd: number): number => 0.5 * 10 ** (Math.floor(Math.log10(sd)) - 1);

/** Four figures of each block, whose means over the blocks have to stand still. */
class Stability {
  private readonly sums = [0, 0, 0, 0];
  private readonly squares = [0, 0, 0, 0];
  private blocks = 0;
  private sd = 0;

  add(block: Float64Array, probability: number): void {
    const { mean, sd } = moments(block);
    const { symmetric } = coverageIntervals(block, probability);
    this.blocks += 1;
    this.sd += sd;
    [mean, sd, symmetric.low, symmetric.high].forEach((figure, i) => {
      this.sums[i] = (this.sums[i] ?? 0) + figure;
      this.squares[i] = (this.squares[i] ?? 0) + figure ** 2;
    });
  }

  isReached(): boolean {
    const h = this.blocks;
    if (h < LEAST_BLOCKS) return false;
    const tolerance = numericalTolerance(this.sd / h);
    return this.sums.every((sum, i) => {
      const variance = Math.max(0, ((this.squares[i] ?? 0) - sum ** 2 / h) / (h - 1) / h);
      return 2 * Math.sqrt(variance) <= tolerance;
    });
  }
}

function histogramOf(values: Float64Array, { low, high }: Interval): number[] {
  const counts = new Array<number>(CLASSES).fill(0);
  const width = (high - low) / CLASSES;
  if (!(width > 0)) return counts;
  for (let i = 0; i < values.length; i += 1) {
    const place = Math.floor(((values[i] as number) - low) / width);
    const count = counts[place];
    if (count !== undefined) counts[place] = count + 1;
  }
  return counts;
}

/**
 * Runs the trials; yields its progress after every block and returns the result.
 * @throws CoreError as `uncertaintyBudget`, and `not-whole`, `too-many`, `undefined-result`
 */
export function* monteCarlo(
  stated: BudgetModel,
  { seed, probability = 0.95, trials = 'adaptive', mostTrials = 1_000_000 }: MonteCarloOptions,
): Generator<Progress, MonteCarloResult> {
  requireBetween('The coverage probability', probability, [0.5, 0.9999, ''], 'probability');
  requireWhole('The seed', seed, 0, 'seed');
  const isAdaptive = trials === 'adaptive';
  const most = isAdaptive ? mostTrials : trials;
  requireWhole('The number of trials', most, BLOCK, 'trials');
  if (most > MOST_TRIALS)
    throw new CoreError({ code: 'too-many', name: 'Trials', count: most, most: MOST_TRIALS }, 'trials');
  const fill = trialsOf(stated, seed);
  const all = new Float64Array(most);
  const stability = new Stability();
  let done = 0;
  let isStable = false;
  while (done < most && !isStable) {
    const to = Math.min(most, done + BLOCK);
    fill(all, done, to);
    if (isAdaptive) {
      stability.add(all.subarray(done, to), probability);
      isStable = stability.isReached();
    }
    done = to;
    yield { done, of: most };
  }
  const values = all.subarray(0, done);
  const { mean, sd } = moments(values);
  const intervals = coverageIntervals(values, probability);
  const histogramRange = { low: mean - 4 * sd, high: mean + 4 * sd };
  return {
    trials: done,
    seed,
    probability,
    mean,
    sd,
    ...intervals,
    isStable: isAdaptive ? isStable : null,
    histogram: histogramOf(values, histogramRange),
    histogramRange,
  };
}

/** Runs a generator such as `monteCarlo` to its end at once. */
export function runToEnd<R>(steps: Generator<unknown, R>): R {
  for (;;) {
    const next = steps.next();
    if (next.done === true) return next.value;
  }
}
