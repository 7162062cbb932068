/** What a wrong setting does, and what the checks find, step by step. */
import { toNumber } from '../exact';
import { shareFormula } from '../signal';
import {
  convertPressure,
  PRESSURE_UNITS,
  STANDARD_GRAVITY,
  workConversion,
  type PressureUnit,
} from '../units';
import { Working, type Step, type Worked } from '../working';
import { farthestApart, madeAsRead, madeAsWanted, type Made } from './apart';
import { leastTerminalVoltage, positionHead } from './checks';
import type { SettingKey, Setup, WantedSetup } from './settings';

const COMMON = 'common practice';
const LAG = 'first-order lag, common practice';

/** The steps to one of the two outputs, whose symbols end in its mark. */
function outputSteps(
  work: Working,
  wanted: WantedSetup,
  made: Made,
  applied: number,
  { mark, words }: { readonly mark: string; readonly words: string },
): void {
  const input = PRESSURE_UNITS[wanted.inputUnit].label;
  let symbol = `t_${mark}`;
  let value = work.step({
    what: `Share of the input span, ${words}`,
    symbol,
    formula: '(x - LRV) / (URV - LRV)',
    given: {
      x: { value: applied, unit: input },
      LRV: { value: made.lrv, unit: input },
      URV: { value: made.urv, unit: input },
    },
    unit: '',
    source: 'straight line between the ends of the range',
  });
  made.transfers.forEach((transfer, turn) => {
    const { what, ...formula } = shareFormula(transfer, value, symbol);
    symbol = `s_${mark}${made.transfers.length > 1 ? turn + 1 : ''}`;
    const time = made.transfers.length > 1 ? ['by the scaled variable, ', 'by the output, '][turn] : '';
    value = work.step({ symbol, unit: '', what: `${what}, ${time ?? ''}${words}`, ...formula });
  });
  work.step({
    what: `Output, ${words}`,
    symbol: `y_${mark}`,
    formula: `y_0 + (y_100 - y_0) * ${symbol}`,
    given: outputEnds(wanted),
    unit: wanted.outputUnit,
    source: 'straight line between the ends of the output',
  });
}

const outputEnds = ({ outputLow, outputHigh, outputUnit }: WantedSetup) => ({
  y_0: { value: outputLow, unit: outputUnit },
  y_100: { value: outputHigh, unit: outputUnit },
});

function workOutput(wanted: WantedSetup, read: Setup, key: SettingKey): readonly Step[] {
  const made = madeAsRead(wanted, read, key);
  if (made === null) return [];
  const { applied } = farthestApart(wanted, made, key);
  const end = key === 'lrv' || key === 'urv' ? read[key] : null;
  const before =
    end === null || read.inputUnit === null || read.inputUnit === wanted.inputUnit
      ? []
      : workConversion(end, read.inputUnit, wanted.inputUnit).working;
  const work = new Working(before);
  outputSteps(work, wanted, madeAsWanted(wanted), applied, { mark: 'must', words: 'as it has to be' });
  outputSteps(work, wanted, made, applied, { mark: 'read', words: 'as read' });
  work.step({
    what: 'Error of the output where it is largest over the range, per cent of span',
    symbol: 'e',
    formula: '100 * (y_read - y_must) / (y_100 - y_0)',
    given: outputEnds(wanted),
    unit: '%',
    source: COMMON,
  });
  return work.steps;
}

function workLag(must: number, read: number): readonly Step[] {
  const work = new Working();
  for (const [mark, tau, words] of [
    ['must', must, 'as it has to be'],
    ['read', read, 'as read'],
  ] as const)
    work.step({
      what: `Time to within 0.1 % of a step, ${words}: 1000 = exp(t / tau)`,
      symbol: `t_${mark}`,
      formula: 'tau * ln(1000)',
      given: { tau: { value: tau, unit: 's' } },
      unit: 's',
      source: LAG,
    });
  return work.steps;
}

function workDisplay(wanted: WantedSetup, read: Setup, key: 'displayLow' | 'displayHigh'): readonly Step[] {
  const [low, high] = [wanted.displayLow ?? 0, wanted.displayHigh ?? 100];
  if (low === high) return [];
  const unit = wanted.displayUnit ?? '';
  const found = read[key] ?? 0;
  const ends = { d_0: { value: low, unit }, d_100: { value: high, unit } };
  const work = new Working();
  const half = (mark: string, words: string, given: typeof ends) =>
    work.step({
      what: `Shown at half the range, ${words}`,
      symbol: `d_${mark}`,
      formula: 'd_0 + (d_100 - d_0) / 2',
      given,
      unit,
      source: 'the scale of the display',
    });
  half('must', 'as it has to be', ends);
  half('read', 'as read', { ...ends, [key === 'displayLow' ? 'd_0' : 'd_100']: { value: found, unit } });
  work.step({
    what: 'Difference, per cent of the scale',
    symbol: 'e',
    formula: '100 * (d_read - d_must) / (d_100 - d_0)',
    given: ends,
    unit: '%',
    source: COMMON,
  });
  return work.steps;
}

