import { describe, expect, it } from 'vitest';
import { allInstruments, listQuerySchema } from '../src/registers/instrument-list';
import {
  bringFile,
  checkImport,
  leftOutAsCsv,
  openImport,
  takeImport,
  type ImportChoice,
} from '../src/imports/import';
import { COLUMNS, type ImportKind } from '../src/imports/columns';
import { exportEverything } from '../src/exports/everything';
import { findInstrument } from '../src/registers/instruments';
import { addConfiguration } from '../src/registers/configurations';
import { findStandard } from '../src/registers/references';
import { historyOf } from '../src/results/history';
import { toCsv } from '../src/imports/csv';
import { openWorks, RANGE, TAG, TODAY } from './works';

const { base, works } = await openWorks();

const text = (lines: readonly string[]): Uint8Array => Buffer.from(lines.join('\r\n'));
const bring = (kind: ImportKind, bytes: Uint8Array) =>
  bringFile(base.app, works.administrator, { kind, name: 'list.csv', bytes });
const check = (id: number, choice: ImportChoice) => checkImport(base.app, id, choice, TODAY);
const take = (id: number, choice: ImportChoice, wanted: 'good rows' | 'all or none' = 'good rows') =>
  base.app.bulk((tx) => takeImport(tx, works.administrator, id, choice, wanted));
const count = async (table: string) => (await base.app.query(`select from ${table}`)).length;

