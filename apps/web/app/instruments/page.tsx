import { listInstruments } from '@barys/store';
import { formatPlain, PRESSURE_UNITS } from '@barys/core';
import Box from '@mui/material/Box';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import { database } from '@/server/database';
import { dueInWords, localDate } from '@/server/dates';
import { Figure } from '@/ui/Figure';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'Instruments' };

const LINES = 200;

export default async function InstrumentsPage() {
  const instruments = await listInstruments(database(), LINES);
  const today = localDate(new Date());
  return (
    <>
      <Typography variant="h1" sx={{ mb: 1.5 }}>
        Instruments
      </Typography>
      <Sheet>
        <Box sx={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label="Instruments">
          <Table size="small">
            <TableHead>
              <TableRow>
                <TableCell>Tag</TableCell>
                <TableCell>Service</TableCell>
                <TableCell>Area</TableCell>
                <TableCell>Range</TableCell>
                <TableCell>Tolerance</TableCell>
                <TableCell>Due</TableCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {instruments.map(({ id, tag, service, area, configuration, tolerance, dueOn }) => (
                <TableRow key={id}>
                  <TableCell>
                    <Link prefetch={false} href={`/instruments/${tag}`}>
                      {tag}
                    </Link>
                  </TableCell>
                  <TableCell>{service}</TableCell>
                  <TableCell>{area}</TableCell>
                  <TableCell>
                    <Figure>
                      {formatPlain(configuration.lrv)} … {formatPlain(configuration.urv)}{' '}
                      {PRESSURE_UNITS[configuration.inputUnit].label}
                    </Figure>
                  </TableCell>
                  <TableCell>
                    <Figure>±{formatPlain(tolerance.percentOfSpan)} % of span</Figure>
                  </TableCell>
                  <TableCell>{dueInWords(dueOn, today)}</TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
        </Box>
      </Sheet>
    </>
  );
}
