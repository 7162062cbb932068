import { formatSignificant } from '@barys/core/text';
import type { Budget, Component, MonteCarloResult } from '@barys/core/uncertainty';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { Curve } from './Curve';
import { normalDensity } from './pictures';

/** Student's t has a variance only above two degrees of freedom. */
const hasNoSpread = ({ degreesOfFreedom }: Component): boolean =>
  degreesOfFreedom !== null && degreesOfFreedom <= 2;

/** What the trials gave, beside the budget. */
export function TrialsResult({
  result,
  budget,
  unit,
}: {
  result: MonteCarloResult;
  budget: Budget | null;
  unit: string;
}) {
  const shown = (value: number) => formatSignificant(value, 5);
  const percent = formatSignificant(result.probability * 100, 4);
  const ofLaw = (words: (of: Budget) => string) => (budget === null ? 'no value' : words(budget));
  const interval = ({ low, high }: { low: number; high: number }) => `${shown(low)} to ${shown(high)}`;
  const rows: readonly (readonly [name: string, ofTrials: string, ofLaw: string])[] = [
    ['Value', shown(result.mean), ofLaw(({ value }) => shown(value))],
    ['Standard uncertainty', shown(result.sd), ofLaw(({ combined }) => shown(combined))],
    [
      `${percent} % interval, symmetric`,
      interval(result.symmetric),
      ofLaw(({ value, expanded }) => interval({ low: value - expanded, high: value + expanded })),
    ],
    [`${percent} % interval, shortest`, interval(result.shortest), 'the same'],
  ];
  return (
    <Box sx={{ mt: 1.5 }}>
      <Histogram result={result} budget={budget} />
      <DataTable
        label="Monte Carlo beside the budget"
        rows={rows}
        keyOf={([name]) => name}
        columns={[
          [unit, ([name]) => name],
          ['Trials', ([, trials]) => <Figure>{trials}</Figure>, 'right'],
          ['Budget', ([, , law]) => <Figure>{law}</Figure>, 'right'],
        ]}
      />
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

/** The trials as bars, with the normal curve of the budget over them; none where all trials gave one value. */
function Histogram({ result, budget }: { result: MonteCarloResult; budget: Budget | null }) {
  const { low, high } = result.histogramRange;
  const width = (high - low) / result.histogram.length;
  if (width <= 0) return null;
  const bars = result.histogram.map((count, i) => ({
    x: low + (i + 0.5) * width,
    y: count / (result.trials * width),
  }));
  return (
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
  );
}
