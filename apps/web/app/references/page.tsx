import { listReferences } from '@barys/store';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import { accuracyWords, rangeWords } from '@/references/words';
import { database } from '@/server/database';
import { dueInWords, localDate } from '@/server/dates';
import { Figure } from '@/ui/Figure';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { Scroller } from '@/ui/Scroller';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'References' };

export default async function ReferencesPage() {
  const references = await listReferences(database());
  const today = localDate(new Date());
  return (
    <>
      <PageHead
        title="References"
        about="What measurements are compared with: each usable range, how good it is and until when."
      >
        <LinkButton href="/references/new">Add a reference</LinkButton>
      </PageHead>
      <Sheet>
        {references.length === 0 ? (
          <Typography>None yet. Add the first, then its ranges and its certificate.</Typography>
        ) : (
          <Scroller label="References">
            <Table size="small">
              <TableHead>
                <TableRow>
                  <TableCell>Tag</TableCell>
                  <TableCell>What it is</TableCell>
                  <TableCell>Range</TableCell>
                  <TableCell>Accuracy</TableCell>
                  <TableCell>State</TableCell>
                  <TableCell>Due</TableCell>
                </TableRow>
              </TableHead>
              <TableBody>
                {references.map((reference) => (
                  <TableRow key={reference.id}>
                    <TableCell>
                      <Link prefetch={false} href={`/references/${reference.tag}`}>
                        {reference.tag}
                      </Link>
                    </TableCell>
                    <TableCell>
                      {reference.description}
                      {reference.name === '' ? '' : `, ${reference.name}`}
                    </TableCell>
                    <TableCell>
                      <Figure>{rangeWords(reference)}</Figure>
                    </TableCell>
                    <TableCell>{accuracyWords({ ...reference, isActive: true })}</TableCell>
                    <TableCell>
                      {reference.state}
                      {reference.location === '' ? '' : `, ${reference.location}`}
                    </TableCell>
                    <TableCell>
                      {reference.dueOn === null ? 'no certificate' : dueInWords(reference.dueOn, today)}
                    </TableCell>
                  </TableRow>
                ))}
              </TableBody>
            </Table>
          </Scroller>
        )}
      </Sheet>
    </>
  );
}
