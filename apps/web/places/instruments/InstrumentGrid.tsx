'use client';
import type { InstrumentPage, ListQuery } from '@barys/store/registers';
import Box from '@mui/material/Box';
import { DataGrid, type GridRowSelectionModel } from '@mui/x-data-grid';
import { useRouter } from 'next/navigation';
import { useOptimistic, useState, useTransition } from 'react';
import { BulkBar } from './BulkBar';
import { columnsFor, columnsText, visibleColumns } from './columns';
import { ListFilters } from './ListFilters';
import { listAddress, type ListView } from './listAddress';

const NOTHING: GridRowSelectionModel = { type: 'include', ids: new Set() };

/** The list: found, filtered, ordered and paged by the server; what is shown stands in the address. */
export function InstrumentGrid({
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
  const [selected, setSelected] = useState(NOTHING);
  const show = (patch: Partial<ListView>) =>
    startTransition(() => {
      const next = { ...view, page: 0, ...patch };
      setView(next);
      router.replace(`/instruments?${listAddress(next)}`, { scroll: false });
    });
  const ids = [...selected.ids].map(Number);
  return (
    <Box sx={{ bgcolor: 'background.paper', border: '1px solid var(--rule)' }}>
      <ListFilters view={view} facets={facets} show={show} />
      {ids.length > 0 && <BulkBar ids={ids} people={people} clear={() => setSelected(NOTHING)} />}
      <Box sx={{ height: 'max(380px, calc(100vh - 196px))' }}>
        <DataGrid
          rows={page.lines}
          columns={columnsFor(today)}
          rowCount={page.total}
          loading={isPending}
          paginationMode="server"
          sortingMode="server"
          disableColumnFilter
          paginationModel={{ page: view.page, pageSize: view.size }}
          pageSizeOptions={[25, 50, 100]}
          onPaginationModelChange={({ page: wanted, pageSize }) =>
            show({ page: pageSize === view.size ? wanted : 0, size: pageSize })
          }
          sortModel={[{ field: view.sort, sort: view.dir }]}
          sortingOrder={['asc', 'desc']}
          onSortModelChange={([sort]) =>
            show({ sort: (sort?.field ?? 'dueOn') as ListQuery['sort'], dir: sort?.sort ?? 'asc' })
          }
          columnVisibilityModel={visibleColumns(view.columns)}
          onColumnVisibilityModelChange={(model) => show({ page: view.page, columns: columnsText(model) })}
          checkboxSelection
          disableRowSelectionOnClick
          disableRowSelectionExcludeModel
          keepNonExistentRowsSelected
          rowSelectionModel={selected}
          onRowSelectionModelChange={setSelected}
          rowHeight={44}
          columnHeaderHeight={44}
          localeText={{
            noRowsLabel:
              'No instrument here. Take away a filter or a word; the first is added above, or brought in under Office, Import.',
          }}
          sx={{ border: 0, borderRadius: 0, '--DataGrid-rowBorderColor': 'var(--rule)' }}
          aria-label="Instruments"
        />
      </Box>
    </Box>
  );
}