describe('instruments', () => {
  const HEADER = 'Tag;Service;Area;Body;LRV;URV;Unit;Next due;Tolerance, % of span;Owner';
  const ROWS = [
    HEADER,
    'pt-501;Feed;North;Cell 16;0;6;bar;31.12.2026;0,25;Crew',
    'PT-502;Feed;North;Cell 16;0;6;bar;01/02/2027;0.25;Crew',
    'PT-503;Feed;North;Cell 16;0;2500;inH2O;31.12.2026;0.25;Crew',
    'PT-504;;North;Cell 99;0;x;bar;31.12.2026;0.25;Crew',
    'PT-505;Feed;North;Cell 16;0;60;bar;31.12.2026;0.25;Crew',
    'PT-501;Feed again;North;Cell 16;0;6;bar;31.12.2026;0.25;Crew',
    `${TAG};Feed;North;Cell 16;0;6;bar;31.12.2026;0.25;Crew`,
    'PT-506;=HYPERLINK("http://x");<script>alert(1)</script>;Cell 16;0;6;bar;31.12.2026;0.25;@SUM(A1)',
  ];

  it('are checked row by row with all problems in words, and nothing is changed by it', async () => {
    const before = await count('instrument');
    const id = await bring('instruments', text(ROWS));
    const { choice, rowCount } = await openImport(base.app, id);
    expect(rowCount).toBe(8);
    const { checked } = await check(id, choice);
    expect(checked.good).toEqual([2, 9]);
    expect(checked.known).toEqual([8]);
    expect(Object.fromEntries(checked.bad.map(({ line, reason }) => [line, reason]))).toEqual({
      3: 'Next due: "01/02/2027" can be 2027-02-01 or 2027-01-02; say which order the file has.',
      4: 'Unit: "inH2O" does not say its reference.',
      5: 'There is no body "Cell 99". Enter it first. URV: "x" is not a number. Type digits with one decimal point or comma.',
      6: 'The range reaches outside the limits of the body Cell 16, -1 to 16 bar.',
      7: 'The same as line 2 of this file.',
    });
    expect(checked.questions).toEqual([
      {
        about: 'unit',
        unit: 'inH2O',
        rows: 1,
        choices: expect.arrayContaining(['inH2O at 68 °F']) as unknown,
      },
      { about: 'dateOrder', rows: 1 },
    ]);
    expect(await count('instrument')).toBe(before);
  });

  it('are taken over whole or not at all, or the good ones alone; the others come back with the reason', async () => {
    const id = await bring('instruments', text(ROWS));
    const { choice } = await openImport(base.app, id);
    const before = await count('instrument');
    await expect(take(id, choice, 'all or none')).rejects.toThrow(
      'Nothing was imported: 5 rows are not good.',
    );
    expect(await count('instrument')).toBe(before);
    const answered: ImportChoice = {
      ...choice,
      answers: { dateOrder: 'day first', units: { inH2O: 'inH2O at 4 °C' } },
    };
    const checked = await take(id, answered);
    expect(checked.good).toHaveLength(4);
    expect(await count('instrument')).toBe(before + 4);
    expect(await findInstrument(base.app, { tag: 'PT-502' })).toMatchObject({
      dueOn: '2027-02-01',
      owner: 'Crew',
    });
    const water = await findInstrument(base.app, { tag: 'PT-503' });
    expect(water.configuration).toMatchObject({
      inputUnit: 'inH2OAt4C',
      urv: 2500,
      version: 1,
      reason: 'imported',
    });
    const hostile = await findInstrument(base.app, { tag: 'PT-506' });
    expect(hostile.service).toBe('=HYPERLINK("http://x")');
    const back = leftOutAsCsv(HEADER.split(';'), checked);
    expect(back.split('\r\n')).toHaveLength(5);
    expect(back).toContain('The same as line 2 of this file.');
    expect(back.split('\r\n')[0]).toMatch(/,reason$/);
  });

  it('are kept letter by letter, whatever their cells hold', async () => {
    const odd = { service: 'a\tb\\c\\N\n"d" {e},\r\nü', owner: '\\N', description: "it's \\." };
    const hazards = ['acid "98 %"', 'C:\\x', '{hot}', 'null'];
    const table = toCsv(
      ['Tag', 'Service', 'Area', 'Body', 'LRV', 'URV', 'Unit', 'Owner', 'Description', 'Hazards'],
      [
        [
          'PT-777',
          odd.service,
          'North',
          'Cell 16',
          0,
          '1.0000001',
          'bar',
          odd.owner,
          odd.description,
          hazards.join(';'),
        ],
      ],
    );
    const id = await bring('instruments', Buffer.from(table));
    const { choice } = await openImport(base.app, id);
    expect((await take(id, choice, 'all or none')).good).toEqual([2]);
    const { configuration, ...kept } = await findInstrument(base.app, { tag: 'PT-777' });
    expect(kept).toMatchObject({ ...odd, hazards, walk: null });
    expect(configuration).toMatchObject({
      lrv: 0,
      urv: 1.0000001,
      switchingPoints: [],
      transferFunction: { kind: 'linear' },
    });
  });

  it('doubled by a second import are left alone, and the columns are remembered', async () => {
    const id = await bring('instruments', text(ROWS));
    const { choice } = await openImport(base.app, id);
    expect(choice.answers).toEqual({ dateOrder: 'day first', units: { inH2O: 'inH2O at 4 °C' } });
    const before = await count('instrument');
    const checked = await take(id, choice);
    expect(checked.good).toEqual([]);
    expect(checked.known).toHaveLength(5);
    expect(await count('instrument')).toBe(before);
  });

  it('exported come back as they are', async () => {
    const { header, rows } = await allInstruments(base.app, listQuerySchema.parse({ sort: 'tag' }), TODAY);
    const csv = toCsv(header, rows);
    expect(csv).toContain(`"'=HYPERLINK(""http://x"")"`);
    const id = await bring('instruments', Buffer.from(csv));
    const { choice } = await openImport(base.app, id);
    expect(COLUMNS.instruments.filter(({ field }) => choice.mapping[field] == null)).toEqual([]);
    const { checked } = await check(id, choice);
    expect(checked.bad).toEqual([]);
    expect(checked.known).toHaveLength(rows.length);
  });

  it('keep a square root with a linear start or a slope of one, and say the signal in words', async () => {
    const file = text([
      'Tag,Service,Area,Body,LRV,URV,Unit,Signal,Transfer function,"Linear start to, %"',
      'FT-701,juice,House,Cell 16,0,6,bar,4–20 mA,"square root, linear start",8',
      'FT-702,juice,House,Cell 16,0,6,bar,4–20 mA,"square root, slope one",0.8',
    ]);
    const id = await bring('instruments', file);
    const { choice } = await openImport(base.app, id);
    expect((await take(id, choice)).bad).toEqual([]);
    expect((await findInstrument(base.app, { tag: 'FT-701' })).configuration.transferFunction).toEqual({
      kind: 'square-root-linear-start',
      linearToPercentOfFlow: 8,
    });
    expect((await findInstrument(base.app, { tag: 'FT-702' })).configuration.transferFunction).toEqual({
      kind: 'square-root-slope-one',
      linearToPercentOfInput: 0.8,
    });
    const { header, rows } = await allInstruments(base.app, listQuerySchema.parse({ q: 'FT-70' }), TODAY);
    const csv = toCsv(header, rows);
    expect(csv).toContain('4–20 mA');
    expect(csv).not.toContain('mA-4-20');
    const back = await bring('instruments', Buffer.from(csv));
    const { checked } = await check(back, (await openImport(base.app, back)).choice);
    expect([checked.bad, checked.known.length]).toEqual([[], 2]);
  });

  it('bring what a gauge needs: its hook-up, its divisions, and limits by zone and reading', async () => {
    const file = text([
      'Tag,Service,Area,Body,LRV,URV,Unit,Hook-up,Scale division,"Tolerance, % of span","Tolerance in the middle half, % of span","Tolerance, % of reading"',
      'PI-700,air,House,Cell 16,0,6,bar,2-valve manifold,0.1,3,2,0.5',
    ]);
    const id = await bring('instruments', file);
    const { choice } = await openImport(base.app, id);
    expect((await take(id, choice)).bad).toEqual([]);
    expect(await findInstrument(base.app, { tag: 'PI-700' })).toMatchObject({
      hookUp: '2-valve',
      tolerance: { percentOfSpan: 3, middlePercentOfSpan: 2, percentOfReading: 0.5 },
      configuration: { scaleDivision: 0.1 },
    });
  });

  it('are one act of the trail, with the file that they came from', async () => {
    const [entry] = await base.app.query<{ detail: { rows: number; sha256: string } }>(
      `select detail from audit_entry where act = 'import file' order by id limit 1`,
    );
    expect(entry?.detail.rows).toBe(4);
    expect(entry?.detail.sha256).toMatch(/^[0-9a-f]{64}$/);
  });
});

