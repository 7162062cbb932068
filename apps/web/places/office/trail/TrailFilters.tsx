'use client';
import type { TrailQuery } from '@barys/store/db';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';

type Choice = readonly [value: string, words: string];

/** Filters of the trail; a plain form, so that its address can be kept and sent. */
export function TrailFilters({
  query,
  acts,
  kinds,
  people,
}: {
  query: TrailQuery;
  acts: readonly string[];
  kinds: readonly string[];
  people: readonly Choice[];
}) {
  const same = (values: readonly string[]): Choice[] => values.map((value) => [value, value]);
  const select = (name: keyof TrailQuery, label: string, none: string, choices: readonly Choice[]) => (
    <TextField
      key={name}
      select
      name={name}
      label={label}
      defaultValue={String(query[name])}
      sx={{ minWidth: 130 }}
      slotProps={{ select: { native: true }, inputLabel: { shrink: true } }}
    >
      <option value={none}>any</option>
      {choices.map(([value, words]) => (
        <option key={value} value={value}>
          {words}
        </option>
      ))}
    </TextField>
  );
  return (
    <Stack component="form" direction="row" sx={{ flexWrap: 'wrap', gap: 1, mb: 1 }}>
      {select('person', 'Who', '0', people)}
      {select('act', 'Act', '', same(acts))}
      {select('kind', 'On what kind', '', same(kinds))}
      <TextField name="object" label="Tag or number" defaultValue={query.object} sx={{ width: 150 }} />
      {(['from', 'to'] as const).map((name) => (
        <TextField
          key={name}
          type="date"
          name={name}
          label={name === 'from' ? 'From' : 'To'}
          defaultValue={query[name]}
          slotProps={{ inputLabel: { shrink: true } }}
        />
      ))}
      <Button type="submit" variant="outlined">
        Show
      </Button>
    </Stack>
  );
}
