'use client';
import { IMPORT_KINDS } from '@barys/store/shapes';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { asItStands, useSubmit } from '@/ui/useSubmit';
import { bringFileAction } from './actions';

const ABOUT: Record<(typeof IMPORT_KINDS)[number], string> = {
  instruments: 'One instrument a row, with its range. Bodies have to be there already.',
  references: 'One range a row; rows with the same tag are modules of one reference.',
  configurations: 'A new version of the configuration for instruments that are there.',
  results: 'One reading a row, from before Barys or from elsewhere. They are history, not records of Barys.',
};

/** The first step: which file, and what is in it. */
export function BringFile() {
  const [kind, setKind] = useState<keyof typeof ABOUT>('instruments');
  const { answer, isPending, form } = useSubmit(bringFileAction);
  return (
    <form {...form(asItStands)}>
      <Sheet title="Bring in a file" sx={{ maxWidth: 640 }}>
        <Stack sx={{ gap: 1.5 }}>
          <TextField
            select
            name="kind"
            label="What is in it"
            value={kind}
            onChange={(event) => setKind(event.target.value as keyof typeof ABOUT)}
            helperText={ABOUT[kind]}
          >
            {IMPORT_KINDS.map((one) => (
              <MenuItem key={one} value={one}>
                {one}
              </MenuItem>
            ))}
          </TextField>
          <label>
            CSV file{' '}
            <input
              type="file"
              name="file"
              accept=".csv,.txt,.tsv,text/csv"
              style={{ minHeight: 44, maxWidth: '100%' }}
            />
          </label>
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            Commas, semicolons or tabs, decimal point or comma, any of the usual encodings. Nothing is changed
            before you have seen what would be.
          </Typography>
          <div>
            <Button type="submit" variant="contained" aria-busy={isPending}>
              {isPending ? 'Bringing it in …' : 'Look at it'}
            </Button>
          </div>
        </Stack>
        <Refused answer={answer} />
      </Sheet>
    </form>
  );
}
