import { beforeAll, describe, expect, it } from 'vitest';
import { rangeMisfit, turndownOf } from '../src/registers/body';
import {
  accuracyOfBody,
  addBody,
  bodySchema,
  changeBody,
  findBody,
  listBodies,
} from '../src/registers/bodies';
import { configurationSchema } from '../src/registers/configuration';
import { addConfiguration, configurationsOf } from '../src/registers/configurations';
import { entryOf, instrumentSchema } from '../src/registers/instrument';
import { addInstrument, assignOwner, changeInstrument, findInstrument } from '../src/registers/instruments';
import { dropView, keepView, viewsOf } from '../src/people/views';
import {
  listFacets,
  listInstruments,
  listQuerySchema,
  type ListQuery,
} from '../src/registers/instrument-list';
import { openJob } from '../src/jobs/decide';
import { CELL, entry, openWorks, RANGE, TAG, TODAY } from './works';

const { base, works } = await openWorks();
let bodyId: number;

beforeAll(async () => {
  bodyId = (await findInstrument(base.app, { tag: TAG })).body.id;
  const add = (tag: string, more: Partial<Parameters<typeof entry>[0]>) =>
    addInstrument(base.app, works.technician, entry({ bodyId, tag, ...more }), RANGE);
  await add('FT-100', {
    service: 'Feed_water flow',
    area: 'north',
    walk: 2,
    measures: 'flow',
    dueOn: '2026-05-03',
  });
  await add('FT-200', {
    service: 'Feedwater bypass',
    area: 'north',
    walk: 1,
    measures: 'flow',
    dueOn: '2026-05-20',
  });
  await add('LT-300', { area: 'south', owner: 'Crew', state: 'spare', loop: 'L-300', dueOn: '2027-01-01' });
});

const tags = async (query: Partial<Record<keyof ListQuery, string>>) =>
  (await listInstruments(base.app, listQuerySchema.parse(query), TODAY)).lines.map(({ tag }) => tag);

describe('the list of instruments', () => {
  it('finds any part of a tag, and all words that were typed', async () => {
    expect(await tags({ q: 't-1' })).toEqual(['FT-100', 'PT-1']);
    expect(await tags({ q: 'feed 200' })).toEqual(['FT-200']);
    expect(await tags({ q: 'l-300' })).toEqual(['LT-300']);
    expect(await tags({ q: 'no such' })).toEqual([]);
  });

  it('takes the signs of a pattern as they are', async () => {
    expect(await tags({ q: 'feed_' })).toEqual(['FT-100']);
    expect(await tags({ q: '%' })).toEqual([]);
    expect(await tags({ q: '\\' })).toEqual([]);
    expect(await tags({ q: "'; drop table instrument; --" })).toEqual([]);
  });

  it('filters, orders either way, and pages without a line twice', async () => {
    expect(await tags({ measures: 'flow', sort: 'tag', dir: 'desc' })).toEqual(['FT-200', 'FT-100']);
    expect(await tags({ area: 'north', sort: 'walk' })).toEqual(['FT-200', 'FT-100']);
    expect(await tags({ state: 'spare' })).toEqual(['LT-300']);
    expect(await tags({ owner: 'Crew' })).toEqual(['LT-300']);
    expect(await tags({ due: 'overdue' })).toEqual(['FT-100']);
    expect(await tags({ due: '30' })).toEqual(['FT-100', 'PT-1', 'FT-200']);
    const whole = listQuerySchema.parse({ sort: 'area' });
    const pages = await Promise.all(
      [0, 1, 2].map((page) => listInstruments(base.app, { ...whole, size: 2, page }, TODAY)),
    );
    expect(pages.map(({ total }) => total)).toEqual([4, 4, 4]);
    expect(new Set(pages.flatMap(({ lines }) => lines.map(({ id }) => id))).size).toBe(4);
  });

  it('answers an address that makes no sense with the whole list', () => {
    expect(listQuerySchema.parse({ sort: 'password', page: '-1', size: '7', state: 'x' })).toMatchObject({
      sort: 'dueOn',
      page: 0,
      size: 25,
      state: '',
    });
  });

  it('knows the areas and owners to filter by', async () => {
    expect(await listFacets(base.app)).toEqual({ areas: ['bench', 'north', 'south'], owners: ['Crew'] });
  });
});

