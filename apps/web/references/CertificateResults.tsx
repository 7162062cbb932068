import { formatPlain } from '@barys/core';
import type { Standard } from '@barys/store';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import { Figure } from '@/ui/Figure';
import { Scroller } from '@/ui/Scroller';
import { unitWord } from './words';

/** What the certificate in force says of each range, point by point; nothing where it has one figure for all. */
export function CertificateResults({ standard }: { standard: Pick<Standard, 'certificates' | 'modules'> }) {
  const [inForce] = standard.certificates;
  return (inForce?.results ?? []).map(({ moduleId, points }) => {
    const range = standard.modules.find(({ id }) => id === moduleId);
    if (range === undefined) return null;
    const unit = unitWord(range.unit);
    return (
      <div key={moduleId}>
        <Typography variant="body2" sx={{ mt: 1.5 }}>
          {inForce?.number}
          {range.name === '' ? '' : `, ${range.name}`}: runs are judged with these corrections and
          uncertainties.
        </Typography>
        <Scroller label={`Results of ${inForce?.number} ${range.name}`.trim()}>
          <Table size="small">
            <TableHead>
              <TableRow>
                <TableCell align="right">Reading, {unit}</TableCell>
                <TableCell align="right">Correction</TableCell>
                <TableCell align="right">U, k = 2</TableCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {points.map(({ at, correction, uncertainty }) => (
                <TableRow key={at}>
                  {[at, correction, uncertainty].map((value, column) => (
                    <TableCell key={column} align="right">
                      <Figure>{formatPlain(value)}</Figure>
                    </TableCell>
                  ))}
                </TableRow>
              ))}
            </TableBody>
          </Table>
        </Scroller>
      </div>
    );
  });
}
