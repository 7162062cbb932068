/** What a shift hands over, and the list of jobs. */
import { beforeEach, describe, expect, it } from 'vitest';
import { cancelJob } from '../src/jobs/turns';
import { openJob, passAsked } from '../src/jobs/decide';
import { connectJob } from '../src/jobs/connect';
import { handOver, type OutOfService } from '../src/jobs/hand-over';
import { jobQuerySchema, listJobs } from '../src/jobs/job-list';
import { keepMove } from '../src/jobs/valves';
import { keepView, viewsOf } from '../src/people/views';
import { saveReading } from '../src/runs/reading';
import { addInstrument, findInstrument } from '../src/registers/instruments';
import { IN_MANUAL } from '../src/jobs/questions';
import {
  answersAt,
  bringBack,
  closeOpenJobs,
  CONNECTION,
  entry,
  lastRunId,
  openWorks,
  RANGE,
  reading,
  TAG,
  turnValves,
} from './works';

const { base, works } = await openWorks();
const { technician, colleague } = works;
const at = (minutes: number, actor = technician) => ({
  ...actor,
  at: new Date(technician.at.valueOf() + minutes * 60_000),
});
beforeEach(() => closeOpenJobs(base.owner));

const now = async () => {
  const [job] = (await handOver(base.app)).jobs;
  if (job === undefined) throw new Error('nothing is open');
  return job;
};
const kinds = (standing: readonly OutOfService[]) => standing.map(({ kind }) => kind);

async function authorised(bypass: string, controller: string): Promise<number> {
  const jobId = await openJob(base.app, technician, TAG, 'due');
  await passAsked(base.app, technician, jobId, 'brief', await answersAt(base.app, jobId, 'brief'));
  const { given } = await answersAt(base.app, jobId, 'authorise');
  await passAsked(base.app, at(5), jobId, 'authorise', {
    given: { ...given, bypass, controller },
    skipReason: '',
  });
  return jobId;
}

describe('the hand-over', () => {
  it('names what is in manual, bypassed, half turned, isolated and connected, by whom and since when, until it is back', async () => {
    const jobId = await authorised('high-pressure trip, shift manager', IN_MANUAL);
    expect((await now()).standing).toEqual([
      { kind: 'manual', words: IN_MANUAL, by: 'Technician A', at: at(5).at },
      { kind: 'bypass', words: 'high-pressure trip, shift manager', by: 'Technician A', at: at(5).at },
    ]);
    const move = { stage: 'isolate', isMadeAnyway: false } as const;
    await keepMove(base.app, at(9, colleague), jobId, { ...move, valve: 'block', to: 'closed', known: 0 });
    expect((await now()).standing[0]).toMatchObject({
      kind: 'half turned',
      lacks: [
        { kind: 'valve', valve: 'bleed', to: 'open' },
        { kind: 'trapped', side: 'high' },
      ],
      by: 'Technician B',
      at: at(9).at,
    });
    await keepMove(base.app, at(11), jobId, { ...move, valve: 'bleed', to: 'open', known: 1 });
    expect((await now()).standing[0]).toMatchObject({ kind: 'isolated', by: 'Technician B', at: at(9).at });
    await passAsked(base.app, at(12), jobId, 'isolate', await answersAt(base.app, jobId, 'isolate'));
    await connectJob(base.app, at(15), jobId, CONNECTION);
    const runId = await lastRunId(base.app, jobId, 'as-found');
    await saveReading(base.app, at(20, colleague), runId, reading(1, '4.001'));
    expect(await now()).toMatchObject({
      id: jobId,
      tag: TAG,
      stage: 'as-found',
      points: { done: 1, of: 9 },
      lastBy: 'Technician B',
      lastAt: at(20).at,
    });
    const { standing } = await now();
    expect(kinds(standing)).toEqual(['test pressure', 'isolated', 'manual', 'bypass']);
    expect(standing[0]).toMatchObject({ standard: 'PC-1', at: at(15).at });
    await base.owner.query(`update job set stage = 'return' where id = $1`, [jobId]);
    await bringBack(base.app, at(30), jobId);
    expect(await now()).toMatchObject({ stage: 'sign', standing: [] });
  });

  it.each(['none', 'None', 'no', '-'])(
    '“%s” bypassed is none, and a controller that follows nothing is in no manual',
    async (none) => {
      const jobId = await authorised(none, 'None uses it');
      expect((await now()).standing).toEqual([]);
      await turnValves(base.app, technician, jobId, 'isolate');
      expect(kinds((await now()).standing)).toEqual(['isolated']);
    },
  );

  it('does not take back what an older return said of a later authorisation, and skips what is closed', async () => {
    const jobId = await authorised('none', IN_MANUAL);
    await base.owner.query(
      `insert into stage_passed (job_id, stage, note, done_by, done_at) values ($1, 'return', 'x', $2, now())`,
      [jobId, technician.personId],
    );
    expect((await now()).standing).toEqual([]);
    const { given } = await answersAt(base.app, jobId, 'authorise');
    await base.owner.query(`update job set stage = 'authorise' where id = $1`, [jobId]);
    await passAsked(base.app, at(90), jobId, 'authorise', { given, skipReason: '' });
    expect((await now()).standing).toMatchObject([
      { kind: 'manual', at: at(90).at },
      { kind: 'bypass', words: 'as usual' },
    ]);
    await closeOpenJobs(base.owner);
    expect(await handOver(base.app)).toEqual({ jobs: [], isCut: false });
  });
});