describe('an instrument', () => {
  it('is changed whole, and the trail keeps what differed', async () => {
    const before = await findInstrument(base.app, { tag: 'LT-300' });
    await changeInstrument(base.app, works.technician, before.id, before.revision, {
      ...entryOf(before),
      owner: 'Night crew',
      hazards: ['hot'],
    });
    const after = await findInstrument(base.app, { tag: 'LT-300' });
    expect(after).toMatchObject({ owner: 'Night crew', hazards: ['hot'], revision: before.revision + 1 });
    const [kept] = await base.app.query<{ detail: object }>(
      `select detail from audit_entry where act = 'change instrument' order by id desc limit 1`,
    );
    expect(kept?.detail).toEqual({
      owner: { before: 'Crew', after: 'Night crew' },
      hazards: { before: [], after: ['hot'] },
    });
  });

  it('is not changed over the change of somebody else', async () => {
    const { id, revision, ...rest } = await findInstrument(base.app, { tag: 'FT-100' });
    const changed = { ...entryOf({ id, revision, ...rest }), service: 'Feedwater' };
    await changeInstrument(base.app, works.technician, id, revision, changed);
    await expect(changeInstrument(base.app, works.colleague, id, revision, changed)).rejects.toThrow(
      'Somebody else has changed FT-100',
    );
  });

  it('has a tag of its own', async () => {
    await expect(
      addInstrument(base.app, works.technician, entry({ bodyId, tag: 'FT-200' }), RANGE),
    ).rejects.toThrow('There is already an instrument FT-200');
  });

  it('is not entered when its range does not fit: nothing of it stays', async () => {
    await expect(
      base.app.transaction((tx) =>
        addInstrument(tx, works.technician, entry({ bodyId, tag: 'PT-77' }), { ...RANGE, urv: 99 }),
      ),
    ).rejects.toThrow('outside the limits');
    await expect(findInstrument(base.app, { tag: 'PT-77' })).rejects.toThrow('no instrument PT-77');
  });

  it('several are given to one owner in one act', async () => {
    const ids = await Promise.all(
      ['FT-100', 'FT-200'].map(async (tag) => (await findInstrument(base.app, { tag })).id),
    );
    await assignOwner(base.app, works.technician, ids, 'Day crew');
    expect(await tags({ owner: 'Day crew', sort: 'tag' })).toEqual(['FT-100', 'FT-200']);
  });

  it('that is retired has no job', async () => {
    await addInstrument(
      base.app,
      works.technician,
      entry({ bodyId, tag: 'PT-401', state: 'retired' }),
      RANGE,
    );
    await expect(openJob(base.app, works.technician, 'PT-401', 'due')).rejects.toThrow('is retired');
  });

  it.each([
    [{ tag: 'pt 1' }, 'A tag is 2 to 32'],
    [{ service: ' ' }, 'Say what'],
    [{ walk: 0.5 }, 'whole number'],
    [{ dueOn: '31.3.2026' }, 'such as 2026-03-31'],
    [{ intervalMonths: 0 }, 'at least one month'],
    [{ tolerance: { percentOfSpan: 0, adjustAbovePercentOfLimit: 70 } }, 'greater than zero'],
    [{ tolerance: { percentOfSpan: 1, adjustAbovePercentOfLimit: 101 } }, 'at most 100 %'],
  ])('is refused with %j', (more, words) => {
    const found = instrumentSchema.safeParse({ ...entry({ bodyId }), ...more });
    expect(found.error?.issues[0]?.message).toContain(words);
  });
});

describe('acts on the registers', () => {
  it('are refused to an auditor, each of them', async () => {
    const { id, revision, ...rest } = await findInstrument(base.app, { tag: TAG });
    const same = entryOf({ id, revision, ...rest });
    const acts = [
      () => addInstrument(base.app, works.auditor, entry({ bodyId, tag: 'PT-9' }), RANGE),
      () => changeInstrument(base.app, works.auditor, id, revision, same),
      () => assignOwner(base.app, works.auditor, [id], 'me'),
      () => addConfiguration(base.app, works.auditor, id, RANGE),
      () => addBody(base.app, works.auditor, CELL),
      () => changeBody(base.app, works.auditor, bodyId, 1, CELL),
    ];
    for (const one of acts) await expect(one()).rejects.toThrow('has the role auditor');
  });

  it('leave configurations as they were, whoever tries', async () => {
    await expect(base.app.query('update configuration set urv = 1')).rejects.toThrow('permission denied');
    await expect(base.owner.query('update configuration set urv = 1')).rejects.toThrow('only ever added to');
    await expect(base.app.query('delete from instrument')).rejects.toThrow('permission denied');
  });
});

