/** What of a closed record can be amended, with what it says now. */
import type { Amendment, JobFile } from '@barys/store';
import type { Amendable } from './AmendForm';

export function amendablesOf(job: JobFile, amendments: readonly Amendment[]): Amendable[] {
  const readingNow = new Map(amendments.map(({ readingId, afterText }) => [readingId, afterText]));
  const wordsNow = new Map(amendments.map(({ what, afterText }) => [what, afterText]));
  const words = (name: string, text: string): Amendable => ({
    readingId: 0,
    name,
    now: wordsNow.get(name) ?? text,
  });
  const connection = job.connections.at(-1);
  const readings = job.runs
    .filter(({ thrownAway }) => thrownAway === null)
    .flatMap((run) =>
      run.readings.map(({ id, position, outputText }): Amendable => ({
        readingId: id,
        name: `${run.kind === 'as-found' ? 'As found' : 'As left'}${run.pass > 1 ? `, pass ${run.pass}` : ''}, reading at point ${position}`,
        now: readingNow.get(id) ?? outputText,
      })),
    );
  const ambient =
    connection === undefined
      ? ''
      : `${connection.ambient.temperatureC} °C, ${connection.ambient.humidityPercent} %, ${connection.ambient.barometerHpa} hPa`;
  return [
    words('Remark', job.remark),
    words('Ambient conditions', ambient),
    words('Something else', ''),
    ...readings,
  ];
}
