'use client';
import type { Trial } from '@barys/store/benches';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { usePoll } from '@/ui/usePoll';
import { useSubmit } from '@/ui/useSubmit';
import { askForTrialAction } from './actions';

const EVERY_MS = 700;

/** What a trial says now. */
export interface SeenTrial {
  readonly trial: Trial | null;
  readonly bench: string;
  readonly isThere: boolean;
}

/** The instrument asked each of its questions once, by the link of its bench. */
export function TrialSheet({
  standard,
  first,
}: {
  standard: { readonly id: number; readonly tag: string };
  first: SeenTrial;
}) {
  /** The trial that was there when another one was asked for; undefined where none was. */
  const [before, setBefore] = useState<number | null | undefined>(undefined);
  const path = `/api/v1/references/${encodeURIComponent(standard.tag)}/trial`;
  const [{ trial, bench, isThere }, setSeen] = useState(first);
  const isAsked =
    (before !== undefined && (trial?.id ?? null) === before) || (trial !== null && trial.tried === null);
  const isAway = usePoll(isAsked ? path : null, EVERY_MS, setSeen);
  const { answer, isPending, submit } = useSubmit(async (entry: { standardId: number }) => {
    const found = await askForTrialAction(entry);
    if (found.error === null) setBefore(trial?.id ?? null);
    return found;
  });
  const tried = isAsked ? null : (trial?.tried ?? null);
  return (
    <Sheet title="Try it">
      <Button
        variant="outlined"
        onClick={() => submit({ standardId: standard.id })}
        aria-busy={isPending}
        sx={{ minHeight: 44 }}
      >
        Try it
      </Button>
      <Refused answer={answer} />
      <Typography role="status" sx={{ mt: 1 }}>
        {isAsked && isAway
          ? 'The server does not answer.'
          : isAsked
            ? isThere
              ? `The link of ${bench} asks it.`
              : `Nothing is heard of the link of ${bench}: start it beside the instrument.`
            : tried === null
              ? 'It is asked who it is, for each of its values, and for its errors; nothing is set.'
              : tried.every(({ isGood }) => isGood)
                ? 'It answers as its driver says.'
                : 'It does not answer as its driver says.'}
      </Typography>
      {tried !== null && (
        <DataTable
          label="What it answered"
          rows={tried}
          keyOf={({ what }) => what}
          columns={[
            ['For', ({ what }) => what],
            ['Asked', ({ asked }) => <Figure>{asked}</Figure>],
            [
              'Answered',
              ({ answered }) => (
                <Figure sx={{ whiteSpace: 'normal', overflowWrap: 'anywhere' }}>{answered || '—'}</Figure>
              ),
            ],
            [
              'Understood',
              ({ words, isGood }) => (
                <span style={isGood ? {} : { color: 'var(--outside)', fontWeight: 600 }}>{words}</span>
              ),
            ],
          ]}
        />
      )}
    </Sheet>
  );
}
