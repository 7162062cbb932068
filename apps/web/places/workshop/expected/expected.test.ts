import { describe, expect, it } from 'vitest';
import { displayOfFields, rangeOfFields } from '@/ui/range/fields';
import { EXPECTED_FIELDS, type ExpectedFields } from './fields';
import { csvOf, shownRows } from './rows';

const rowsOf = (patch: Partial<ExpectedFields>, step = 25, evenIn: 'input' | 'output' = 'input') => {
  const fields = { ...EXPECTED_FIELDS, ...patch };
  return shownRows(rangeOfFields(fields), displayOfFields(fields), step, evenIn);
};

describe('the table of expected values', () => {
  it('is shown as finely as its spans justify', () => {
    expect(rowsOf({ lrv: '-50', urv: '150', displayHigh: '8' })[1]).toEqual({
      inputPercent: '25.00',
      applied: '0.0',
      output: '8.000',
      outputPercent: '25.00',
      display: '2.000',
    });
  });

  it('follows a square root, evenly in flow where that is asked for', () => {
    expect(
      rowsOf({ transfer: 'square-root' }, 50, 'output').map(({ applied, output }) => [applied, output]),
    ).toEqual([
      ['0.0', '4.000'],
      ['62.5', '12.000'],
      ['250.0', '20.000'],
    ]);
  });

  it('reads a table of the instrument as it is typed', () => {
    expect(rowsOf({ transfer: 'table', table: '0 0; 50 60; 100 100' }, 50)[1]?.outputPercent).toBe('60.00');
    expect(() => rowsOf({ transfer: 'table', table: '0 0; 50' })).toThrow(
      'The output of a table point is needed',
    );
  });

  it('says what is missing or wrong', () => {
    expect(() => rowsOf({ urv: '' })).toThrow('The upper range value is needed');
    expect(() => rowsOf({ urv: '0' })).toThrow('no span');
    expect(() => rowsOf({ lrv: '1.2.3' })).toThrow('"1.2.3" is not a number');
  });

  it('leaves for a spreadsheet with its units and a minus that it reads', () => {
    const csv = csvOf(rowsOf({ lrv: '-50', urv: '150' }, 50), { input: 'mbar', output: 'mA', display: '%' });
    expect(csv.split('\r\n')).toEqual([
      '"Input, % of span","Applied, mbar","Output, mA","Output, % of span","Display, %"',
      '0.00,-50.0,4.000,0.00,0.0',
      '50.00,50.0,12.000,50.00,50.0',
      '100.00,150.0,20.000,100.00,100.0',
    ]);
  });
});
