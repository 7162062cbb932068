'use client';
import type { SequenceStep } from '@barys/core/adjust';
import CheckOutlined from '@mui/icons-material/CheckOutlined';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { Adjustment } from '@barys/store/jobs';
import { useState } from 'react';
import { SettleTimer } from '@/places/jobs/run/SettleTimer';

/** The order of a gauge, with what of it is logged in this pass. */
export function Sequence({
  steps,
  made,
}: {
  steps: readonly SequenceStep[];
  made: readonly Pick<Adjustment, 'kind'>[];
}) {
  const left = made.map(({ kind }) => kind as string);
  return (
    <Box component="ol" sx={{ m: 0, mb: 1.5, pl: 3 }} aria-label="Order of adjustment">
      {steps.map(({ what, how, logs, waitS }) => {
        const place = logs === null ? -1 : left.indexOf(logs);
        if (place !== -1) left.splice(place, 1);
        return (
          <Box component="li" key={what} sx={{ mb: 0.5 }}>
            <Typography variant="body2">
              <strong>{what}.</strong> {how}
              {place !== -1 && (
                <Box component="span" sx={{ color: 'var(--within)', ml: 0.5, whiteSpace: 'nowrap' }}>
                  <CheckOutlined sx={{ fontSize: 16, verticalAlign: 'text-bottom' }} aria-hidden /> logged
                </Box>
              )}
            </Typography>
            {waitS !== null && place === -1 && <Wait waitS={waitS} />}
          </Box>
        );
      })}
    </Box>
  );
}

/** Counts down from the moment the value stands until the gauge may take it. */
function Wait({ waitS }: { waitS: number }) {
  const [startedAt, setStartedAt] = useState<number | null>(null);
  return (
    <SettleTimer
      settle={{ waitS, holdS: 0 }}
      startedAt={startedAt}
      onStart={() => setStartedAt(Date.now())}
      letter=""
      then="let the gauge take it"
    />
  );
}
