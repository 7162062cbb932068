'use client';
import type { ShownBench } from '@barys/store/benches';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { usePoll } from '@/ui/usePoll';
import { transmittersOf, type Transmitter } from './transmitters';

const EVERY_MS = 3000;

/** The transmitter that is chosen of those that are heard of; null where none is. */
export function useTransmitter(first: readonly ShownBench[]) {
  const [benches, setBenches] = useState(first);
  // Where there is no bench at all, nobody waits for one.
  usePoll(first.length === 0 ? null : '/api/v1/bench', EVERY_MS, setBenches);
  const [chosen, choose] = useState('');
  const there = transmittersOf(benches);
  return { one: there.find(({ key }) => key === chosen) ?? there[0] ?? null, there, choose };
}

export function TransmitterChoice({
  one,
  there,
  choose,
}: {
  one: Transmitter;
  there: readonly Transmitter[];
  choose: (key: string) => void;
}) {
  return (
    <TextField
      select
      label="Transmitter"
      value={one.key}
      onChange={({ target }) => choose(target.value)}
      sx={{ minWidth: 260, maxWidth: '100%' }}
    >
      {there.map(({ key, words }) => (
        <MenuItem key={key} value={key} sx={{ minHeight: 44 }}>
          {words}
        </MenuItem>
      ))}
    </TextField>
  );
}
