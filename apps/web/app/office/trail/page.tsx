import { listEverybody, trailEntries, trailFacets, trailQuerySchema } from '@barys/store';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { database } from '@/server/database';
import { showMoment } from '@/server/dates';
import { TrailFilters } from '@/trail/TrailFilters';
import { VerifyButton } from '@/trail/VerifyButton';
import { detailInWords } from '@/trail/words';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { Scroller } from '@/ui/Scroller';
import { Sheet } from '@/ui/Sheet';

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
        about="Every act, in the order it was done, each chained to the one before."
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
        <Scroller label="Audit trail">
          <Table size="small" sx={{ '& td': { verticalAlign: 'top' } }}>
            <TableHead>
              <TableRow>
                <TableCell>No.</TableCell>
                <TableCell>When</TableCell>
                <TableCell>Who</TableCell>
                <TableCell>Act</TableCell>
                <TableCell>On</TableCell>
                <TableCell>What</TableCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {entries.map((entry) => (
                <TableRow key={entry.id}>
                  <TableCell>{entry.id}</TableCell>
                  <TableCell sx={{ whiteSpace: 'nowrap' }}>{showMoment(entry.at)}</TableCell>
                  <TableCell sx={{ whiteSpace: 'nowrap' }}>{entry.person}</TableCell>
                  <TableCell sx={{ whiteSpace: 'nowrap' }}>{entry.act}</TableCell>
                  <TableCell sx={{ whiteSpace: 'nowrap' }}>
                    {entry.subjectKind} {entry.subjectKind === 'job' ? `${entry.subjectId}, ` : ''}
                    {entry.subject ?? entry.subjectId}
                  </TableCell>
                  <TableCell sx={{ overflowWrap: 'anywhere', minWidth: 260 }}>
                    {detailInWords(entry.detail)}
                  </TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
        </Scroller>
        {entries.length === 0 && 'No act matches.'}
        {entries.length === LINES && <LinkButton href={`/office/trail?${older}`}>Older</LinkButton>}
      </Sheet>
    </>
  );
}
