'use client';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { useState, type SyntheticEvent } from 'react';
import { MOST } from '@/places/practice/schema';
import { readNumber } from '@/ui/readNumber';
import { useDeskText } from '../useDeskText';

/** A number and what is done with it. */
export function NumberAct({
  label,
  word,
  first = '',
  onGive,
}: {
  label: string;
  word: string;
  first?: string;
  onGive: (value: number) => void;
}) {
  const [text, setText] = useDeskText(label, first);
  const [error, setError] = useState<string | null>(null);
  const give = (event: SyntheticEvent) => {
    event.preventDefault();
    const { value, error: wrong } = readNumber(text);
    const isTooMuch = value !== null && Math.abs(value) > MOST;
    setError(
      value === null ? (wrong ?? 'A number is needed.') : isTooMuch ? 'No bench goes as far as that.' : null,
    );
    if (value !== null && !isTooMuch) onGive(value);
  };
  return (
    <Stack component="form" direction="row" sx={{ gap: 1 }} onSubmit={give} noValidate>
      <TextField
        label={label}
        value={text}
        onChange={({ target }) => setText(target.value)}
        error={error !== null}
        helperText={error}
        slotProps={{ htmlInput: { inputMode: 'decimal' } }}
        autoComplete="off"
        fullWidth
      />
      <Button
        type="submit"
        variant="outlined"
        sx={{ whiteSpace: 'nowrap', alignSelf: 'flex-start', minHeight: 44 }}
      >
        {word}
      </Button>
    </Stack>
  );
}
