import type { OnTheWay } from '@barys/store/planning';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import type { Walk } from '@/places/planning/shape';
import { clockAt, dayWord, dueWords } from '@/places/planning/words';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { Sheet } from '@/ui/Sheet';

export function WalkSheet({
  walk,
  name,
  dayBegins,
  graceDays,
}: {
  walk: Walk;
  name: string;
  dayBegins: string;
  graceDays: number;
}) {
  const jobs = walk.stops.flatMap((stop) => stop.jobs);
  const columns: Parameters<typeof DataTable<OnTheWay>>[0]['columns'] = [
    ['From', ({ start }) => <Figure>{clockAt(dayBegins, start)}</Figure>],
    ['Area', ({ instrument }) => instrument.area],
    [
      'Instrument',
      ({ instrument: { tag, service } }) => (
        <>
          <Link prefetch={false} href={`/instruments/${encodeURIComponent(tag)}`}>
            {tag}
          </Link>{' '}
          {service}
        </>
      ),
    ],
    ['min', ({ minutes }) => <Figure>{minutes}</Figure>, 'right'],
    [
      'References',
      ({ references }) =>
        references.map((tag, place) => (
          <span key={tag} style={{ whiteSpace: 'nowrap' }}>
            {tag}
            {place < references.length - 1 && ', '}
          </span>
        )),
    ],
    ['Isolated with', ({ instrument }) => instrument.isolatedWith],
    ['Hazards', ({ instrument }) => instrument.hazards.join(', ')],
    ['Due', ({ instrument, day }) => dueWords(instrument.dueOn, day, graceDays).replace(/^due /, '')],
  ];
  return (
    <Sheet
      title={`${dayWord(walk.day)}, ${name}`}
      aside={`${walk.walkMinutes} min of walking, ${walk.stops.length} ${walk.stops.length === 1 ? 'area' : 'areas'}`}
      sx={{ breakInside: 'avoid' }}
    >
      <Typography sx={{ mb: 0.5 }}>
        {walk.references.length === 0 ? (
          'No reference is named to take along.'
        ) : (
          <>
            Take <strong>{walk.references.join(', ')}</strong>.
          </>
        )}
      </Typography>
      <DataTable
        label={`Walk, ${dayWord(walk.day)}, ${name}`}
        rows={jobs}
        keyOf={({ id }) => id}
        columns={columns}
      />
    </Sheet>
  );
}
