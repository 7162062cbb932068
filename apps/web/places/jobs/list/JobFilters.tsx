'use client';
import { JOB_PLACES, JOB_REASONS, STAGES } from '@barys/store/shapes';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { SearchField } from '@/ui/SearchField';
import { VERDICT_WORD } from '@/ui/verdict';
import { REASON_WORD, STAGE_WORD } from '../words';
import type { JobView } from './jobAddress';

type Choice = readonly (readonly [value: string, words: string])[];

const WHERE: Choice = JOB_PLACES.map((place) => {
  const stage = STAGES.find((one) => one === place);
  return [place, stage === undefined ? place : `at ${STAGE_WORD[stage]}`];
});
const FOUND: Choice = (['outside', 'within-adjust', 'within', 'undecided', 'not-judged'] as const).map(
  (verdict) => [verdict, VERDICT_WORD[verdict]],
);
const NOTHING = { q: '', where: '', reason: '', found: '', who: '', from: '', to: '' } as const;

/** Which jobs the list shows. */
export function JobFilters({
  view,
  people,
  show,
}: {
  view: JobView;
  people: readonly string[];
  show: (patch: Partial<JobView>) => void;
}) {
  const [isOpen, setIsOpen] = useState(false);
  const choices: readonly (readonly [
    name: 'where' | 'reason' | 'found' | 'who',
    label: string,
    choice: Choice,
  ])[] = [
    ['where', 'Where it stands', WHERE],
    ['reason', 'Why', JOB_REASONS.map((reason) => [reason, REASON_WORD[reason]])],
    ['found', 'As found', FOUND],
    ['who', 'Who', people.map((name) => [name, name])],
  ];
  const isFiltered = Object.keys(NOTHING).some((name) => view[name as keyof typeof NOTHING] !== '');
  const hidden = { display: { xs: isOpen ? 'inline-flex' : 'none', sm: 'inline-flex' } };
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
      {choices.map(([name, label, choice]) => (
        <TextField
          key={name}
          select
          label={label}
          value={choice.some(([value]) => value === view[name]) ? view[name] : ''}
          onChange={(event) => show({ [name]: event.target.value })}
          sx={{ minWidth: name === 'where' ? 165 : 130, flexGrow: { xs: 1, md: 0 }, ...hidden }}
        >
          <MenuItem value="">any</MenuItem>
          {choice.map(([value, words]) => (
            <MenuItem key={value} value={value}>
              {words}
            </MenuItem>
          ))}
        </TextField>
      ))}
      {(['from', 'to'] as const).map((name) => (
        <TextField
          key={name}
          type="date"
          label={name === 'from' ? 'Signed from' : 'Signed to'}
          value={view[name]}
          onChange={(event) => show({ [name]: event.target.value })}
          slotProps={{ inputLabel: { shrink: true } }}
          sx={{ width: 150, flexGrow: { xs: 1, md: 0 }, ...hidden }}
        />
      ))}
      {isFiltered && <Button onClick={() => show(NOTHING)}>Show all</Button>}
    </Stack>
  );
}
