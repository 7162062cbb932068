import { describe, expect, it } from 'vitest';
import { CoreError } from '../errors';
import {
  leftWords,
  SUSPICION_NAMES,
  SUSPICIONS,
  suspectWords,
  weigh,
  workWeighing,
  type Suspected,
  type SuspectReading,
} from './index';
import { CASE, line, read, ROOT } from './test/case';

describe('words and refusals', () => {
  it('has a name, a figure without NaN and a test for every suspicion that is weighed', () => {
    const everything: Suspected = {
      ...ROOT,
      inputUnit: 'inH2OAt4C',
      readings: read((x) => line(x) + 0.2).map((one) => ({
        ...one,
        digital: one.applied,
        shown: one.applied,
      })),
      display: { low: 0, high: 500 },
      resistorOhm: 250,
      neighbours: [{ name: 'version 1', range: { ...CASE.range, urv: 300 } }],
      vented: 4,
    };
    const { suspects } = weigh(everything);
    // All but what a gauge pressure alone can be.
    expect(new Set(suspects.map(({ suspicion }) => suspicion))).toEqual(
      new Set(SUSPICIONS.filter((one) => one !== 'absolute or gauge')),
    );
    for (const one of suspects) {
      const { title, figure, test } = suspectWords(one, everything, {
        input: 'inH2O',
        output: 'mA',
        display: 'm³/h',
      });
      expect(title).toBe(SUSPICION_NAMES[one.suspicion]);
      expect(`${title} ${figure} ${test} ${leftWords(one)}`).not.toMatch(/NaN|Infinity|undefined|-0\b/);
      expect(test.length).toBeGreaterThan(5);
    }
  });

  it('shows how the probability of the first comes about', () => {
    const weighed = weigh({ ...CASE, readings: read((x) => line(x) + 0.3) });
    const steps = workWeighing(weighed);
    expect(steps.at(-1)?.value).toBeCloseTo(weighed.suspects[0]?.probability ?? NaN, 9);
  });

  it.each([
    ['limitPercent', { limitPercent: 0 }],
    ['readings', { readings: [] }],
    ['readings', { readings: Array.from({ length: 91 }, () => read(line)[0] as SuspectReading) }],
    ['readings.0.output', { readings: [{ applied: 0, output: NaN, direction: 'up' as const }] }],
    ['barometer', { barometer: -1 }],
    ['resistorOhm', { resistorOhm: 0 }],
    ['urv', { range: { ...CASE.range, urv: 0 } }],
  ])('refuses %s', (field, change) => {
    const suspected = { ...CASE, readings: read(line), ...change };
    try {
      weigh(suspected);
      expect.unreachable();
    } catch (error) {
      expect(error).toBeInstanceOf(CoreError);
      expect((error as CoreError).field).toBe(field);
    }
  });
});
