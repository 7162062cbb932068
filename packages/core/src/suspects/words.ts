/** A suspicion in a technician's words: what it is, how large in the unit that is thought in, and which test decides. */
import { outputSpan, transferOf } from '../signal';
import {
  decimalsForResolution,
  formatFixed,
  formatSignificant,
  formatSigned,
  resolutionForSpan,
} from '../text';
import { PRESSURE_UNITS, type PressureUnit } from '../units';
import type { Suspected } from './condition';
import { headOfMetre, type Suspicion } from './hypotheses';
import type { Suspect } from './suspects';

export interface SuspectWords {
  readonly title: string;
  /** Its fitted parameter with its unit; empty where it has none. */
  readonly figure: string;
  /** The one test that would decide. */
  readonly test: string;
}

/** How the units of a case are written. */
export interface SuspectUnits {
  readonly input: string;
  readonly output: string;
  readonly display?: string;
}

/** A value with its sign, to a thousandth of a per cent of what it is held against: no rounding noise is shown as a figure. */
const signed = (value: number, whole: number): string =>
  formatSigned(value, decimalsForResolution(resolutionForSpan(whole)) + 1);

const TESTS: Readonly<Record<Suspicion, string>> = {
  nothing: 'None: leave it as it is.',
  zero: 'Vent both sides at the body and read: if it is off by as much, it is its zero.',
  gain: 'Read near the top with another reference: if it is off by as much, it is the instrument.',
  'zero and gain': 'Vent it and read, then read near the top with another reference.',
  'output zero': 'Hold its output at the low end of the signal and read the meter.',
  'output gain': 'Hold its output at the high end of the signal and read the meter.',
  'water reference':
    'Read the unit that is set in it, and the one that the reference shows, with their temperatures.',
  unit: 'Read the unit and the range that are set in it, and the unit that the reference shows.',
  range: 'Read both range values from it.',
  'neighbouring range': 'Read both range values and the tag from it.',
  'root missing': 'Apply a quarter of the differential: one root reads 50 %, none 25 %.',
  'root doubled': 'Apply a quarter of the differential: one root reads 50 %, two read 71 %.',
  'root misplaced': 'Read the transfer function of the output and of the display.',
  reversed: 'Raise the input a little and watch which way the output goes; read both range values.',
  'absolute or gauge': 'Vent it and read: what reads absolute shows the barometer.',
  'sides exchanged': 'Raise the high side alone by a little: the output has to rise.',
  head: 'Drain and blow down both lines, vent, and read again.',
  resistor: 'Take the resistor out of the loop and measure it, or read the current in series.',
  saturated: 'Measure the voltage at its terminals while the output stands there.',
  stuck: 'Change the input by half the span and watch; look whether the output is held.',
  leak: 'Shut the source off and watch the reference for a minute.',
  'not settled': 'Stay at one point five times as long and read again.',
  friction: 'Tap it at one point, or come to one point from both sides.',
  bent: 'Read the middle again from both sides: a bend is the same each time.',
  scatter: 'Read one point five times, without changing anything.',
  'display scale': 'Read the scale and the unit of the display from it.',
  reference: 'Read the same point with another reference.',
};

const unitLabel = (unit: string | undefined): string =>
  unit === undefined ? 'another unit' : PRESSURE_UNITS[unit as PressureUnit].label;

/** What a suspicion is called before anything is fitted. */
export const SUSPICION_NAMES: Readonly<Record<Suspicion, string>> = {
  nothing: 'Nothing beyond the ordinary',
  zero: 'The zero has drifted',
  gain: 'The gain has drifted',
  'zero and gain': 'Zero and gain have drifted',
  'output zero': 'The zero of the output stage is off',
  'output gain': 'The gain of the output stage is off',
  'water reference': 'Set for water of another temperature',
  unit: 'Another unit is set or read',
  range: 'Another range is set',
  'neighbouring range': 'The range of another configuration is set',
  'root missing': 'The square root is missing',
  'root doubled': 'The square root is taken twice',
  'root misplaced': 'The square root is in the wrong place',
  reversed: 'It acts in reverse',
  'absolute or gauge': 'Absolute and gauge are mixed up',
  'sides exchanged': 'High and low side are exchanged',
  head: 'Liquid stands in a line',
  resistor: 'The resistor is another one',
  saturated: 'The output goes no further',
  stuck: 'The output stands still',
  leak: 'Pressure is lost on the way',
  'not settled': 'Read before it had settled',
  friction: 'Something rubs',
  bent: 'The curve is bent',
  scatter: 'It does not repeat',
  'display scale': 'The display has another scale',
  reference: 'The reference itself is off',
};

