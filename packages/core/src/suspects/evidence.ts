/**
 * How well a suspicion explains what was seen: its evidence, the probability of the readings under it with its parameters
 * integrated over what they usually are. More parameters spread the same probability over more readings, so that they punish
 * themselves: Jeffreys, Theory of Probability (1939), 5; Kass and Raftery, Bayes Factors, JASA 90 (1995) 773, with the integral by
 * Laplace's method (their 4.1), whose large-sample form is the criterion of Schwarz (1978). All from memory.
 */
import { deviance, solve, symmetric, type Symmetric } from '../normal';
import { Forward, soundCondition, seenOf, type Condition, type Seen, type Suspected } from './condition';

/** A parameter, as a function of a standard normal number: so its prior is said once and an optimum has no walls. */
export type Parameter = (u: number) => number;

export interface Variant {
  /** Share among the variants of its suspicion. */
  readonly weight: number;
  readonly parameters: readonly Parameter[];
  readonly condition: (values: readonly number[]) => Partial<Condition>;
  /** What tells it from the others of its suspicion. */
  readonly name?: string;
}

export interface Fit {
  readonly variant: Variant;
  readonly values: readonly number[];
  /** Standard uncertainty of each parameter; null where it has none. */
  readonly uncertainties: readonly number[];
  /** Natural logarithm of its evidence with its weight, but for a constant that is one and the same for all. */
  readonly logEvidence: number;
  readonly condition: Condition;
}

/** Usual sizes in a sound instrument beside its limit (common practice, from memory): standard deviations. */
const USUAL = { zero: 0.25, gain: 0.25, outputZero: 0.1, friction: 0.06, bow: 0.08 } as const;
/** A reading scatters by a part of the limit, and by no less than this; per cent of span. */
const SCATTER_OF_LIMIT = 0.04;
const LEAST_SCATTER = 0.008;
/** How much more or less it scatters, and how usual that is. */
const SCATTERS = [0.5, 1, 2, 4, 8] as const;
const SCATTER_WEIGHTS = [0.2, 0.35, 0.25, 0.13, 0.07] as const;
/** Farther below the best, in logarithms, nothing comes back by what is ordinary in a root, and nobody sees its share. */
const HOPELESS = 30;
/** Zeros of an ordinary instrument, in standard deviations, and their weights: Gauss and Hermite's rule of seven. */
const ZEROES = [
  [-3.7504397, 0.000548269],
  [-2.3667594, 0.0307571],
  [-1.1544054, 0.2401232],
  [0, 0.4571429],
  [1.1544054, 0.2401232],
  [2.3667594, 0.0307571],
  [3.7504397, 0.000548269],
] as const;
/** What is left of its spread between two of them. */
const ZERO_PART = 0.5;
/** What the input itself is uncertain by beside the output. */
const INPUT_PART = 0.7;

type Ordinary = 'sensorZero' | 'sensorGain' | 'outputZero' | 'outputGain' | 'friction' | 'bow';

/** What was seen of a case, ready to be held against many conditions. */
export class Case {
  readonly seen: readonly Seen[];
  readonly sound: Condition;
  private readonly forward: Forward;
  /** What an ordinary instrument is off by: field of the condition, and its standard deviation there. */
  private readonly ordinary: readonly (readonly [Ordinary, number])[];
  readonly scatter: number;
  private readonly inputSpan: number;
  private readonly base: Float64Array;
  private readonly columns: Float64Array[];
  private readonly back: Float64Array;
  /** What the scatter of the input makes of the output, and the variance that each has of its own beside it. */
  private readonly input: Float64Array;
  private readonly own: Float64Array;
  private readonly left: Float64Array;
  private readonly covariance: Symmetric;
  private readonly shared: Symmetric;

