'use client';
import { formatSignificant } from '@barys/core/text';
import type { Budget, BudgetModel, Component, MonteCarloResult } from '@barys/core/uncertainty';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Figure } from '@/ui/Figure';
import { NumberField } from '@/ui/NumberField';
import { readNumber } from '@/ui/readNumber';
import { Sheet } from '@/ui/Sheet';
import { Curve } from './Curve';
import { normalDensity } from './pictures';
import { useTrials } from './useTrials';

const TRIALS = ['adaptive', '100000', '1000000', '5000000'] as const;

/** Monte Carlo trials of the same model, beside what the law of propagation gives. */
export function TrialsSheet({
  budget,
  model,
  probability,
}: {
  /** Null where the law of propagation has no answer, as at a square root of zero. */
  budget: Budget | null;
  model: BudgetModel;
  probability: number;
}) {
  const { state, run, stop } = useTrials();
  const [trials, setTrials] = useState<string>('adaptive');
  const [seed, setSeed] = useState('1');
  const number = readNumber(seed).value;
  const start = () =>
    void run(model, {
      seed: number ?? 1,
      probability,
      trials: trials === 'adaptive' ? 'adaptive' : Number(trials),
      mostTrials: 5_000_000,
    });
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
        {state.kind === 'running' ? (
          <Button variant="outlined" onClick={stop}>
            Stop
          </Button>
        ) : (
          <Button variant="contained" onClick={start} disabled={number === null}>
            Run the trials
          </Button>
        )}
      </Stack>
      {state.kind === 'running' && (
        <Box sx={{ mt: 1.5 }}>
          <LinearProgress variant="determinate" value={state.share * 100} aria-label="Trials run" />
        </Box>
      )}
      {state.kind === 'failed' && (
        <Typography role="alert" sx={{ mt: 1, color: 'var(--outside)', fontWeight: 600 }}>
          {state.error}
        </Typography>
      )}
      {state.kind === 'idle' && (
        <Typography variant="body2" sx={{ mt: 1, color: 'text.secondary' }}>
          Draws every input from its distribution and computes the model each time (JCGM 101). It shows where
          the linear law does not hold, such as a square root near zero.
        </Typography>
      )}
      {state.kind === 'done' && <TrialsResult result={state.result} budget={budget} unit={model.unit} />}
    </Sheet>
  );
}

/** Student's t has a variance only above two degrees of freedom. */
const hasNoSpread = ({ degreesOfFreedom }: Component): boolean =>
  degreesOfFreedom !== null && degreesOfFreedom <= 2;

function TrialsResult({
  result,
  budget,
  unit,
}: {
  result: MonteCarloResult;
  budget: Budget | null;
  unit: string;
}) {
  const shown = (value: number) => formatSignificant(value, 5);
  const { low, high } = result.histogramRange;
  const width = (high - low) / result.histogram.length;
  const bars = result.histogram.map((count, i) => ({
    x: low + (i + 0.5) * width,
    y: width > 0 ? count / (result.trials * width) : 0,
  }));
  const row = (name: string, ofTrials: string, ofLaw: string) => (
    <TableRow key={name}>
      <TableCell component="th" scope="row">
        {name}
      </TableCell>
      <TableCell align="right">
        <Figure>{ofTrials}</Figure>
      </TableCell>
      <TableCell align="right">
        <Figure>{ofLaw}</Figure>
      </TableCell>
    </TableRow>
  );
  const none = 'no value';
  const percent = formatSignificant(result.probability * 100, 4);
  return (
    <Box sx={{ mt: 1.5 }}>
      {width > 0 && (
        <Curve
          data={(palette) => ({
            datasets: [
              {
                type: 'bar',
                data: bars,
                backgroundColor: palette.rule,
                barPercentage: 1,
                categoryPercentage: 1,
                grouped: false,
              },
              ...(budget === null || budget.combined === 0
                ? []
                : [
                    {
                      type: 'line' as const,
                      data: normalDensity(budget.value, budget.combined).map(({ x, y }) => ({ x, y })),
                      borderColor: palette.ink,
                      borderWidth: 1.6,
                      pointRadius: 0,
                    },
                  ]),
            ],
          })}
          marks={[
            { at: result.symmetric.low, word: 'low' },
            { at: result.symmetric.high, word: 'high' },
          ]}
          reach={[low, high]}
          label="Histogram of the trials with the normal curve of the budget over it. The figures are in the table."
        />
      )}
      <Box sx={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label="Monte Carlo beside the budget">
        <Table size="small">
          <TableHead>
            <TableRow>
              <TableCell>{unit}</TableCell>
              <TableCell align="right">Trials</TableCell>
              <TableCell align="right">Budget</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {row('Value', shown(result.mean), budget === null ? none : shown(budget.value))}
            {row('Standard uncertainty', shown(result.sd), budget === null ? none : shown(budget.combined))}
            {row(
              `${percent} % interval, symmetric`,
              `${shown(result.symmetric.low)} to ${shown(result.symmetric.high)}`,
              budget === null
                ? none
                : `${shown(budget.value - budget.expanded)} to ${shown(budget.value + budget.expanded)}`,
            )}
            {row(
              `${percent} % interval, shortest`,
              `${shown(result.shortest.low)} to ${shown(result.shortest.high)}`,
              'the same',
            )}
          </TableBody>
        </Table>
      </Box>
      <Typography variant="body2" sx={{ color: 'text.secondary', mt: 0.5 }}>
        {`${formatSignificant(result.trials, 9)} trials, seed ${result.seed}`}
        {result.isStable === true && '; stable to two digits of the standard uncertainty'}
        {result.isStable === false && '; not yet stable, more trials are needed'}. The same seed gives the
        same figures.
        {budget?.components.some(hasNoSpread) === true &&
          ' A mean of two or three readings is drawn from a t distribution that has no standard deviation: take the interval, not the standard uncertainty.'}
      </Typography>
    </Box>
  );
}
