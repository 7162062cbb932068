import { listPeople, type Person } from '@barys/store/people';
import { plannedWalks, planSite } from '@barys/store/planning';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import dayjs from 'dayjs';
import { PersonLinks } from '@/places/planning/PersonLinks';
import { sundayOf, weekAsked, weekLater } from '@/places/planning/query';
import { walksOf } from '@/places/planning/shape';
import { WalkSheet } from '@/places/planning/WalkSheet';
import { database } from '@/server/database';
import { localDate } from '@/server/dates';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { PrintButton } from '@/ui/PrintButton';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'Walks' };

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
