/**
 * A works of 100,000 instruments, a million runs and five million readings: how long its pages take on the server beside
 * their own bare SQL and an empty page.
 */
import { openDatabase, type Database } from '@barys/store/db';
import { handOver, jobsOfInstrument, listJobs, openJobs } from '@barys/store/jobs';
import {
  findSite,
  listPeople,
  personOfSession,
  signInToDemo,
  viewsOf,
  type Actor,
} from '@barys/store/people';
import {
  configurationsOf,
  findInstrument,
  instrumentsDueNext,
  listFacets,
  listInstruments,
  listQuerySchema,
  referencesDueBy,
} from '@barys/store/registers';
import {
  adviceQuerySchema,
  adviseNow,
  askCalculation,
  calculate,
  countAdvice,
  familySums,
  intervalChangesOf,
  lastCalculation,
  lastFinished,
  listAdvice,
  loadFamilies,
} from '@barys/store/intervals';
import {
  adjustmentsByKind,
  calibrationQuerySchema,
  causesByName,
  costsOfIntervals,
  foundByMonth,
  listCalibrations,
  overdueByMonth,
  referencesUsed,
  workloadAhead,
} from '@barys/store/insight';
import {
  dueByDay,
  dueOn,
  dueStanding,
  dueWithin,
  lastMaking,
  loadWeek,
  plannedWalks,
} from '@barys/store/planning';
import { adjustmentsOf, historyOf } from '@barys/store/results';
import { jobQuerySchema } from '@barys/store/shapes';
import dayjs from 'dayjs';
import { join } from 'node:path';
import { buildWeb } from '../lib/build';
import { ensureDatabase, query } from '../lib/cluster';
import { prepareDatabase } from '../lib/database';
import { Failure } from '../lib/failure';
import { freePort } from '../lib/ports';
import { startWeb } from '../lib/web';
import { compare } from './compare';
import { measured, remark } from './table';
import { onScratch } from './scratch';

const INSTRUMENTS = 100_000;
/** Each instrument has five signed jobs, each job an as-found and an as-left run, each run five readings. */
const JOBS_EACH = 5;

