'use client';
/** How a lesson was done: the score with each deduction, how one reasons, and the bench at any moment of it. */
import { CAUSES, replayed, type Done, type Lesson, type Score } from '@barys/rig/practice';
import { formatFixed, formatPlain, formatSigned } from '@barys/core/text';
import Button from '@mui/material/Button';
import Slider from '@mui/material/Slider';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useMemo, useState } from 'react';
import { Columns } from '@/ui/Columns';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { Sheet } from '@/ui/Sheet';
import { BenchDrawing } from './drawing/BenchDrawing';

const clock = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;

export function Result({
  lesson,
  seed,
  record,
  score,
  onAgain,
}: {
  lesson: Lesson;
  seed: number;
  record: readonly Done[];
  score: Score;
  onAgain: (() => void) | null;
}) {
  const [atS, setAtS] = useState(score.timeS);
  const bench = useMemo(() => replayed(lesson, seed, record, atS), [lesson, seed, record, atS]);
  return (
    <Columns columns="1.4fr 1fr">
      <Stack sx={{ gap: 1.5 }}>
        <Sheet title="Replay" aside={`at ${clock(atS)} of ${clock(score.timeS)}`}>
          <BenchDrawing bench={bench} onDo={null} />
          <Slider
            aria-label="Moment of the attempt"
            value={atS}
            min={0}
            max={score.timeS}
            step={1}
            getAriaValueText={clock}
            onChange={(_event, value) => setAtS(value)}
          />
        </Sheet>
        <Sheet title="Left at each point">
          <DataTable
            label="True errors as it was left"
            rows={score.left}
            keyOf={({ percent }) => percent}
            columns={[
              ['Point', ({ percent }) => `${formatPlain(percent)} %`],
              [
                `True error, % of ${lesson.limitOf}`,
                ({ error }) => <Figure>{Number.isFinite(error) ? formatSigned(error, 3) : '–'}</Figure>,
                'right',
              ],
            ]}
          />
        </Sheet>
        {score.setup !== null && <SetUp setup={score.setup} />}
      </Stack>
      <Stack sx={{ gap: 1.5 }}>
        <ScoreSheet
          score={score}
          onMoment={(moment) => setAtS(Math.min(score.timeS, moment))}
          onAgain={onAgain}
        />
        <Sheet title="What was wrong">
          <Typography sx={{ fontWeight: 600 }}>
            {score.causes.map((cause) => CAUSES[cause]).join('; ')}
          </Typography>
          <Typography sx={{ mt: 1 }}>{lesson.reasoning}</Typography>
        </Sheet>
      </Stack>
    </Columns>
  );
}

/** Setting by setting: what was set otherwise than the sheet has it, and what that would have done. */
function SetUp({ setup }: { setup: NonNullable<Score['setup']> }) {
  return (
    <Sheet title="Against the data sheet" aside={`${setup.same.length} as they should be`}>
      <DataTable
        label="Settings that differ"
        rows={setup.differences}
        keyOf={({ key }) => key}
        none="Every setting is as the sheet has it."
        columns={[
          ['Setting', ({ name }) => name],
          ['Should be', ({ wanted }) => wanted],
          ['Is', ({ read }) => read],
          ['What it does', ({ effect }) => effect],
        ]}
      />
    </Sheet>
  );
}

/** The points with each deduction; pressed, the replay goes to its moment. */
function ScoreSheet({
  score,
  onMoment,
  onAgain,
}: {
  score: Score;
  onMoment: (atS: number) => void;
  onAgain: (() => void) | null;
}) {
  return (
    <Sheet title="Score">
      <Typography sx={{ fontSize: 34, fontWeight: 700, lineHeight: 1.1 }}>
        <Figure>{formatFixed(score.points, 0)}</Figure> of 100
      </Typography>
      <DataTable
        label="Deductions"
        rows={score.deductions.map((one, place) => ({ ...one, place }))}
        keyOf={({ place }) => place}
        none="Nothing was taken away."
        columns={[
          [
            'When',
            ({ atS: moment }) => (
              <Button size="small" onClick={() => onMoment(moment)} sx={{ minWidth: 0 }}>
                {clock(moment)}
              </Button>
            ),
          ],
          ['Points', ({ points }) => <Figure>−{points}</Figure>, 'right'],
          ['Why', ({ why }) => why],
        ]}
      />
      {onAgain !== null && (
        <Button variant="outlined" onClick={onAgain} sx={{ mt: 1.5 }}>
          Again, with another seed
        </Button>
      )}
    </Sheet>
  );
}
