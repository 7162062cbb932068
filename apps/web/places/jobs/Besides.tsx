import type { JobFile } from '@barys/store/jobs';
import { SetupReadings } from '@/places/instruments/set-up/SetupReadings';
import { Facts } from '@/ui/Facts';
import { rangeInWords } from '@/ui/range/rangeInWords';
import { Sheet } from '@/ui/Sheet';
import { BiasTable } from './BiasTable';
import { ListRecord } from './lists/ListRecord';

/** What was planned, set up, entered and ticked besides the runs. */
export function Besides({ job }: { job: JobFile }) {
  return (
    <>
      {job.plan !== null && (
        <Sheet title="The range it was opened for" aside={job.plan.madeBy} sx={{ gridColumn: '1 / -1' }}>
          <Facts
            facts={[
              ['Range', rangeInWords(job.plan.configuration)],
              ['Why', job.plan.reason],
              ['Label', job.plan.label],
            ]}
          />
        </Sheet>
      )}
      {job.setups.length > 0 && (
        <Sheet title="Set-up" sx={{ gridColumn: '1 / -1' }}>
          <SetupReadings readings={job.setups} />
        </Sheet>
      )}
      {job.biases.length > 0 && (
        <Sheet title="Biases entered" sx={{ gridColumn: '1 / -1' }}>
          <BiasTable biases={job.biases} />
        </Sheet>
      )}
      {job.lines.length > 0 && (
        <Sheet title="Lists" sx={{ gridColumn: '1 / -1' }}>
          <ListRecord lines={job.lines} />
        </Sheet>
      )}
    </>
  );
}
