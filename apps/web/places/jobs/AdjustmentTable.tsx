import type { Adjustment } from '@barys/store/jobs';
import Box from '@mui/material/Box';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { unitWord } from '@/places/references/words';
import { readInWords, settingInWords } from './advice/words';
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
          {adjustments.map((adjustment) => (
            <TableRow key={adjustment.id}>
              <TableCell>{ADJUSTMENT_WORD[adjustment.kind]}</TableCell>
              {[
                `${adjustment.atAppliedText} ${unitWord(adjustment.inputUnit)}`,
                readInWords(adjustment.beforeText, adjustment),
                readInWords(adjustment.afterText, adjustment),
              ].map((read, index) => (
                <TableCell key={index} align="right" sx={{ whiteSpace: 'nowrap' }}>
                  <Figure>{read}</Figure>
                </TableCell>
              ))}
              <TableCell>
                {[
                  adjustment.toReceiver === '' ? '' : `Until ${adjustment.toReceiver} agreed`,
                  adjustment.description,
                  settingInWords(adjustment),
                  adjustment.against,
                ]
                  .filter((one) => one !== '')
                  .map((one) => (
                    <div key={one}>{one}</div>
                  ))}
              </TableCell>
              <TableCell>
                {adjustment.madeBy}, {showMoment(adjustment.madeAt)}
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </Box>
  );
}
