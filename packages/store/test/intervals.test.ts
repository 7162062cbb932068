/** How often instruments are calibrated: policy, advice over many, what stops it, and who may change what. */
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { setSafetyAuthority, addPerson } from '../src/people/people';
import type { Actor } from '../src/people/actor';
import { changeIntervalOf, intervalChangesOf } from '../src/intervals/change';
import {
  adviseNow,
  askCalculation,
  calculate,
  lastCalculation,
  lastFinished,
  stopCalculation,
} from '../src/intervals/calculation';
import { countFamilies, loadFamilies } from '../src/intervals/families';
import { adviceQuerySchema, countAdvice, listAdvice } from '../src/intervals/list';
import { listPolicies, setPolicy } from '../src/intervals/policy';
import { bringFile, openImport, takeImport } from '../src/imports/import';
import { entryOf, type NewInstrument } from '../src/registers/instrument';
import { addInstrument, changeInstrument, findInstrument } from '../src/registers/instruments';
import { historyOf } from '../src/results/history';
import { entry, openWorks, RANGE, TAG } from './works';

const { base, works } = await openWorks();
let planner: Actor;
let entrusted: Actor;
const DAY = '2026-05-04';

beforeAll(async () => {
  const person = async (name: string): Promise<Actor> => ({
    ...works.administrator,
    personId: await addPerson(base.owner, works.administrator, {
      name,
      role: 'planner',
      login: null,
      isActive: true,
    }),
  });
  planner = await person('Planner');
  entrusted = await person('Safety planner');
  await setSafetyAuthority(base.app, works.administrator, entrusted.personId, true);
});

const idOf = async (tag: string) => (await findInstrument(base.app, { tag })).id;
const add = async (tag: string, more: Partial<NewInstrument> = {}) => {
  const { body } = await findInstrument(base.app, { tag: TAG });
  return addInstrument(base.app, works.technician, entry({ tag, bodyId: body.id, ...more }), RANGE);
};

/** Yearly results at 0 and 100 %, the last on 1 May 2026, as they would be kept; nothing adjusted. */
async function results(
  instrumentId: number,
  errors: readonly number[],
  more: { standard?: (index: number) => string; limit?: number } = {},
): Promise<void> {
  const limit = more.limit ?? 0.25;
  for (const [index, error] of errors.entries()) {
    const year = 2026 - (errors.length - 1 - index);
    await base.owner.query(
      `insert into result (instrument_id, done_on, kind, is_left, verdict, range_key, range_version, at_percent, is_down,
         error_percent, limit_percent, adjust_above_percent, worst_of_limit, zero_percent, span_percent,
         hysteresis_percent, standard, meter, done_by, record, since_days)
       values ($1, $2, 'as-found', true, $3, '0 … 6 bar → 4 … 20 mA', 1, '{0,100}', '{false,false}', $4, $5, 70, $6, $7, 0, 0.01, $8,
         'DM-1', 'somebody', '', $9)`,
      [
        instrumentId,
        `${year}-05-01`,
        Math.abs(error) > limit ? 'outside' : 'within',
        [error, error],
        [limit, limit],
        error / limit,
        error,
        more.standard?.(index) ?? 'PC-1',
        index === 0 ? null : 365,
      ],
    );
  }
}
const SCATTER = [0.004, -0.006, 0.003, 0.005, -0.004, -0.002, 0.006, -0.005, 0.002];
const drifting = (count: number, perYear: number) =>
  Array.from({ length: count }, (_, index) => perYear * index + (SCATTER[index % 9] ?? 0));

