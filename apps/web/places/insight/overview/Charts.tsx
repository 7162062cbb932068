import { LEAST_OF_FAMILY } from '@barys/core/interval';
import { Columns } from '@/ui/Columns';
import { ChartSheet } from './ChartSheet';
import type { loadOverview } from './load';

/** All but the costs, which are no chart. */
type Figures = Omit<Awaited<ReturnType<typeof loadOverview>>, 'from' | 'costs'>;

export function Charts({ found, families, overdue, workload, adjusted, causes, references }: Figures) {
  return (
    <>
      <Columns columns="1.4fr 1fr">
        <ChartSheet
          {...found}
          title="Found inside, month by month"
          about="As found, of what was judged inside or outside; whiskers: exact bounds of 95 %."
          name="found inside"
          none="The first signed jobs stand here by their month."
        />
        <ChartSheet
          {...families}
          title="Worst families"
          about={`By model, of those with ${LEAST_OF_FAMILY} calibrations; as counted with the intervals.`}
          name="worst families"
          none="A family stands here once it has twenty calibrations and intervals were worked out."
        />
      </Columns>
      <Columns columns="1fr 1fr">
        <ChartSheet
          {...overdue}
          title="Overdue at the end of each month"
          about="Instruments, by the due dates that signatures set; the last bar is today."
          name="overdue"
          none="Nothing was overdue since the first signature."
        />
        <ChartSheet
          {...workload}
          title="Work ahead"
          about="Hours, by what like jobs took; an hour where none says it."
          name="work ahead"
          none="No instrument comes due in the next twelve months."
        />
      </Columns>
      <Columns columns="1fr 1fr 1fr">
        <ChartSheet
          {...adjusted}
          title="Adjusted most often"
          about="Jobs in which it was done."
          name="adjusted"
          none="What is adjusted in signed jobs stands here."
        />
        <ChartSheet
          {...causes}
          title="Found behind readings"
          about="What was taken into records at Judge."
          name="found behind readings"
          none="What is taken into a record at Judge as the cause stands here."
        />
        <ChartSheet
          {...references}
          title="Use of references"
          about="Runs measured with each."
          name="use of references"
          none="References stand here once a run was measured with them."
        />
      </Columns>
    </>
  );
}
