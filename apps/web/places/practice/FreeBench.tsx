'use client';
/** The free bench: any instrument, with any fault that it can have, or one that the seed hides. */
import { FREE_KINDS, freeId, HIDDEN } from '@barys/rig/practice';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { LinkButton } from '@/ui/LinkButton';
import { Sheet } from '@/ui/Sheet';

const KINDS = Object.keys(FREE_KINDS);

/** Instruments of one kind differ from seed to seed; a hidden fault is another one each time. */
const SEEDS = 999_983;

export function FreeBench() {
  const [kind, setKind] = useState('smart transmitter');
  const [fault, setFault] = useState(HIDDEN);
  const [seed, setSeed] = useState(4711);
  const faults = [HIDDEN, ...Object.keys(FREE_KINDS[kind]?.faults ?? {})];
  return (
    <Sheet title="Free bench" aside="any instrument, any fault">
      <Stack direction={{ xs: 'column', sm: 'row' }} sx={{ gap: 1, alignItems: { sm: 'center' } }}>
        <TextField
          select
          label="Instrument"
          value={kind}
          onChange={({ target }) => {
            setKind(target.value);
            setFault(HIDDEN);
          }}
          sx={{ minWidth: 260 }}
        >
          {KINDS.map((one) => (
            <MenuItem key={one} value={one}>
              {FREE_KINDS[one]?.title}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="Fault"
          value={fault}
          onChange={({ target }) => setFault(target.value)}
          sx={{ minWidth: 240 }}
        >
          {faults.map((one) => (
            <MenuItem key={one} value={one}>
              {one === HIDDEN ? 'hidden: find it' : one}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          label="Seed"
          value={String(seed)}
          onChange={({ target }) =>
            setSeed(Math.min(SEEDS, Math.max(1, Number(target.value.replace(/\D/g, '')) || 1)))
          }
          slotProps={{ htmlInput: { inputMode: 'numeric' } }}
          sx={{ width: 110 }}
        />
        <LinkButton href={`/practice/${encodeURIComponent(freeId(kind, fault))}?seed=${seed}`} isMain>
          Go to the bench
        </LinkButton>
      </Stack>
    </Sheet>
  );
}
