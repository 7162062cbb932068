'use client';
/** The same advice as in a real job, from what was read and nothing else. */
import { adviseOn, doWords, headline, type AdjustableBody } from '@barys/core/adjust';
import { spanTolerance } from '@barys/core/run';
import type { PracticeBench } from '@barys/rig/practice';
import Typography from '@mui/material/Typography';
import { Sheet } from '@/ui/Sheet';
import { nextPoint } from './RunPanel';

const BODY: Readonly<Record<string, AdjustableBody>> = {
  'analog transmitter': { technology: 'analog', trims: [] },
  'force balance': { technology: 'pneumatic', trims: ['zero screw', 'range wheel'] },
  'smart transmitter': { technology: 'smart', trims: [] },
  'digital gauge': { technology: 'digital gauge', trims: [] },
};

export function PracticeAdvice({ bench }: { bench: PracticeBench }) {
  const { lesson, taken, world } = bench;
  const body = BODY[world.tested.kind];
  if (body === undefined || nextPoint(lesson, taken, 'as found') !== null)
    return (
      <Sheet title="The same advice as in a real job">
        <Typography sx={{ color: 'text.secondary' }}>It speaks once every point is read as found.</Typography>
      </Sheet>
    );
  const advice = adviseOn({
    range: lesson.range,
    tolerance: spanTolerance(lesson.limitPercent, lesson.adjustAbovePercent),
    readings: taken
      .filter(({ pass }) => pass === 'as found')
      .map((one) => ({
        cycle: 1,
        direction: one.way,
        nominalPercent: one.percent,
        applied: one.reference,
        output: one.output ?? 0,
      })),
    body,
  });
  return (
    <Sheet title="The same advice as in a real job">
      <Typography>{headline(advice)}</Typography>
      <Typography sx={{ fontWeight: 600, mt: 0.5 }}>
        {advice.lead === null ? 'The readings cannot be judged.' : doWords(advice.lead, body)}
      </Typography>
    </Sheet>
  );
}
