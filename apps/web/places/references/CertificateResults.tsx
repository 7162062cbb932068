import { formatFixed, formatPlain } from '@barys/core/text';
import type { Standard } from '@barys/store/registers';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import { Figure } from '@/ui/Figure';
import { Scroller } from '@/ui/Scroller';
import { unitWord } from './words';

/** Decimal places that a figure needs to be shown whole. */
const placesOf = (value: number): number => {
  const [digits = '', power = '0'] = value.toExponential().split('e');
  return Math.max(0, digits.replace('-', '').replace('.', '').length - 1 - Number(power));
};

/** What the certificate in force says of each range, point by point; nothing where it has one figure for all. */
export function CertificateResults({ standard }: { standard: Pick<Standard, 'certificates' | 'modules'> }) {
  const [inForce] = standard.certificates;
  return (inForce?.results ?? []).map(({ moduleId, points }) => {
    const range = standard.modules.find(({ id }) => id === moduleId);
    if (range === undefined) return null;
    const unit = unitWord(range.unit);
    // One place for both columns, that of the finest figure: they are added up.
    const places = Math.max(
      ...points.flatMap(({ correction, uncertainty }) => [correction, uncertainty].map(placesOf)),
    );
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
                  <TableCell align="right">
                    <Figure>{formatPlain(at)}</Figure>
                  </TableCell>
                  <TableCell align="right">
                    <Figure>{formatFixed(correction, places)}</Figure>
                  </TableCell>
                  <TableCell align="right">
                    <Figure>{formatFixed(uncertainty, places)}</Figure>
                  </TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
        </Scroller>
      </div>
    );
  });
}
