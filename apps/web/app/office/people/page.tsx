import { listEverybody } from '@barys/store/people';
import Link from 'next/link';
import { database } from '@/server/database';
import { DataTable } from '@/ui/DataTable';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'People' };

export default async function PeoplePage() {
  return (
    <>
      <PageHead
        title="People"
        about="Each act is checked against the role, on the server, whatever a page shows."
      >
        <LinkButton href="/office/people/new">Add a person</LinkButton>
      </PageHead>
      <Sheet>
        <DataTable
          label="People"
          rows={await listEverybody(database())}
          keyOf={({ id }) => id}
          columns={[
            [
              'Name',
              ({ id, name }) => (
                <Link prefetch={false} href={`/office/people/${id}`}>
                  {name}
                </Link>
              ),
            ],
            ['Role', ({ role }) => role],
            ['Login', ({ login }) => login ?? '—'],
            ['Password', ({ hasPassword }) => (hasPassword ? 'set' : 'none')],
            ['State', ({ isActive }) => (isActive ? 'works here' : 'has left')],
            ['Safety intervals', ({ decidesSafety }) => (decidesSafety ? 'entrusted' : '—')],
          ]}
        />
      </Sheet>
    </>
  );
}
