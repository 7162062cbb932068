import { convertPressure } from '@barys/core/units';
import { describe, expect, it } from 'vitest';
import {
  computeLevel,
  configurationOfLevel,
  csvOfLevel,
  forgotten,
  levelLimit,
  levelRows,
  waysOfOffset,
} from './compute';
import { LEVEL_FIELDS, measurementOfFields, orFault, type LevelFields } from './fields';
import { heightAt, HEIGHT, layoutOf } from './layout';
import { levelForEnd } from './move';
import { roundOf } from './volume';

const level = (patch: Partial<LevelFields> = {}) => {
  const fields = { ...LEVEL_FIELDS, ...patch };
  return { fields, result: computeLevel(fields) };
};
const OPEN = { arrangement: 'open', liquid: '1000', full: '3', drop: '0', level: '2' };
const effects = ({ fields, result }: ReturnType<typeof level>) =>
  Object.fromEntries(forgotten(fields, result).map(({ what, effect }) => [what, effect]));

describe('a level as it is typed', () => {
  it('is the same in every unit', () => {
    const feet = level({
      ...OPEN,
      height: 'ft',
      density: 'relativeTo1000',
      pressure: 'inH2OConventional',
      liquid: '0.9',
      full: '20',
    });
    expect([feet.result.signal.lrv, feet.result.signal.urv]).toEqual([0, 216]);
    const metres = level({ ...OPEN, liquid: '900', full: '6.096', pressure: 'kPa' });
    expect(metres.result.range.urvPa).toBeCloseTo(feet.result.range.urvPa, 6);
    expect(convertPressure(metres.result.range.urvPa, 'Pa', 'inH2OConventional')).toBeCloseTo(216, 9);
  });

  it('says what would be shown if something were not so', () => {
    const open = level({ ...OPEN, liquidNow: '950', displayLow: '0', displayHigh: '6', displayUnit: 'm' });
    expect(effects(open)).toEqual({
      'liquid at 950 kg/m³': '\u22123.3 % here, \u22125.0 % when full',
      'display at 0 … 6 m': '4.000 m for 2.000 m',
    });
    const wet = level({
      liquid: '800',
      fill: '1000',
      above: '0',
      full: '2.5',
      taps: '2.5',
      drop: '0',
      level: '1',
    });
    expect(effects(wet)['leg empty']).toBe('+125.0 %, beyond the range');
    const low = level({ ...OPEN, drop: '1' });
    expect(effects(low)['height of the transmitter left out']).toBe('3.000 for 2.000 m');
    expect(levelLimit(open.fields, open.result)).toBe('0.008');
  });

  it('takes the offset in the range or in the display, where both can be', () => {
    const [range, display] = waysOfOffset(level({ ...OPEN, drop: '1' }).result);
    expect(range).toEqual({ range: ['98.1', '392.3'], display: ['0.000', '3.000'] });
    expect(display).toEqual({ range: ['0.0', '392.3'], display: ['\u22121.000', '3.000'] });
    expect(waysOfOffset(level(OPEN).result)[1]).toBeNull();
    expect(waysOfOffset(level().result)[1]).toBeNull();
    expect(waysOfOffset(level({ high: 'leg' }).result)[1]).toBeNull();
  });

  it('goes to an instrument and to a spreadsheet with figures that they read', () => {
    const { fields, result } = level();
    expect(configurationOfLevel(fields, result)).toMatchObject({
      lrv: '-464.035',
      urv: '25.8896',
      inputUnit: 'mbar',
      displayHigh: '100',
      reason: 'Level, closed tank, wet leg: 0 % at 0.000, 100 % at 4.800 m',
    });
    const csv = csvOfLevel(levelRows(result), { height: 'm', pressure: 'mbar', volume: null }).split('\r\n');
    expect(csv[0]).toBe('"Level, %","Level, m","Differential, mbar","Output, mA"');
    expect(csv[1]).toBe('0,0.000,-464.0,4.000');
    expect(csv.at(-1)).toBe('100,4.800,25.9,20.000');
  });

  it('follows an end of the stave that is moved', () => {
    const { fields, result } = level(OPEN);
    expect(levelForEnd(fields, result, 'high', 98.0665)).toEqual({ full: '1' });
    expect(levelForEnd(fields, result, 'low', 49.03325)).toEqual({ zero: '0.5' });
  });

  it.each<[Partial<LevelFields>, string]>([
    [{ liquid: '-1' }, 'liquid'],
    [{ taps: '-2' }, 'taps'],
    [{ above: '2000' }, 'above'],
    [{ full: '5' }, 'full'],
    [{ zero: '4.8' }, 'full'],
    [{ fill: '' }, 'fill'],
    [{ drop: '1.2.3' }, 'drop'],
    [{ level: '-1' }, 'level'],
    [{ displayLow: '' }, 'displayLow'],
  ])('%o is told at %s', (patch, field) => {
    expect(orFault(() => level(patch))).toMatchObject({ field });
  });
});