describe('the policy', () => {
  it('is set by an administrator; that of safety functions only by one who is entrusted with them', async () => {
    await expect(setPolicy(base.app, planner, 'general', { target: 0.9, longestMonths: 48 })).rejects.toThrow(
      'may not do this',
    );
    await setPolicy(base.app, works.administrator, 'general', { target: 0.9, longestMonths: 48 });
    await expect(
      setPolicy(base.app, works.administrator, 'safety function', { target: 0.9, longestMonths: 60 }),
    ).rejects.toThrow('not entrusted');
    expect(await listPolicies(base.app)).toMatchObject([
      { criticality: 'safety function', target: 0.98, longestMonths: 12 },
      { criticality: 'quality' },
      { criticality: 'environment' },
      { criticality: 'general', target: 0.9, longestMonths: 48 },
    ]);
    await setPolicy(base.app, works.administrator, 'general', { target: 0.95, longestMonths: 60 });
  });

  it('caps what is entered, changed and brought in', async () => {
    await expect(add('PT-61', { criticality: 'safety function', intervalMonths: 13 })).rejects.toThrow(
      'allows at most 12 months',
    );
    await add('PT-61', { criticality: 'safety function', intervalMonths: 12 });
    const id = await bringFile(base.app, works.administrator, {
      kind: 'instruments',
      name: 'list.csv',
      bytes: Buffer.from(
        [
          'Tag,Serial,Service,Area,Body,LRV,URV,Unit,Tolerance % of span,Interval months,Criticality',
          'PT-71,1,one,bench,Cell 16,0,6,bar,0.25,24,safety function',
          'PT-72,1,two,bench,Cell 16,0,6,bar,0.25,24,quality',
        ].join('\n'),
      ),
    });
    const { choice } = await openImport(base.app, id);
    const { bad } = await base.app.bulk((tx) => takeImport(tx, works.administrator, id, choice, 'good rows'));
    expect(bad.map(({ cells, reason }) => [cells[0], reason])).toEqual([
      ['PT-71', 'The criticality safety function allows at most 12 months.'],
    ]);
  });

  it('of a safety function only who is entrusted changes interval or criticality, by the form as by decision', async () => {
    const change = async (actor: Actor, more: Partial<NewInstrument>) => {
      const instrument = await findInstrument(base.app, { tag: 'PT-61' });
      return changeInstrument(base.app, actor, instrument.id, instrument.revision, {
        ...entryOf(instrument),
        ...more,
      });
    };
    await expect(change(works.technician, { intervalMonths: 6 })).rejects.toThrow('not entrusted');
    await expect(change(works.administrator, { criticality: 'general' })).rejects.toThrow('not entrusted');
    await expect(change(entrusted, { intervalMonths: 24 })).rejects.toThrow('at most 12');
    await change(works.technician, { service: 'another name' });
    await change(entrusted, { intervalMonths: 6 });
    const id = await idOf('PT-61');
    const decision = { beforeMonths: 6, months: 12, reason: 'steady' };
    await expect(changeIntervalOf(base.app, planner, id, decision)).rejects.toThrow('not entrusted');
    await changeIntervalOf(base.app, entrusted, id, decision);
    expect((await findInstrument(base.app, { id })).intervalMonths).toBe(12);
    await setSafetyAuthority(base.app, works.administrator, entrusted.personId, false);
    await expect(
      changeIntervalOf(base.app, entrusted, id, { ...decision, beforeMonths: 12, months: 6 }),
    ).rejects.toThrow('not entrusted');
    await setSafetyAuthority(base.app, works.administrator, entrusted.personId, true);
    await expect(setSafetyAuthority(base.app, planner, planner.personId, true)).rejects.toThrow(
      'may not do this',
    );
  });
});

