import { formatSigned, formatSignificant } from '@barys/core/text';
import { unitLabel, type PressureUnit } from '@barys/core/units';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { Figure } from '@/ui/Figure';
import { cellsOf, type ReferenceRow } from './columns';

/** One pressure in the columns of one liquid, each with its difference from the first reference. */
export function ReferenceTable({
  liquid,
  references,
  rows,
  value,
  unit,
  digits,
  chosen,
  onChoose,
}: {
  liquid: string;
  references: readonly string[];
  rows: readonly ReferenceRow[];
  value: number;
  unit: PressureUnit;
  digits: number;
  chosen: string;
  onChoose: (unit: PressureUnit) => void;
}) {
  return (
    <Box sx={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label={`${liquid} references`}>
      <Table size="small">
        <TableHead>
          <TableRow>
            <TableCell>{liquid} at</TableCell>
            {references.map((reference) => (
              <TableCell key={reference} align="right">
                {reference}
              </TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody>
          {rows.map((row) => (
            <TableRow key={row.name}>
              <TableCell component="th" scope="row">
                {row.name}
              </TableCell>
              {cellsOf(row, value, unit).map((cell, index) => (
                <TableCell key={references[index]} align="right">
                  {cell === null ? (
                    <Box component="span" sx={{ color: 'text.secondary' }}>
                      not in use
                    </Box>
                  ) : (
                    <Button
                      onClick={() => onChoose(cell.unit)}
                      aria-pressed={cell.unit === chosen}
                      aria-label={`${formatSignificant(cell.value, digits)} ${unitLabel(cell.unit)}`}
                      sx={{
                        display: 'block',
                        width: '100%',
                        p: 0.25,
                        textAlign: 'right',
                        fontWeight: 400,
                        lineHeight: 1.3,
                        color: 'text.primary',
                        bgcolor: cell.unit === chosen ? 'var(--wash)' : 'transparent',
                      }}
                    >
                      <Figure>{formatSignificant(cell.value, digits)}</Figure>
                      <Box sx={{ color: 'text.secondary', fontSize: 13 }}>
                        {index === 0 ? 'reference' : `${formatSigned(cell.differencePercent, 4)} %`}
                      </Box>
                    </Button>
                  )}
                </TableCell>
              ))}
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </Box>
  );
}
