/** The history of an instrument as a table: a line for each reading. */
import type { Visit } from '@barys/store/results';

export const HISTORY_HEADER = [
  'Tag',
  'Date',
  'Run',
  'Job',
  'Range',
  'Point, %',
  'Direction',
  'Error, % of span',
  'Limit, % of span',
  'Verdict of the run',
  'Reference',
  'Meter',
  'Who',
];

/** Enough for any error of an instrument, without the noise of the last binary digits. */
const digits = (value: number): string => String(Number(value.toPrecision(10)));

export const historyRows = (tag: string, visits: readonly Visit[]): string[][] =>
  visits
    .flatMap(({ found, left }) => [found, left])
    .flatMap((run) =>
      run === null
        ? []
        : run.at.map((at, index) => [
            tag,
            run.doneOn,
            run.kind.replace('-', ' '),
            run.jobId === null ? '' : String(run.jobId),
            run.rangeKey,
            digits(at),
            run.isDown[index] === true ? 'falling' : 'rising',
            digits(run.error[index] ?? 0),
            digits(run.limit[index] ?? 0),
            run.verdict ?? '',
            run.standard,
            run.meter,
            run.doneBy,
          ]),
    );
