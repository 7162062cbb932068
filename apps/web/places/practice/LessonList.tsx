import { LESSONS } from '@barys/rig/practice';
import type { Progress } from '@barys/store/practice';
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

const titleOf = (id: string): string => LESSONS.find((one) => one.id === id)?.title ?? id;

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
