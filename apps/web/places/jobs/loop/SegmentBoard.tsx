'use client';
/** One item of a loop by itself: its errors, and what would look like them. */
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import type { Suspicion } from '@barys/core/suspects';
import { useState } from 'react';
import { Corridor, CorridorKey } from '@/ui/Corridor';
import { Sheet } from '@/ui/Sheet';
import { SuspectSheet } from '../suspects/SuspectSheet';
import type { ShownLoop } from './shownLoop';

export function SegmentBoard({ loop: { taps, suspect } }: { loop: ShownLoop }) {
  const shown = taps.flatMap(({ place, name, segment }) =>
    segment === null ? [] : [{ place, name, segment }],
  );
  const [place, choose] = useState<number | null>(suspect);
  const [suspicion, setSuspicion] = useState<Suspicion | null>(null);
  const one = shown.find((tap) => tap.place === place) ?? shown[0];
  if (one === undefined) return null;
  const { suspects } = one.segment;
  const chosen = suspects?.suspects.find((each) => each.suspicion === suspicion) ?? suspects?.suspects[0];
  const drawn = { ...one.segment.shape, fitted: chosen?.fitted ?? [] };
  return (
    <Stack sx={{ gap: 1.5 }}>
      <Sheet title={one.segment.title} aside={<CorridorKey shape={drawn} />}>
        <TextField
          select
          label="Item"
          value={one.place}
          onChange={({ target }) => choose(Number(target.value))}
          sx={{ mb: 1, minWidth: 200 }}
        >
          {shown.map((tap) => (
            <MenuItem key={tap.place} value={tap.place}>
              {tap.name}
            </MenuItem>
          ))}
        </TextField>
        <Corridor shape={drawn} height={190} />
      </Sheet>
      {suspects !== null && chosen !== undefined && (
        <SuspectSheet
          shown={suspects}
          title={`What would look like this of ${one.name}`}
          chosen={chosen.suspicion}
          onChoose={setSuspicion}
        />
      )}
    </Stack>
  );
}
