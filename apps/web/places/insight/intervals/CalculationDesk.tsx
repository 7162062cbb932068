'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useRouter } from 'next/navigation';
import { useCallback, useState } from 'react';
import { Refused } from '@/ui/Refused';
import { usePoll } from '@/ui/usePoll';
import { useSubmit } from '@/ui/useSubmit';
import { askCalculationAction, stopCalculationAction } from './actions';

export interface Progress {
  readonly id: number;
  readonly state: string;
  readonly done: number;
  readonly total: number;
}

const POLL_MS = 1000;
const EMPTY = () => undefined;

/** Has the advice worked out, watches it, and stops it. */
export function CalculationDesk({ running, mayAsk }: { running: Progress | null; mayAsk: boolean }) {
  const router = useRouter();
  const [seen, setSeen] = useState<Progress | null>(null);
  const ask = useSubmit(askCalculationAction);
  const stop = useSubmit(stopCalculationAction);
  const learn = useCallback(
    (progress: Progress) => {
      setSeen(progress);
      if (progress.state !== 'runs') router.refresh();
    },
    [router],
  );
  const isAway = usePoll(running === null ? null : '/insight/intervals/progress', POLL_MS, learn);
  const now = seen?.id === running?.id && seen !== null ? seen : running;
  return (
    <Stack sx={{ gap: 0.5, minWidth: { sm: 300 }, alignItems: { sm: 'flex-end' } }}>
      {now === null ? (
        mayAsk && (
          <form {...ask.form(EMPTY)}>
            <Button type="submit" variant="contained" aria-busy={ask.isPending}>
              Work out anew
            </Button>
          </form>
        )
      ) : (
        <Box role="status" sx={{ width: 1 }}>
          <LinearProgress
            variant="determinate"
            value={(now.done / Math.max(now.total, 1)) * 100}
            aria-label="Advice worked out"
          />
          <Stack direction="row" sx={{ alignItems: 'center', gap: 1.5 }}>
            <Typography variant="body2">
              {now.done.toLocaleString('en')} of {now.total.toLocaleString('en')} instruments
              {isAway && ', the server does not answer'}
            </Typography>
            {mayAsk && (
              <form {...stop.form(() => now.id)}>
                <Button type="submit" aria-busy={stop.isPending}>
                  Stop
                </Button>
              </form>
            )}
          </Stack>
        </Box>
      )}
      <Refused answer={ask.answer.error === null ? stop.answer : ask.answer} />
    </Stack>
  );
}
