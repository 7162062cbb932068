/**
 * What in a history is worth a look, with its evidence. Each is a test against chance; where several are asked at once, the level is
 * shared among them (Bonferroni). Below the sizes that are named nothing is said at all.
 */
import { driftSteps, type Calibration, type DriftStep } from './adjusted';
import { chanceOf } from './compare';
import { YEAR_DAYS } from './days';
import { driftLine } from './regression';

/** Chance is believed in down to one in a hundred. */
const LEVEL = 0.01;
const LEAST_STEPS = 4;
const LEAST_HYSTERESES = 4;
/** Steps with each of two references, below which their rates are not compared. */
const LEAST_OF_EACH = 2;
/** What is smaller than this part of the limit is not worth a look, however sure it is. */
const LEAST_PART_OF_LIMIT = 0.2;

/** One calibration as it is looked at. */
export interface Visited extends Calibration {
  /** Largest falling-against-rising difference, in the unit of the errors; null where it was not measured. */
  readonly hysteresis: number | null;
  /** Tag of the reference; empty where nobody kept it. */
  readonly standard: string;
}

export type Anomaly =
  | {
      readonly kind: 'step';
      /** Day it was found. */
      readonly day: number;
      /** By how much it went beyond its own drift, in the unit of the errors. */
      readonly size: number;
      readonly probability: number;
      /** Tags before and after, where the reference changed with it. */
      readonly standards: readonly [string, string] | null;
    }
  | {
      readonly kind: 'hysteresis';
      readonly first: number;
      readonly last: number;
      readonly perYear: number;
      readonly probability: number;
    }
  | {
      readonly kind: 'reference-rate';
      /** Day of the first calibration with the new one. */
      readonly day: number;
      readonly before: string;
      readonly after: string;
      /** Rates of drift with each, per year. */
      readonly rateBefore: number;
      readonly rateAfter: number;
      readonly probability: number;
    };

/** Sums of a line through the origin: of its squared days, of drift times days, of its squared drifts. */
interface Sums {
  readonly count: number;
  readonly tt: number;
  readonly td: number;
  readonly dd: number;
}

const sumsOf = (steps: readonly DriftStep[]): Sums =>
  steps.reduce(
    ({ count, tt, td, dd }, { days, drift }) => ({
      count: count + 1,
      tt: tt + days ** 2,
      td: td + days * drift,
      dd: dd + drift ** 2,
    }),
    { count: 0, tt: 0, td: 0, dd: 0 },
  );

const rateOf = ({ td, tt }: Sums): number => td / tt;
const squaresOf = ({ dd, td, tt }: Sums): number => Math.max(0, dd - td ** 2 / tt);

/** The step that differs most from the others: its residual against a line through the others (externally studentised). */
function stepOf(visits: readonly Visited[], steps: readonly DriftStep[], limit: number): Anomaly | null {
  if (steps.length < LEAST_STEPS) return null;
  const found = steps.map((step, index) => {
    const others = sumsOf(steps.filter((_, other) => other !== index));
    const size = step.drift - rateOf(others) * step.days;
    const scatter = Math.sqrt((squaresOf(others) / (others.count - 1)) * (1 + step.days ** 2 / others.tt));
    return { index, size, probability: chanceOf(size / scatter, others.count - 1) };
  });
  const [most] = [...found].sort((a, b) => a.probability - b.probability);
  if (most === undefined || most.probability * steps.length >= LEVEL) return null;
  if (Math.abs(most.size) < LEAST_PART_OF_LIMIT * limit) return null;
  const [before, after] = [visits[most.index] as Visited, visits[most.index + 1] as Visited];
  const hasChanged = before.standard !== after.standard && before.standard !== '' && after.standard !== '';
  return {
    kind: 'step',
    day: after.day,
    size: most.size,
    probability: most.probability * steps.length,
    standards: hasChanged ? [before.standard, after.standard] : null,
  };
}

/** Whether the hysteresis grows: the slope of a line through it, one-sided. */
function hysteresisOf(visits: readonly Visited[], limit: number): Anomaly | null {
  const measured = visits.flatMap(({ day, hysteresis }) =>
    hysteresis === null ? [] : [{ day, error: hysteresis }],
  );
  const [first, last] = [measured[0], measured.at(-1)];
  if (measured.length < LEAST_HYSTERESES || first === undefined || last === undefined) return null;
  const line = driftLine(measured);
  const probability = chanceOf(line.slopePerYear / line.slopeStandardErrorPerYear, line.degreesOfFreedom) / 2;
  const growth = line.slopePerDay * (line.lastDay - line.firstDay);
  if (line.slopePerDay <= 0 || probability >= LEVEL || growth < LEAST_PART_OF_LIMIT * limit) return null;
  return {
    kind: 'hysteresis',
    first: first.error,
    last: last.error,
    perYear: line.slopePerYear,
    probability,
  };
}

/**
 * Whether it drifts otherwise since another reference came: one rate for all steps against one for each side of a change, by the
 * F test of the squares that are left (with one degree of freedom above, the square of a t).
 */
function referenceRateOf(
  visits: readonly Visited[],
  steps: readonly DriftStep[],
  limit: number,
): Anomaly | null {
  const changes = steps.flatMap((_, index) => {
    const [before, after] = [visits[index] as Visited, visits[index + 1] as Visited];
    return before.standard !== '' && after.standard !== '' && before.standard !== after.standard
      ? [index]
      : [];
  });
  const tested = changes.flatMap((change) => {
    // The step over the change itself was measured with both, and so with neither.
    const [before, after] = [sumsOf(steps.slice(0, change)), sumsOf(steps.slice(change + 1))];
    if (before.count < LEAST_OF_EACH || after.count < LEAST_OF_EACH) return [];
    const both = sumsOf([...steps.slice(0, change), ...steps.slice(change + 1)]);
    const degrees = both.count - 2;
    const apart = squaresOf(before) + squaresOf(after);
    const t = Math.sqrt(Math.max(0, squaresOf(both) - apart) / (apart / degrees));
    return [{ change, before, after, probability: chanceOf(t, degrees) * changes.length }];
  });
  const [most] = tested.sort((a, b) => a.probability - b.probability);
  if (most === undefined || most.probability >= LEVEL) return null;
  const [rateBefore, rateAfter] = [rateOf(most.before) * YEAR_DAYS, rateOf(most.after) * YEAR_DAYS];
  if (Math.abs(rateAfter - rateBefore) < LEAST_PART_OF_LIMIT * limit) return null;
  const [old, young] = [visits[most.change] as Visited, visits[most.change + 1] as Visited];
  return {
    kind: 'reference-rate',
    day: young.day,
    before: old.standard,
    after: young.standard,
    rateBefore,
    rateAfter,
    probability: most.probability,
  };
}

/**
 * What is worth a look in the calibrations of one instrument in one range, in order of their days.
 * @param limit in the unit of the errors, greater than zero
 * @throws CoreError as `driftSteps`
 */
export function anomaliesOf(visits: readonly Visited[], limit: number): Anomaly[] {
  if (visits.length < 2) return [];
  const steps = driftSteps(visits);
  return [
    referenceRateOf(visits, steps, limit),
    stepOf(visits, steps, limit),
    hysteresisOf(visits, limit),
  ].filter((one) => one !== null);
}
