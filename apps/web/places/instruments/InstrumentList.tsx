'use client';
import type { InstrumentPage, ListQuery } from '@barys/store/registers';
import Box from '@mui/material/Box';
import { useRouter } from 'next/navigation';
import { useOptimistic, useState, useTransition } from 'react';
import { ListTable } from '@/ui/ListTable';
import { BulkBar } from './BulkBar';
import { columnsFor, columnsText, shownColumns } from './columns';
import { ListFilters } from './ListFilters';
import { listAddress, type ListView } from './listAddress';

const SIZES = [25, 50, 100];
const NOTHING: ReadonlySet<number> = new Set();

/** The list: found, filtered, ordered and paged by the server; what is shown stands in the address. */
export function InstrumentList({
  page,
  view: shown,
  today,
  facets,
  people,
}: {
  page: InstrumentPage;
  view: ListView;
  today: string;
  facets: { readonly areas: readonly string[]; readonly owners: readonly string[] };
  people: readonly string[];
}) {
  const router = useRouter();
  const [isPending, startTransition] = useTransition();
  // What was asked for counts at once, so that a second choice does not undo the first while the page is on its way.
  const [view, setView] = useOptimistic(shown);
  const [chosen, setChosen] = useState(NOTHING);
  const show = (patch: Partial<ListView>) =>
    startTransition(() => {
      const next = { ...view, page: 0, ...patch };
      setView(next);
      router.replace(`/instruments?${listAddress(next)}`, { scroll: false });
    });
  return (
    <Box sx={{ bgcolor: 'background.paper', border: '1px solid var(--rule)' }}>
      <ListFilters view={view} facets={facets} show={show} />
      {chosen.size > 0 && <BulkBar ids={[...chosen]} people={people} clear={() => setChosen(NOTHING)} />}
      <ListTable
        label="Instruments"
        rows={page.lines}
        columns={columnsFor(today)}
        shown={shownColumns(view.columns)}
        sort={view.sort}
        dir={view.dir}
        total={page.total}
        page={view.page}
        size={view.size}
        sizes={SIZES}
        isPending={isPending}
        chosen={chosen}
        choose={setChosen}
        onSort={(sort, dir) => show({ sort: sort as ListQuery['sort'], dir })}
        onShown={(keys) => show({ page: view.page, columns: columnsText(keys) })}
        onPage={(wanted) => show({ page: wanted })}
        onSize={(size) => show({ size })}
        none="No instrument here. Take away a filter or a word; the first is added above, or brought in under Office, Import."
      />
    </Box>
  );
}