describe('configurations', () => {
  it('of two people at once become two versions', async () => {
    const { id } = await findInstrument(base.app, { tag: 'FT-200' });
    await Promise.all(
      [works.technician, works.colleague].map((actor, index) =>
        base.app.transaction((tx) => addConfiguration(tx, actor, id, { ...RANGE, urv: 4 + index })),
      ),
    );
    expect((await configurationsOf(base.app, id)).map(({ version }) => version)).toEqual([3, 2, 1]);
  });

  it('keep their transfer function and signal', async () => {
    const { id } = await findInstrument(base.app, { tag: 'FT-100' });
    const transferFunction = { kind: 'square-root-cut-off', cutOffPercentOfFlow: 12 } as const;
    await addConfiguration(base.app, works.technician, id, { ...RANGE, transferFunction });
    expect((await findInstrument(base.app, { id })).configuration.transferFunction).toEqual(transferFunction);
  });

  it('have an output that the body has', async () => {
    const { id } = await findInstrument(base.app, { tag: 'FT-100' });
    await expect(
      addConfiguration(base.app, works.technician, id, { ...RANGE, signal: 'V-0-10' }),
    ).rejects.toThrow('does not have this output');
  });

  it.each([
    [{ urv: 0 }, 'input range'],
    [{ outputUnit: 'psi' }, 'A signal of 4–20 mA is in mA.'],
    [{ outputHigh: 4 }, 'output range'],
    [{ reason: '' }, 'Say why'],
    [{ dampingS: -1 }, 'must not be negative'],
    [{ inputUnit: 'inH2O' }, 'with its reference'],
    [{ transferFunction: { kind: 'square-root-cut-off', cutOffPercentOfFlow: 120 } }, 'cut-off'],
  ])('are refused with %j', (more, words) => {
    const found = configurationSchema.safeParse({ ...RANGE, ...more });
    expect(found.error?.issues[0]?.message).toContain(words);
  });
});

describe('bodies', () => {
  it('are listed, changed once at a time, and have a name of their own', async () => {
    const body = await findBody(base.app, bodyId);
    await changeBody(base.app, works.technician, bodyId, body.revision, {
      ...CELL,
      accuracy: '0.05 * URL / span',
    });
    await expect(changeBody(base.app, works.colleague, bodyId, body.revision, CELL)).rejects.toThrow(
      'Somebody else has changed Cell 16',
    );
    await expect(addBody(base.app, works.technician, CELL)).rejects.toThrow('already a body Cell 16');
    expect((await listBodies(base.app)).map(({ model }) => model)).toEqual(['Cell 16']);
    await expect(findBody(base.app, 999)).rejects.toThrow('There is no body 999');
  });

  it('know their turndown and accuracy', () => {
    // A 4:1 body stamped 200 has a least span of 50.
    const body = { ...CELL, lowerRangeLimit: 0, upperRangeLimit: 200, leastSpan: 50, greatestSpan: 200 };
    expect(turndownOf(body)).toBe(4);
    expect(turndownOf({ ...body, greatestSpan: null })).toBe(4);
    expect(accuracyOfBody({ accuracy: '0.025 + 0.025 * URL / span', upperRangeLimit: 200 }, 50)).toBeCloseTo(
      0.125,
      12,
    );
    expect(accuracyOfBody(CELL, 5)).toBeNull();
    expect(rangeMisfit({ ...CELL, greatestSpan: 10 }, 'bar', 0, 12)).toContain(
      'wider than the greatest span',
    );
  });

  it.each([
    [{ upperRangeLimit: -2 }, 'above the lower one'],
    [{ leastSpan: 18 }, 'wider than the limits'],
    [{ greatestSpan: 0.5 }, 'between the least span'],
    [{ outputs: [] }, 'at least one output'],
    [{ accuracy: 'process.exit()' }, 'a formula in span and URL'],
    [{ accuracy: '0.1 * turndown' }, 'a formula in span and URL'],
    [{ spanClasses: [{ name: 'low', leastSpan: 2, greatestSpan: 1 }] }, 'from its least span'],
  ])('are refused with %j', (more, words) => {
    const found = bodySchema.safeParse({ ...CELL, ...more });
    expect(found.error?.issues[0]?.message).toContain(words);
  });
});

it('views are kept by each person, replaced under one name, and dropped by their owner only', async () => {
  const { technician, colleague } = works;
  await keepView(base.app, technician, 'instruments', { name: 'mine', query: 'area=north' });
  await keepView(base.app, technician, 'instruments', { name: 'mine', query: 'area=south' });
  const [view] = await viewsOf(base.app, technician.personId, 'instruments');
  expect(view).toMatchObject({ name: 'mine', query: 'area=south' });
  expect(await viewsOf(base.app, colleague.personId, 'instruments')).toEqual([]);
  await dropView(base.app, colleague, view?.id ?? 0);
  expect(await viewsOf(base.app, technician.personId, 'instruments')).toHaveLength(1);
  await dropView(base.app, technician, view?.id ?? 0);
  expect(await viewsOf(base.app, technician.personId, 'instruments')).toEqual([]);
});
