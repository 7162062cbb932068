import type { Adjustment } from '@barys/store/jobs';
import Box from '@mui/material/Box';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { unitWord } from '@/places/references/words';
import { showMoment } from '@/server/dates';
import { Figure } from '@/ui/Figure';
import { ADJUSTMENT_WORD } from './words';

export function AdjustmentTable({ adjustments }: { adjustments: readonly Adjustment[] }) {
  return (
    <Box sx={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label="Adjustments">
      <Table size="small">
        <TableHead>
          <TableRow>
            <TableCell>What</TableCell>
            <TableCell align="right">At</TableCell>
            <TableCell align="right">Before</TableCell>
            <TableCell align="right">After</TableCell>
            <TableCell>Note</TableCell>
            <TableCell>Who, when</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {adjustments.map(
            ({
              id,
              kind,
              description,
              inputUnit,
              outputUnit,
              atAppliedText,
              beforeText,
              afterText,
              madeBy,
              madeAt,
            }) => (
              <TableRow key={id}>
                <TableCell>{ADJUSTMENT_WORD[kind]}</TableCell>
                {(
                  [
                    [atAppliedText, inputUnit],
                    [beforeText, outputUnit],
                    [afterText, outputUnit],
                  ] as const
                ).map(([text, unit], index) => (
                  <TableCell key={index} align="right" sx={{ whiteSpace: 'nowrap' }}>
                    <Figure>{text}</Figure> {unitWord(unit)}
                  </TableCell>
                ))}
                <TableCell>{description}</TableCell>
                <TableCell>
                  {madeBy}, {showMoment(madeAt)}
                </TableCell>
              </TableRow>
            ),
          )}
        </TableBody>
      </Table>
    </Box>
  );
}