describe('other kinds of files', () => {
  it('bring a new version for instruments that are there, and the same range not twice', async () => {
    const file = text([
      'Tag,LRV,URV,Unit,Why',
      `${TAG},0,8,bar,range change`,
      'PT-000,0,8,bar,',
      `PT-501,0,600,kPa,`,
    ]);
    const there = await findInstrument(base.app, { tag: TAG });
    const switchingPoints = [{ name: 'high', on: 5, off: 4.8 }];
    await addConfiguration(base.app, works.technician, there.id, {
      ...RANGE,
      application: 'pressure',
      switchingPoints,
      reason: 'settings',
    });
    const id = await bring('configurations', file);
    const { choice } = await openImport(base.app, id);
    await base.owner.query(`update instrument set due_on = '2027-01-01'`);
    const checked = await take(id, choice);
    expect(checked.bad.map(({ reason }) => reason)).toEqual(['There is no instrument PT-000.']);
    const { configuration } = await findInstrument(base.app, { tag: TAG });
    // What a file does not have stays as it is set.
    expect(configuration).toMatchObject({
      version: 3,
      urv: 8,
      reason: 'range change',
      displayHigh: 8,
      application: 'pressure',
      switchingPoints,
    });
    const [entry] = await base.app.query<{ detail: unknown }>(
      `select detail from audit_entry where act = 'import file' order by id desc limit 1`,
    );
    expect(entry?.detail).toMatchObject({ due: { on: TODAY, tags: [TAG, 'PT-501'] } });
    expect((await findInstrument(base.app, { tag: TAG })).dueOn).toBe(TODAY);
    const again = await take(await bring('configurations', file), choice);
    expect(again.known).toHaveLength(2);
    expect((await findInstrument(base.app, { tag: TAG })).configuration.version).toBe(3);
  });

  it('bring the settings of an instrument, keep those that the file leaves empty, and say “none” of switching points', async () => {
    const header =
      'Tag,LRV,URV,Unit,"Damping, s","Damping of the display, s",Application set,Start view,Output driven by,Switching points';
    const bringRow = async (row: string) => {
      const id = await bring('configurations', text([header, row]));
      return take(id, (await openImport(base.app, id)).choice);
    };
    const set = async () => (await findInstrument(base.app, { tag: TAG })).configuration;
    const bad = await bringRow(`${TAG},0,8,bar,,,heat,,,high: 5 / 5`);
    expect(bad.bad.map(({ reason }) => reason)).toEqual([
      'Application set: "heat" is none of pressure, level, flow.',
    ]);
    const good = `${TAG},0,8,bar,1.5,4,flow,per cent of range,scaled variable,high: 5 / 4.8; low: 1 / 1.2`;
    await bringRow(good);
    const settings = {
      dampingS: 1.5,
      displayDampingS: 4,
      application: 'flow',
      startView: 'per cent of range',
      drivenBy: 'scaled variable',
      switchingPoints: [
        { name: 'high', on: 5, off: 4.8 },
        { name: 'low', on: 1, off: 1.2 },
      ],
    };
    expect(await set()).toMatchObject(settings);
    expect((await bringRow(good)).known).toHaveLength(1);
    // What differs in a setting alone is another version.
    expect((await bringRow(`${TAG},0,8,bar,2,,,,,`)).known).toHaveLength(0);
    expect(await set()).toMatchObject({ ...settings, dampingS: 2 });
    // A root that the file has no column for stays a root.
    const root = { kind: 'square-root-cut-off' as const, cutOffPercentOfFlow: 8 };
    const { id } = await findInstrument(base.app, { tag: TAG });
    const rooted = { ...(await set()), transferFunction: root, reason: 'flow' };
    await addConfiguration(base.app, works.technician, id, rooted);
    await bringRow(`${TAG},0,9,bar,,,,,,None`);
    expect((await set()).transferFunction).toEqual(root);
    expect(await set()).toMatchObject({ ...settings, urv: 9, dampingS: 2, switchingPoints: [] });
    const { header: headings, rows } = await allInstruments(
      base.app,
      listQuerySchema.parse({ find: TAG }),
      TODAY,
    );
    const cell = (heading: string) => rows[0]?.[headings.indexOf(heading)];
    expect(
      [
        'Damping of the display, s',
        'Application set',
        'Start view',
        'Output driven by',
        'Switching points',
      ].map(cell),
    ).toEqual([4, 'flow', 'per cent of range', 'scaled variable', 'none']);
    await bringRow(good);
    const again = await allInstruments(base.app, listQuerySchema.parse({ find: TAG }), TODAY);
    expect(again.rows[0]?.[headings.indexOf('Switching points')]).toBe('high: 5 / 4.8; low: 1 / 1.2');
  });

  it('bring references, their modules and certificates', async () => {
    const id = await bring(
      'references',
      text([
        'Tag,What it is,Module,Unit,Range from,Range to,Resolution,% of range,Certificate,Calibrated on,Due',
        'PC-70,Calibrator,low,mbar,0,700,0.01,0.02,K-70,2026-02-01,2027-02-01',
        'PC-70,Calibrator,high,bar,0,7,0.0001,0.02,K-70,2026-02-01,2027-02-01',
        'PC-71,Calibrator,,bar,7,0,0.0001,0.02,,,',
      ]),
    );
    const { choice } = await openImport(base.app, id);
    const checked = await take(id, choice);
    expect(checked.bad.map(({ reason }) => reason)).toEqual([
      'The upper end of the range must be above the lower one.',
    ]);
    const standard = await findStandard(base.app, 'PC-70');
    expect(standard.modules.map(({ name }) => name)).toEqual(['low', 'high']);
    expect(standard.certificates).toHaveLength(1);
  });

  it('bring past results, judged with the range of then, twice as once', async () => {
    const file = text([
      'Tag,Date,Point,Applied,Reading,As found or as left,Direction,Who',
      `${TAG},2024-05-01,0,0,4.010,as found,up,Contractor`,
      `${TAG},2024-05-01,100,6,20.100,as found,up,Contractor`,
      `${TAG},2024-05-01,100,6,20.010,after,up,Contractor`,
      `${TAG},2030-05-01,100,6,20.010,after,up,Contractor`,
    ]);
    for (const _time of [1, 2]) {
      const id = await bring('results', file);
      const checked = await take(id, (await openImport(base.app, id)).choice);
      expect(checked.bad.map(({ reason }) => reason)).toEqual(['The date 2030-05-01 has not come yet.']);
    }
    const [visit] = await historyOf(base.app, (await findInstrument(base.app, { tag: TAG })).id);
    expect([visit?.left?.verdict, visit?.left?.error.length]).toEqual(['within', 1]);
    expect([visit?.found?.verdict, visit?.found?.error.length]).toEqual(['outside', 2]);
    // 20.100 mA at 6 bar of 0 to 6 bar is +0.625 % of span: version 1, not the wider one in force now.
    expect(visit?.found?.error[1]).toBeCloseTo(0.625, 10);
  });

  it('keep what past results came to, with their reference, and more of the same day makes it anew', async () => {
    const { id: instrumentId } = await findInstrument(base.app, { tag: TAG });
    const kept = async () =>
      (await historyOf(base.app, instrumentId)).map(({ doneOn, found, left }) => [
        doneOn,
        found?.isLeft,
        found?.verdict,
        found?.at,
        left?.verdict,
        found?.standard,
      ]);
    expect(await kept()).toEqual([['2024-05-01', false, 'outside', [0, 100], 'within', '']]);
    const bringMore = async (lines: readonly string[]) => {
      const id = await bring(
        'results',
        text(['Tag,Date,Point,Applied,Reading,Direction,Reference,Run', ...lines]),
      );
      return take(id, (await openImport(base.app, id)).choice);
    };
    await bringMore([`${TAG},2023-05-02,0,0,4.010,up,pc-02,as found`]);
    expect((await kept())[0]).toEqual(['2023-05-02', true, 'within', [0], undefined, 'PC-02']);
    await bringMore([
      `${TAG},2023-05-02,100,6,20.010,up,PC-02,as found`,
      `${TAG},2023-05-02,0,0,4.000,up,PC-02,as left`,
    ]);
    expect((await kept())[0]).toEqual(['2023-05-02', false, 'within', [0, 100], 'within', 'PC-02']);
    const [later] = await base.app.query(
      `select since_days as since from result where done_on = '2024-05-01' and kind = 'as-found'`,
    );
    expect(later).toEqual({ since: 365 });
  });

  it('are refused where they are none, and from people who are not administrators', async () => {
    await expect(bring('instruments', Buffer.from('nothing'))).rejects.toThrow(
      'no rows below a line of headings',
    );
    await expect(
      bringFile(base.app, works.technician, { kind: 'results', name: 'x', bytes: text(['a,b', '1,2']) }),
    ).rejects.toThrow('may not do this');
    const id = await bring('instruments', text(['Tag,Service', 'PT-9,x']));
    const { checked } = await check(id, (await openImport(base.app, id)).choice);
    expect(checked.bad[0]?.reason).toContain('No column is chosen for Area.');
  });

  /** More than are written at once. */
  const manyRows = Array.from(
    { length: 6000 },
    (_, n) => `PT-${90000 + n},${5 + (n % 9)},a,Cell 16,0,${5 + (n % 9)},bar`,
  );
  const MANY_HEADER = 'Tag,Service,Area,Body,LRV,URV,Unit';

  it.each([500, 4000])('are stopped when asked to after %i rows, and leave nothing', async (after) => {
    const id = await bring('instruments', text([MANY_HEADER, ...manyRows]));
    const { choice } = await openImport(base.app, id);
    const stop = new AbortController();
    const before = await count('instrument');
    await expect(
      base.app.bulk((tx) =>
        takeImport(tx, works.administrator, id, choice, 'good rows', {
          signal: stop.signal,
          onProgress: ({ done }) => done >= after && stop.abort(),
        }),
      ),
    ).rejects.toThrow();
    expect(await count('instrument')).toBe(before);
    expect((await openImport(base.app, id)).file.importedAt).toBeNull();
  });

  it('leave nothing of several statements a row behind either, where one is bad and all were wanted', async () => {
    const header = 'Tag,What it is,Module,Unit,Range from,Range to,Resolution,% of range';
    const rows = Array.from({ length: 20 }, (_, n) => `LOT-${n},Calibrator,low,bar,0,10,0.001,0.02`);
    const id = await bring(
      'references',
      text([header, ...rows, 'LOT-X,Calibrator,low,bar,0,none,0.001,0.02']),
    );
    const { choice } = await openImport(base.app, id);
    const before = await count('reference_standard');
    await expect(take(id, choice, 'all or none')).rejects.toThrow(': 1 row is');
    // What would still be under way then has its time to do harm.
    for (let looks = 0; looks < 20; looks += 1) expect(await count('reference_standard')).toBe(before);
    const { good } = await take(id, choice, 'good rows');
    expect([good.length, await count('reference_standard')]).toEqual([20, before + 20]);
  });

  it('are written while the rest is checked, and go again where the last one is bad and all were wanted', async () => {
    const id = await bring(
      'instruments',
      text([MANY_HEADER, ...manyRows, 'PT-99999,s,a,No such cell,0,6,bar']),
    );
    const { choice } = await openImport(base.app, id);
    const before = [await count('instrument'), await count('configuration')] as const;
    await expect(take(id, choice, 'all or none')).rejects.toThrow(': 1 row is');
    expect([await count('instrument'), await count('configuration')]).toEqual(before);

    const { good, bad } = await take(id, choice, 'good rows');
    expect([good.length, bad.length]).toEqual([6000, 1]);
    expect([await count('instrument'), await count('configuration')]).toEqual([
      before[0] + 6000,
      before[1] + 6000,
    ]);
    // Each with the range of its own row.
    const [own] = await base.app.query<{ count: number }>(
      `select count(*)::int as count from instrument join configuration on instrument_id = instrument.id
       where tag like 'PT-9____' and area = 'a' and version = 1 and urv = service::numeric`,
    );
    expect(own?.count).toBe(6000);
  });
});

