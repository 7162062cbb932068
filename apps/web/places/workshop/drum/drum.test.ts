import { describe, expect, it } from 'vitest';
import { computeBiasMap, computeDrum, computeHotCheck, csvOfDrum, LEVELS } from './compute';
import { DRUM_FIELDS, orDrumFault, type DrumFields } from './fields';

const drum = (patch: Partial<DrumFields> = {}) => {
  const fields = { ...DRUM_FIELDS, ...patch };
  return { fields, result: computeDrum(fields) };
};
const row = ({ result }: ReturnType<typeof drum>, at: string) =>
  result.rows.find((one) => one.at === at)?.shown ?? [];

describe('a boiler drum as it is typed', () => {
  it('is ranged by the densities, absolute or gauge with the barometer', () => {
    // D-P17 of the core's cases: 40 bar absolute, leg at 40 °C, 600 mm: -57.300 and -11.507 mbar.
    const { result } = drum({ kind: 'absolute', drop: '0' });
    expect(result.hot).toEqual(['\u221257.30', '\u221211.51']);
    const gauge = drum({ pressure: '38.98675', drop: '0' });
    expect(gauge.result.hot).toEqual(result.hot);
  });

  it('shows the truth at the pressure that it is ranged for, and reads otherwise elsewhere', () => {
    const one = drum();
    expect(row(one, '40 bar').map((percent) => Number(percent.toFixed(9)))).toEqual([...LEVELS]);
    expect(row(one, '20 bar')[4]).toBeGreaterThan(105);
    expect(csvOfDrum(one.result.rows).split('\r\n')[0]).toContain('Shown at a true level of 25 %');
  });

  it('leaves no error where a bias was made right, and some everywhere else', () => {
    const one = drum();
    const found = computeHotCheck(one.fields, one.result);
    expect(found.bias).toBe(found.truePercent - found.shownPercent);
    const map = computeBiasMap(one.fields, one.result, found);
    // Errors are straight lines over the level, and smooth over the pressure: the map has the check between its cells.
    const errorAt = (pascals: number) => {
      const column = map.errors[map.pressures.findIndex((pressure) => pressure.pascals >= pascals)] ?? [];
      const place = found.truePercent / 10;
      const [low = NaN, high = NaN] = [column[Math.floor(place)], column[Math.floor(place) + 1]];
      return low + (place - Math.floor(place)) * (high - low);
    };
    // 20 bar gauge is the sixth of twelve even steps up to 40 bar gauge.
    expect(errorAt(found.pressurePa * (1 - 1e-12))).toBeCloseTo(0, 6);
    expect(map.largest).toBeGreaterThan(3);
    const glass = { ...one.fields, bias: '3' };
    const byGlass = computeHotCheck(glass, one.result);
    expect(byGlass.bias).toBe(3);
    // The other school leaves what the cooler glass shows too little.
    expect(byGlass.biasForGlass).toBe(3);
    expect(byGlass.biasForTrue).toBeGreaterThan(3);
  });

  it('has no row where the leg would boil, or beyond the critical pressure', () => {
    expect(drum({ leg: '180', pressure: '60' }).result.rows.map(({ at }) => at)).toEqual([
      'cold',
      '15 bar',
      '30 bar',
      '45 bar',
      '60 bar',
      '66 bar',
    ]);
    expect(drum({ pressure: '210' }).result.rows.at(-1)?.at).toBe('210 bar');
  });

  it('what is wrong is named at its field', () => {
    const fault = (patch: Partial<DrumFields>) => orDrumFault(() => drum(patch));
    expect(fault({ leg: '300' })).toMatchObject({ field: 'leg' });
    expect(fault({ pressure: '230' })).toMatchObject({ field: 'pressure' });
    expect(fault({ taps: '-1' })).toMatchObject({ field: 'taps' });
    expect(fault({ full: '700' })).toMatchObject({ field: 'full' });
    expect(fault({ zero: '1.2.3' })).toMatchObject({ field: 'zero' });
    expect(fault({ gravity: '' })).toMatchObject({
      field: 'gravity',
      message: 'Gravity is needed: the range is made of it.',
    });
  });
});