describe('the drawing of a level', () => {
  const at = (patch: Partial<LevelFields>) => {
    const measurement = measurementOfFields({ ...LEVEL_FIELDS, ...patch });
    return { measurement, layout: layoutOf(measurement) };
  };

  it.each<[string, Partial<LevelFields>, boolean]>([
    ['usual proportions', {}, false],
    ['a tank on a standpipe of 40 m', { ...OPEN, arrangement: 'standpipe', drop: '40' }, true],
    ['taps 50 mm apart', { taps: '0.05', full: '0.05', level: '0.02', drop: '0.01' }, false],
    ['a leg longer than the tank', { drop: '30' }, true],
    ['a transmitter above the tank', { arrangement: 'two-seals', drop: '-2' }, false],
    ['a transmitter far above the tank', { arrangement: 'two-seals', drop: '-50' }, true],
  ])('keeps %s within its frame', (_name, patch, isBroken) => {
    const { layout } = at(patch);
    expect(layout.isBroken).toBe(isBroken);
    for (const y of [layout.tankTop, layout.tankBottom, layout.bodyTop, layout.bodyTop + 42]) {
      expect(y).toBeGreaterThanOrEqual(0);
      expect(y).toBeLessThanOrEqual(HEIGHT);
    }
  });

  it('gives back the level that a hand takes hold of, within the tank', () => {
    const { layout, measurement } = at({});
    expect(heightAt(layout, measurement, layout.y(1.7))).toBeCloseTo(1.7, 9);
    expect(heightAt(layout, measurement, 0)).toBe(4.8);
    expect(heightAt(layout, measurement, HEIGHT)).toBe(0);
  });

  it('draws what is round to scale, its walls where they are', () => {
    const { measurement } = at({ arrangement: 'standpipe', full: '12', drop: '40' });
    const layout = layoutOf(measurement, { diameterM: 12, tapAboveM: 0 });
    const { circle } = layout;
    expect(circle).not.toBeNull();
    expect([layout.y(0), layout.y(12)]).toEqual([layout.tankBottom, layout.tankTop]);
    const [left, right] = layout.wall(layout.y(6));
    expect(right - left).toBeCloseTo(2 * (circle?.r ?? 0), 9);
    expect(right - left).toBeCloseTo(layout.tankBottom - layout.tankTop, 9);
    expect(layout.wall(layout.tankTop)[0]).toBe(layout.wall(layout.tankTop)[1]);
    // Forty metres of pipe are not drawn to scale.
    expect(layout.isBroken).toBe(true);
    expect(layout.bodyTop).toBeLessThan(HEIGHT);
    expect(roundOf({ ...LEVEL_FIELDS, shape: 'sphere', diameter: '12', tapAbove: '12' })).toBeNull();
    expect(roundOf({ ...LEVEL_FIELDS, shape: 'sphere', diameter: '12' })).toEqual({
      diameterM: 12,
      tapAboveM: 0,
    });
  });
});
