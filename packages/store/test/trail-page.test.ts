import { beforeAll, expect, it } from 'vitest';
import { findInstrument } from '../src/registers/instruments';
import { trailEntries, trailFacets, trailQuerySchema } from '../src/db/trail';
import { jobAtAsFound, openWorks, TAG, TODAY } from './works';

const { base, works } = await openWorks();

beforeAll(async () => {
  await jobAtAsFound(base.app, works.colleague);
});

const acts = async (query: Record<string, unknown>, limit = 50) =>
  (await trailEntries(base.app, trailQuerySchema.parse(query), limit)).map(({ act }) => act);

it('the trail is read newest first, by person, object, act and time, page by page', async () => {
  expect(await acts({ person: works.colleague.personId })).toEqual([
    'connect',
    'start run',
    'pass isolate',
    'move valve',
    'move valve',
    'pass authorise',
    'pass brief',
    'open job',
  ]);
  const { id } = await findInstrument(base.app, { tag: TAG });
  expect(await acts({ kind: 'instrument', object: String(id) })).toEqual([
    'configure instrument',
    'add instrument',
  ]);
  expect((await acts({ object: TAG.toLowerCase() })).slice(0, 2)).toEqual(['connect', 'start run']);
  expect(await acts({ object: 'PC-1' })).toEqual(['add certificate', 'add module', 'add reference']);
  expect(await acts({ act: 'open job', from: TODAY, to: TODAY })).toEqual(['open job']);
  expect(await acts({ act: 'open job', from: '2026-05-05' })).toEqual([]);
  const [first, second] = await trailEntries(base.app, trailQuerySchema.parse({}), 2);
  expect(await trailEntries(base.app, trailQuerySchema.parse({ before: first?.id }), 1)).toEqual([second]);
});

it('an address that makes no sense shows the whole trail', () => {
  expect(trailQuerySchema.parse({ person: 'x', from: 'y', before: -1 })).toMatchObject({
    person: 0,
    from: '',
    before: 0,
  });
});

it('what can be filtered by is what there is', async () => {
  const { acts: known, kinds } = await trailFacets(base.app);
  expect(known).toContain('add person');
  expect(kinds).toEqual(['body', 'instrument', 'job', 'person', 'reference']);
});

it('the application can neither change nor remove an entry or a reading, nor anything that is only added to', async () => {
  const columns = {
    audit_entry: 'act',
    reading: 'output_text',
    run: 'made_with',
    configuration: 'reason',
    procedure_version: 'reason',
    reference_certificate: 'number',
    certificate_result: 'correction',
    past_result: 'done_by',
  };
  for (const [table, column] of Object.entries(columns))
    for (const tried of [
      `delete from ${table}`,
      `update ${table} set ${column} = ${column}`,
      `truncate ${table}`,
    ])
      await expect(base.app.query(tried), tried).rejects.toThrow('permission denied');
  await expect(base.app.query('alter table audit_entry disable trigger all')).rejects.toThrow(
    'must be owner',
  );
  // Not even the owner of the tables, as long as the guard stands.
  for (const table of Object.keys(columns))
    await expect(base.owner.query(`delete from ${table}`), table).rejects.toThrow('only ever added to');
});