/** The demo's own rows, repeated with other tags, so that everything has the shape that it has in use. */
const FLEET_SQL = `
  set session_replication_role = replica;
  insert into instrument (tag, serial, service, description, site, area, walk, hazards, loop, criticality, measures,
      kind, body_id, procedure_id, tolerance_percent_of_span, adjust_above_percent_of_limit, interval_months, due_on,
      owner, state)
    select (array['PT', 'FT', 'LT', 'PDT'])[1 + n % 4] || '-' || (100000 + n), 'S-' || n,
      'Service ' || n || (array[' feedwater', ' juice', ' steam', ' air'])[1 + n % 4], '', 'Works',
      'Area ' || lpad((n % 120)::text, 3, '0'), 1 + n % 90000, '{}', 'L-' || n, 'general', 'pressure', 'gauge', body_id,
      procedure_id, 0.25, 70, 12, current_date - 200 + n % 500, 'Crew ' || n % 40, 'in service'
    from generate_series(1, ${INSTRUMENTS}) n, (select body_id, procedure_id from instrument where tag = 'PT-2107') one;
  insert into configuration (instrument_id, version, input_unit, lrv, urv, output_unit, output_low, output_high,
      damping_s, display_unit, display_low, display_high, made_by, made_at, reason, signal, transfer_function)
    select instrument.id, 1, input_unit, lrv, urv, output_unit, output_low, output_high, damping_s, display_unit,
      display_low, display_high, made_by, made_at, reason, signal, transfer_function
    from instrument, (select * from configuration
      where instrument_id = (select id from instrument where tag = 'PT-2107') limit 1) one
    where site = 'Works';
  insert into job (instrument_id, reason, stage, opened_by, opened_at, signed_by, signed_at, as_found_verdict,
      as_left_verdict, instrument_copy)
    select instrument.id, 'due', 'closed', one.id, now() - visit * interval '1 year', one.id,
      now() - visit * interval '1 year', 'within', 'within',
      half.copy || jsonb_build_object('tag', tag, 'service', service, 'area', area)
    from instrument, generate_series(1, ${JOBS_EACH}) visit, (select min(id) as id from person) one,
      (select instrument_copy as copy from job limit 1) half
    where site = 'Works';
  insert into run (job_id, kind, pass, made_with, started_by, started_at)
    select job.id, run_kind, 1, made_with, opened_by, opened_at
    from job join instrument on instrument.id = instrument_id and site = 'Works',
      unnest(array['as-found', 'as-left']) run_kind, (select made_with from run order by id limit 1) one;
  insert into reading (run_id, position, client_key, applied_text, applied, applied_as, output_text, output, read_by,
      read_at)
    select run.id, position,
      ('00000000-0000-4000-8000-' || lpad(to_hex(run.id * 8 + position), 12, '0'))::uuid, '1.500', 1.5, 'set', '8.012', 8.012, started_by, started_at
    from run join job on job.id = job_id join instrument on instrument.id = instrument_id and site = 'Works',
      generate_series(1, 5) position;
  insert into result (instrument_id, job_id, run_id, done_on, kind, is_left, verdict, range_key, range_version, at_percent,
      is_down, error_percent, limit_percent, adjust_above_percent, worst_of_limit, zero_percent, span_percent,
      hysteresis_percent, standard, meter, person_id, done_by, record, since_days)
    select instrument_id, job_id, run_id, done_on, kind, kind = 'as-left',
      case when abs(error) > 0.25 then 'outside' else 'within' end, range_key, 1, '{0,25,50,75,100}',
      '{false,false,false,false,false}', array[error, error + 0.01, error + 0.02, error + 0.01, error - 0.01],
      '{0.25,0.25,0.25,0.25,0.25}', 70, error / 0.25, error, 0, 0.02, 'PC-0' || 1 + run_id % 3, 'DM-01', started_by, '', '',
      case when kind = 'as-found' then 365 end
    from (
      select job.instrument_id, job.id as job_id, run.id as run_id, opened_at::date as done_on, run.kind, started_by, range_key,
        case when run.kind = 'as-left' then 0 else (job.instrument_id * 7919 % 1000 - 500) * 0.0004 end
          + (hashint8(run.id) % 1000) * 0.00003 as error
      from run join job on job.id = job_id join instrument on instrument.id = instrument_id and site = 'Works',
        (select range_key from result where instrument_id = (select id from instrument where tag = 'PT-2107') limit 1) one
    ) calibration;
  set session_replication_role = origin;
  analyze`;

/** What measuring a page needs: who asks, and what every page begins with. */
interface Asking {
  readonly db: Database;
  readonly actor: Actor;
  readonly frame: () => Promise<unknown>;
  /** Measures a page beside its own SQL and an empty page of the same shell. */
  readonly page: (
    name: string,
    sql: (round: number) => Promise<unknown>,
    path: (round: number) => string,
  ) => Promise<unknown>;
}

async function benchPages(db: Database, url: string, actor: Actor): Promise<void> {
  const token = await db.transaction((tx) => signInToDemo(tx, actor, actor.personId));
  const ask = async (path: string) => {
    const answer = await fetch(`${url}${path}`, { headers: { cookie: `barys-session=${token}` } });
    if (!answer.ok) throw new Failure(`${path} answered ${answer.status}`);
    return answer.text();
  };
  const page: Asking['page'] = (name, sql, path) =>
    compare(
      name,
      [
        {
          name: 'its SQL, then an empty page of the same shell',
          act: async (round) => {
            await sql(round);
            await ask('/workshop');
          },
        },
        { name: 'the page over HTTP', act: (round) => ask(path(round)) },
      ],
      { rounds: 60, warmUp: 5 },
    );
  const frame = () => Promise.all([findSite(db), personOfSession(db, token, new Date())]);
  const asking: Asking = { db, actor, frame, page };
  await benchLists(asking);
  await benchInstrument(asking);
  await benchInsight(asking);
  await benchPlanning(asking);
  await benchToday(asking);
}

