'use client';
import type { AmendableField } from '@barys/store/jobs';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { Refused } from '@/ui/Refused';
import { asItStands, useSubmit } from '@/ui/useSubmit';
import { useIsMounted } from '@/ui/useIsMounted';
import { amendAction } from './actions/sign';
import { PasswordAgain } from './SignForm';

export interface Amendable {
  /** The reading's number, or 0 for what is no reading. */
  readonly readingId: number;
  readonly field: AmendableField;
  readonly name: string;
  readonly now: string;
}

/** What was wrong in a closed record, what it should have said, and why. */
export function AmendForm({
  job,
  choices,
  hasPassword,
}: {
  job: number;
  choices: readonly Amendable[];
  hasPassword: boolean;
}) {
  const { answer, isPending, form } = useSubmit(amendAction, `amend ${job}`);
  const isMounted = useIsMounted();
  const [index, setIndex] = useState(0);
  const chosen = choices[index];
  if (chosen === undefined) return null;
  return (
    <form {...form(asItStands)}>
      <input type="hidden" name="job" value={job} />
      <input type="hidden" name="readingId" value={chosen.readingId} />
      <input type="hidden" name="field" value={chosen.field} />
      <Box sx={{ display: 'grid', gap: 1, gridTemplateColumns: { xs: '1fr', sm: '1.4fr 1fr 1fr' } }}>
        <TextField
          select
          label="What is amended"
          value={index}
          onChange={(event) => setIndex(Number(event.target.value))}
        >
          {choices.map(({ name }, place) => (
            <MenuItem key={name} value={place} sx={{ minHeight: 44 }}>
              {name}
            </MenuItem>
          ))}
        </TextField>
        {chosen.field === 'other' && chosen.readingId === 0 ? (
          <TextField name="what" label="What that is" autoComplete="off" />
        ) : (
          <TextField
            label="It says"
            value={chosen.now === '' ? 'nothing' : chosen.now}
            slotProps={{ htmlInput: { readOnly: true } }}
          />
        )}
        <TextField name="afterText" label="It should say" autoComplete="off" />
        <TextField name="reason" label="Why" sx={{ gridColumn: { sm: 'span 2' } }} autoComplete="off" />
        <Button type="submit" variant="outlined" disabled={isPending || !isMounted}>
          Amend
        </Button>
      </Box>
      <PasswordAgain isNeeded={hasPassword} />
      <Refused answer={answer} />
    </form>
  );
}
