import { listEverybody } from '@barys/store';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Link from 'next/link';
import { database } from '@/server/database';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { Scroller } from '@/ui/Scroller';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'People' };

export default async function PeoplePage() {
  const people = await listEverybody(database());
  return (
    <>
      <PageHead
        title="People"
        about="Each act is checked against the role, on the server, whatever a page shows."
      >
        <LinkButton href="/office/people/new">Add a person</LinkButton>
      </PageHead>
      <Sheet>
        <Scroller label="People">
          <Table size="small">
            <TableHead>
              <TableRow>
                <TableCell>Name</TableCell>
                <TableCell>Role</TableCell>
                <TableCell>Login</TableCell>
                <TableCell>Password</TableCell>
                <TableCell>State</TableCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {people.map(({ id, name, role, login, hasPassword, isActive }) => (
                <TableRow key={id}>
                  <TableCell>
                    <Link prefetch={false} href={`/office/people/${id}`}>
                      {name}
                    </Link>
                  </TableCell>
                  <TableCell>{role}</TableCell>
                  <TableCell>{login ?? '—'}</TableCell>
                  <TableCell>{hasPassword ? 'set' : 'none'}</TableCell>
                  <TableCell>{isActive ? 'works here' : 'has left'}</TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
        </Scroller>
      </Sheet>
    </>
  );
}