/** Share as per cent, with its sign. */
const percent = (share: number): string => `${formatSigned(share * 100, 3)} %`;

function figureOf({ suspicion, fit }: Suspect, suspected: Suspected, units: SuspectUnits): string {
  const { condition, variant, values } = fit;
  const [first = 0] = values;
  const { range, resistorOhm, inputUnit, pressureKind } = suspected;
  const span = Math.abs(range.urv - range.lrv);
  const ofSpan = (value: number): string =>
    `${signed(value, span)} ${units.input} (${percent(value / span)} of span)`;
  const rangeWords = `${formatSignificant(condition.lrv, 4)} to ${formatSignificant(condition.urv, 4)} ${units.input}`;
  switch (suspicion) {
    case 'nothing':
    case 'reversed':
    case 'sides exchanged':
    case 'root missing':
    case 'root doubled':
      return '';
    case 'zero':
      return ofSpan(condition.sensorZero);
    case 'gain':
      return percent(condition.sensorGain);
    case 'zero and gain':
      return `${signed(condition.sensorZero, span)} ${units.input} and ${percent(condition.sensorGain)}`;
    case 'output zero':
      return `${signed(condition.outputZero * outputSpan(range), outputSpan(range))} ${units.output}`;
    case 'output gain':
    case 'bent':
      return percent(first);
    case 'water reference':
    case 'unit':
      return `${unitLabel(variant.name)} in place of ${units.input}`;
    case 'range':
      return rangeWords;
    case 'neighbouring range':
      return `${rangeWords}: ${variant.name ?? ''}`;
    case 'root misplaced':
      return transferOf(range).kind === 'linear' ? 'taken where none should be' : 'in the display, not here';
    case 'absolute or gauge':
      return `${pressureKind === 'absolute' ? 'it reads gauge' : 'it reads absolute'}: ${formatSignificant(Math.abs(first), 4)} ${units.input} of air`;
    case 'head':
      return inputUnit === null
        ? ''
        : `${formatFixed(Math.abs(first) / headOfMetre(inputUnit), 2)} m of water on the ${first > 0 ? 'high' : 'low'} side`;
    case 'resistor':
      return `${formatSignificant(condition.scale * (resistorOhm ?? 0), 4)} Ω in place of ${formatSignificant(resistorOhm ?? 0, 4)} Ω`;
    case 'saturated':
    case 'stuck':
      return `${formatSignificant(first, 4)} ${units.output}`;
    case 'leak':
      return `${formatSignificant(first * 100, 2)} % of the pressure by each reading`;
    case 'not settled':
      return `${formatSignificant(first, 2)} s to 63 %`;
    case 'friction':
      return `${formatSignificant(2 * first, 2)} ${units.input} (${formatSignificant((200 * first) / span, 2)} % of span) wide`;
    case 'scatter':
      return `${formatSignificant(first, 2)} % of span from reading to reading`;
    case 'display scale':
      return `${formatSignificant(condition.displayLow, 4)} to ${formatSignificant(condition.displayHigh, 4)} ${units.display ?? ''}`.trim();
    case 'reference':
      return `it shows ${
        variant.name === 'gain'
          ? `${formatFixed(Math.abs(first * 100), 3)} % of the reading`
          : `${signed(Math.abs(first), span).replace('+', '')} ${units.input}`
      } too ${first > 0 ? 'much' : 'little'}`;
  }
}

/** A suspicion with its fitted parameter and the test that decides. */
export const suspectWords = (suspect: Suspect, suspected: Suspected, units: SuspectUnits): SuspectWords => ({
  title: SUSPICION_NAMES[suspect.suspicion],
  figure: figureOf(suspect, suspected, units),
  test: TESTS[suspect.suspicion],
});

/** What it leaves beside what readings scatter by, in words: `0.01 % left, 0.02 % is ordinary`. */
export const leftWords = ({ residualPercent, scatterPercent }: Suspect): string =>
  `${formatFixed(residualPercent, 3)} % left beside ${formatFixed(scatterPercent, 3)} % of ordinary scatter`;
