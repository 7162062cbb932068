'use client';
import type { JobPage } from '@barys/store/jobs';
import Box from '@mui/material/Box';
import { useRouter } from 'next/navigation';
import { useOptimistic, useTransition } from 'react';
import { ListTable } from '@/ui/ListTable';
import { JOB_COLUMNS, jobColumnsText, shownJobColumns } from './columns';
import { jobAddress, type JobView } from './jobAddress';
import { JobFilters } from './JobFilters';

const SIZES = [25, 50, 100];

/** The list: found, filtered, ordered and paged by the server; what is shown stands in the address. */
export function JobList({
  page,
  view: shown,
  people,
}: {
  page: JobPage;
  view: JobView;
  people: readonly string[];
}) {
  const router = useRouter();
  const [isPending, startTransition] = useTransition();
  // What was asked for counts at once, so that a second choice does not undo the first while the page is on its way.
  const [view, setView] = useOptimistic(shown);
  const show = (patch: Partial<JobView>) =>
    startTransition(() => {
      const next = { ...view, page: 0, ...patch };
      setView(next);
      router.replace(`/jobs?${jobAddress(next)}`, { scroll: false });
    });
  return (
    <Box sx={{ bgcolor: 'background.paper', border: '1px solid var(--rule)' }}>
      <JobFilters view={view} people={people} show={show} />
      <ListTable
        label="Jobs"
        rows={page.lines}
        columns={JOB_COLUMNS}
        shown={shownJobColumns(view.columns)}
        sort={view.sort}
        dir={view.dir}
        total={page.total}
        page={view.page}
        size={view.size}
        sizes={SIZES}
        isPending={isPending}
        onSort={(sort, dir) => show({ sort: sort as JobView['sort'], dir })}
        onShown={(keys) => show({ page: view.page, columns: jobColumnsText(keys) })}
        onPage={(wanted) => show({ page: wanted })}
        onSize={(size) => show({ size })}
        none="No job here. Take away a filter or a word; a job is started from its instrument."
      />
    </Box>
  );
}