  constructor(readonly suspected: Suspected) {
    this.seen = seenOf(suspected);
    this.sound = soundCondition(suspected);
    this.forward = new Forward(suspected, this.seen);
    const { range, limitPercent, stepPercent = 0 } = suspected;
    this.inputSpan = Math.abs(range.urv - range.lrv);
    const limit = limitPercent / 100;
    this.ordinary = [
      ['sensorZero', USUAL.zero * limit * this.inputSpan],
      ['sensorGain', USUAL.gain * limit],
      ['outputZero', USUAL.outputZero * limit],
      ['outputGain', USUAL.outputZero * limit],
      ['friction', USUAL.friction * limit * this.inputSpan],
      ['bow', USUAL.bow * limit],
    ];
    this.scatter = Math.max(LEAST_SCATTER, limitPercent * SCATTER_OF_LIMIT, stepPercent / Math.sqrt(12));
    const size = this.seen.length;
    this.base = new Float64Array(size);
    this.back = new Float64Array(size);
    this.input = new Float64Array(size);
    this.own = new Float64Array(size);
    this.left = new Float64Array(size);
    this.covariance = symmetric(size);
    this.shared = symmetric(size);
    this.columns = this.ordinary.map(() => new Float64Array(size));
  }

  /** What would be seen, per cent of span. */
  predicted(condition: Condition): Float64Array {
    const into = new Float64Array(this.seen.length);
    this.forward.predict(condition, into);
    return into;
  }

  /**
   * What a field of the condition makes of the readings when it is off by so much to one side and to the other. The lesser of both is
   * what readings share; what one side has more is each reading's own: a root at no flow goes up by much and down by nothing.
   */
  private reach(condition: Condition, field: Ordinary, by: number, into: Float64Array): void {
    const was = condition[field];
    condition[field] = was + by;
    this.forward.predict(condition, into);
    condition[field] = field === 'friction' ? was : was - by;
    this.forward.predict(condition, this.back);
    condition[field] = was;
    for (let i = 0; i < into.length; i += 1) {
      const here = this.base[i] as number;
      const [up, down] = [(into[i] as number) - here, here - (this.back[i] as number)];
      if (field === 'friction') {
        into[i] = up;
        continue;
      }
      const shared = up * down <= 0 ? 0 : Math.abs(up) < Math.abs(down) ? up : down;
      const more = Math.abs(Math.abs(up) > Math.abs(down) ? up : down) - Math.abs(shared);
      into[i] = shared;
      this.own[i] = (this.own[i] as number) + (more / 2) ** 2;
    }
  }

  /** How far an ordinary instrument may lie beside the readings that a condition makes. */
  private look(condition: Condition, zeroPart = 1): void {
    this.forward.predict(condition, this.base);
    this.own.fill(0);
    this.ordinary.forEach(([field, deviation], k) =>
      this.reach(
        condition,
        field,
        field === 'sensorZero' ? deviation * zeroPart : deviation,
        this.columns[k] as Float64Array,
      ),
    );
    this.reach(condition, 'sensorZero', (this.scatter / 100) * this.inputSpan * INPUT_PART, this.input);
    this.share();
    if (condition.vague === 0) return;
    const { lagS, lineS, leak } = condition;
    Object.assign(condition, { lagS: 0, lineS: 0, leak: 0 });
    this.forward.predict(condition, this.back);
    Object.assign(condition, { lagS, lineS, leak });
    for (let i = 0; i < this.own.length; i += 1)
      this.own[i] =
        (this.own[i] as number) +
        (((this.base[i] as number) - (this.back[i] as number)) * condition.vague) ** 2;
  }

  /** What readings have in common by what is ordinary: their covariance without the scatter. */
  private share(): void {
    const { cells, size } = this.shared;
    cells.fill(0);
    for (const column of this.columns)
      for (let i = 0; i < size; i += 1) {
        if ((this.seen[i] as Seen).own !== null) continue;
        const here = column[i] as number;
        for (let j = 0; j <= i; j += 1)
          cells[i * size + j] = (cells[i * size + j] as number) + here * (column[j] as number);
      }
  }

  /** Twice the negative logarithm of the density, with one scatter, per cent of span, and the reach that was looked at. */
  private devianceAt(condition: Condition, scatter: number): number {
    const { cells, size } = this.covariance;
    this.forward.predict(condition, this.base);
    cells.set(this.shared.cells);
    const times = scatter / this.scatter;
    const own = Math.hypot(scatter, condition.scatter);
    for (let i = 0; i < size; i += 1) {
      const seen = this.seen[i] as Seen;
      const noise =
        seen.own === null
          ? own ** 2 + ((this.input[i] as number) * times) ** 2 + (this.own[i] as number)
          : seen.own ** 2;
      cells[i * size + i] = (cells[i * size + i] as number) + noise;
      this.left[i] = seen.value - (this.base[i] as number);
    }
    return deviance(this.covariance, this.left);
  }

