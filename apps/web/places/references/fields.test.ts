import { findingSchema, moduleSchema } from '@barys/store/shapes';
import { describe, expect, it } from 'vitest';
import {
  fieldsOfModule,
  FINDING_FIELDS,
  findingOfFields,
  MODULE_FIELDS,
  moduleOfFields,
  resultsField,
  resultsOfForm,
  resultsOfText,
} from './fields';
import { accuracyWords, certificateWords, rangeWords } from './words';

const TYPED = {
  ...MODULE_FIELDS,
  name: '20 bar',
  rangeLow: '-1',
  rangeHigh: '20',
  resolution: '0,0001',
  percentOfReading: '0.02',
  percentOfRange: '0.01',
};

describe('a range of a reference', () => {
  const range = moduleSchema.parse(moduleOfFields(TYPED));

  it('is read from its fields, an empty term as none, and comes back as it was', () => {
    expect(moduleSchema.parse(moduleOfFields({ ...TYPED, floor: '' }))).toEqual(range);
    expect(range).toMatchObject({ resolution: 0.0001, floor: 0, isActive: true });
    expect(moduleSchema.parse(moduleOfFields(fieldsOfModule(range)))).toEqual(range);
  });

  it('is said with its unit, its kind where it is a pressure, and the terms of its accuracy', () => {
    expect(rangeWords(range)).toBe('−1 … 20 bar gauge');
    expect(accuracyWords(range)).toBe('0.02 % of reading + 0.01 % of range');
    const meter = {
      ...range,
      quantity: 'current',
      unit: 'mA',
      rangeLow: 0,
      rangeHigh: 24,
      floor: 0.002,
    } as const;
    expect(rangeWords(meter)).toBe('0 … 24 mA');
    expect(accuracyWords(meter)).toBe('0.02 % of reading + 0.01 % of range + 0.002 mA');
  });

  it('has a certificate or says that it has none', () => {
    expect(certificateWords({ certificate: 'K-1', dueOn: '2027-05-18' })).toBe(
      'certificate K-1, due 18 May 2027',
    );
    expect(certificateWords({ certificate: '', dueOn: null })).toBe('no certificate');
  });
});

describe('what a certificate says point by point', () => {
  it('is typed or pasted in any order, parted by semicolons or tabs', () => {
    expect(resultsOfText('10; 0,002; 0.004\n\n0\t0\t0.003', 0)).toEqual([
      { at: 0, correction: 0, uncertainty: 0.003 },
      { at: 10, correction: 0.002, uncertainty: 0.004 },
    ]);
    expect(resultsOfText(' ', 0)).toEqual([]);
  });

  it('comes with the range and the unit that the form showed', () => {
    const form = new FormData();
    form.set('number', 'K-1');
    form.set(resultsField({ id: 7, unit: 'inH2O-4C' }), '1;0;1');
    form.set(resultsField({ id: 8, unit: 'kPa' }), '');
    expect(resultsOfForm(form)).toEqual([
      { moduleId: 7, unit: 'inH2O-4C', points: [{ at: 1, correction: 0, uncertainty: 1 }] },
      { moduleId: 8, unit: 'kPa', points: [] },
    ]);
  });

  it.each([
    ['0;0;1\n5;0', 'Line 2: The expanded uncertainty is a number.'],
    ['5;high;1', 'Line 1: The correction is a number.'],
    ['5;0;0', 'must be greater than zero'],
    ['5;0;1;2', 'Line 1: three figures are meant.'],
  ])('%o is refused with its line', (text, words) => {
    expect(() => resultsOfText(text, 1)).toThrow(words);
  });
});

describe('a finding', () => {
  const read = (errors: string) =>
    findingSchema.safeParse(
      findingOfFields({
        ...FINDING_FIELDS,
        foundOn: '2026-05-04',
        goodUntil: '2025-05-04',
        note: 'reads high',
        errors,
      }),
    );

  it('has its points pasted in any order, parted by semicolons or tabs', () => {
    expect(read('20; 0,016\n\n0;0\n5\t-0.0045').data?.errors).toEqual([
      { at: 0, error: 0 },
      { at: 5, error: -0.0045 },
      { at: 20, error: 0.016 },
    ]);
  });

  it.each(['', '5', '5; high', 'five; 0.1'])('with the points %o is refused', (errors) => {
    expect(read(errors).success).toBe(false);
  });
});
