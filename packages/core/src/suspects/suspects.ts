/**
 * Suspicions weighed against a run: which explains the readings, by how much, and whether the data can tell at all. A first judgement;
 * the test that it names decides, and the technician.
 */
import { CoreError, requireFinite, requirePositive } from '../errors';
import { checkRange, expectedOutput } from '../signal';
import { seenOf, type Suspected } from './condition';
import { Case, logSum, type Fit } from './evidence';
import { frequencyOf, suspicionsOf, type Suspicion } from './hypotheses';

export interface Suspect {
  readonly suspicion: Suspicion;
  /** Its probability among all that were weighed. */
  readonly probability: number;
  /** Natural logarithm of its evidence over all its variants, but for a constant that is one and the same for all. */
  readonly logEvidence: number;
  /** The variant that explains most, with its parameters. */
  readonly fit: Fit;
  /** What it leaves unexplained of the output's readings: root mean square, per cent of span. */
  readonly residualPercent: number;
  /** What a reading scatters by in an ordinary instrument of this limit, per cent of span. */
  readonly scatterPercent: number;
  /** The errors that it would make, per cent of span, in the order of the readings. */
  readonly errorsPercentSpan: readonly number[];
}

export interface Weighed {
  /** The likeliest first. */
  readonly suspects: readonly Suspect[];
  /** Null where the data cannot tell. */
  readonly told: Suspicion | null;
  /** Those that together hold 95 %, the likeliest first. */
  readonly likely: readonly Suspicion[];
}

/**
 * A suspicion is called where it has at least this probability. Chosen on simulated instruments so that of all that are called 95 to
 * 97 in a hundred are right (`npm run bench -- suspects`); what is below is "cannot tell".
 */
export const TELLS_FROM = 0.6;
const CREDIBLE = 0.95;
/** Readings with all that was read beside them: more take longer than anybody waits. */
const MOST_SEEN = 90;

/** Whether a case is small enough to be weighed at once. */
export const canWeigh = (suspected: Suspected): boolean => seenOf(suspected).length <= MOST_SEEN;

function check(suspected: Suspected): void {
  const { range, readings, limitPercent, barometer, resistorOhm } = suspected;
  checkRange(range);
  requirePositive('The limit', limitPercent, 'limitPercent');
  if (readings.length === 0) throw new CoreError({ code: 'too-few-points', count: 0, least: 1 }, 'readings');
  if (!canWeigh(suspected))
    throw new CoreError(
      {
        code: 'too-many',
        name: 'Readings and what was read beside them',
        count: seenOf(suspected).length,
        most: MOST_SEEN,
      },
      'readings',
    );
  readings.forEach(({ applied, output }, i) => {
    requireFinite('What was applied', applied, `readings.${i}.applied`);
    requireFinite('The output', output, `readings.${i}.output`);
  });
  if (barometer !== undefined) requirePositive('The barometric pressure', barometer, 'barometer');
  if (resistorOhm !== undefined) requirePositive('The resistor', resistorOhm, 'resistorOhm');
}

const rms = (values: readonly number[]): number =>
  Math.sqrt(values.reduce((sum, one) => sum + one * one, 0) / Math.max(1, values.length));

/**
 * Weighs all suspicions.
 * @throws CoreError as `checkRange`; `not-positive` for a limit, a barometer or a resistor of nothing; `too-few-points` without readings;
 *   `too-many` beyond 90 with what was read beside them; `not-finite`
 */
export function weigh(suspected: Suspected): Weighed {
  check(suspected);
  const one = new Case(suspected);
  const { range, readings } = suspected;
  const span = Math.abs(range.outputHigh - range.outputLow);
  const ideal = readings.map(
    ({ applied }) => ((expectedOutput(range, applied) - range.outputLow) / span) * 100,
  );
  let floor = -Infinity;
  const found = suspicionsOf(suspected).map(({ suspicion, variants }) => {
    const fits = variants.map((variant) => {
      const fit = one.fit(variant, floor);
      floor = Math.max(floor, fit.logEvidence);
      return fit;
    });
    const fit = fits.reduce((best, next) => (next.logEvidence > best.logEvidence ? next : best));
    return {
      suspicion,
      fit,
      logEvidence: logSum(fits.map((each) => each.logEvidence)),
    };
  });
  const logOf = ({ suspicion, logEvidence }: Pick<Suspect, 'suspicion' | 'logEvidence'>): number =>
    Math.log(frequencyOf(suspicion)) + logEvidence;
  const all = logSum(found.map(logOf));
  const suspects = found
    .map(({ suspicion, fit, logEvidence }): Suspect => {
      const predicted = one.predicted(fit.condition);
      return {
        suspicion,
        probability: Math.exp(logOf({ suspicion, logEvidence }) - all),
        logEvidence,
        fit,
        residualPercent: rms(one.unexplained(fit.condition)),
        scatterPercent: one.scatter,
        errorsPercentSpan: readings.map((_one, i) => (predicted[i] ?? 0) - (ideal[i] ?? 0)),
      };
    })
    .sort((a, b) => b.probability - a.probability);
  const [first] = suspects;
  let held = 0;
  const likely = suspects.filter(({ probability }) => {
    const isNeeded = held < CREDIBLE;
    held += probability;
    return isNeeded;
  });
  return {
    suspects,
    told: first !== undefined && first.probability >= TELLS_FROM ? first.suspicion : null,
    likely: likely.map(({ suspicion }) => suspicion),
  };
}
