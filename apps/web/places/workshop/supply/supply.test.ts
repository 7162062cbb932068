import { describe, expect, it } from 'vitest';
import {
  computeMeasured,
  computeReceiver,
  computeSupply,
  csvOfSupply,
  lengthWords,
  noteOfSupply,
} from './compute';
import { orSupplyFault, SUPPLY_FIELDS, type SupplyFields } from './fields';

const supply = (patch: Partial<SupplyFields> = {}) => {
  const fields = { ...SUPPLY_FIELDS, temperature: '20', ...patch };
  return { fields, result: computeSupply(fields) };
};
const wrong = (patch: Partial<SupplyFields>) =>
  orSupplyFault<object>(() => computeSupply({ ...SUPPLY_FIELDS, ...patch }));

describe('the supply of a loop as it is typed', () => {
  it('is a budget, by area or by gauge, in metres or feet', () => {
    // M-P01 and M-P06 of the core's cases.
    expect(supply().result.budget.terminalV.atFailure).toBeCloseTo(18.38796, 7);
    const awg = {
      by: 'gauge',
      gauge: '22',
      length: '1000',
      temperature: '-30',
      liftOff: '10',
      resistor: '100',
    };
    expect(supply(awg).result.budget.wireOhm).toBeCloseTo(85.1053499798, 7);
    const feet = supply({ length: String(500 / 0.3048).slice(0, 14), lengthUnit: 'ft' });
    expect(feet.result.budget.wireOhm).toBeCloseTo(17.24, 6);
    expect(lengthWords(feet.fields, 304.8)).toBe('1000 ft');
  });

  it('says at each current where the volts stay, and whether they are enough', () => {
    const { rows } = supply({ barrier: '350', length: '200', area: '1.5' }).result;
    expect(rows.map(({ milliamp }) => milliamp)).toEqual([3.6, 4, 12, 20, 21]);
    for (const row of rows)
      expect(row.cable + row.resistor + row.barrier + row.other + row.terminal).toBeCloseTo(24, 12);
    expect(rows.map(({ isEnough }) => isEnough)).toEqual([true, true, true, false, false]);
    // M-P05: exactly on the lift-off voltage is enough.
    expect(supply({ supply: '22.5', length: '0', other: '250' }).result.rows.at(-1)?.isEnough).toBe(true);
  });

  it('finds a bad connection from what was measured', () => {
    const { fields, result } = supply({ measured: '13.79312', at: '12' });
    // By hand: 24 V less 12 mA over 267.24 ohms is 20.79312 V; 7 V more are 583.3 ohms.
    expect(computeMeasured(fields, result)).toEqual({
      expected: expect.closeTo(20.79312, 9) as number,
      ohm: expect.closeTo(583.333333, 5) as number,
    });
  });

  it('gives a computer input its volts', () => {
    // M-P10: 249 ohms of 1 % against 250.
    const rows = computeReceiver({ ...SUPPLY_FIELDS, resistor: '249', tolerance: '1' });
    expect(rows[0]).toMatchObject({
      nominal: expect.closeTo(0.996, 9) as number,
      percent: expect.closeTo(-0.349, 9) as number,
    });
    expect(
      computeReceiver({ ...SUPPLY_FIELDS, tolerance: '0.02', input: '1000000' })[0]?.nominal,
    ).toBeCloseTo(0.9997500624844, 9);
  });

  it('leaves as CSV and as a note', () => {
    const { fields, result } = supply();
    expect(csvOfSupply(result.rows).split('\r\n').at(-1)).toBe('21,0.362,5.250,0.000,0.000,18.388,yes');
    expect(noteOfSupply(fields, result)).toBe(
      'Loop supply: 18.39 V at the terminals at 21 mA, lift-off 12 V; 267.2 Ω in the loop.',
    );
  });

  it('tells what is wrong at its field', () => {
    expect(wrong({ supply: '0' })).toMatchObject({ field: 'supply' });
    expect(wrong({ length: '-1' })).toMatchObject({ field: 'length' });
    expect(wrong({ area: '0' })).toMatchObject({ field: 'area' });
    expect(wrong({ by: 'gauge', gauge: '99' })).toMatchObject({ field: 'gauge' });
    expect(wrong({ temperature: '900' })).toMatchObject({ field: 'temperature' });
    expect(wrong({ failure: '' })).toMatchObject({ field: 'failure' });
    expect(wrong({ resistor: 'x' })).toMatchObject({ field: 'resistor' });
    const { fields, result } = supply({ measured: '12', at: '0' });
    expect(orSupplyFault<object>(() => computeMeasured(fields, result))).toMatchObject({ field: 'at' });
    expect(orSupplyFault<object>(() => computeReceiver({ ...fields, resistor: '0' }))).toMatchObject({
      field: 'resistor',
    });
  });
});
