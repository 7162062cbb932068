import { trailEntries, trailFacets, trailQuerySchema } from '@barys/store/db';
import { listEverybody } from '@barys/store/people';
import Box from '@mui/material/Box';
import { database } from '@/server/database';
import { showMoment } from '@/server/dates';
import { TrailFilters } from '@/places/office/trail/TrailFilters';
import { VerifyButton } from '@/places/office/trail/VerifyButton';
import { detailInWords } from '@/places/office/trail/words';
import { DataTable } from '@/ui/DataTable';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { Sheet } from '@/ui/Sheet';
import { Whole } from '@/ui/Whole';

export const metadata = { title: 'Audit trail' };

const LINES = 100;

type Search = Promise<Record<string, string | string[] | undefined>>;

export default async function TrailPage({ searchParams }: { searchParams: Search }) {
  const query = trailQuerySchema.parse(await searchParams);
  const db = database();
  const [entries, facets, people] = await Promise.all([
    trailEntries(db, query, LINES),
    trailFacets(db),
    listEverybody(db),
  ]);
  const last = entries.at(-1);
  const older = new URLSearchParams(
    Object.entries({ ...query, before: last?.id ?? 0 }).map(([name, value]) => [name, String(value)]),
  );
  return (
    <>
      <PageHead
        title="Audit trail"
        about="Every act with the records that it kept, joined into signed seals."
      >
        <VerifyButton />
      </PageHead>
      <Sheet>
        <TrailFilters
          query={query}
          acts={facets.acts}
          kinds={facets.kinds}
          people={people.map(({ id, name }) => [String(id), name] as const)}
        />
        <DataTable
          label="Audit trail"
          none="No entry matches. Take away a filter."
          rows={entries}
          keyOf={({ id }) => id}
          columns={[
            ['No.', ({ id }) => id],
            ['When', ({ at }) => <Whole>{showMoment(at)}</Whole>],
            ['Who', ({ person }) => <Whole>{person ?? 'nobody signed in'}</Whole>],
            ['Act', ({ act }) => <Whole>{act}</Whole>],
            [
              'On',
              ({ subjectKind, subjectId, subject }) => (
                <Whole>
                  {subjectKind} {subjectKind === 'job' ? `${subjectId}, ` : ''}
                  {subject ?? subjectId}
                </Whole>
              ),
            ],
            [
              'What',
              ({ detail }) => (
                <Box sx={{ overflowWrap: 'anywhere', minWidth: 260 }}>{detailInWords(detail)}</Box>
              ),
            ],
            ['Seal', ({ seal }) => seal ?? 'waits'],
          ]}
        />
        {entries.length === 0 && 'No act matches.'}
        {entries.length === LINES && <LinkButton href={`/office/trail?${older}`}>Older</LinkButton>}
      </Sheet>
    </>
  );
}