it('one that was signed without its return goes on being named, until a later one brings it back or it is out of service', async () => {
  const jobId = await authorised('none', IN_MANUAL);
  await turnValves(base.app, technician, jobId, 'isolate');
  await base.owner.query(`update job set stage = 'return' where id = $1`, [jobId]);
  await passAsked(base.app, at(40), jobId, 'return', { given: {}, skipReason: 'goes to the shop' });
  await closeOpenJobs(base.owner);
  const left = async () =>
    (await handOver(base.app)).jobs
      .map(({ id, isOpen, standing }) => [id, isOpen, kinds(standing)] as const)
      .sort(([a], [b]) => a - b);
  expect(await left()).toEqual([[jobId, false, ['isolated', 'manual']]]);
  await base.owner.query(`update instrument set state = 'out' where tag = '${TAG}'`);
  expect(await left()).toEqual([]);
  await base.owner.query(`update instrument set state = 'in service' where tag = '${TAG}'`);
  const next = await authorised('none', 'None uses it');
  expect(await left()).toEqual([
    [jobId, false, ['isolated', 'manual']],
    [next, true, []],
  ]);
  await turnValves(base.app, technician, next, 'isolate');
  await base.owner.query(`update job set stage = 'return' where id = $1`, [next]);
  await bringBack(base.app, at(90), next);
  expect(await left()).toEqual([[next, true, []]]);
  await closeOpenJobs(base.owner);
});

describe('the list of jobs', () => {
  const list = async (search: object) =>
    (await listJobs(base.app, jobQuerySchema.parse(search))).lines.map(({ id }) => id);

  it('is found by tag, service and number, filtered, ordered and paged', async () => {
    const { body } = await findInstrument(base.app, { tag: TAG });
    const ids: number[] = [];
    for (const n of [1, 2, 3]) {
      const tag = `FT-77${n}`;
      await addInstrument(
        base.app,
        technician,
        entry({ tag, bodyId: body.id, service: `100%_pure ${n}` }),
        RANGE,
      );
      ids.push(await openJob(base.app, at(n), tag, n === 3 ? 'fault' : 'due'));
    }
    const [first = 0, second = 0, third = 0] = ids;
    expect((await list({})).slice(0, 3)).toEqual([third, second, first]);
    expect(await list({ q: 'ft-77', dir: 'asc' })).toEqual(ids);
    expect(await list({ q: '100%_p 2' })).toEqual([second]);
    expect(await list({ q: '100%xp' })).toEqual([]);
    expect(await list({ q: String(second) })).toEqual([second]);
    expect(await list({ q: `ft-772 ${second}` })).toEqual([second]);
    expect(await list({ q: `ft-771 ${second}` })).toEqual([]);
    for (const none of [`0${second}`, '999999999999999', '99999999999999999999', '1234.5'])
      expect(await list({ q: none })).toEqual([]);
    expect(await list({ q: 'ft-77', reason: 'fault' })).toEqual([third]);
    expect(await list({ q: 'ft-77', where: 'brief', sort: 'tag', dir: 'desc' })).toEqual([
      third,
      second,
      first,
    ]);
    expect(await list({ q: 'ft-77', where: 'sign' })).toEqual([]);
    expect(await list({ q: 'ft-77', who: 'Technician A' })).toHaveLength(3);
    expect(await list({ q: 'ft-77', who: 'Technician B' })).toEqual([]);
    expect(await list({ where: 'nonsense', sort: 'nonsense', page: 'x', q: 'ft-77' })).toHaveLength(3);
    const page = await listJobs(base.app, jobQuerySchema.parse({ page: '1', size: '25' }));
    expect(page.lines).toEqual([]);
    expect(page.total).toBeGreaterThanOrEqual(3);
    await cancelJob(base.app, technician, third, { reason: 'not wanted', isBack: true });
    expect(await list({ q: 'ft-77', where: 'open' })).toEqual([second, first]);
    expect(await list({ q: 'ft-77', where: 'cancelled' })).toEqual([third]);
    await base.owner.query(
      `update job set stage = 'closed', signed_by = $2, signed_at = '2026-05-04T23:30:00Z', as_found_verdict = 'outside',
         as_left_verdict = 'within' where id = $1`,
      [second, colleague.personId],
    );
    expect(await list({ q: 'ft-77', found: 'outside', who: 'Technician B' })).toEqual([second]);
    const [zone] = await base.app.query<{ day: string }>(
      `select to_char(timestamptz '2026-05-04T23:30:00Z' at time zone coalesce((select time_zone from installation), 'UTC'), 'YYYY-MM-DD') as day`,
    );
    expect(await list({ from: zone?.day, to: zone?.day, q: 'ft-77' })).toEqual([second]);
    expect(await list({ from: '2026-05-06', q: 'ft-77' })).toEqual([]);
  });

  it('has views of its own', async () => {
    await keepView(base.app, technician, 'jobs', { name: 'Mine', query: 'who=Technician+A' });
    expect(await viewsOf(base.app, technician.personId, 'jobs')).toMatchObject([{ name: 'Mine' }]);
    expect(await viewsOf(base.app, technician.personId, 'instruments')).toEqual([]);
  });
});
