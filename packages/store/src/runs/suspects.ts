/** What can be behind the readings of a stored run. Free of PostgreSQL. */
import { toNumber } from '@barys/core/exact';
import { limitAt } from '@barys/core/run';
import { outputSpan } from '@barys/core/signal';
import {
  canWeigh,
  weigh,
  type SuspectReading,
  type Suspected,
  type SuspectUnits,
  type Weighed,
} from '@barys/core/suspects';
import { parseTyped } from '@barys/core/text';
import { PRESSURE_UNITS, unitLabel, type PressureKind } from '@barys/core/units';
import { isOverDecades } from './advice';
import { secondScaleOf } from './beside';
import type { Run } from './copy';
import { limitsOf, readingsOf } from './evaluation';

type SuspectedRun = Pick<Run, 'madeWith' | 'readings'>;

/** What is known besides the run itself. */
export type KnownBeside = Pick<Suspected, 'neighbours' | 'drifts' | 'others'>;

/** Readings that follow each other faster than anybody reads were pasted: their times say nothing. */
const LEAST_DWELL_S = 5;
/** What the saturation of a signal is where the instrument says nothing else: NAMUR NE 43, share of span. */
const SATURATION = [-0.0125, 1.03125] as const;

/** When each reading was taken, s from the first; null where nobody knows, or one was corrected out of its order. */
function timesOf({ readings }: SuspectedRun): readonly number[] | null {
  const times = readings.map(({ takenAt }) => (takenAt === null ? NaN : takenAt.getTime() / 1000));
  const [first = NaN] = times;
  const isWalked = times.every((time, i) => i === 0 || time - (times[i - 1] ?? NaN) >= LEAST_DWELL_S);
  return isWalked && Number.isFinite(first) ? times.map((time) => time - first) : null;
}

function readingsToSuspect(run: SuspectedRun): SuspectReading[] {
  const { madeWith, readings } = run;
  const times = timesOf(run);
  const isOwnDisplay = madeWith.secondIndication === 'own display' && secondScaleOf(madeWith) !== null;
  return readingsOf(run).map(({ applied, output, direction }, i) => {
    const { more = {} } = readings[i] ?? {};
    const at = times?.[i];
    const typed = (text: string | undefined): number | undefined =>
      text === undefined ? undefined : parseTyped(text).value;
    const [digital, shown, untapped] = [
      typed(more.digital),
      isOwnDisplay ? typed(more.second) : undefined,
      typed(more['before-tap']),
    ];
    return {
      applied,
      output,
      direction,
      ...(at === undefined ? {} : { at }),
      ...(digital === undefined ? {} : { digital }),
      ...(shown === undefined ? {} : { shown }),
      ...(untapped === undefined ? {} : { untapped }),
    };
  });
}

/** Ohms over which a current of 4 to 20 mA reads as these volts; nothing of another output. */
function resistorOf({ configuration: { outputUnit, outputLow, outputHigh } }: SuspectedRun['madeWith']) {
  if (outputUnit !== 'V' || outputLow === 0) return {};
  return { resistorOhm: ((outputHigh - outputLow) / 16) * 1000 };
}

/**
 * A run as it is weighed, from its own copy; null of one over decades, or of one that nothing was read in.
 * @param vented output with both sides drained and open, where that was read
 */
export function suspectedOf(
  run: SuspectedRun,
  kind: PressureKind,
  known: KnownBeside = {},
  vented?: number,
): Suspected | null {
  const { madeWith } = run;
  const { configuration: range, tolerance, ambient, body } = madeWith;
  if (isOverDecades(run) || run.readings.length === 0) return null;
  const span = outputSpan(range);
  const at = (share: number): number => range.outputLow + share * (range.outputHigh - range.outputLow);
  const isSignal = range.outputUnit === 'mA' || range.outputUnit === 'V';
  const scale = secondScaleOf(madeWith);
  const ends = [at(SATURATION[0]), at(SATURATION[1])] as const;
  return {
    range,
    readings: readingsToSuspect(run),
    limitPercent: (limitAt(range, limitsOf(tolerance), range.urv, range.outputHigh) / span) * 100,
    inputUnit: range.inputUnit,
    // A compound or a vacuum scale counts from the air, as a gauge does.
    pressureKind: kind,
    ...(ambient.barometerHpa > 0
      ? { barometer: (ambient.barometerHpa * 100) / toNumber(PRESSURE_UNITS[range.inputUnit].factor) }
      : {}),
    saturation: isSignal && body.technology === 'smart' ? [Math.min(...ends), Math.max(...ends)] : null,
    ...resistorOf(madeWith),
    ...(scale !== null && madeWith.secondIndication === 'own display'
      ? { display: { low: scale.low, high: scale.high } }
      : {}),
    ...known,
    ...(vented === undefined ? {} : { vented }),
  };
}

/** How its units are written. */
export const suspectUnitsOf = ({ madeWith }: Pick<SuspectedRun, 'madeWith'>): SuspectUnits => ({
  input: PRESSURE_UNITS[madeWith.configuration.inputUnit].label,
  output: outputLabel(madeWith.configuration.outputUnit),
  ...(madeWith.secondScale === null
    ? { display: madeWith.configuration.displayUnit }
    : { display: madeWith.secondScale.unit }),
});

const outputLabel = (unit: string): string => (Object.hasOwn(PRESSURE_UNITS, unit) ? unitLabel(unit) : unit);

/** What is behind a run as likely as not; null of one that cannot be weighed. */
export function weighRun(
  run: SuspectedRun,
  kind: PressureKind,
  known?: KnownBeside,
  vented?: number,
): { readonly suspected: Suspected; readonly weighed: Weighed } | null {
  const suspected = suspectedOf(run, kind, known, vented);
  return suspected === null || !(suspected.limitPercent > 0) || !canWeigh(suspected)
    ? null
    : { suspected, weighed: weigh(suspected) };
}