describe('a change of interval', () => {
  const decide = (actor: Actor, id: number, more: object = {}) =>
    changeIntervalOf(base.app, actor, id, { beforeMonths: 12, months: 8, reason: 'it drifts', ...more });

  it('wants a planner, a reason, another interval, and the one that was seen', async () => {
    const id = await add('PT-80');
    await expect(decide(works.technician, id)).rejects.toThrow('may not do this');
    await expect(decide(works.auditor, id)).rejects.toThrow('may not do this');
    await expect(decide(planner, id, { reason: '' })).rejects.toThrow('keeps its reason');
    await expect(decide(planner, id, { months: 12 })).rejects.toThrow('12 months already');
    await expect(decide(planner, id, { beforeMonths: 24 })).rejects.toThrow(
      'somebody else has changed'.slice(9),
    );
    await expect(decide(planner, id, { months: 61 })).rejects.toThrow('at most 60 months');
    await expect(decide(planner, 999_999)).rejects.toThrow('no instrument 999999');
    expect(await intervalChangesOf(base.app, id)).toEqual([]);
  });

  it('counts the due date from the day it was last left inside, and is kept with what was advised', async () => {
    const id = await add('PT-81');
    await results(id, drifting(6, 0.04));
    await decide(planner, id);
    expect(await findInstrument(base.app, { id })).toMatchObject({ intervalMonths: 8, dueOn: '2027-01-01' });
    expect(await intervalChangesOf(base.app, id)).toMatchObject([
      { beforeMonths: 12, afterMonths: 8, reason: 'it drifts', by: 'Planner' },
    ]);
    const [entryOfTrail] = await base.app.query(
      `select detail from audit_entry where act = 'change interval' order by id desc limit 1`,
    );
    expect(entryOfTrail).toMatchObject({
      detail: { before: 12, after: 8, due: { before: DAY, after: '2027-01-01' } },
    });
    await expect(base.owner.query('delete from interval_change')).rejects.toThrow('only ever added to');
  });

  it('leaves the due date of one that was left outside, or never calibrated', async () => {
    const [outside, fresh] = [await add('PT-82'), await add('PT-83')];
    await results(outside, [0, 0.4]);
    for (const id of [outside, fresh]) {
      await decide(planner, id);
      expect((await findInstrument(base.app, { id })).dueOn).toBe(DAY);
    }
  });

  it('of two at once one counts', async () => {
    const id = await add('PT-84');
    const both = await Promise.allSettled(
      [8, 9].map((months) =>
        base.app.transaction((tx) =>
          changeIntervalOf(tx, planner, id, { beforeMonths: 12, months, reason: 'at once' }),
        ),
      ),
    );
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
    expect(await intervalChangesOf(base.app, id)).toHaveLength(1);
  });
});

describe('the calculation of all advice', () => {
  beforeEach(async () => {
    await base.owner.query(
      `update interval_calculation set state = 'failed', ended_at = now() where state = 'runs'`,
    );
  });

  it('advises every instrument in service, as it is advised by itself, and lists what matters most first', async () => {
    const steady = await add('PT-91');
    await results(steady, drifting(8, 0.001));
    const short = await add('PT-92');
    await results(short, drifting(6, 0.04));
    await add('PT-93', { state: 'retired' });
    const id = await askCalculation(base.app, planner);
    await calculate(base.app, id, DAY);
    const done = await lastCalculation(base.app);
    expect(done).toMatchObject({ id, state: 'done', askedBy: 'Planner' });
    expect(done?.done).toBe(done?.total);
    const { lines, count } = await listAdvice(base.app, adviceQuerySchema.parse({}));
    expect(count).toBe(done?.total);
    expect(lines.map(({ tag }) => tag)).not.toContain('PT-93');
    expect(lines[0]?.advised.advice.kind).toBe('shorter');
    const line = (tag: string) => lines.find((one) => one.tag === tag);
    expect(line('PT-92')?.advised.advice.months).toBeLessThan(12);
    expect(line('PT-91')?.advised.advice).toMatchObject({ kind: 'longer', months: 18 });
    expect(line(TAG)?.advised.advice).toMatchObject({
      kind: 'none',
      reasons: [{ code: 'few-calibrations', count: 0 }, {}],
    });
    for (const one of [steady, short]) {
      const { anomalies, ...now } = await adviseNow(
        base.app,
        one,
        await historyOf(base.app, one),
        await loadFamilies(base.app),
      );
      const kept = lines.find(({ instrumentId }) => instrumentId === one);
      expect(kept?.advised).toEqual(JSON.parse(JSON.stringify(now)));
      expect(kept?.anomalies).toEqual(anomalies);
    }
    const counts = await countAdvice(base.app);
    expect(counts.get('shorter')).toBe(
      (await listAdvice(base.app, adviceQuerySchema.parse({ kind: 'shorter' }))).count,
    );
    expect(
      (await listAdvice(base.app, adviceQuerySchema.parse({ q: 'pt-9' }))).lines.map(({ tag }) => tag),
    ).toEqual(['PT-92', 'PT-91']);
    expect((await listAdvice(base.app, adviceQuerySchema.parse({ q: '%' }))).count).toBe(0);
  });

  it('is for a planner, one at a time, and stops when it is told to', async () => {
    await expect(askCalculation(base.app, works.technician)).rejects.toThrow('may not do this');
    const before = await lastFinished(base.app);
    const id = await askCalculation(base.app, planner);
    await expect(askCalculation(base.app, entrusted)).rejects.toThrow('that Planner asked for is running');
    await expect(stopCalculation(base.app, works.auditor, id)).rejects.toThrow('may not do this');
    expect(await stopCalculation(base.app, entrusted, id)).toBe(true);
    expect(await stopCalculation(base.app, entrusted, id)).toBe(false);
    await calculate(base.app, id, DAY);
    expect(await lastCalculation(base.app)).toMatchObject({ id, state: 'cancelled', done: 0 });
    expect(await base.app.query('select from interval_advice where calculation_id = $1', [id])).toEqual([]);
    expect((await lastFinished(base.app))?.id).toBe(before?.id);
  });

  it('of two who ask at once one is told that the other one runs', async () => {
    const both = await Promise.allSettled(
      [planner, entrusted].map((actor) => base.app.transaction((tx) => askCalculation(tx, actor))),
    );
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
  });

  it('that was cut off makes way, and one that cannot be worked through says so', async () => {
    const id = await askCalculation(base.app, planner);
    await base.owner.query(
      `update interval_calculation set beat_at = now() - interval '2 minutes' where id = $1`,
      [id],
    );
    expect((await lastCalculation(base.app))?.state).toBe('cut off');
    const next = await askCalculation(base.app, planner);
    expect(await lastCalculation(base.app)).toMatchObject({ id: next, state: 'runs' });
    await base.owner.query('alter table interval_policy rename to interval_policy_away');
    await expect(calculate(base.app, next, DAY)).rejects.toThrow('interval_policy');
    await base.owner.query('alter table interval_policy_away rename to interval_policy');
    expect((await lastCalculation(base.app))?.state).toBe('failed');
  });

  it('finds a reference whose calibrations differ, and a step that is worth a look', async () => {
    for (let index = 0; index < 8; index += 1) {
      const id = await add(`PT-3${index}`);
      const shift = (place: number) => (place % 2 === 1 ? 0.1 : 0) + (SCATTER[(place + index) % 9] ?? 0);
      await results(id, [0, 1, 2, 3].map(shift), {
        standard: (place) => (place % 2 === 1 ? 'PC-9' : `PC-${index % 2}`),
      });
    }
    const jumped = await add('PT-40');
    await results(
      jumped,
      drifting(7, 0).map((error, index) => error + (index >= 5 ? 0.15 : 0)),
    );
    const id = await askCalculation(base.app, planner);
    await calculate(base.app, id, DAY);
    const differences = (await lastFinished(base.app))?.differences ?? [];
    expect(differences).toMatchObject([{ of: 'reference', name: 'PC-9', isEither: false }]);
    expect(differences[0]?.mean).toBeCloseTo(0.4, 1);
    const { lines } = await listAdvice(base.app, adviceQuerySchema.parse({ kind: 'worth a look' }));
    expect(lines.map(({ tag, anomalies }) => [tag, anomalies.map(({ kind }) => kind)])).toContainEqual([
      'PT-40',
      ['step'],
    ]);
  });
});

