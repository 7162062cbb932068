'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useRouter } from 'next/navigation';
import { useCallback, useState } from 'react';
import { Refused } from '@/ui/Refused';
import { usePoll } from '@/ui/usePoll';
import { useSubmit } from '@/ui/useSubmit';
import { askPlanAction, stopPlanAction } from './actions';

export interface MakingSeen {
  readonly id: number;
  readonly state: string;
  /** From 0 to 1. */
  readonly part: number;
}

/** Days that can be planned: from one to another. */
export interface Span {
  readonly words: string;
  readonly firstDay: string;
  readonly days: number;
}

const POLL_MS = 1000;

function InTheMaking({ making }: { making: MakingSeen }) {
  const router = useRouter();
  const [seen, setSeen] = useState(making);
  const stop = useSubmit(stopPlanAction);
  const learn = useCallback(
    (found: MakingSeen) => {
      setSeen(found);
      if (found.state !== 'runs') router.refresh();
    },
    [router],
  );
  const isAway = usePoll('/planning/progress', POLL_MS, learn);
  return (
    <Box role="status" sx={{ width: { xs: 1, sm: 300 } }}>
      <LinearProgress variant="determinate" value={seen.part * 100} aria-label="Plan made" />
      <Stack direction="row" sx={{ alignItems: 'center', gap: 1.5 }}>
        <Typography variant="body2">
          {isAway ? 'The server does not answer.' : 'A plan is being made.'}
        </Typography>
        <form {...stop.form(() => making.id)}>
          <Button type="submit" aria-busy={stop.isPending}>
            Stop
          </Button>
        </form>
      </Stack>
      <Refused answer={stop.answer} />
    </Box>
  );
}

/** Has a plan made, watches it, and stops it. */
export function PlanDesk({ running, spans }: { running: MakingSeen | null; spans: readonly Span[] }) {
  const [chosen, setChosen] = useState(0);
  const ask = useSubmit(askPlanAction);
  if (running !== null) return <InTheMaking key={running.id} making={running} />;
  const span = spans[chosen] ?? spans[0];
  if (span === undefined) return null;
  return (
    <div>
      <Stack
        component="form"
        direction="row"
        sx={{ gap: 1, alignItems: 'center' }}
        {...ask.form(() => ({ firstDay: span.firstDay, days: span.days }))}
      >
        <TextField
          select
          label="Days"
          value={String(chosen)}
          onChange={(event) => setChosen(Number(event.target.value))}
          sx={{ minWidth: 130 }}
        >
          {spans.map(({ words }, index) => (
            <MenuItem key={words} value={String(index)} sx={{ minHeight: 44 }}>
              {words}
            </MenuItem>
          ))}
        </TextField>
        <Button type="submit" variant="contained" aria-busy={ask.isPending}>
          Plan around what is fixed
        </Button>
      </Stack>
      <Refused answer={ask.answer} />
    </div>
  );
}
