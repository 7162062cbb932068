import { expect, it } from 'vitest';
import { fieldsOfLiquid, LIQUID_FIELDS, liquidOfFields } from './fields';

const read = (points: string, unit = 'kgPerM3') =>
  liquidOfFields({ ...LIQUID_FIELDS, name: 'x', source: 'y', unit, points })['points'];

it('a table is read as it is typed or as a CSV has it, in the unit that is said', () => {
  const wanted = [
    { temperatureC: 20, densityKgPerM3: 1042.5 },
    { temperatureC: 60, densityKgPerM3: 1021 },
  ];
  for (const text of [
    '20; 1042.5\n60; 1021',
    'temperature,density\n20,1042.5\n60,1021',
    '20 1042,5\n60 1021',
    '20\t1042.5\r\n60\t1021\r\n',
  ])
    expect(read(text)).toEqual(wanted);
  // Relative to water of 1000 kg/m3.
  expect(read('20; 1.0425', 'relativeTo1000')).toEqual([wanted[0]]);
  expect(read('20')).toEqual([{ temperatureC: 20, densityKgPerM3: null }]);
  expect(read('20; x')).toEqual([{ temperatureC: 20, densityKgPerM3: NaN }]);
});

it('a liquid comes back as it was typed', () => {
  const liquid = {
    id: 1,
    name: 'x',
    source: 'y',
    revision: 1,
    points: [{ temperatureC: -5, densityKgPerM3: 1042.5 }],
  };
  expect(fieldsOfLiquid(liquid).points).toBe('-5; 1042.5');
  expect(liquidOfFields(fieldsOfLiquid(liquid))['points']).toEqual(liquid.points);
});
