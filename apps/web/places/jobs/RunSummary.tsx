import { workFigures, workReading, type Missing, type RunEvaluation } from '@barys/core/run';
import { PRESSURE_UNITS } from '@barys/core/units';
import type { Step } from '@barys/core/working';
import { evaluateStoredRun, limitsOf, workSeen, workUncertainty, type Run } from '@barys/store/runs';
import Box from '@mui/material/Box';
import { toleranceInWords } from '@/ui/range/toleranceInWords';
import { Figure } from '@/ui/Figure';
import { figuresOfRun, pointWords } from '@/ui/figures';
import { Facts } from '@/ui/Facts';
import { VerdictMark } from '@/ui/VerdictMark';
import { Working } from '@/ui/Working';

/** Figures that a run of one cycle up and down is expected to give. */
const EXPECTED: readonly Missing['figure'][] = ['zero-error', 'span-error', 'hysteresis'];
const isExpected = ({ figure }: Missing): boolean => EXPECTED.includes(figure);

/** How the worst reading was judged, with its uncertainty, and where zero, span and hysteresis come from. */
function worked(
  { madeWith, readings }: Run,
  evaluation: RunEvaluation,
  worst: RunEvaluation['worst'],
): readonly Step[] {
  const { configuration, tolerance } = madeWith;
  const units = { input: PRESSURE_UNITS[configuration.inputUnit].label, output: configuration.outputUnit };
  const limits = limitsOf(tolerance);
  const kept = worst === null ? undefined : readings[evaluation.readings.indexOf(worst)];
  return [
    ...(worst === null || kept === undefined
      ? []
      : [
          ...workSeen(madeWith, kept, units),
          ...workReading(configuration, limits, worst, units),
          ...workUncertainty(madeWith, worst, units, kept.day),
        ]),
    ...workFigures(configuration, evaluation),
  ];
}

/** The verdict of a run and the figures behind it. */
export function RunSummary({ run }: { run: Run }) {
  const figures = figuresOfRun(run.madeWith);
  const evaluation = evaluateStoredRun(run);
  const { verdict, zeroErrorPercentSpan, spanErrorPercentSpan, hysteresisPercentSpan, missing } = evaluation;
  const worst = figures.worst(evaluation);
  const ofSpan = (text: string, suffix = '') => (
    <>
      <Figure>{text}</Figure> % of span{suffix}
    </>
  );
  const signed = (value: number | null, suffix = '') =>
    value === null ? 'not known' : ofSpan(figures.percent(value), suffix);
  return (
    <>
      {verdict !== null && (
        <Box sx={{ fontSize: 24, mb: 1 }}>
          <VerdictMark verdict={verdict} size={24} />
        </Box>
      )}
      <Facts
        facts={[
          [
            'Worst error',
            worst === null ? (
              'not known'
            ) : (
              <>
                <Figure>{figures.error(worst)}</Figure> % of {figures.errorOf} at {pointWords(worst)}
              </>
            ),
          ],
          ...(worst === null || figures.uncertainty(worst) === ''
            ? []
            : [
                [
                  'Its uncertainty',
                  <>
                    ± <Figure>{figures.uncertainty(worst)}</Figure> % of {figures.errorOf} (k = 2)
                  </>,
                ] as const,
              ]),
          ['Limit', toleranceInWords(run.madeWith.tolerance)],
          ...(figures.errorOf === 'reading'
            ? [['Zero and span', 'not told of a gauge over decades: each point stands by itself'] as const]
            : [
                ['Zero error', signed(zeroErrorPercentSpan)] as const,
                ['Span error', signed(spanErrorPercentSpan)] as const,
                [
                  'Hysteresis',
                  hysteresisPercentSpan === null
                    ? 'not known'
                    : ofSpan(figures.amount(hysteresisPercentSpan)),
                ] as const,
                ...missing.filter(isExpected).map(({ why }) => ['', why] as const),
              ]),
        ]}
      />
      <Working of="the figures of this run" steps={worked(run, evaluation, worst)} />
    </>
  );
}
