import { formatPlain, PRESSURE_UNITS, SIGNALS } from '@barys/core';
import { listBodies, turndownOf } from '@barys/store';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Link from 'next/link';
import { database } from '@/server/database';
import { Figure } from '@/ui/Figure';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { Scroller } from '@/ui/Scroller';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'Bodies' };

export default async function BodiesPage() {
  const bodies = await listBodies(database());
  return (
    <>
      <PageHead
        title="Bodies"
        about="Models that the plant has: what each can be ranged to, and how it is exchanged."
      >
        <LinkButton href="/office/bodies/new">Add a body</LinkButton>
      </PageHead>
      <Sheet>
        <Scroller label="Bodies">
          <Table size="small">
            <TableHead>
              <TableRow>
                <TableCell>Model</TableCell>
                <TableCell>Kind</TableCell>
                <TableCell>Technology</TableCell>
                <TableCell>Limits</TableCell>
                <TableCell>Least span</TableCell>
                <TableCell>Turndown</TableCell>
                <TableCell>Outputs</TableCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {bodies.map((body) => (
                <TableRow key={body.id}>
                  <TableCell>
                    <Link prefetch={false} href={`/office/bodies/${body.id}`}>
                      {body.model}
                    </Link>
                  </TableCell>
                  <TableCell>{body.kind}</TableCell>
                  <TableCell>{body.technology}</TableCell>
                  <TableCell>
                    <Figure>
                      {formatPlain(body.lowerRangeLimit)} … {formatPlain(body.upperRangeLimit)}{' '}
                      {PRESSURE_UNITS[body.unit].label}
                    </Figure>
                  </TableCell>
                  <TableCell>
                    <Figure>{formatPlain(body.leastSpan)}</Figure>
                  </TableCell>
                  <TableCell>
                    <Figure>{formatPlain(Number(turndownOf(body).toPrecision(3)))}:1</Figure>
                  </TableCell>
                  <TableCell>{body.outputs.map((signal) => SIGNALS[signal].label).join(', ')}</TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
        </Scroller>
      </Sheet>
    </>
  );
}
