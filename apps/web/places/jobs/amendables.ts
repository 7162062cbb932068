/** What of a closed record can be amended, with what it says now. */
import { AMENDABLE, AMENDABLE_FIELDS, recordSays, type Amendment, type JobFile } from '@barys/store/jobs';
import type { Amendable } from './AmendForm';

export function amendablesOf(job: JobFile, amendments: readonly Amendment[]): Amendable[] {
  const inForce = amendments.filter(({ state }) => state === 'in force');
  const readingNow = new Map(inForce.map(({ readingId, afterText }) => [readingId, afterText]));
  const wordsNow = new Map(inForce.map(({ what, afterText }) => [what, afterText]));
  const readings = job.runs
    .filter(({ thrownAway }) => thrownAway === null)
    .flatMap((run) =>
      run.readings.map(({ id, position, outputText }): Amendable => ({
        readingId: id,
        field: 'other',
        name: `${run.kind === 'as-found' ? 'As found' : 'As left'}${run.pass > 1 ? `, pass ${run.pass}` : ''}, reading at point ${position}`,
        now: readingNow.get(id) ?? outputText,
      })),
    );
  return [
    ...AMENDABLE_FIELDS.map((field): Amendable => ({
      readingId: 0,
      field,
      name: AMENDABLE[field],
      now: wordsNow.get(AMENDABLE[field]) ?? recordSays(job, field),
    })),
    ...readings,
  ];
}