  private conditionOf(variant: Variant, u: readonly number[]): { condition: Condition; values: number[] } {
    const values = variant.parameters.map((parameter, i) => parameter(u[i] ?? 0));
    return { condition: { ...this.sound, ...variant.condition(values) }, values };
  }

  /** Looks at a place of a variant, and gives twice the negative logarithm of density and prior for places beside it. */
  private costBeside(variant: Variant, at: readonly number[]): (u: readonly number[]) => number {
    this.look(this.conditionOf(variant, at).condition);
    return (u) =>
      this.devianceAt(this.conditionOf(variant, u).condition, this.scatter) +
      u.reduce((sum, one) => sum + one * one, 0);
  }

  private best(variant: Variant): number[] {
    const count = variant.parameters.length;
    if (count === 0) return [];
    const middle = variant.parameters.map(() => 0);
    if (count === 2) return leastInPlane(this.costBeside(variant, middle));
    const coarse = this.costBeside(variant, middle);
    const place = leastOfGrid((u) => coarse([u]));
    const fine = this.costBeside(variant, [place]);
    return [leastBeside((u) => fine([u]), place)];
  }

  /** Logarithms of weights and zeros that an ordinary instrument may have: one where the readings go along with it in a line. */
  private zeroes({ transfers }: Condition): readonly (readonly [log: number, zero: number])[] {
    const hasRoot = transfers.some(({ kind }) => kind !== 'linear' && kind !== 'table');
    if (!hasRoot) return [[0, 0]];
    const [, deviation] = this.ordinary[0] as readonly [Ordinary, number];
    return ZEROES.map(([z, weight]) => [Math.log(weight), z * deviation]);
  }

  /** Logarithm of the density of what was seen in a condition, with all that is ordinary. */
  private logDensity(condition: Condition): number {
    const zeroes = this.zeroes(condition);
    return logSum(
      zeroes.flatMap(([log, zero]) => {
        const shifted = { ...condition, sensorZero: condition.sensorZero + zero };
        this.look(shifted, zeroes.length > 1 ? ZERO_PART : 1);
        return SCATTERS.map(
          (one, i) =>
            log + Math.log(SCATTER_WEIGHTS[i] ?? 0) - this.devianceAt(shifted, this.scatter * one) / 2,
        );
      }),
    );
  }

  /** At most this, but for what is ordinary in a root; from one scatter alone where that says enough. */
  private roughly(condition: Condition, floor: number): number {
    const [least, most] = [SCATTERS[0], SCATTERS[SCATTERS.length - 1] as number];
    const widest = -this.devianceAt(condition, this.scatter * most) / 2;
    // Where readings scatter less, squares only grow, and the determinant shrinks by no more than that of the scatter.
    const bound = widest + this.seen.length * Math.log(most / least);
    return bound < floor
      ? bound
      : logSum(SCATTERS.map((one) => -this.devianceAt(condition, this.scatter * one) / 2));
  }

  /** @param floor logarithm of an evidence that is there already: what cannot come near it is not worked out to its last digit */
  fit(variant: Variant, floor = -Infinity): Fit {
    const best = this.best(variant);
    const { condition, values } = this.conditionOf(variant, best);
    const cost = this.costBeside(variant, best);
    const rough = this.roughly(condition, floor - HOPELESS);
    if (rough < floor - HOPELESS)
      return { variant, values, uncertainties: values.map(() => 0), logEvidence: rough, condition };
    const widths = best.map((_one, i) => widthAt(cost, best, i));
    // The volume is that at the usual scatter: where zero and gain are ordinary, those of others are nearly the same.
    const [u = 0] = best;
    const volume =
      best.length === 0
        ? 1
        : best.length === 1
          ? lineVolume((at) => cost([at]), u, widths[0] ?? 1)
          : planeVolume(cost, best, widths);
    const prior = best.reduce((sum, one) => sum + one * one, 0);
    return {
      variant,
      values,
      uncertainties: best.map((at, i) => {
        const parameter = variant.parameters[i] as Parameter;
        const width = Math.min(1, widths[i] ?? 1);
        return Math.abs(parameter(at + width / 2) - parameter(at - width / 2));
      }),
      logEvidence: Math.log(variant.weight) + this.logDensity(condition) - prior / 2 + Math.log(volume),
      condition,
    };
  }

