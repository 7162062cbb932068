'use client';
/** A word about a point: why nothing is read there, or a note. */
import type { MarkKind } from '@barys/store/runs';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { useState } from 'react';

export type WordedMark = Exclude<MarkKind, 'overshot'>;

const LABEL: Readonly<Record<WordedMark, string>> = {
  'no reading': 'Why there is no reading at this point',
  note: 'Note at this point',
};

export function MarkField({
  kind,
  onKeep,
  onLeave,
}: {
  kind: WordedMark;
  onKeep: (remark: string) => void;
  onLeave: () => void;
}) {
  const [remark, setRemark] = useState('');
  const keep = () => {
    if (remark.trim() !== '') onKeep(remark.trim());
  };
  return (
    <Stack direction="row" sx={{ gap: 1, alignItems: 'center', mb: 1 }}>
      <TextField
        label={LABEL[kind]}
        value={remark}
        onChange={(event) => setRemark(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Escape') onLeave();
          if (event.key !== 'Enter') return;
          event.preventDefault();
          keep();
        }}
        autoFocus
        autoComplete="off"
        fullWidth
      />
      <Button variant="outlined" onClick={keep}>
        Keep
      </Button>
      <Button onClick={onLeave}>Leave it</Button>
    </Stack>
  );
}