async function benchLists({ db, actor, frame, page }: Asking): Promise<void> {
  const list = (search: Record<string, string>) =>
    Promise.all([
      frame(),
      listInstruments(db, listQuerySchema.parse(search), actor.today),
      listFacets(db),
      listPeople(db),
      viewsOf(db, actor.personId, 'instruments'),
    ]);
  const lists: readonly (readonly [string, Record<string, string>])[] = [
    ['List, part of a tag', { q: '1234' }],
    ['List, a filter', { area: 'Area 017', state: 'in service' }],
    ['List, ordered by service', { sort: 'service', dir: 'desc' }],
    ['List, page 500', { page: '499' }],
  ];
  for (const [name, search] of lists)
    await page(
      name,
      () => list(search),
      () => `/instruments?${new URLSearchParams(search)}`,
    );
  for (const [name, search] of [
    ['Jobs', {}],
    ['Jobs, part of a tag', { q: '1234' }],
    ['Jobs, page 5000', { page: '4999' }],
  ] as const)
    await page(
      name,
      () =>
        Promise.all([
          frame(),
          listJobs(db, jobQuerySchema.parse(search)),
          listPeople(db),
          viewsOf(db, actor.personId, 'jobs'),
        ]),
      () => `/jobs?${new URLSearchParams(search)}`,
    );
}

async function benchInstrument({ db, frame, page }: Asking): Promise<void> {
  const tagOf = (round: number) => `PT-${100000 + 4 * (1 + (round % 20_000))}`;
  await page(
    'An instrument',
    async (round) => {
      const instrument = await findInstrument(db, { tag: tagOf(round) });
      return Promise.all([frame(), jobsOfInstrument(db, instrument.id)]);
    },
    (round) => `/instruments/${tagOf(round)}`,
  );
  await page(
    'A history',
    async (round) => {
      const instrument = await findInstrument(db, { tag: tagOf(round) });
      const [visits, families] = await Promise.all([
        historyOf(db, instrument.id),
        loadFamilies(db, instrument.body.model),
        frame(),
        adjustmentsOf(db, instrument.id),
        intervalChangesOf(db, instrument.id),
        lastFinished(db),
        configurationsOf(db, instrument.id),
      ]);
      return adviseNow(db, instrument.id, visits, families);
    },
    (round) => `/instruments/${tagOf(round)}/history`,
  );
}

async function benchInsight({ db, actor: { today }, frame, page }: Asking): Promise<void> {
  for (const [name, search] of [
    ['Intervals', {}],
    ['Intervals, to shorten', { kind: 'shorter', page: '3' }],
  ] as const)
    await page(
      name,
      () =>
        Promise.all([
          frame(),
          listAdvice(db, adviceQuerySchema.parse(search)),
          countAdvice(db),
          lastCalculation(db),
          lastFinished(db),
        ]),
      () => `/insight/intervals?${new URLSearchParams(search)}`,
    );
  await page(
    'Insight',
    () =>
      Promise.all([
        frame(),
        foundByMonth(db, today, 24),
        familySums(db, 'model'),
        overdueByMonth(db, today, 24),
        workloadAhead(db, today, 12),
        adjustmentsByKind(db, today, 24),
        causesByName(db, today, 24),
        referencesUsed(db, today, 24),
        costsOfIntervals(db),
      ]),
    () => '/insight',
  );
  await page(
    'Calibrations behind a figure',
    () =>
      Promise.all([
        frame(),
        listCalibrations(db, calibrationQuerySchema.parse({ verdict: 'outside', kind: 'as-found' })),
      ]),
    () => '/insight/calibrations?verdict=outside&kind=as-found',
  );
}

