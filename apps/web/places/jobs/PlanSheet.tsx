import type { JobFile } from '@barys/store/jobs';
import { Facts } from '@/ui/Facts';
import { rangeInWords } from '@/ui/range/rangeInWords';
import { Sheet } from '@/ui/Sheet';
import { ExpectTable } from './ExpectTable';

/** The range that a job was opened for: the new configuration, the procedure's points in it, and its label. */
export function PlanSheet({ job }: { job: JobFile }) {
  if (job.plan === null) return null;
  const { configuration, label, reason, madeBy } = job.plan;
  return (
    <Sheet title="The new range, as planned" aside={madeBy}>
      <Facts
        facts={[
          ['Range', rangeInWords(configuration)],
          ['Why', reason],
          ['Label', label],
        ]}
      />
      <ExpectTable instrument={{ ...job.instrument, configuration }} />
    </Sheet>
  );
}