  /**
   * What a condition leaves of the output's readings when zero, gain and all that is ordinary have had their part, per cent of span:
   * D C^-1 r, with D the scatter alone and C the whole covariance.
   */
  unexplained(condition: Condition): readonly number[] {
    this.look(condition);
    this.forward.predict(condition, this.base);
    const size = this.seen.length;
    const covariance = this.seen.map((seen, i) =>
      this.seen.map((_one, j) => {
        const shared = this.columns.reduce((sum, column) => sum + (column[i] ?? 0) * (column[j] ?? 0), 0);
        return shared + (i === j ? (seen.own ?? this.scatter) ** 2 : 0);
      }),
    );
    const left = Array.from(
      { length: size },
      (_one, i) => (this.seen[i] as Seen).value - (this.base[i] ?? 0),
    );
    const { x } = solve(covariance, left);
    return this.suspected.readings.map((_one, i) => this.scatter ** 2 * (x[i] ?? 0));
  }
}

/** Logarithm of the sum of what logarithms stand for. */
export function logSum(logs: readonly number[]): number {
  const most = Math.max(...logs);
  return most === -Infinity
    ? most
    : most + Math.log(logs.reduce((sum, one) => sum + Math.exp(one - most), 0));
}

/** Where a standard normal number may come to lie. */
const REACH = 3.6;
const NODES = 15;
const GOLDEN = (Math.sqrt(5) - 1) / 2;

const STEP = (2 * REACH) / (NODES - 1);

/** Where a function of one number is least on a grid. */
function leastOfGrid(cost: (u: number) => number): number {
  let best = 0;
  let least = Infinity;
  for (let k = 0; k < NODES; k += 1) {
    const u = -REACH + k * STEP;
    const here = cost(u);
    if (here < least) [best, least] = [u, here];
  }
  return best;
}

/** Golden section beside a place of the grid. */
function leastBeside(cost: (u: number) => number, place: number): number {
  let [low, high] = [place - STEP, place + STEP];
  let [a, b] = [high - GOLDEN * (high - low), low + GOLDEN * (high - low)];
  let [costA, costB] = [cost(a), cost(b)];
  for (let turn = 0; turn < 9; turn += 1) {
    if (costA < costB) {
      high = b;
      [b, costB] = [a, costA];
      a = high - GOLDEN * (high - low);
      costA = cost(a);
    } else {
      low = a;
      [a, costA] = [b, costB];
      b = low + GOLDEN * (high - low);
      costB = cost(b);
    }
  }
  return vertex(cost, costA < costB ? a : b, high - low);
}

/** The lowest place of the parabola through three, where there is one: what is a square in u has it exactly. */
function vertex(cost: (u: number) => number, at: number, step: number): number {
  const [before, here, after] = [cost(at - step), cost(at), cost(at + step)];
  const bend = before + after - 2 * here;
  if (!(bend > 0)) return at;
  const place = at + (step * (before - after)) / (2 * bend);
  return cost(place) < here ? place : at;
}

const with2 = (u: readonly number[], i: number, by: number): number[] =>
  u.map((one, place) => (place === i ? one + by : one));

/** Hessian of half the cost by differences, at a step that suits its width. */
function hessianAt(cost: (u: readonly number[]) => number, u: readonly number[], steps: readonly number[]) {
  const [h = 1, k = 1] = steps;
  const here = cost(u);
  const [plus0, minus0] = [cost(with2(u, 0, h)), cost(with2(u, 0, -h))];
  const [plus1, minus1] = [cost(with2(u, 1, k)), cost(with2(u, 1, -k))];
  const both = cost([(u[0] ?? 0) + h, (u[1] ?? 0) + k]);
  return {
    here,
    gradient: [(plus0 - minus0) / (4 * h), (plus1 - minus1) / (4 * k)] as const,
    aa: (plus0 + minus0 - 2 * here) / (2 * h * h),
    bb: (plus1 + minus1 - 2 * here) / (2 * k * k),
    ab: (both - plus0 - plus1 + here) / (2 * h * k),
  };
}