/** Switching points that were read in another unit. */
function workPoints(wanted: WantedSetup, read: Setup): readonly Step[] {
  const { inputUnit, switchingPoints } = read;
  if (inputUnit === null || inputUnit === wanted.inputUnit) return [];
  return (switchingPoints ?? []).flatMap(({ on, off }) =>
    [on, off].flatMap((value) => workConversion(value, inputUnit, wanted.inputUnit).working),
  );
}

/**
 * The steps to what a difference of `compareSetups` does; none where it names a choice and no figure.
 * @throws CoreError as `compareSetups`
 */
export function workDifference(wanted: WantedSetup, read: Setup, key: SettingKey): readonly Step[] {
  switch (key) {
    case 'inputUnit':
      return read.inputUnit === null ? [] : workConversion(1, read.inputUnit, wanted.inputUnit).working;
    case 'lrv':
    case 'urv':
    case 'transferFunction':
    case 'drivenBy':
      return workOutput(wanted, read, key);
    case 'dampingS':
    case 'displayDampingS':
      return workLag(wanted[key] ?? 0, read[key] ?? 0);
    case 'displayLow':
    case 'displayHigh':
      return workDisplay(wanted, read, key);
    case 'switchingPoints':
      return workPoints(wanted, read);
    case 'application':
    case 'displayUnit':
    case 'startView':
      return [];
  }
}

/**
 * `positionHead` with its working, and as an error of a range.
 * @returns per cent of the span
 * @throws CoreError as `positionHead`, `undefined-result` of a range without a span
 */
export function workPositionHead(
  [fillDensity, distanceM, tiltDegrees]: Parameters<typeof positionHead>,
  { inputUnit, lrv, urv }: { readonly inputUnit: PressureUnit; readonly lrv: number; readonly urv: number },
): Worked {
  const head = positionHead(fillDensity, distanceM, tiltDegrees);
  const unit = PRESSURE_UNITS[inputUnit].label;
  const work = new Working();
  work.step({
    what: 'Head of the fill between the diaphragms',
    symbol: 'p_tilt',
    formula: 'rho * g * d * sin(alpha / 180 * pi)',
    given: {
      rho: { value: fillDensity, unit: 'kg/m³' },
      g: { value: toNumber(STANDARD_GRAVITY), unit: 'm/s²' },
      d: { value: distanceM, unit: 'm' },
      alpha: { value: tiltDegrees, unit: '°' },
      pi: { value: Math.PI, unit: '' },
    },
    unit: 'Pa',
    source: 'hydrostatics, common practice',
  });
  const error = new Working([...work.steps, ...workConversion(head, 'Pa', inputUnit).working]);
  const value = error.step({
    what: 'Error, per cent of span',
    symbol: 'e',
    formula: '100 * p / abs(URV - LRV)',
    given: {
      p: { value: convertPressure(head, 'Pa', inputUnit), unit },
      LRV: { value: lrv, unit },
      URV: { value: urv, unit },
    },
    unit: '%',
    source: COMMON,
  });
  return { value, working: error.steps };
}

/**
 * `leastTerminalVoltage` with its working.
 * @returns V
 * @throws CoreError as `leastTerminalVoltage`
 */
export function workLeastTerminalVoltage(
  voltage: number,
  atMilliamp: number,
  loopOhm: number,
  highestMilliamp: number,
): Worked {
  const value = leastTerminalVoltage(voltage, atMilliamp, loopOhm, highestMilliamp);
  const work = new Working();
  work.step({
    what: 'What the rest of the loop takes more at the highest current',
    symbol: 'V_loop',
    formula: '(I_max - I) / 1000 * R',
    given: {
      I_max: { value: highestMilliamp, unit: 'mA' },
      I: { value: atMilliamp, unit: 'mA' },
      R: { value: loopOhm, unit: 'Ω' },
    },
    unit: 'V',
    source: 'Ohm’s law',
  });
  work.step({
    what: 'Terminal voltage at the highest current',
    symbol: 'V_least',
    formula: 'V - V_loop',
    given: { V: { value: voltage, unit: 'V' } },
    unit: 'V',
    source: 'Ohm’s law',
  });
  return { value, working: work.steps };
}
