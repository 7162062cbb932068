'use client';
import TextField from '@mui/material/TextField';
import { useEffect, useState } from 'react';

/** Long enough for the next letter of a quick typist. */
const TYPING_MS = 250;

/** A word to find, shown once typing rests. */
export function SearchField({ typed, show }: { typed: string; show: (text: string) => void }) {
  const [text, setText] = useState(typed);
  useEffect(() => {
    if (text === typed) return;
    const timer = setTimeout(() => show(text), TYPING_MS);
    return () => clearTimeout(timer);
  });
  return (
    <TextField
      label="Find by any part"
      type="search"
      value={text}
      onChange={(event) => setText(event.target.value)}
      sx={{ width: { xs: 'auto', sm: 190 }, flexGrow: { xs: 1, sm: 0 } }}
      slotProps={{ htmlInput: { maxLength: 100 } }}
    />
  );
}
