'use client';
/** What would look like these readings: the corridor with the line of the chosen suspicion, and the suspicions below it. */
import type { Suspicion } from '@barys/core/suspects';
import Stack from '@mui/material/Stack';
import { useState } from 'react';
import { Corridor, CorridorKey } from '@/ui/Corridor';
import type { CorridorShape } from '@/ui/corridor-shape';
import { Sheet } from '@/ui/Sheet';
import { FindingForm, type StandingFinding } from './FindingForm';
import type { ShownSuspects } from './shown';
import { SuspectSheet } from './SuspectSheet';
import { VentedForm, type VentedEntry } from './VentedForm';

export function SuspectBoard({
  job,
  shape,
  shown,
  standing,
  vented,
}: {
  job: number;
  shape: CorridorShape;
  shown: ShownSuspects;
  /** Of this run, those that are in the record. */
  standing: readonly StandingFinding[];
  vented: VentedEntry;
}) {
  const [first] = shown.suspects;
  const [chosen, choose] = useState<Suspicion | null>(null);
  const suspect = shown.suspects.find(({ suspicion }) => suspicion === (chosen ?? first?.suspicion)) ?? first;
  const drawn = { ...shape, fitted: suspect?.fitted ?? [] };
  if (suspect === undefined) return null;
  return (
    <Stack sx={{ gap: 1.5 }}>
      <Sheet title="Error against the limit" aside={<CorridorKey shape={drawn} />}>
        <Corridor shape={drawn} height={225} />
      </Sheet>
      <SuspectSheet shown={shown} chosen={suspect.suspicion} onChoose={choose}>
        <VentedForm {...vented} />
        <FindingForm
          key={suspect.suspicion}
          job={job}
          suspect={suspect}
          standing={standing}
          vented={vented.error === null ? vented.text : ''}
        />
      </SuspectSheet>
    </Stack>
  );
}