/** The least of a function of two numbers: Newton's method from several places, damped. */
function leastInPlane(cost: (u: readonly number[]) => number): number[] {
  let best: number[] = [0, 0];
  let least = Infinity;
  const beside = [
    [1, 0],
    [-1, 0],
  ].reduce((a, b) => (cost(b) < cost(a) ? b : a));
  for (const start of [[0, 0], beside]) {
    let u = start;
    let here = cost(u);
    for (let turn = 0; turn < 6; turn += 1) {
      const { gradient, aa, bb, ab } = hessianAt(cost, u, [0.02, 0.02]);
      const determinant = aa * bb - ab * ab;
      const isBowl = aa > 0 && determinant > 0;
      const step = isBowl
        ? [
            -(bb * gradient[0] - ab * gradient[1]) / determinant,
            -(aa * gradient[1] - ab * gradient[0]) / determinant,
          ]
        : [-gradient[0] / Math.max(1, Math.abs(aa)), -gradient[1] / Math.max(1, Math.abs(bb))];
      let part = Math.min(1, 2 / Math.max(1e-9, Math.hypot(step[0] ?? 0, step[1] ?? 0)));
      let next = u.map((one, i) => one + part * (step[i] ?? 0));
      let there = cost(next);
      while (there > here && part > 0.02) {
        part /= 3;
        next = u.map((one, i) => one + part * (step[i] ?? 0));
        there = cost(next);
      }
      if (!(there < here - 0.02)) break;
      [u, here] = [next, there];
    }
    if (here < least) [best, least] = [u, here];
  }
  return best;
}

/** Standard deviation of one number about the optimum with the others held: where the cost has risen by one. */
function widthAt(cost: (u: readonly number[]) => number, u: readonly number[], i: number): number {
  const here = cost(u);
  let step = 0.05;
  let rise = 0;
  for (let turn = 0; turn < 7; turn += 1) {
    rise = (cost(with2(u, i, step)) + cost(with2(u, i, -step))) / 2 - here;
    if (rise > 4) step /= Math.sqrt(rise);
    else if (rise < 0.2 && step < 0.7) step *= 3;
    else break;
  }
  return rise > 0 ? Math.min(1, step / Math.sqrt(rise)) : 1;
}

/** Integral over a standard normal number, in parts of its value at a place: trapezia over the grid and over what is narrow there. */
function lineVolume(cost: (u: number) => number, at: number, width: number): number {
  const nodes = new Set<number>();
  for (let k = 0; k < NODES; k += 1) nodes.add(-REACH + k * STEP);
  for (let k = -8; k <= 8; k += 1) nodes.add(at + (k * width) / 2);
  const places = [...nodes].sort((a, b) => a - b);
  const least = cost(at);
  // Nothing is likelier than the optimum: beyond it the reach that was looked at there no longer holds.
  const heights = places.map((u) => Math.min(1, Math.exp((least - cost(u)) / 2)));
  let sum = 0;
  for (let i = 1; i < places.length; i += 1)
    sum +=
      (((heights[i] as number) + (heights[i - 1] as number)) / 2) *
      ((places[i] as number) - (places[i - 1] as number));
  return Math.max(sum, Number.MIN_VALUE) / Math.sqrt(2 * Math.PI);
}

/** Volume of the optimum in a plane, in parts of that of the prior: 1 / sqrt(det of the Hessian). */
function planeVolume(
  cost: (u: readonly number[]) => number,
  u: readonly number[],
  widths: readonly number[],
): number {
  const { aa, bb, ab } = hessianAt(
    cost,
    u,
    widths.map((one) => one / 2),
  );
  const determinant = aa * bb - ab * ab;
  return determinant > 1 ? 1 / Math.sqrt(determinant) : 1;
}
