import { formatPlain } from '@barys/core';
import { listProcedures } from '@barys/store';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Link from 'next/link';
import { pointsInWords, ruleInWords } from '@/procedures/words';
import { database } from '@/server/database';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { Scroller } from '@/ui/Scroller';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'Procedures' };

export default async function ProceduresPage() {
  const procedures = await listProcedures(database());
  return (
    <>
      <PageHead
        title="Procedures"
        about="How a calibration is done: points, order, settling, limits, questions and cautions."
      >
        <LinkButton href="/office/procedures/new">Add a procedure</LinkButton>
      </PageHead>
      <Sheet>
        <Scroller label="Procedures">
          <Table size="small">
            <TableHead>
              <TableRow>
                <TableCell>Name</TableCell>
                <TableCell>Version</TableCell>
                <TableCell>Points</TableCell>
                <TableCell>Decided by</TableCell>
                <TableCell>Least ratio</TableCell>
                <TableCell>Instruments</TableCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {procedures.map(({ id, name, version, content, instruments }) => (
                <TableRow key={id}>
                  <TableCell>
                    <Link prefetch={false} href={`/office/procedures/${id}`}>
                      {name}
                    </Link>
                  </TableCell>
                  <TableCell>{version}</TableCell>
                  <TableCell>
                    {pointsInWords(content)}
                    {content.isAsFoundOnly ? '; as found only' : ''}
                  </TableCell>
                  <TableCell>{ruleInWords(content.decisionRule)}</TableCell>
                  <TableCell>{formatPlain(content.leastRatio)}:1</TableCell>
                  <TableCell>{instruments}</TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
        </Scroller>
      </Sheet>
    </>
  );
}
