'use client';
/** Counts down from the moment the pressure stands until the output may be read. */
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useEffect, useState } from 'react';
import { Figure } from '@/ui/Figure';

export interface Settle {
  /** Seconds from the step, which the damping needs. */
  readonly waitS: number;
  /** Seconds that the reading must then stand still. */
  readonly holdS: number;
}

/**
 * @param startedAt milliseconds since 1970 when the pressure stood, or null before that
 * @param letter the key that starts it; empty where there is none
 * @param then what is done once it has settled
 */
export function SettleTimer({
  settle,
  startedAt,
  onStart,
  letter = 'T',
  then = 'read',
}: {
  settle: Settle;
  startedAt: number | null;
  onStart: () => void;
  letter?: string;
  then?: string;
}) {
  const [now, setNow] = useState(0);
  const waitS = Math.ceil(settle.waitS);
  const totalS = waitS + settle.holdS;
  useEffect(() => {
    if (startedAt === null) return;
    const timer = setInterval(() => setNow(Date.now()), 250);
    return () => clearInterval(timer);
  }, [startedAt]);
  if (startedAt === null)
    return (
      <Button size="small" onClick={onStart} sx={{ alignSelf: 'flex-start', px: 0.5 }}>
        At pressure: wait {totalS} s{letter === '' ? '' : ` (${letter})`}
      </Button>
    );
  const goneS = Math.max(0, Math.floor((now - startedAt) / 1000));
  return (
    <Typography role="timer" variant="body2" sx={{ fontWeight: 700, minHeight: 34, pt: 0.75 }}>
      {goneS < waitS ? (
        <>
          settling, <Figure>{totalS - goneS} s</Figure>
        </>
      ) : goneS < totalS ? (
        <>
          hold still, <Figure>{totalS - goneS} s</Figure>
        </>
      ) : (
        `settled: ${then}`
      )}
    </Typography>
  );
}
