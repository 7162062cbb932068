import { parseTyped, withPoint } from '@barys/core/text';
import { toCsv } from '@barys/store/imports';
import { loadJob } from '@barys/store/jobs';
import { evaluateStoredRun, standardAt, TAP_COLUMNS } from '@barys/store/runs';
import { columnHeading } from '@/places/jobs/columnWords';
import { csvResponse } from '@/server/csv';
import { database } from '@/server/database';
import { noteExport } from '@/server/exported';
import { requireReader } from '@/server/person';
import { problemResponse } from '@/server/problem';
import { routeId } from '@/server/routeId';
import { figuresOfRun } from '@/ui/figures';
import { VERDICT_WORD } from '@/ui/verdict';

const HEADER = [
  'Run',
  'Pass',
  'Counts',
  'Point, %',
  'Direction',
  'Cycle',
  'Applied',
  'Applied as typed',
  'Input unit',
  'Ideal',
  'Reading',
  'Reading as typed',
  'Output unit',
  'Error, %',
  'Error in % of',
  'Expanded uncertainty, %',
  'Verdict',
  'Standard',
  'Before a tap',
  'Digital',
  'Second indication',
  'Taps of the loop',
  'Read by',
  'Read at',
  'Taken at',
];

/** A figure as it is shown, as a number for a spreadsheet; nothing where there is none. */
function numberOf(shown: string): number | undefined {
  const value = Number(shown.replace('\u2212', '-'));
  return shown === '' || Number.isNaN(value) ? undefined : value;
}

const plainNumber = (text: string | undefined): number | undefined =>
  text === undefined ? undefined : parseTyped(text).value;

/** What was typed, so that no spreadsheet makes a number of it: 8,020 stays what it was. */
const typedText = (text: string): string => `"${text}"`;

/** The readings of a job, one a row, with what was typed and what was computed. */
export async function GET(
  _request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  try {
    const reader = await requireReader();
    const job = await loadJob(database(), await routeId(params));
    await noteExport(reader, 'readings', job.id);
    const rows = job.runs.flatMap((run) => {
      const { readings } = evaluateStoredRun(run);
      const { points } = run.madeWith;
      const figures = figuresOfRun(run.madeWith);
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
          reading.applied,
          typedText(reading.appliedText),
          figures.inputUnit,
          judged === undefined ? undefined : numberOf(figures.output(judged.expected)),
          reading.output,
          typedText(reading.outputText),
          figures.outputUnit,
          judged === undefined ? undefined : numberOf(figures.error(judged)),
          figures.errorOf,
          judged === undefined ? undefined : numberOf(figures.uncertainty(judged)),
          judged === undefined ? undefined : VERDICT_WORD[judged.verdict],
          point === undefined ? '' : standardAt(run.madeWith, point).tag,
          plainNumber(reading.more['before-tap']),
          plainNumber(reading.more.digital),
          plainNumber(reading.more.second),
          // Taps have names of their own job, so that each says which it is.
          TAP_COLUMNS.flatMap((column) => {
            const text = reading.more[column];
            return text === undefined ? [] : [`${columnHeading(run.madeWith, column)}: ${withPoint(text)}`];
          }).join('; '),
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
