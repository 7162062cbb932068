'use client';
/** The run of a lesson: what to apply, what to expect, and what was read. */
import { judgeReading, spanTolerance } from '@barys/core/run';
import { expectedOutput } from '@barys/core/signal';
import { formatFixed, formatPlain, formatSigned } from '@barys/core/text';
import type { Lesson, PracticeBench, Taken } from '@barys/rig/practice';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { Sheet } from '@/ui/Sheet';
import { VerdictMark } from '@/ui/VerdictMark';

export interface Point {
  readonly percent: number;
  readonly way: 'up' | 'down';
}

/** Up and down, the top once. */
export const pointsOf = ({ points }: Lesson): readonly Point[] => [
  ...points.map((percent) => ({ percent, way: 'up' as const })),
  ...[...points]
    .reverse()
    .filter((percent) => percent !== 100)
    .map((percent) => ({ percent, way: 'down' as const })),
];

export const pointName = ({ percent, way }: Point): string =>
  `${formatPlain(percent)} % ${way === 'up' ? 'rising' : 'falling'}`;

/** The first point of a pass that is not read yet; null when all are. */
export const nextPoint = (lesson: Lesson, taken: readonly Taken[], pass: Taken['pass']): Point | null =>
  pointsOf(lesson).find(
    ({ percent, way }) =>
      !taken.some((one) => one.pass === pass && one.percent === percent && one.way === way),
  ) ?? null;

export const judged = ({ range, limitPercent, adjustAbovePercent }: Lesson, one: Taken) =>
  judgeReading(range, spanTolerance(limitPercent, adjustAbovePercent), {
    cycle: 1,
    direction: one.way,
    nominalPercent: one.percent,
    applied: one.reference,
    output: one.output ?? 0,
  });

export function RunPanel({
  bench,
  pass,
  onRead,
  onAsLeft,
}: {
  bench: PracticeBench;
  pass: Taken['pass'];
  onRead: (point: Point) => void;
  /** Null where the as-left run is begun, or nothing was adjusted. */
  onAsLeft: (() => void) | null;
}) {
  const { lesson, taken } = bench;
  const { lrv, urv } = lesson.range;
  const next = nextPoint(lesson, taken, pass);
  const point = next === null ? null : lrv + ((urv - lrv) * next.percent) / 100;
  const unit =
    bench.world.tested.kind === 'force balance'
      ? 'psi'
      : bench.world.tested.kind === 'digital gauge'
        ? lesson.unit
        : 'mA';
  return (
    <Sheet
      title={pass === 'as found' ? 'As found' : 'As left'}
      aside={next === null ? 'all points are read' : pointName(next)}
    >
      {next !== null && point !== null && (
        <Stack direction="row" sx={{ gap: 2, alignItems: 'center', flexWrap: 'wrap', mb: 1 }}>
          <Typography>
            Apply <Figure>{formatFixed(point, 1)}</Figure> {lesson.unit}, expect{' '}
            <Figure>{formatFixed(expectedOutput(lesson.range, point), 3)}</Figure> {unit}
          </Typography>
          <Button variant="contained" onClick={() => onRead(next)}>
            Take the reading
          </Button>
        </Stack>
      )}
      {onAsLeft !== null && (
        <Button variant="outlined" onClick={onAsLeft} sx={{ mb: 1 }}>
          Begin as left
        </Button>
      )}
      <DataTable
        label="Readings of this lesson"
        rows={taken.map((one, place) => ({ ...one, place })).reverse()}
        keyOf={({ place }) => place}
        none="No reading yet."
        columns={[
          ['Point', (one) => `${pointName(one)}${one.pass === 'as left' ? ', left' : ''}`],
          ['Applied', (one) => <Figure>{formatFixed(one.reference, 3)}</Figure>, 'right'],
          ['Reading', (one) => <Figure>{formatFixed(one.output ?? 0, 3)}</Figure>, 'right'],
          [
            '% of span',
            (one) => {
              const { errorPercentSpan, verdict } = judged(lesson, one);
              return (
                <>
                  <Figure>{formatSigned(errorPercentSpan, 3)}</Figure>{' '}
                  <VerdictMark verdict={verdict} isMarkOnly />
                </>
              );
            },
            'right',
          ],
        ]}
      />
    </Sheet>
  );
}