it('everything is exported as JSON, without passwords', async () => {
  let json = '';
  for await (const piece of exportEverything(base.app, new Date('2026-05-04T08:00:00Z'))) json += piece;
  const { format, tables } = JSON.parse(json) as { format: string; tables: Record<string, object[]> };
  expect(format).toBe('barys-export');
  for (const table of ['instrument', 'configuration', 'reference_module', 'past_result', 'audit_entry'])
    expect(tables[table], table).toHaveLength(await count(table));
  expect(json).not.toContain('password');
});

const NOT_EXPORTED: Readonly<Record<string, readonly string[]>> = {
  secrets: ['api_token', 'session', 'known_browser', 'password_try', 'request_rate'],
  'this moment': [
    'automatic_state',
    'bench_request',
    'bench_value',
    'desk',
    'plan_making',
    'interval_calculation',
  ],
  'worked out from records': ['result', 'family_count', 'interval_advice'],
  'of one person, and no record': ['practice_attempt', 'saved_view', 'import_mapping'],
  'files as they came, whose rows are exported': ['import_file'],
  'of the trail, beside its entries': ['record_entry', 'unsealed', 'schema_migration'],
};

it('each table is exported, or left out for a reason', async () => {
  let json = '';
  for await (const piece of exportEverything(base.app, new Date('2026-05-04T08:00:00Z'))) json += piece;
  const { tables } = JSON.parse(json) as { tables: Record<string, object[]> };
  const all = await base.owner.query<{ name: string }>(
    `select table_name as name from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE'`,
  );
  const left = all.map(({ name }) => name).filter((name) => !(name in tables));
  expect(left.sort()).toEqual(Object.values(NOT_EXPORTED).flat().sort());
});