async function benchPlanning({ db, actor: { today }, frame, page }: Asking): Promise<void> {
  // Of the week to come, which is planned on any day of this one.
  const monday = dayjs(today)
    .add(7 - ((dayjs(today).day() + 6) % 7), 'day')
    .format('YYYY-MM-DD');
  await page(
    'The week of the plan',
    () =>
      Promise.all([
        frame(),
        loadWeek(db, monday, 7, today),
        dueWithin(db, monday, dayjs(monday).add(6, 'day').format('YYYY-MM-DD')),
        handOver(db),
        lastMaking(db),
      ]),
    () => `/planning?from=${monday}`,
  );
  await page(
    'Walks',
    () => Promise.all([frame(), plannedWalks(db, monday, dayjs(monday).add(6, 'day').format('YYYY-MM-DD'))]),
    () => `/planning/walks?from=${monday}`,
  );
  const month = today.slice(0, 7);
  await page(
    'What comes due in a month',
    () =>
      Promise.all([
        frame(),
        dueByDay(db, `${month}-01`, `${month}-28`),
        dueOn(db, `${month}-01`, `${month}-28`, 200),
        dueStanding(db, today),
      ]),
    () => `/planning/due?month=${month}`,
  );
}

async function benchToday({ db, actor: { today }, frame, page }: Asking): Promise<void> {
  await page(
    'Hand-over',
    () => Promise.all([frame(), handOver(db)]),
    () => '/jobs/hand-over',
  );
  await page(
    'Today',
    () =>
      Promise.all([
        frame(),
        openJobs(db, 8),
        instrumentsDueNext(db, 8),
        referencesDueBy(db, today),
        dueStanding(db, today),
        plannedWalks(db, today, today),
      ]),
    () => '/',
  );
}

/** All advice anew, beside reading the same results from the database and nothing else. */
async function benchIntervals(db: Database, actor: Actor): Promise<void> {
  const since = () => performance.now();
  const ids = (
    await db.query<{ id: number }>(`select id from instrument where state = 'in service' order by id`)
  ).map(({ id }) => id);
  let begun = since();
  for (let from = 0; from < ids.length; from += 500)
    await db.query(
      `select at_percent, error_percent, limit_percent, is_down, verdict, done_on from result
       where instrument_id = any($1) order by instrument_id, done_on, id`,
      [ids.slice(from, from + 500)],
    );
  const bare = since() - begun;
  begun = since();
  const id = await db.transaction((tx) => askCalculation(tx, actor));
  await calculate(db, id, actor.today);
  measured('Intervals of 100,000 instruments, 1,000,000 runs', [
    ['their results read and nothing else', { p50: bare }],
    ['advised and kept (calculate)', { p50: since() - begun }],
  ]);
  const kinds = [...(await countAdvice(db))].map(([kind, count]) => `${kind} ${count}`).join(', ');
  remark(`Advised: ${kinds}.`);
}

export const benchFleet = (): Promise<void> =>
  onScratch(async (cluster, scratch) => {
    await ensureDatabase(cluster, 'barys');
    await prepareDatabase(cluster.adminUrl('barys'), { plants: true, seals: join(scratch, 'seals') });
    console.log('\nMaking a works of 100,000 instruments, 1,000,000 runs and 5,000,000 readings ...');
    await query(cluster.adminUrl('barys'), FLEET_SQL);
    await buildWeb();
    const db = openDatabase(cluster.appUrl('barys'));
    const web = await startWeb(await freePort(), cluster.appUrl('barys'), {
      logFile: join(scratch, 'web.log'),
      seals: join(scratch, 'seals'),
    });
    const [person] = await listPeople(db);
    const at = new Date();
    const actor: Actor = { personId: person?.id ?? 0, at, today: dayjs(at).format('YYYY-MM-DD') };
    try {
      await benchIntervals(db, actor);
      await benchPages(db, web.url, actor);
    } finally {
      await db.close();
      await web.stop();
    }
  });
