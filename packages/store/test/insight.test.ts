/** What all calibrations together say, counted another way. */
import { beforeAll, describe, expect, it } from 'vitest';
import { calibrationQuerySchema, listCalibrations } from '../src/insight/calibrations';
import {
  adjustmentsByKind,
  causesByName,
  costsOfIntervals,
  foundByMonth,
  monthBefore,
  overdueByMonth,
  referencesUsed,
  workloadAhead,
} from '../src/insight/figures';
import { addInstrument, findInstrument } from '../src/registers/instruments';
import { entry, openWorks, RANGE, TAG } from './works';

const { base, works } = await openWorks();
const TODAY = '2026-05-20';
let ids: number[] = [];

/** A signed job as it would be kept, with its result. */
async function visit(
  instrumentId: number,
  day: string,
  nextDue: string | null,
  more: { verdict?: string; adjusted?: string; standard?: string } = {},
): Promise<number> {
  const [job] = await base.owner.query<{ id: number }>(
    `insert into job (instrument_id, reason, stage, opened_by, opened_at, signed_by, signed_at, as_found_verdict,
       as_left_verdict, next_due, instrument_copy)
     values ($1, 'due', 'closed', $2, $3::date, $2, $3::date + interval '12 hours', $4, 'within', $5,
       jsonb_build_object('tag', 'x', 'service', 'x', 'area', 'x')) returning id`,
    [instrumentId, works.technician.personId, day, more.verdict ?? 'within', nextDue],
  );
  const jobId = job?.id ?? 0;
  await base.owner.query(`set session_replication_role = replica`);
  const [run] = await base.owner.query<{ id: number }>(
    `insert into run (job_id, kind, pass, made_with, started_by, started_at)
     values ($1, 'as-found', 1, '{}', $2, now()) returning id`,
    [jobId, works.technician.personId],
  );
  await base.owner.query(
    `insert into result (instrument_id, job_id, run_id, done_on, kind, is_left, verdict, range_key, range_version, at_percent,
       is_down, error_percent, limit_percent, adjust_above_percent, worst_of_limit, standard, meter, done_by, record)
     values ($1, $2, $3, $4, 'as-found', true, $5, 'r', 1, '{0}', '{false}', '{0}', '{1}', 70, 0.5, $6, '', 'A', '')`,
    [instrumentId, jobId, run?.id, day, more.verdict ?? 'within', more.standard ?? 'PC-1'],
  );
  return jobId;
}

beforeAll(async () => {
  const { body, id } = await findInstrument(base.app, { tag: TAG });
  ids = [id];
  for (const n of [2, 3])
    ids.push(
      await addInstrument(base.app, works.technician, entry({ tag: `PT-${n}`, bodyId: body.id }), RANGE),
    );
  const [a = 0, b = 0, c = 0] = ids;
  await visit(a, '2025-03-10', '2026-03-10', { verdict: 'outside' });
  await visit(a, '2026-05-02', '2027-05-02', { verdict: 'within-adjust', standard: 'PC-OLD' });
  await visit(b, '2025-04-30', '2026-04-30', { verdict: 'not-judged' });
  await visit(c, '2026-02-01', '2026-04-01');
  await visit(c, '2026-04-01', null, { verdict: 'outside' });
  await base.owner.query(
    `update instrument set due_on = case id when $1 then date '2027-05-02' when $2 then date '2026-04-30'
    else date '2026-06-15' end`,
    [a, b],
  );
});

it('a month so many before another one', () => {
  expect([0, 1, 4, 5, 16, -8].map((back) => monthBefore('2026-05-20', back))).toEqual([
    '2026-05-01',
    '2026-04-01',
    '2026-01-01',
    '2025-12-01',
    '2025-01-01',
    '2027-01-01',
  ]);
});

