import { StoreError } from '@barys/store/db';
import { asFoundRun, hasSamePoints, type JobFile } from '@barys/store/jobs';
import type { Run, RunKind } from '@barys/store/runs';
import { ThrowAway } from '@/places/jobs/ThrowAway';
import { RunDesk } from '@/places/jobs/run/RunDesk';
import { shownReading } from '@/places/jobs/run/shownReading';
import type { ShownRun } from '@/places/jobs/run/types';

const toShown = ({ id, kind, madeWith, readings, marks }: Run): ShownRun => ({
  id,
  kind,
  madeWith,
  readings: readings.map(shownReading),
  marks: marks.map(({ position, kind: mark, appliedText, outputText, remark }) => ({
    position,
    kind: mark,
    appliedText,
    outputText,
    remark,
  })),
});

export function RunStage({ job, kind }: { job: JobFile; kind: RunKind }) {
  const asFound = asFoundRun(job);
  const run = job.runs.filter((one) => one.kind === kind).at(-1) ?? null;
  if (run === null) throw new StoreError({ code: 'no-such', what: `${kind} run of job`, name: job.id });
  return (
    <>
      <RunDesk
        key={run.id}
        jobId={job.id}
        run={toShown(run)}
        earlier={
          // What was found in another range has no place beside these readings.
          kind === 'as-left' && asFound !== null && hasSamePoints(asFound, run) ? toShown(asFound) : null
        }
      />
      <ThrowAway job={job.id} kind={kind} />
    </>
  );
}
