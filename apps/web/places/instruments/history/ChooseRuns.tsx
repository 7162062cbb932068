'use client';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { useRouter } from 'next/navigation';

/** Which two runs stand in the corridor. */
export function ChooseRuns({
  runs,
  first,
  second,
}: {
  runs: readonly { readonly id: number; readonly words: string }[];
  first: number;
  second: number;
}) {
  const router = useRouter();
  const choose = (patch: { first?: string; second?: string }) =>
    router.replace(`?${new URLSearchParams({ first: String(first), second: String(second), ...patch })}`, {
      scroll: false,
    });
  return (
    <Stack direction="row" sx={{ gap: 1, mb: 1.5, flexWrap: 'wrap', '@media print': { display: 'none' } }}>
      {(['first', 'second'] as const).map((side) => (
        <TextField
          key={side}
          select
          label={side === 'first' ? 'First run' : 'Second run'}
          value={String(side === 'first' ? first : second)}
          onChange={(event) => choose({ [side]: event.target.value })}
          sx={{ minWidth: 210 }}
        >
          {runs.map(({ id, words }) => (
            <MenuItem key={id} value={String(id)} sx={{ minHeight: 44 }}>
              {words}
            </MenuItem>
          ))}
        </TextField>
      ))}
    </Stack>
  );
}
