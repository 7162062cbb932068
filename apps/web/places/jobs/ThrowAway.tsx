'use client';
import type { RunKind } from '@barys/store/runs';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { Refused } from '@/ui/Refused';
import { asItStands, useSubmit } from '@/ui/useSubmit';
import { throwAwayAction } from './actions/runs';

/** A run that went wrong as a whole is thrown away with a reason and begun anew; it stays readable. */
export function ThrowAway({ job, kind }: { job: number; kind: RunKind }) {
  const { answer, isPending, form } = useSubmit(throwAwayAction);
  const [isOpen, setIsOpen] = useState(false);
  return (
    <form {...form(asItStands)} style={{ marginTop: 12 }}>
      <input type="hidden" name="job" value={job} />
      <input type="hidden" name="kind" value={kind} />
      <Stack direction="row" sx={{ gap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
        <Button onClick={() => setIsOpen(!isOpen)} aria-expanded={isOpen}>
          {isOpen ? 'Keep this run' : 'Throw this run away'}
        </Button>
        {isOpen && (
          <>
            <TextField
              name="reason"
              label="Why it does not count; its readings stay in the record"
              sx={{ flex: 1, minWidth: 240 }}
              autoFocus
            />
            <Button type="submit" variant="outlined" aria-busy={isPending}>
              Throw away and begin anew
            </Button>
          </>
        )}
      </Stack>
      <Refused answer={answer} />
    </form>
  );
}
