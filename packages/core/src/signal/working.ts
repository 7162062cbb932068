/** The working of an expected output and of its inverse. */
import { Working, type Worked } from '../working';
import {
  appliedForOutput,
  displayedValue,
  expectedOutput,
  outputSensitivity,
  transferOf,
  type DisplayScale,
  type SignalRange,
} from './range';
import { isBelow, type Transfer } from './transfer';

/** Units as written for people. */
export interface RangeUnits {
  readonly input: string;
  readonly output: string;
}

const SIGNAL = 'IEC 60381-1 and IEC 60382, straight line between the ends of the range; from memory';
const COMMON = 'common practice for square-root instruments';

interface ShareFormula {
  readonly formula: string;
  readonly given?: Readonly<Record<string, { value: number; unit: string }>>;
  readonly what: string;
  readonly source: string;
}

const STRAIGHT: ShareFormula = { formula: 't', what: 'Share of the output span: linear', source: SIGNAL };
const ROOT: ShareFormula = {
  formula: 'sqrt(t)',
  what: 'Share of the output span: square root of the differential',
  source: COMMON,
};

/**
 * How the share of the output follows that of the input at this input.
 * @param t the share of the input
 * @param name of it in the formula
 */
export function shareFormula(transfer: Transfer, t: number, name = 't'): ShareFormula {
  const straight = { ...STRAIGHT, formula: name };
  const none = (why: string): ShareFormula => ({
    formula: `0 * ${name}`,
    what: `Share of the output span: ${why}`,
    source: COMMON,
  });
  if (transfer.kind === 'linear') return straight;
  if (transfer.kind === 'table') return tableStep(transfer, t * 100, 'inputPercent', 'outputPercent', name);
  if (t <= 0) return none('no flow below zero differential');
  if (transfer.kind === 'square-root-cut-off' && isBelow(t, (transfer.cutOffPercentOfFlow / 100) ** 2))
    return none('below the low-flow cut-off');
  if (transfer.kind === 'square-root-linear-start' && isBelow(t, (transfer.linearToPercentOfFlow / 100) ** 2))
    return {
      formula: `${name} / (F / 100)`,
      given: { F: { value: transfer.linearToPercentOfFlow, unit: '%' } },
      what: 'Share of the output span: on the chord of the linear start',
      source: COMMON,
    };
  if (transfer.kind === 'square-root-slope-one' && isBelow(t, transfer.linearToPercentOfInput / 100))
    return { ...straight, what: 'Share of the output span: linear start with slope one', source: COMMON };
  return { ...ROOT, formula: `sqrt(${name})` };
}

function tableStep(
  transfer: Transfer & { kind: 'table' },
  percent: number,
  from: 'inputPercent' | 'outputPercent',
  to: 'inputPercent' | 'outputPercent',
  symbol: string,
): ShareFormula {
  const { points } = transfer;
  const found = points.findIndex((point, index) => index > 0 && point[from] >= percent);
  const upper = found === -1 ? points.length - 1 : found;
  const [low, high] = [points[upper - 1], points[upper]];
  const at = (value: number | undefined) => ({ value: value ?? 0, unit: '%' });
  return {
    formula: `(b_1 + (b_2 - b_1) * (100 * ${symbol} - a_1) / (a_2 - a_1)) / 100`,
    given: { a_1: at(low?.[from]), a_2: at(high?.[from]), b_1: at(low?.[to]), b_2: at(high?.[to]) },
    what: 'Share by the straight line between two points of the table',
    source: 'linear interpolation in the table of the instrument',
  };
}

const ends = (range: SignalRange, units: RangeUnits) => ({
  LRV: { value: range.lrv, unit: units.input },
  URV: { value: range.urv, unit: units.input },
  y_0: { value: range.outputLow, unit: units.output },
  y_100: { value: range.outputHigh, unit: units.output },
});

/** The steps up to the ideal output, which later steps know as `y`. */
export function expectedSteps(work: Working, range: SignalRange, applied: number, units: RangeUnits): number {
  const given = { ...ends(range, units), x: { value: applied, unit: units.input } };
  const t = work.step({
    what: 'Share of the input span',
    symbol: 't',
    formula: '(x - LRV) / (URV - LRV)',
    given,
    unit: '',
    source: SIGNAL,
  });
  work.step({ symbol: 's', unit: '', ...shareFormula(transferOf(range), t) });
  return work.step({
    what: 'Ideal output',
    symbol: 'y',
    formula: 'y_0 + (y_100 - y_0) * s',
    given,
    unit: units.output,
    source: SIGNAL,
  });
}

/**
 * The expected output with its working.
 * @throws CoreError as `expectedOutput`
 */
export function workExpected(range: SignalRange, applied: number, units: RangeUnits): Worked {
  const value = expectedOutput(range, applied);
  const work = new Working();
  expectedSteps(work, range, applied, units);
  return { value, working: work.steps };
}

