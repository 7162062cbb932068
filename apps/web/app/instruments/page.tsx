import { listPeople, viewsOf } from '@barys/store/people';
import { listFacets, listInstruments } from '@barys/store/registers';
import { InstrumentList } from '@/places/instruments/InstrumentList';
import { listAddress, readListAddress } from '@/places/instruments/listAddress';
import { ViewBar } from '@/places/views/ViewBar';
import { database } from '@/server/database';
import { localDate } from '@/server/dates';
import { actingPerson } from '@/server/person';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';

export const metadata = { title: 'Instruments' };

type Search = Promise<Record<string, string | string[] | undefined>>;

export default async function InstrumentsPage({ searchParams }: { searchParams: Search }) {
  const view = readListAddress(await searchParams);
  const db = database();
  const today = localDate(new Date());
  const person = await actingPerson();
  const [page, facets, people, views] = await Promise.all([
    listInstruments(db, view, today),
    listFacets(db),
    listPeople(db),
    person === null ? [] : viewsOf(db, person.id, 'instruments'),
  ]);
  return (
    <>
      <PageHead title="Instruments">
        {person !== null && <ViewBar place="instruments" views={views} query={listAddress(view)} />}
        <LinkButton href={`/instruments/export?${listAddress(view)}`} isFile>
          CSV
        </LinkButton>
        <LinkButton href="/instruments/new">Add an instrument</LinkButton>
      </PageHead>
      <InstrumentList
        page={page}
        view={view}
        today={today}
        facets={facets}
        people={people.map(({ name }) => name)}
      />
    </>
  );
}
