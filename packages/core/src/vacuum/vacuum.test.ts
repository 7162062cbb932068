import { describe, expect, it } from 'vitest';
import { expectAll, givenNumber, loadCases, type Case } from '../../test/fixtures';
import { convertPressure, type PressureUnit } from '../units';
import {
  decadeLimit,
  percentLimitInDecades,
  vacuumError,
  workLogarithmicOutput,
  workLogarithmicPressure,
} from './index';

const UNITS: Readonly<Record<string, PressureUnit>> = {
  'millitorr absolute': 'mTorr',
  'pascals absolute': 'Pa',
  'millibars absolute': 'mbar',
  'torr absolute': 'Torr',
};

const cases = (kind: RegExp) =>
  loadCases<Case>('vacuum.json', kind).map((one): [string, Case] => [one.id, one]);
const units = { pressure: 'mbar', output: 'mA' };

describe('gauges over decades, against figures computed outside Barys', () => {
  it.each(cases(/^percent of reading and decade error$/))('%s', (_id, { given, expect: wanted }) => {
    const got: Record<string, unknown> = {};
    for (let n = 1; `reference ${n}` in given; n += 1) {
      const [reference, indicated] = [given[`reference ${n}`], given[`indicated ${n}`]];
      if (reference === undefined || indicated === undefined) throw new Error('half a pair');
      const [from, to] = [UNITS[indicated.unit], UNITS[reference.unit]];
      if (from === undefined || to === undefined) throw new Error(`no unit for ${indicated.unit}`);
      const error = vacuumError(reference.value, convertPressure(indicated.value, from, to));
      got[`error in percent of reading ${n}`] = error.percentOfReference;
      got[`error in decades ${n}`] = error.decades;
    }
    expectAll(wanted, got);
  });

  it.each(cases(/^decade limit as percent/))('%s', (_id, { given, expect: wanted }) => {
    const { upperPercent, lowerPercent, factor } = decadeLimit(givenNumber(given, 'limit'));
    expectAll(wanted, { 'upper limit': upperPercent, 'lower limit': lowerPercent, factor });
  });

  it.each(cases(/^percent limit in decades$/))('%s', (_id, { given, expect: wanted }) => {
    const { upperDecades, lowerDecades } = percentLimitInDecades(givenNumber(given, 'limit'));
    expectAll(wanted, { 'upper limit': upperDecades, 'lower limit': lowerDecades });
  });

  it.each(cases(/^logarithmic output signal$/))('%s', (_id, { given, expect: wanted }) => {
    const of = (name: string) => givenNumber(given, name);
    const range = {
      low: of('pressure at start of signal'),
      high: of('pressure at end of signal'),
      outputLow: of('signal at start'),
      outputHigh: of('signal at end'),
    };
    const got: Record<string, unknown> = { 'decades covered': Math.log10(range.high / range.low) };
    for (let n = 1; `pressure ${n}` in given; n += 1)
      got[`signal ${n}`] = workLogarithmicOutput(range, of(`pressure ${n}`), units).value;
    for (let n = 1; `signal reading ${n}` in given; n += 1) {
      const { value } = workLogarithmicPressure(range, of(`signal reading ${n}`), units);
      const error = vacuumError(of(`reference at reading ${n}`), value);
      got[`indicated pressure ${n}`] = value;
      got[`error in percent of reading ${n}`] = error.percentOfReference;
      got[`error in decades ${n}`] = error.decades;
    }
    expectAll(wanted, got);
  });

  it('has no per cent and no decades of nothing, and no pressure below it', () => {
    expect(vacuumError(0, 2)).toEqual({ error: 2, percentOfReference: null, decades: null });
    expect(vacuumError(2, 0)).toEqual({ error: -2, percentOfReference: -100, decades: null });
    expect(() => vacuumError(-1, 2)).toThrow('reference must be greater than zero');
    expect(percentLimitInDecades(100).lowerDecades).toBeNull();
  });
});

it('a microbar is a tenth of a pascal', () => {
  expect(convertPressure(1, 'microbar', 'Pa')).toBe(0.1);
});
