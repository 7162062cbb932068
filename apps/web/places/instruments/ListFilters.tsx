'use client';
import { PRESSURE_KINDS } from '@barys/core/units';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { SearchField } from '@/ui/SearchField';
import type { ListView } from './listAddress';
import { CRITICALITIES, MEASURES, STATES } from './words';

const DUE: readonly (readonly [string, string])[] = [
  ['overdue', 'overdue'],
  ['grace', 'overdue, in grace'],
  ['late', 'overdue, past grace'],
  ['7', 'within a week'],
  ['30', 'within 30 days'],
  ['90', 'within 90 days'],
];

const FILTERS = ['area', 'measures', 'kind', 'criticality', 'state', 'owner', 'due'] as const;

const LABEL: Record<(typeof FILTERS)[number], string> = {
  area: 'Area',
  measures: 'Measures',
  kind: 'Kind',
  criticality: 'Criticality',
  state: 'State',
  owner: 'Owner',
  due: 'Due',
};

export function ListFilters({
  view,
  facets,
  show,
}: {
  view: ListView;
  facets: { readonly areas: readonly string[]; readonly owners: readonly string[] };
  show: (patch: Partial<ListView>) => void;
}) {
  const [isOpen, setIsOpen] = useState(false);
  const same = (values: readonly string[]) => values.map((value) => [value, value] as const);
  const choices: Record<(typeof FILTERS)[number], readonly (readonly [string, string])[]> = {
    area: same(facets.areas),
    measures: same(MEASURES),
    kind: same(PRESSURE_KINDS),
    criticality: same(CRITICALITIES),
    state: same(STATES),
    owner: same(facets.owners),
    due: view.due.includes('-') ? [...DUE, [view.due, `in ${view.due}`]] : DUE,
  };
  const isFiltered = view.q !== '' || FILTERS.some((name) => view[name] !== '');
  return (
    <Stack direction="row" sx={{ flexWrap: 'wrap', gap: 1, p: 1.25 }} role="search">
      <SearchField key={isFiltered ? 'some' : 'none'} typed={view.q} show={(q) => show({ q })} />
      <Button
        onClick={() => setIsOpen(!isOpen)}
        aria-expanded={isOpen}
        sx={{ display: { xs: 'inline-flex', sm: 'none' } }}
      >
        Filters
      </Button>
      {FILTERS.map((name) => (
        <TextField
          key={name}
          select
          label={LABEL[name]}
          value={choices[name].some(([value]) => value === view[name]) ? view[name] : ''}
          onChange={(event) => show({ [name]: event.target.value })}
          sx={{
            minWidth: 118,
            flexGrow: { xs: 1, md: 0 },
            // A phone has no room for seven of them above the list.
            display: { xs: isOpen ? 'inline-flex' : 'none', sm: 'inline-flex' },
          }}
        >
          <MenuItem value="">any</MenuItem>
          {choices[name].map(([value, words]) => (
            <MenuItem key={value} value={value}>
              {words}
            </MenuItem>
          ))}
        </TextField>
      ))}
      {isFiltered && (
        <Button onClick={() => show({ q: '', ...Object.fromEntries(FILTERS.map((name) => [name, ''])) })}>
          Show all
        </Button>
      )}
    </Stack>
  );
}
