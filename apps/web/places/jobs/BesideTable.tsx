import { formatFixed, formatSigned } from '@barys/core/text';
import { besideOf, besideVerdicts, type Beside, type Run } from '@barys/store/runs';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { pointWords } from '@/ui/figures';
import { VerdictMark } from '@/ui/VerdictMark';
import { besideWord } from './columnWords';

const DECIMALS = 3;

/** What was read beside the output of a run, judged; nothing where there is none. */
export function BesideTable({ run }: { run: Run }) {
  const readings = besideOf(run);
  const verdicts = besideVerdicts(readings);
  const kinds = Object.keys(verdicts) as Beside[];
  if (kinds.length === 0) return null;
  const rows = readings.map((figures, index) => ({ figures, position: run.readings[index]?.position ?? 0 }));
  const pointAt = (position: number) => run.madeWith.points.find((one) => one.position === position);
  return (
    <>
      {kinds.map((kind) => {
        const verdict = verdicts[kind];
        const limit = Math.max(...readings.map((one) => one[kind]?.limitPercentOfSpan ?? 0));
        const hasLimit = readings.some((one) => one[kind]?.limitPercentOfSpan != null);
        return verdict === undefined ? null : (
          <Typography key={kind} variant="body2" sx={{ mt: 0.5 }}>
            {besideWord(run.madeWith, kind)}: <VerdictMark verdict={verdict} />
            {hasLimit && (
              <>
                , limit <Figure>{formatFixed(limit, DECIMALS)}</Figure> % of span
              </>
            )}
            .
          </Typography>
        );
      })}
      <Box component="details" sx={{ mt: 0.5 }}>
        <Box component="summary" sx={{ cursor: 'pointer', py: 1, fontWeight: 600, minHeight: 44 }}>
          Point by point
        </Box>
        <DataTable
          label="Read beside the output"
          rows={rows}
          keyOf={({ position }) => String(position)}
          columns={[
            [
              'Point',
              ({ position }) => {
                const point = pointAt(position);
                return point === undefined ? '' : pointWords(point);
              },
            ],
            ...kinds.map(
              (kind) =>
                [
                  `${besideWord(run.madeWith, kind)}, % of span`,
                  ({ figures }: (typeof rows)[number]) => {
                    const figure = figures[kind];
                    if (figure === undefined) return '–';
                    const shown = kind === 'friction' ? formatFixed : formatSigned;
                    return (
                      <>
                        <Figure>{shown(figure.percentOfSpan, DECIMALS)}</Figure>{' '}
                        <VerdictMark verdict={figure.verdict} isMarkOnly />
                      </>
                    );
                  },
                ] as const,
            ),
          ]}
        />
      </Box>
    </>
  );
}
