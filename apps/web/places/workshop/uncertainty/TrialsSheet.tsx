'use client';
import type { Budget, BudgetModel } from '@barys/core/uncertainty';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { NumberField } from '@/ui/NumberField';
import { readNumber } from '@/ui/readNumber';
import { Sheet } from '@/ui/Sheet';
import { TrialsResult } from './TrialsResult';
import { useTrials } from './useTrials';

const TRIALS = ['adaptive', '100000', '1000000', '5000000'] as const;

interface Tried {
  /** Null where the law of propagation has no answer, as at a square root of zero. */
  readonly budget: Budget | null;
  readonly model: BudgetModel;
  readonly probability: number;
}

/**
 * Monte Carlo trials of the same model, beside what the law of propagation gives.
 * @param tried null while the budget cannot be read
 */
export function TrialsSheet({ tried }: { tried: Tried | null }) {
  const [trials, setTrials] = useState<string>('adaptive');
  const [seed, setSeed] = useState('1');
  return (
    <Sheet title="Monte Carlo">
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'flex-start' }}>
        <TextField
          select
          label="Trials"
          value={trials}
          onChange={(event) => setTrials(event.target.value)}
          sx={{ minWidth: 190 }}
        >
          {TRIALS.map((one) => (
            <MenuItem key={one} value={one}>
              {one === 'adaptive' ? 'until stable' : Number(one).toLocaleString('en').replaceAll(',', ' ')}
            </MenuItem>
          ))}
        </TextField>
        <NumberField label="Seed" text={seed} onText={setSeed} sx={{ width: 100 }} />
        {tried === null ? (
          <Typography variant="body2" sx={{ color: 'text.secondary', flexBasis: '100%' }}>
            Trials are run once the budget can be read.
          </Typography>
        ) : (
          <Run
            // A change of the budget leaves trials of the old one behind.
            key={JSON.stringify([tried.model, tried.probability])}
            {...tried}
            trials={trials}
            seed={readNumber(seed).value}
          />
        )}
      </Stack>
    </Sheet>
  );
}

/** The trials of one budget: run, stopped, and what came of them. */
function Run({
  budget,
  model,
  probability,
  trials,
  seed,
}: Tried & { readonly trials: string; readonly seed: number | null }) {
  const { state, run, stop } = useTrials();
  const start = () =>
    void run(model, {
      seed: seed ?? 1,
      probability,
      trials: trials === 'adaptive' ? 'adaptive' : Number(trials),
      mostTrials: 5_000_000,
    });
  return (
    <>
      {state.kind === 'running' ? (
        <Button variant="outlined" onClick={stop}>
          Stop
        </Button>
      ) : (
        <Button variant="contained" onClick={start} disabled={seed === null}>
          Run the trials
        </Button>
      )}
      <Box sx={{ flexBasis: '100%' }}>
        {state.kind === 'running' && (
          <LinearProgress variant="determinate" value={state.share * 100} aria-label="Trials run" />
        )}
        {state.kind === 'failed' && (
          <Typography role="alert" sx={{ color: 'var(--outside)', fontWeight: 600 }}>
            {state.error}
          </Typography>
        )}
        {state.kind === 'idle' && (
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            Draws every input from its distribution and computes the model each time (JCGM 101). It shows
            where the linear law does not hold, such as a square root near zero.
          </Typography>
        )}
        {state.kind === 'done' && <TrialsResult result={state.result} budget={budget} unit={model.unit} />}
      </Box>
    </>
  );
}
