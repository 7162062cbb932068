import { describe, expect, it } from 'vitest';
import { computeLevel, csvOfLevel, levelRows } from './compute';
import { densityOfChosen } from './density';
import { LEVEL_FIELDS, orFault, type LevelFields } from './fields';
import { computeVolumes } from './volume';

const OPEN: LevelFields = { ...LEVEL_FIELDS, arrangement: 'open', zero: '0', full: '4', drop: '0' };
const volumes = (patch: Partial<LevelFields>) => {
  const fields = { ...OPEN, ...patch };
  const result = computeLevel(fields);
  return { result, found: computeVolumes(fields, result.measurement) };
};

describe('volumes of what a level stands in', () => {
  it('are those of the shape, from its lowest point, in the unit that is asked for', () => {
    expect(volumes({}).found).toBeNull();
    // By hand: pi/4 x 3 m x 3 m x 2.5 m = 17.671 m3, with the tap half a metre up.
    const cylinder = { shape: 'vertical cylinder', diameter: '3', tall: '5', tapAbove: '0.5' };
    expect(volumes(cylinder).found?.at(2)).toBe('17.671');
    expect(volumes({ ...cylinder, volume: 'L' }).found?.at(2)).toBe('17671');
    expect(volumes(cylinder).found?.full).toBe('35.343');
    // A sphere that is half full: 2/3 pi r cubed.
    expect(volumes({ shape: 'sphere', diameter: '4' }).found?.at(2)).toBe('16.755');
    expect(volumes({ shape: 'cone', bottom: '0', top: '4', tall: '4' }).found?.at(4)).toBe('16.755');
    // Half of a horizontal cylinder with flat ends: pi x 4 / 2 x 6 = 37.699.
    expect(
      volumes({ shape: 'horizontal cylinder', diameter: '4', length: '6', head: '0' }).found?.at(2),
    ).toBe('37.699');
  });

  it('are those of a strapping table, with or without a heading, however its cells are parted', () => {
    for (const straps of [
      'level, volume\n0,0\n2,10\n4,30',
      '0;0\r\n2;10\r\n4;30\r\n',
      '0 0|2 10|4 30',
      '0\t0\n2\t10\n4\t30',
    ])
      expect(volumes({ shape: 'strapping table', straps }).found?.at(3)).toBe('20');
    const { result, found } = volumes({ shape: 'strapping table', straps: '0,0\n2,10\n4,30' });
    const csv = csvOfLevel(levelRows(result, found), { height: 'm', pressure: 'mbar', volume: 'm³' }).split(
      '\r\n',
    );
    expect(csv[0]).toContain('"Volume, m³"');
    expect(csv.at(-1)).toMatch(/,30$/);
  });

  it('what is wrong is named at its field', () => {
    const fault = (patch: Partial<LevelFields>) => orFault(() => volumes(patch));
    expect(fault({ shape: 'sphere', diameter: '' })).toMatchObject({ field: 'diameter' });
    expect(fault({ shape: 'sphere', diameter: '-4' })).toMatchObject({ field: 'diameter' });
    expect(fault({ shape: 'sphere', diameter: '3' })).toMatchObject({ field: 'tapAbove' });
    expect(fault({ shape: 'vertical cylinder', diameter: '3', tall: '3' })).toMatchObject({
      field: 'tapAbove',
    });
    expect(fault({ shape: 'strapping table', straps: '0 0\n2 x' })).toMatchObject({ field: 'straps' });
    expect(fault({ shape: 'strapping table', straps: '0 0\n4 30\n2 10' })).toHaveProperty('message');
  });
});

it('the density of a liquid is taken from the plant’s table, that of water from its formula', () => {
  const liquids = [
    {
      id: 3,
      name: 'Syrup',
      source: 'x',
      revision: 1,
      points: [
        { temperatureC: 20, densityKgPerM3: 1300 },
        { temperatureC: 80, densityKgPerM3: 1270 },
      ],
    },
  ];
  const of = (liquidId: string, temperature: string) =>
    densityOfChosen({ ...OPEN, liquidId, temperature }, liquids);
  expect(of('typed', '20')).toBeNull();
  expect(of('3', '50')).toBe(1285);
  expect(of('water', '20')).toBeCloseTo(998.2, 1);
  expect(of('9', '20')).toBeNull();
  expect(orFault(() => of('3', '90'))).toMatchObject({ field: 'temperature' });
});
