import { evaluateStoredRun, loadJob, standardAt, toCsv } from '@barys/store';
import { csvResponse } from '@/server/csv';
import { database } from '@/server/database';
import { requireReader } from '@/server/person';
import { problemResponse } from '@/server/problem';
import { routeId } from '@/server/routeId';

const HEADER = [
  'Run',
  'Pass',
  'Counts',
  'Point, %',
  'Direction',
  'Cycle',
  'Applied',
  'Input unit',
  'Ideal',
  'Reading',
  'Output unit',
  'Error, % of span',
  'Expanded uncertainty',
  'Verdict',
  'Standard',
  'Before a tap',
  'Digital',
  'Second indication',
  'Read by',
  'Read at',
  'Taken at',
];

/** The readings of a job, one a row, with what was typed and what was computed. */
export async function GET(
  _request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  try {
    await requireReader();
    const job = await loadJob(database(), await routeId(params));
    const rows = job.runs.flatMap((run) => {
      const { readings } = evaluateStoredRun(run);
      const { configuration, points } = run.madeWith;
      return run.readings.map((reading, index) => {
        const judged = readings[index];
        const point = points.find(({ position }) => position === reading.position);
        return [
          run.kind,
          run.pass,
          run.thrownAway === null ? 'yes' : 'no',
          judged?.nominalPercent,
          judged?.direction,
          judged?.cycle,
          reading.appliedText,
          configuration.inputUnit,
          judged?.expected,
          reading.outputText,
          configuration.outputUnit,
          judged?.errorPercentSpan,
          judged?.uncertainty,
          judged?.verdict,
          point === undefined ? '' : standardAt(run.madeWith, point).tag,
          reading.more['before-tap'],
          reading.more.digital,
          reading.more.second,
          reading.readBy,
          reading.readAt.toISOString(),
          reading.takenAt?.toISOString(),
        ];
      });
    });
    return csvResponse(toCsv(HEADER, rows), `${job.tag}-${job.id}.csv`);
  } catch (error) {
    return problemResponse(error);
  }
}
