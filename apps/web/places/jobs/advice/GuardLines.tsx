'use client';
import type { Guard } from '@barys/core/adjust';
import Alert from '@mui/material/Alert';

/** What speaks against an adjustment, before it is made. */
export function GuardLines({ guards }: { guards: readonly Guard[] }) {
  return guards.map(({ code, level, why }) => (
    <Alert
      key={code}
      severity={level === 'refused' ? 'error' : 'warning'}
      variant="outlined"
      role="status"
      sx={{ mb: 1 }}
    >
      {why}
      {level === 'refused' && code !== 'at-atmosphere' && ' If it was done all the same, the note says why.'}
    </Alert>
  ));
}
