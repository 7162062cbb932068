'use client';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { LinkButton } from '@/ui/LinkButton';
import { Sheet } from '@/ui/Sheet';
import { configurationOfLevel, type LevelResult } from './compute';
import type { LevelFields } from './fields';

/** Hands the range to an instrument: its next configuration, filled in, to be looked at there and put in force. */
export function TakeOver({ fields, result }: { fields: LevelFields; result: LevelResult }) {
  const [typed, setTyped] = useState('');
  const tag = typed.trim().toUpperCase();
  return (
    <Sheet title="Hand over" sx={{ '@media print': { display: 'none' } }}>
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'flex-start' }}>
        <TextField
          label="Tag of the instrument"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          autoComplete="off"
          sx={{ minWidth: 170, flex: 1 }}
        />
        {tag !== '' && (
          <LinkButton
            href={`/instruments/${encodeURIComponent(tag)}/configure?${new URLSearchParams(configurationOfLevel(fields, result))}`}
            isMain
          >
            {`As the next configuration of ${tag}`}
          </LinkButton>
        )}
      </Stack>
      <Typography variant="body2" sx={{ color: 'text.secondary', mt: 1 }}>
        The range, 4 to 20 mA and the display go into the form of its next configuration, with the reason.
        There the body’s limits are held against it, and everybody downstream is asked about.
      </Typography>
    </Sheet>
  );
}
