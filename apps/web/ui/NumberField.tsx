'use client';
import TextField from '@mui/material/TextField';
import type { ComponentProps } from 'react';
import { readNumber } from './readNumber';

/** A field for a number as people type it; what is wrong is said at once and the text stays. */
export function NumberField({
  text,
  onText,
  error,
  spokenName,
  ...props
}: {
  text: string;
  onText: (text: string) => void;
  /** What is wrong beyond the number itself. */
  error?: string | null | undefined;
  /** What it is called where its name stands beside it and not in it. */
  spokenName?: string;
} & Omit<ComponentProps<typeof TextField>, 'value' | 'onChange' | 'error'>) {
  const wrong = readNumber(text).error ?? error ?? null;
  return (
    <TextField
      {...props}
      value={text}
      onChange={(event) => onText(event.target.value)}
      error={wrong !== null}
      helperText={wrong ?? props.helperText}
      autoComplete="off"
      slotProps={{ ...props.slotProps, htmlInput: { inputMode: 'decimal', 'aria-label': spokenName } }}
    />
  );
}
