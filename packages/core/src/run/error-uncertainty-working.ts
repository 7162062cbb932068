/** The working of the uncertainty of a reading's error. */
import { expectedSteps, transferOf, type RangeUnits, type SignalRange } from '../signal';
import { Working, type Given, type Worked } from '../working';
import { errorUncertainty, furtherSide, type ErrorSources } from './error-uncertainty';

const GUM = 'JCGM 100:2008, from memory';

/**
 * The same with its working; ends in U.
 * @throws CoreError as `errorUncertainty`
 */
export function workErrorUncertainty(
  range: SignalRange,
  applied: number,
  sources: ErrorSources,
  units: RangeUnits,
): Worked {
  const value = errorUncertainty(range, applied, sources);
  const work = new Working();
  const half = (what: string, symbol: string, expanded: string, amount: number, unit: string): void => {
    work.step({
      what,
      symbol,
      formula: `${expanded} / 2`,
      given: { [expanded]: { value: amount, unit } },
      unit,
      source: `expanded with k = 2, 4.3.3, ${GUM}`,
    });
  };
  const step = (what: string, symbol: string, size: string, amount: number, unit: string): void => {
    work.step({
      what,
      symbol,
      formula: `${size} / (2 * sqrt(3))`,
      given: { [size]: { value: amount, unit } },
      unit,
      source: `rectangular, 4.3.7 and F.2.2.1, ${GUM}`,
    });
  };
  half('Standard uncertainty of the standard', 'u_1', 'U_std', sources.standardInput, units.input);
  step('What can be read of the standard', 'u_2', 'd_std', sources.standardStepInput, units.input);
  const input = work.step({
    what: 'Of the applied value',
    symbol: 'u_x',
    formula: 'sqrt(u_1^2 + u_2^2)',
    unit: units.input,
    source: `5.1.2, ${GUM}`,
  });
  referredSteps(work, range, applied, input, units);
  half('Standard uncertainty of the meter', 'u_3', 'U_met', sources.meterOutput, units.output);
  step('What can be read of the output', 'u_4', 'd_met', sources.readingStepOutput, units.output);
  work.step({
    what: 'Combined standard uncertainty of the error',
    symbol: 'u_c',
    formula: 'sqrt(u_y^2 + u_3^2 + u_4^2)',
    unit: units.output,
    source: `5.1.2, equation 10, ${GUM}`,
  });
  work.step({
    what: 'Expanded uncertainty of the error, k = 2, about 95 %',
    symbol: 'U',
    formula: '2 * u_c',
    unit: units.output,
    source: `6.2.1 and 6.3.3, ${GUM}`,
  });
  return { value, working: work.steps };
}

/** The steps that refer the uncertainty of the applied value to the output, which later steps know as `u_y`. */
function referredSteps(
  work: Working,
  range: SignalRange,
  applied: number,
  input: number,
  units: RangeUnits,
): void {
  const given: Record<string, Given> = {
    LRV: { value: range.lrv, unit: units.input },
    URV: { value: range.urv, unit: units.input },
    y_0: { value: range.outputLow, unit: units.output },
    y_100: { value: range.outputHigh, unit: units.output },
    x: { value: applied, unit: units.input },
  };
  const what = 'Of the applied value, referred to the output';
  if (transferOf(range).kind === 'linear') {
    const formula = 'u_x * abs((y_100 - y_0) / (URV - LRV))';
    work.step({ what, symbol: 'u_y', formula, given, unit: units.output, source: `5.1.3, ${GUM}` });
    return;
  }
  const ideal = expectedSteps(work, range, applied, units);
  const away = work.step({
    what: 'The applied value moved by its uncertainty to the side where the output moves further',
    symbol: 'x_u',
    formula: furtherSide(range, applied, input) > 0 ? 'x + u_x' : 'x - u_x',
    given,
    unit: units.input,
    source: `5.1.3, note 2, ${GUM}`,
  });
  expectedSteps(work, range, away, units);
  work.step({
    what,
    symbol: 'u_y',
    formula: 'abs(y - y_x)',
    given: { y_x: { value: ideal, unit: units.output } },
    unit: units.output,
    source: `5.1.3, note 2, ${GUM}`,
  });
}
