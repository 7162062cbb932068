/** What a file says, before anything is looked up for it. */
import { describe, expect, it } from 'vitest';
import { dateCell, numberCell, unitCell } from './cells';
import { guessMapping } from './columns';
import { parseCsv, toCsv } from './csv';

describe('a CSV', () => {
  it.each([
    [
      'UTF-8 with a byte-order mark and semicolons',
      Buffer.from('\uFEFFTag;Größe\nA;1,5'),
      'UTF-8',
      ';',
      'Größe',
    ],
    [
      'Windows-1252 and commas',
      Buffer.from('Tag,Gr\xf6\xdfe\nA,"1,5"', 'latin1'),
      'Windows-1252',
      ',',
      'Größe',
    ],
    [
      'UTF-16 and tabs',
      Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from('Tag\tGröße\nA\t1,5', 'utf16le')]),
      'UTF-16',
      '\t',
      'Größe',
    ],
  ])('is read as %s', (_name, bytes, encoding, delimiter, heading) => {
    const csv = parseCsv(bytes);
    expect(csv).toMatchObject({ encoding, delimiter, header: ['Tag', heading] });
    expect(csv.rows).toEqual([{ line: 2, cells: ['A', '1,5'] }]);
  });

  it('keeps line breaks and delimiters inside quotes, and passes over empty lines', () => {
    const { rows } = parseCsv(Buffer.from('Tag,Note\n\n"A","one\ntwo, three"\n,\nB,x'));
    expect(rows.map(({ cells }) => cells)).toEqual([
      ['A', 'one\ntwo, three'],
      ['B', 'x'],
    ]);
    // Rows are numbered by the line of the file in which they begin.
    expect(rows.map(({ line }) => line)).toEqual([3, 6]);
    expect(
      parseCsv(Buffer.from('Tag,Note\r\nA,"x\r\n\r\ny"\r\nB,z\r\n')).rows.map(({ line }) => line),
    ).toEqual([2, 5]);
  });

  it('says where a quotation mark is opened and never closed', () => {
    expect(() => parseCsv(Buffer.from('Tag,Note\nA,x\nB,"12 inch\nC,y\nD,z'))).toThrow(
      'a quotation mark that is opened in the row of line 3 is never closed',
    );
  });

  it('is written so that a spreadsheet computes nothing', () => {
    const csv = toCsv(
      ['a', 'b'],
      [
        ['=1+1', -5],
        ['@SUM(A1)', '+44'],
        ['-2+3', '"x", y'],
      ],
    );
    expect(csv).toBe(`a,b\r\n"'=1+1",-5\r\n"'@SUM(A1)","'+44"\r\n"'-2+3","""x"", y"\r\n`);
    expect(parseCsv(Buffer.from(csv)).rows[0]?.cells).toEqual(['=1+1', '-5']);
  });
});

describe('a cell', () => {
  const answers = { dateOrder: null, units: {} };
  it.each([
    ['2026-03-31', '2026-03-31'],
    ['31.3.2026', '2026-03-31'],
    ['31/03/2026', '2026-03-31'],
    ['03/31/2026', '2026-03-31'],
    ['05/05/2026', '2026-05-05'],
    ['2026-03-31 14:00', '2026-03-31'],
  ])('says the date %s', (cell, date) => {
    expect(dateCell(cell, 'Due', null)).toBe(date);
  });

  it('with a date of two meanings is asked about, and read as answered', () => {
    expect(() => dateCell('03/04/2026', 'Due', null)).toThrow('can be 2026-04-03 or 2026-03-04');
    expect(dateCell('03/04/2026', 'Due', 'day first')).toBe('2026-04-03');
    expect(dateCell('03/04/2026', 'Due', 'month first')).toBe('2026-03-04');
    expect(() => dateCell('31/04/2026', 'Due', 'day first')).toThrow('is not a date');
    expect(() => dateCell('soon', 'Due', null)).toThrow('"soon" is not a date');
  });

  it('says a number with a point, a comma or a per cent sign', () => {
    expect(['0.25', '0,25', ' 0,25 % ', ''].map((cell) => numberCell(cell, 'x'))).toEqual([
      0.25,
      0.25,
      0.25,
      null,
    ]);
    expect(() => numberCell('1.234,5', 'Tolerance')).toThrow('Tolerance: ');
  });

  it('with a unit that names no reference is asked about, and read as answered', () => {
    expect(() => unitCell('inH2O', 'Unit', answers)).toThrow('does not say its reference');
    expect(unitCell('inH2O', 'Unit', { ...answers, units: { inH2O: 'inH2O at 68 °F' } })).toBe('inH2OAt68F');
  });
});

it('columns are guessed from what people call them, each taken once', () => {
  const mapping = guessMapping('instruments', [
    'Tag No',
    'Service Description',
    'Plant',
    'Model',
    'Min',
    'Max',
    'EU',
    'Due Date',
    'Due',
  ]);
  expect(mapping).toMatchObject({
    tag: 0,
    service: 1,
    area: 2,
    body: 3,
    lrv: 4,
    urv: 5,
    inputUnit: 6,
    due: 8,
    serial: null,
  });
  const taken = Object.values(mapping).filter((place) => place !== null);
  expect(new Set(taken).size).toBe(taken.length);
});
