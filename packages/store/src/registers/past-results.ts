/** Results brought in from elsewhere, judged with the range that was in force then. */
import { evaluateRun, type RunReading, type Verdict } from '@barys/core/run';
import { limitsOf } from '../runs/evaluation';
import { configurationsOf } from './configurations';
import type { Queryable } from '../db/database';
import type { Instrument } from './instrument';

export interface PastRun {
  readonly doneOn: string;
  readonly kind: 'as-found' | 'as-left';
  readonly doneBy: string;
  readonly certificate: string;
  readonly readings: number;
  readonly verdict: Verdict | null;
  /** Largest error, per cent of span, signed. */
  readonly worst: number | null;
}

/** Past runs of an instrument, the newest first; judged by today's tolerance, since the file says none. */
export async function pastRunsOf(db: Queryable, instrument: Instrument, limit: number): Promise<PastRun[]> {
  const rows = await db.query<{
    doneOn: string;
    kind: PastRun['kind'];
    doneBy: string;
    certificate: string;
    readings: Omit<RunReading, 'cycle'>[];
  }>(
    `select done_on as "doneOn", kind, max(done_by) as "doneBy", max(certificate) as certificate,
       json_agg(json_build_object('direction', direction, 'nominalPercent', nominal_percent, 'applied', applied,
         'output', output) order by direction desc, nominal_percent) as readings
     from past_result where instrument_id = $1 group by done_on, kind order by done_on desc, kind desc limit $2`,
    [instrument.id, limit],
  );
  if (rows.length === 0) return [];
  const versions = await configurationsOf(db, instrument.id);
  return rows.map(({ readings, ...row }) => {
    // Versions begin with Barys; what is older was measured with the first one, as far as anybody knows.
    const range =
      versions.find(({ madeAt }) => madeAt.toISOString().slice(0, 10) <= row.doneOn) ??
      versions.at(-1) ??
      instrument.configuration;
    const { verdict, worst } = evaluateRun(
      range,
      limitsOf(instrument.tolerance),
      readings.map((reading) => ({ cycle: 1, ...reading })),
    );
    return { ...row, readings: readings.length, verdict, worst: worst?.errorPercentSpan ?? null };
  });
}
