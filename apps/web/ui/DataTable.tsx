import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { Scroller } from './Scroller';

/** A plain table: what each row has in each column, in its own frame where it is wider than its sheet. */
export function DataTable<Row>({
  label,
  rows,
  keyOf,
  columns,
  isFaint = () => false,
  none = 'None yet.',
}: {
  /** What the table is of, for those who do not see it. */
  label: string;
  rows: readonly Row[];
  keyOf: (row: Row) => string | number;
  /** Columns of figures that are compared with one another stand to the right. */
  columns: readonly (readonly [heading: string, cell: (row: Row) => ReactNode, side?: 'right'])[];
  /** Rows that are there for completeness. */
  isFaint?: (row: Row) => boolean;
  /** What to say where there is no row. */
  none?: string;
}) {
  if (rows.length === 0) return <Typography sx={{ color: 'text.secondary' }}>{none}</Typography>;
  return (
    <Scroller label={label}>
      <Table
        size="small"
        sx={{
          '& > tbody > tr': { verticalAlign: 'baseline' },
          '& > tbody > tr[data-faint] > td': { color: 'text.secondary' },
        }}
      >
        <TableHead>
          <TableRow>
            {columns.map(([heading, , side]) => (
              <TableCell key={heading} align={side ?? 'left'}>
                {heading}
              </TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody>
          {rows.map((row) => (
            <tr key={keyOf(row)} data-faint={isFaint(row) || undefined}>
              {columns.map(([heading, cell, side]) => (
                <td key={heading} data-side={side}>
                  {cell(row)}
                </td>
              ))}
            </tr>
          ))}
        </TableBody>
      </Table>
    </Scroller>
  );
}
