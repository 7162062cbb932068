import { formatSigned } from '@barys/core/text';
import type { KeptRun } from '@barys/store/results';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { showDate } from '@/server/dates';
import { Corridor } from '@/ui/Corridor';
import type { CorridorPoint, CorridorShape } from '@/ui/corridor-shape';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { Sheet } from '@/ui/Sheet';
import { ChooseRuns } from './ChooseRuns';

/** A run by name. */
export const runWords = ({ doneOn, kind }: KeptRun): string =>
  `${showDate(doneOn)}, ${kind === 'as-found' ? 'as found' : 'as left'}`;

const placesOf = ({ at, isDown, error, limit }: KeptRun): CorridorPoint[] =>
  at.flatMap((x, index) => {
    const most = limit[index] ?? 0;
    return most > 0
      ? [
          {
            x,
            y: (error[index] ?? 0) / most,
            direction: isDown[index] === true ? 'down' : 'up',
            reach: null,
            accepted: 1,
          },
        ]
      : [];
  });

const shapeOf = (first: KeptRun, second: KeptRun): CorridorShape => ({
  axis: { from: 0, to: 100, ticks: [0, 25, 50, 75, 100].map((at) => ({ at, word: `${at} %` })) },
  adjustAbove: second.adjustAbovePercent / 100,
  asFound: placesOf(first),
  asLeft: placesOf(second),
  predicted: [],
  fitted: [],
  guard: [],
});

interface Place {
  readonly key: string;
  readonly words: string;
  readonly first: number | null;
  readonly second: number | null;
}

/** The errors of two runs side by side, point by point; where one was not read there, nothing stands. */
function placesBeside(first: KeptRun, second: KeptRun): Place[] {
  const named = (run: KeptRun) => {
    const seen = new Map<string, number>();
    return run.at.map((at, index) => {
      const words = `${at} % ${run.isDown[index] === true ? 'falling' : 'rising'}`;
      const time = (seen.get(words) ?? 0) + 1;
      seen.set(words, time);
      return {
        key: `${words} ${time}`,
        words: time > 1 ? `${words}, cycle ${time}` : words,
        error: run.error[index] ?? null,
      };
    });
  };
  const [one, other] = [named(first), named(second)];
  const places = new Map([...one, ...other].map(({ key, words }) => [key, words]));
  return [...places].map(([key, words]) => ({
    key,
    words,
    first: one.find((place) => place.key === key)?.error ?? null,
    second: other.find((place) => place.key === key)?.error ?? null,
  }));
}

const figure = (value: number | null): string => (value === null ? '—' : formatSigned(value, 3));

/** Any two runs of the history in one corridor, with the figures beside it. */
export function CompareSheet({
  runs,
  first,
  second,
}: {
  runs: readonly KeptRun[];
  first: KeptRun;
  second: KeptRun;
}) {
  return (
    <Sheet
      title="Two runs in one corridor"
      aside="hollow: the first, solid: the second; each in units of its own limit"
    >
      <ChooseRuns
        runs={runs.map((run) => ({ id: run.id, words: runWords(run) }))}
        first={first.id}
        second={second.id}
      />
      {first.rangeKey !== second.rangeKey && (
        <Typography variant="body2" sx={{ mb: 1 }}>
          Two ranges: {first.rangeKey}, and {second.rangeKey}. Errors are each of their own span.
        </Typography>
      )}
      <Box sx={{ display: 'grid', gap: 2, gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: '1.3fr 1fr' } }}>
        <Corridor shape={shapeOf(first, second)} height={260} />
        <DataTable
          label="Errors of the two runs"
          rows={placesBeside(first, second)}
          keyOf={({ key }) => key}
          columns={[
            ['Point', ({ words }) => words],
            ['First, % of span', (place) => <Figure>{figure(place.first)}</Figure>, 'right'],
            ['Second, % of span', (place) => <Figure>{figure(place.second)}</Figure>, 'right'],
            [
              'Difference',
              (place) => (
                <Figure>
                  {figure(place.first === null || place.second === null ? null : place.second - place.first)}
                </Figure>
              ),
              'right',
            ],
          ]}
        />
      </Box>
    </Sheet>
  );
}
