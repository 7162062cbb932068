import { findLesson, LESSONS } from '@barys/rig/practice';
import type { Progress } from '@barys/store/practice';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { Sheet } from '@/ui/Sheet';
import { showMoment } from '@/server/dates';

/** The lessons from easy to hard, with one's own best and last. */
export function LessonList({ own }: { own: readonly Progress[] }) {
  return (
    <Sheet title="Lessons" aside="nothing here is a real record">
      <DataTable
        label="Lessons"
        rows={LESSONS}
        keyOf={({ id }) => id}
        columns={[
          ['Lesson', ({ id, title }) => <Link href={`/practice/${encodeURIComponent(id)}`}>{title}</Link>],
          ['What you are told', ({ brief }) => brief],
          ['Time', ({ minutes }) => <Box sx={{ whiteSpace: 'nowrap' }}>{minutes} min</Box>, 'right'],
          ['Best', ({ id }) => best(own, id), 'right'],
          ['Last', ({ id }) => <Last of={own.find(({ lesson }) => lesson === id)} />, 'right'],
        ]}
      />
    </Sheet>
  );
}

function best(own: readonly Progress[], lesson: string) {
  const one = own.find((progress) => progress.lesson === lesson);
  return one === undefined ? '–' : <Figure>{one.best}</Figure>;
}

/** The points of the last attempt, which lead to its replay. */
function Last({ of }: { of: Progress | undefined }) {
  if (of === undefined) return '–';
  return (
    <Link
      href={`/practice/attempts/${of.lastId}`}
      aria-label={`Last attempt at ${titleOf(of.lesson)} by ${of.by}: ${of.last} of 100`}
    >
      <Figure>{of.last}</Figure>
    </Link>
  );
}

/** A free bench by what was chosen at it. */
const titleOf = (id: string): string => LESSONS.find((one) => one.id === id)?.title ?? freeTitle(id);
const freeTitle = (id: string): string => id.charAt(0).toUpperCase() + id.slice(1);

/** What one did at free benches. */
export function FreeAttempts({ own }: { own: readonly Progress[] }) {
  const free = own.filter(({ lesson }) => !LESSONS.some(({ id }) => id === lesson));
  if (free.length === 0) return null;
  return (
    <Sheet title="At free benches">
      <DataTable
        label="Attempts at free benches"
        rows={free}
        keyOf={({ lesson }) => lesson}
        columns={[
          [
            'Bench',
            ({ lesson }) =>
              findLesson(lesson) === undefined ? (
                freeTitle(lesson)
              ) : (
                <Link href={`/practice/${encodeURIComponent(lesson)}`}>{freeTitle(lesson)}</Link>
              ),
          ],
          ['Best', ({ best }) => <Figure>{best}</Figure>, 'right'],
          ['Last', (one) => <Last of={one} />, 'right'],
        ]}
      />
    </Sheet>
  );
}

/** How everybody stands, for whoever trains them. */
export function Trainees({ all }: { all: readonly Progress[] }) {
  return (
    <Sheet title="Who practised what">
      {all.length === 0 && (
        <Typography sx={{ color: 'text.secondary' }}>
          Attempts of everybody stand here, once there are some.
        </Typography>
      )}
      {all.length > 0 && (
        <DataTable
          label="Progress of everybody"
          rows={all}
          keyOf={({ by, lesson }) => `${by} ${lesson}`}
          columns={[
            ['Who', ({ by }) => by],
            ['Lesson', ({ lesson }) => titleOf(lesson)],
            ['Attempts', ({ attempts }) => <Figure>{attempts}</Figure>, 'right'],
            ['Best', ({ best }) => <Figure>{best}</Figure>, 'right'],
            ['Last', (one) => <Last of={one} />, 'right'],
            ['When', ({ lastAt }) => showMoment(lastAt)],
          ]}
        />
      )}
    </Sheet>
  );
}