describe('families', () => {
  it('are the narrowest that has enough, without faults and what was not judged', async () => {
    const one = { model: 'Cell 16', measures: 'pressure', area: 'tower' };
    const load = async () => {
      await base.app.transaction(countFamilies);
      return loadFamilies(base.app, 'Cell 16');
    };
    const count = async () =>
      (await load()).of(one).family.rows.reduce((sum, { calibrations }) => sum + calibrations, 0);
    const before = await count();
    expect((await load()).of(one).name).toBe('Cell 16, pressure');
    const ids = [await add('PT-51', { area: 'tower' }), await add('PT-52', { area: 'tower' })];
    for (const id of ids)
      await results(
        id,
        Array.from({ length: 10 }, () => 0.01),
      );
    expect(await count()).toBe(before + 18);
    await results(await add('PT-53', { area: 'tower' }), [0.01, 0.3, 0.01]);
    const narrow = (await load()).of(one);
    expect(narrow.name).toBe('Cell 16, pressure, tower');
    expect(narrow.family.rows).toEqual([{ interval: 12, calibrations: 20, out: 1 }]);
    await base.owner.query(
      `update result set verdict = 'not-judged' where verdict = 'outside' and instrument_id = (select id from instrument where tag = 'PT-53')`,
    );
    expect((await load()).of(one).name).toBe('Cell 16, pressure');
    expect((await load()).of({ ...one, model: 'unknown' }).family).toEqual({
      rows: [],
      figures: null,
    });
  });
});