describe('the figures', () => {
  it('count what was found month by month, without what was not judged, and months without any', async () => {
    const found = await foundByMonth(base.app, TODAY, 15);
    expect(found).toHaveLength(15);
    expect(found[0]).toEqual({ month: '2025-03-01', calibrations: 1, out: 1, adjust: 0 });
    expect(found[1]).toEqual({ month: '2025-04-01', calibrations: 0, out: 0, adjust: 0 });
    expect(found.at(-2)).toEqual({ month: '2026-04-01', calibrations: 1, out: 1, adjust: 0 });
    expect(found.at(-1)).toEqual({ month: '2026-05-01', calibrations: 1, out: 0, adjust: 1 });
  });

  it('count who was overdue at the end of each month: from the day after the due date until one that sets another', async () => {
    const trend = await overdueByMonth(base.app, TODAY, 5);
    expect(trend.map(({ month, count }) => [month, count])).toEqual([
      ['2026-01-01', 0],
      ['2026-02-01', 0],
      // A since 11 March.
      ['2026-03-01', 1],
      // C was left outside on its due date, which stays; B is due on the last day itself.
      ['2026-04-01', 2],
      // A is back, B is late.
      ['2026-05-01', 2],
    ]);
  });

  it('count use of references, adjustments and causes, each with its list', async () => {
    const [first = 0] = (await base.app.query<{ id: number }>('select id from job order by id')).map(
      ({ id }) => id,
    );
    await base.owner.query(
      `insert into adjustment (job_id, pass, kind, before_text, before_output, after_text, after_output, at_applied_text,
         at_applied, input_unit, output_unit, made_by, made_at)
       select $1, 1, 'zero', '4.1', 4.1, '4.0', 4, '0', 0, 'bar', 'mA', $2, '2026-05-19T12:00:00Z' from generate_series(1, 2)`,
      [first, works.technician.personId],
    );
    const cause = (suspicion: string, isTakenBack: boolean) =>
      base.owner.query(
        `insert into cause (job_id, run_id, suspicion, content, is_taken_back, chosen_by, chosen_at)
         select $1, id, $2, '{}', $3, $4, '2026-05-19T12:00:00Z' from run where job_id = $1`,
        [first, suspicion, isTakenBack, works.technician.personId],
      );
    await cause('friction', false);
    await cause('leak', false);
    await cause('leak', true);
    expect(await referencesUsed(base.app, TODAY, 24)).toEqual([
      { name: 'PC-1', count: 4, out: 2, dueOn: '2026-05-04' },
      { name: 'PC-OLD', count: 1, out: 0, dueOn: '2026-05-03' },
    ]);
    expect(await referencesUsed(base.app, TODAY, 1)).toMatchObject([{ name: 'PC-OLD' }]);
    // A period that ended before.
    expect(await referencesUsed(base.app, '2026-04-30', 24)).toMatchObject([{ name: 'PC-1', count: 4 }]);
    expect(await causesByName(base.app, '2026-05-18', 24)).toEqual([]);
    expect(await adjustmentsByKind(base.app, '2024-05-18', 24)).toEqual([]);
    expect(await adjustmentsByKind(base.app, TODAY, 24)).toEqual([{ name: 'zero', count: 1 }]);
    expect(await causesByName(base.app, TODAY, 24)).toEqual([{ name: 'friction', count: 1 }]);
    const list = async (search: object) =>
      (await listCalibrations(base.app, calibrationQuerySchema.parse(search))).count;
    expect(await list({})).toBe(5);
    expect(await list({ verdict: 'outside', kind: 'as-found' })).toBe(2);
    expect(await list({ from: '2026-04-01', to: '2026-05-02' })).toBe(2);
    expect(await list({ standard: 'PC-OLD' })).toBe(1);
    expect(await list({ model: 'Cell 16' })).toBe(5);
    expect(await list({ model: 'none' })).toBe(0);
    expect(await list({ adjusted: 'zero' })).toBe(1);
    expect([await list({ cause: 'friction' }), await list({ cause: 'leak' })]).toEqual([1, 0]);
    expect(await list({ from: 'nonsense', verdict: 'nonsense', page: '-1' })).toBe(5);
    const { lines } = await listCalibrations(base.app, calibrationQuerySchema.parse({}));
    expect(lines.map(({ doneOn }) => doneOn)).toEqual([
      '2026-05-02',
      '2026-04-01',
      '2026-02-01',
      '2025-04-30',
      '2025-03-10',
    ]);
  });

  it('say what is overdue and what comes due ahead, with hours from what like jobs took', async () => {
    const ahead = await workloadAhead(base.app, TODAY, 12);
    expect(ahead.map(({ month, count }) => [month, count]).filter(([, count]) => count !== 0)).toEqual([
      ['overdue', 1],
      ['2026-06-01', 1],
    ]);
    expect(ahead).toHaveLength(13);
    expect(ahead[0]?.hours).toBe(1);
    const [job] = await base.app.query<{ id: number }>('select id from job order by id limit 1');
    await base.owner.query(`update job set signed_at = now(), opened_at = now() where id = $1`, [job?.id]);
    await base.owner.query(
      `insert into stage_passed (job_id, stage, done_by, done_at)
       select id, 'brief', $2, signed_at - interval '90 minutes' from job where id = $1`,
      [job?.id, works.technician.personId],
    );
    expect((await workloadAhead(base.app, TODAY, 1))[0]?.hours).toBeCloseTo(1.5, 6);
  });

  it('sum up what intervals cost, of those that stand as they were advised on', async () => {
    const none = { spared: 0, longer: 0, added: 0, shorter: 0, daysOutside: 0, daysOutsideAdvised: 0 };
    expect(await costsOfIntervals(base.app)).toEqual(none);
    const [run] = await base.owner.query<{ id: number }>(
      `insert into interval_calculation (asked_by, asked_at, state, beat_at, ended_at)
       values ($1, now(), 'done', now(), now()) returning id`,
      [works.technician.personId],
    );
    const [a, b, c] = ids;
    const advise = (
      id: number | undefined,
      kind: string,
      now: number,
      then: number,
      outside: number,
      advised: number,
    ) =>
      base.owner.query(
        `insert into interval_advice (instrument_id, calculation_id, computed_on, kind, months_now, months, outside_part, advice)
         values ($1, $2, current_date, $3, $4, $5, $6, jsonb_build_object('advice',
           jsonb_build_object('then', jsonb_build_object('outsidePart', $7::float8))))`,
        [id, run?.id, kind, now, then, outside, advised],
      );
    await advise(a, 'longer', 12, 18, 0.01, 0.02);
    await advise(b, 'shorter', 12, 6, 0.1, 0.01);
    await advise(c, 'shorter', 24, 6, 0.5, 0.5);
    const costs = await costsOfIntervals(base.app);
    expect(costs).toMatchObject({ longer: 1, shorter: 1 });
    expect(costs.spared).toBeCloseTo(1 - 2 / 3, 12);
    expect(costs.added).toBeCloseTo(1, 12);
    expect(costs.daysOutside).toBeCloseTo(0.11 * 365.25, 9);
    expect(costs.daysOutsideAdvised).toBeCloseTo(0.03 * 365.25, 9);
  });
});