function backward(transfer: Transfer, s: number): ShareFormula {
  const what = 'Share of the input span';
  if (transfer.kind === 'linear') return { formula: 's', what: `${what}: linear`, source: SIGNAL };
  if (transfer.kind === 'table') return tableStep(transfer, s * 100, 'outputPercent', 'inputPercent', 's');
  if (transfer.kind === 'square-root-linear-start' && s > 0 && s < transfer.linearToPercentOfFlow / 100)
    return {
      formula: 's * F / 100',
      given: { F: { value: transfer.linearToPercentOfFlow, unit: '%' } },
      what: `${what}: on the chord of the linear start`,
      source: COMMON,
    };
  if (transfer.kind === 'square-root-slope-one' && s > 0) {
    const step = transfer.linearToPercentOfInput;
    if (s < step / 100) return { formula: 's', what: `${what}: linear start with slope one`, source: COMMON };
    if (s * s < step / 100)
      return {
        formula: 'D / 100',
        given: { D: { value: step, unit: '%' } },
        what: `${what}: the output steps over this value`,
        source: COMMON,
      };
  }
  return { formula: 's * abs(s)', what: `${what}: square of the flow, with its sign`, source: COMMON };
}

/**
 * The input that an output stands for, with its working.
 * @throws CoreError as `appliedForOutput`
 */
export function workApplied(range: SignalRange, output: number, units: RangeUnits): Worked {
  const value = appliedForOutput(range, output);
  const work = new Working();
  const given = { ...ends(range, units), y: { value: output, unit: units.output } };
  const s = work.step({
    what: 'Share of the output span',
    symbol: 's',
    formula: '(y - y_0) / (y_100 - y_0)',
    given,
    unit: '',
    source: SIGNAL,
  });
  work.step({ symbol: 't', unit: '', ...backward(transferOf(range), s) });
  work.step({
    what: 'Input that this output stands for',
    symbol: 'x',
    formula: 'LRV + (URV - LRV) * t',
    given,
    unit: units.input,
    source: SIGNAL,
  });
  return { value, working: work.steps };
}

/**
 * What a display shows for an output, with its working.
 * @param unit of the display
 * @throws CoreError as `displayedValue`
 */
export function workDisplayed(
  range: SignalRange,
  scale: DisplayScale,
  output: number,
  unit: string,
  outputUnit: string,
): Worked {
  const value = displayedValue(range, scale, output);
  const work = new Working();
  work.step({
    what: 'Share of the output span',
    symbol: 's',
    formula: '(y - y_0) / (y_100 - y_0)',
    given: {
      y: { value: output, unit: outputUnit },
      y_0: { value: range.outputLow, unit: outputUnit },
      y_100: { value: range.outputHigh, unit: outputUnit },
    },
    unit: '',
    source: SIGNAL,
  });
  work.step({
    what: 'Shown on the display',
    symbol: 'd',
    formula: 'd_0 + (d_100 - d_0) * s',
    given: { d_0: { value: scale.low, unit }, d_100: { value: scale.high, unit } },
    unit,
    source: 'the scale of the display',
  });
  return { value, working: work.steps };
}

/** The slope of the transfer function at this input, as a formula in t. */
function slopeFormula(transfer: Transfer, t: number): ShareFormula {
  const what = 'Slope of the transfer function';
  const { formula, given = {} } = shareFormula(transfer, t);
  if (transfer.kind === 'table')
    return { formula: '(b_2 - b_1) / (a_2 - a_1)', given, what, source: 'the table of the instrument' };
  if (formula === 't') return { formula: '1', what: `${what}: linear`, source: SIGNAL };
  if (formula === '0 * t') return { formula: '0', what: `${what}: no flow here`, source: COMMON };
  if (formula === 'sqrt(t)')
    return { formula: '1 / (2 * sqrt(t))', what: `${what}: square root`, source: COMMON };
  return { formula: '100 / F', given, what: `${what}: on the chord of the linear start`, source: COMMON };
}

/**
 * Sensitivity of the output to the input, with its working.
 * @throws CoreError as `outputSensitivity`
 */
export function workSensitivity(range: SignalRange, applied: number, units: RangeUnits): Worked {
  const value = outputSensitivity(range, applied);
  const work = new Working();
  const given = { ...ends(range, units), x: { value: applied, unit: units.input } };
  const t = work.step({
    what: 'Share of the input span',
    symbol: 't',
    formula: '(x - LRV) / (URV - LRV)',
    given,
    unit: '',
    source: SIGNAL,
  });
  work.step({ symbol: 'b', unit: '', ...slopeFormula(transferOf(range), t) });
  work.step({
    what: 'Output units in one input unit',
    symbol: 'c',
    formula: '(y_100 - y_0) / (URV - LRV) * b',
    given,
    unit: `${units.output} per ${units.input}`,
    source: `5.1.3, JCGM 100:2008, from memory`,
  });
  return { value, working: work.steps };
}
