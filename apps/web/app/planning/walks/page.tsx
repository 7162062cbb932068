import { listPeople, type Person } from '@barys/store/people';
import { plannedWalks, planSite, type OnTheWay } from '@barys/store/planning';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import dayjs from 'dayjs';
import Link from 'next/link';
import { PersonLinks } from '@/places/planning/PersonLinks';
import { sundayOf, weekAsked, weekLater } from '@/places/planning/query';
import { walksOf, type Walk } from '@/places/planning/shape';
import { clockAt, dayWord, dueWords } from '@/places/planning/words';
import { database } from '@/server/database';
import { localDate } from '@/server/dates';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { PrintButton } from '@/ui/PrintButton';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'Walks' };

function WalkSheet({
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

type Search = Promise<Record<string, string | string[] | undefined>>;

const nameOf = (people: readonly Person[], id: number): string =>
  people.find((person) => person.id === id)?.name ?? 'no longer here';

export default async function WalksPage({ searchParams }: { searchParams: Search }) {
  const { from, person } = await searchParams;
  const db = database();
  const monday = weekAsked(from, localDate(new Date()));
  const [planned, site, people] = await Promise.all([
    plannedWalks(db, monday, sundayOf(monday)),
    planSite(db),
    listPeople(db),
  ]);
  const chosen = people.find(({ id }) => String(id) === person) ?? null;
  const walks = walksOf(planned, site.walkMinutes).filter(
    ({ personId }) => chosen === null || personId === chosen.id,
  );
  const address = (patch: { from?: string; person?: number | null }): string => {
    const who = patch.person === undefined ? (chosen?.id ?? null) : patch.person;
    return `/planning/walks?${new URLSearchParams({
      from: patch.from ?? monday,
      ...(who === null ? {} : { person: String(who) }),
    })}`;
  };
  return (
    <>
      <PageHead
        title={`Walks, week of ${dayjs(monday).format('D MMMM YYYY')}`}
        about="What is planned and not done, in the order of the walk. Times follow from it."
      >
        <LinkButton href={address({ from: weekLater(monday, -1) })}>Week before</LinkButton>
        <LinkButton href={address({ from: weekLater(monday, 1) })}>Next week</LinkButton>
        <LinkButton href={`/calendar.ics?plan=${chosen?.id ?? 'all'}`} isFile>
          Calendar (iCal)
        </LinkButton>
        <PrintButton />
      </PageHead>
      <PersonLinks
        links={[
          { name: 'Everybody', href: address({ person: null }), isHere: chosen === null },
          ...people
            .filter(
              ({ id, role }) => role === 'technician' || planned.some(({ personId }) => personId === id),
            )
            .map(({ id, name }) => ({
              name,
              href: address({ person: id }),
              isHere: chosen?.id === id,
            })),
        ]}
      />
      <Stack sx={{ gap: 1.5 }}>
        {walks.length === 0 && (
          <Sheet>
            <Typography sx={{ color: 'text.secondary' }}>
              Nothing is planned here. A planner makes the plan of the week; its walks stand here day by day.
            </Typography>
          </Sheet>
        )}
        {walks.map((walk) => (
          <WalkSheet
            key={`${walk.day} ${walk.personId}`}
            walk={walk}
            name={nameOf(people, walk.personId)}
            dayBegins={site.dayBegins}
            graceDays={site.graceDays}
          />
        ))}
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          A plan is no permit: each job asks for its own authorisation at the place. Subscribe to the calendar
          with a reading token of yours: add &token=… to its address.
        </Typography>
      </Stack>
    </>
  );
}
