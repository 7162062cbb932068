/** Whether a difference is more than chance: Student's test of a mean (textbook). */
import tCdf from '@stdlib/stats-base-dists-t-cdf';

/**
 * The probability of a t so far from zero, either way, by chance.
 * @example chanceOf(2.776445, 4) // 0.05
 */
export const chanceOf = (t: number, degreesOfFreedom: number): number =>
  Number.isFinite(t) ? 2 * tCdf(-Math.abs(t), degreesOfFreedom) : 0;

/** Changes from one to another, below which nothing is said of either. */
const LEAST_CHANGES = 8;
const LEVEL = 0.01;
/** What is smaller than this part of the limit is not worth a look. */
const LEAST_PART_OF_LIMIT = 0.1;

export interface Difference {
  readonly name: string;
  /** Changes that it is seen in. */
  readonly count: number;
  /** How much higher errors come out with it than with the others, as a part of the limit. */
  readonly mean: number;
  /** Of so much by chance, with all that were compared. */
  readonly probability: number;
  /** What it gave way to or took over from. */
  readonly others: readonly string[];
  /** Whether either of two may be the one that is off, since neither was compared with a third. */
  readonly isEither: boolean;
}

interface Sums {
  readonly count: number;
  readonly sum: number;
  readonly squares: number;
}

const NONE: Sums = { count: 0, sum: 0, squares: 0 };
const plus = (a: Sums, b: Sums): Sums => ({
  count: a.count + b.count,
  sum: a.sum + b.sum,
  squares: a.squares + b.squares,
});

/**
 * What errors do where one gives way to another: a reference, or a person who reads. Each time the step from as left to the next as
 * found counts for the one that came and against the one that went, so that what instruments drift by cancels over both.
 */
export class Changes {
  /** Steps towards the second name, by the first. */
  private readonly steps = new Map<string, Map<string, Sums>>();

  /** @param step as found less as left, as a part of the limit */
  add(before: string, after: string, step: number): void {
    if (before === after || before === '' || after === '') return;
    this.count(before, after, step);
    this.count(after, before, -step);
  }

  private count(from: string, to: string, step: number): void {
    const row = this.steps.get(from) ?? new Map<string, Sums>();
    row.set(to, plus(row.get(to) ?? NONE, { count: 1, sum: step, squares: step ** 2 }));
    this.steps.set(from, row);
  }

  /** How one differs from some others; null where too few changes say it. */
  private differenceOf(name: string, names: readonly string[]): Difference | null {
    const others = names.filter((other) => this.steps.get(other)?.has(name) === true);
    const { count, sum, squares } = others
      .map((other) => this.steps.get(other)?.get(name) ?? NONE)
      .reduce(plus, NONE);
    if (count < LEAST_CHANGES) return null;
    const mean = sum / count;
    const scatter = Math.sqrt(Math.max(0, squares - count * mean ** 2) / (count - 1));
    const chance = chanceOf(mean / (scatter / Math.sqrt(count)), count - 1);
    const isEither = others.length === 1 && others.every((other) => this.steps.get(other)?.size === 1);
    return { name, count, mean, probability: Math.min(1, chance * names.length), others, isEither };
  }

  /**
   * Those that differ from the others beyond chance, the one that explains most of the steps first (forward selection: the squares
   * that it takes away, n times the square of its mean). Each is left out before the next is looked for, since all that were compared
   * with it seem to differ the other way.
   */
  different(): Difference[] {
    const found: Difference[] = [];
    for (let names = [...this.steps.keys()]; names.length > 1;) {
      const [most] = names
        .flatMap((name) => this.differenceOf(name, names) ?? [])
        .filter(({ probability, mean }) => probability < LEVEL && Math.abs(mean) >= LEAST_PART_OF_LIMIT)
        .sort((a, b) => b.count * b.mean ** 2 - a.count * a.mean ** 2);
      if (most === undefined) break;
      found.push(most);
      names = names.filter((name) => name !== most.name);
    }
    return found;
  }
}
