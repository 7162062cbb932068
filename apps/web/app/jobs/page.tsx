import { listJobs } from '@barys/store/jobs';
import { listPeople, viewsOf } from '@barys/store/people';
import { jobAddress, readJobAddress } from '@/places/jobs/list/jobAddress';
import { JobList } from '@/places/jobs/list/JobList';
import { ViewBar } from '@/places/views/ViewBar';
import { database } from '@/server/database';
import { actingPerson } from '@/server/person';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';

export const metadata = { title: 'Jobs' };

type Search = Promise<Record<string, string | string[] | undefined>>;

export default async function JobsPage({ searchParams }: { searchParams: Search }) {
  const view = readJobAddress(await searchParams);
  const db = database();
  const person = await actingPerson();
  const [page, people, views] = await Promise.all([
    listJobs(db, view),
    listPeople(db),
    person === null ? [] : viewsOf(db, person.id, 'jobs'),
  ]);
  return (
    <>
      <PageHead title="Jobs">
        {person !== null && <ViewBar place="jobs" views={views} query={jobAddress(view)} />}
        <LinkButton href="/jobs/hand-over">Hand-over</LinkButton>
      </PageHead>
      <JobList page={page} view={view} people={people.map(({ name }) => name)} />
    </>
  );
}
