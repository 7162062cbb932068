import { describe, expect, it } from 'vitest';
import { computeOrifice, csvOfOrifice, flowAddress, noteOfOrifice } from './compute';
import { ORIFICE_FIELDS, orOrificeFault, type OrificeFields } from './fields';

const plate = (patch: Partial<OrificeFields> = {}) => {
  const fields = { ...ORIFICE_FIELDS, ...patch };
  return { fields, result: computeOrifice(fields) };
};
const wrong = (patch: Partial<OrificeFields>) =>
  orOrificeFault<object>(() => computeOrifice({ ...ORIFICE_FIELDS, ...patch }));

const AIR: Partial<OrificeFields> = {
  fluid: 'gas',
  pipe: '154.05',
  bore: '92.43',
  pressure: '800',
  density: '9.5',
  viscosity: '0.0182',
  differential: '25',
  flowUnit: 'kgPerS',
};

describe('an orifice plate as it is typed', () => {
  it('gives the flow of its differential, in volume and in mass', () => {
    // K-P14 and K-P15 of the core's cases.
    const { result } = plate();
    expect(result.shown.flow).toBe('44.020');
    expect(result.flow.lossPa / 1000).toBeCloseTo(12.548, 3);
    expect(result.broken).toEqual([]);
    expect(plate(AIR).result.shown.flow).toBe('2.9727');
  });

  it('gives the differential of a flow, and the bore of both', () => {
    // K-P19 and K-P21.
    const dp = plate({
      find: 'differential',
      pipe: '100',
      bore: '60',
      pressure: '700',
      flow: '15',
      flowUnit: 'kgPerS',
    });
    expect(dp.result.shown.differential).toBe('33.094');
    const bore = plate({
      find: 'bore',
      pipe: '154.05',
      pressure: '900',
      flow: '30',
      flowUnit: 'kgPerS',
      differential: '25',
    });
    expect(bore.result.shown.boreMm).toBe('91.279');
    // A volume flow is one of the fluid as it is upstream.
    const volume = plate({
      find: 'bore',
      pipe: '154.05',
      pressure: '900',
      flow: ((30 / 998.2) * 3600).toFixed(6),
      differential: '25',
    });
    expect(volume.result.shown.boreMm).toBe('91.279');
  });

  it('takes gauge pressures with the barometer', () => {
    const gauge = plate({ ...AIR, kind: 'gauge', pressure: '698.675' });
    expect(gauge.result.flow.massFlow).toBeCloseTo(plate(AIR).result.flow.massFlow, 9);
  });

  it('says which limits are not kept, and states no uncertainty beyond them', () => {
    const { result } = plate({
      pipe: '77.9',
      bore: '54.53',
      taps: 'D and D/2',
      pressure: '400',
      density: '880',
      viscosity: '50',
      differential: '10',
    });
    expect(result.broken.map(({ name }) => name)).toEqual(['reynolds']);
    // By hand: C 0.5 %, D 0.4 % and d 0.07 % by beta⁴ 0.1296, half of 0.5 and of 0.1 %.
    const parts = [0.5, (2 * 0.1296 * 0.4) / 0.8704, (2 * 0.07) / 0.8704, 0.25, 0.05];
    expect(plate().result.uncertaintyPercent).toBeCloseTo(Math.hypot(...parts), 6);
  });

  it('stands over its range, and leaves as CSV, as a range of Flow and as a note', () => {
    const { fields, result } = plate();
    expect(result.rows.map(({ percent }) => percent)).toEqual(['10', '25', '50', '75', '100', '110']);
    expect(result.rows.find(({ percent }) => percent === '100')?.byRoot).toBe('100.00 %');
    expect(csvOfOrifice(fields, result.rows).split('\r\n')[5]).toBe(
      '100,44.020,20.000,0.60951,1.00000,100.00',
    );
    const address = new URLSearchParams(flowAddress(fields, result));
    expect([
      address.get('differentialMax'),
      address.get('unit'),
      address.get('flowMax'),
      address.get('flowUnit'),
    ]).toEqual(['20.000', 'kPa', '44.020', 'm³/h']);
    expect(noteOfOrifice(fields, result)).toContain('Orifice 61.356 mm in 102.26 mm, flange taps');
    // So much gas does not pass: the rows that are left are those that do.
    expect(
      plate({ ...AIR, differential: '790' }).result.rows.every(
        ({ differential }) => !differential.includes('NaN'),
      ),
    ).toBe(true);
  });

  it('tells what is wrong at its field', () => {
    expect(wrong({ bore: '102.26' })).toMatchObject({ field: 'bore' });
    expect(wrong({ pipe: '0' })).toMatchObject({ field: 'pipe' });
    expect(wrong({ density: '-1' })).toMatchObject({ field: 'density' });
    expect(wrong({ viscosity: '' })).toMatchObject({ field: 'viscosity' });
    expect(wrong({ differential: '0' })).toMatchObject({ field: 'differential' });
    expect(wrong({ fluid: 'gas', exponent: '0.9' })).toMatchObject({ field: 'exponent' });
    expect(wrong({ fluid: 'gas', differential: '600' })).toMatchObject({ field: 'differential' });
    expect(wrong({ find: 'bore', flow: '1e6' })).toMatchObject({ field: 'flow' });
    expect(wrong({ uBore: '-1' })).toMatchObject({ field: 'uBore' });
  });
});
