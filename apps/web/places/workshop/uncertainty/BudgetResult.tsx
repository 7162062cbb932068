import { formatFixed, formatSignificant } from '@barys/core/text';
import { workBudget, type Budget, type BudgetModel } from '@barys/core/uncertainty';
import Box from '@mui/material/Box';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import { Figure } from '@/ui/Figure';
import { Sheet } from '@/ui/Sheet';
import { Working } from '@/ui/Working';

const DEGREES_WORD = {
  infinite: 'infinite degrees of freedom',
  'not given': 'degrees of freedom are not given where inputs are correlated',
};

/** The result as it is reported, and the share of each component. */
export function BudgetResult({ budget, model }: { budget: Budget; model: BudgetModel }) {
  const { rounded, effectiveDegreesOfFreedom: degrees } = budget;
  return (
    <Sheet title="Result">
      <Typography sx={{ fontSize: 24, fontWeight: 700, lineHeight: 1.25 }}>
        <Figure>{rounded === null ? formatSignificant(budget.value, 6) : rounded.value}</Figure>
        {rounded === null ? (
          ' with nothing uncertain in it, '
        ) : (
          <>
            {' ± '}
            <Figure>{rounded.uncertainty}</Figure>{' '}
          </>
        )}
        {budget.unit}
      </Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1 }}>
        k = <Figure>{formatFixed(budget.coverageFactor, 2)}</Figure> for{' '}
        <Figure>{formatSignificant(budget.probability * 100, 4)} %</Figure>;{' '}
        {typeof degrees === 'number' ? (
          <>
            effective degrees of freedom <Figure>{formatFixed(Math.floor(degrees), 0)}</Figure> (cut to a
            whole number)
          </>
        ) : (
          DEGREES_WORD[degrees]
        )}
        ; combined standard uncertainty <Figure>{formatSignificant(budget.combined, 3)}</Figure>
      </Typography>
      <Box sx={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label="Components">
        <Table size="small">
          <TableHead>
            <TableRow>
              <TableCell>Component</TableCell>
              <TableCell align="right">u</TableCell>
              <TableCell align="right">c</TableCell>
              <TableCell align="right">|c| u</TableCell>
              <TableCell sx={{ width: '42%' }}>Share</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {budget.components.map((part) => (
              <TableRow key={part.name}>
                <TableCell component="th" scope="row">
                  {part.name}
                </TableCell>
                <TableCell align="right">
                  <Figure>{formatSignificant(part.standardUncertainty, 3)}</Figure>
                </TableCell>
                <TableCell align="right">
                  <Figure>{formatSignificant(part.sensitivity, 4)}</Figure>
                </TableCell>
                <TableCell align="right">
                  <Figure>{formatSignificant(part.contribution, 3)}</Figure>
                </TableCell>
                <TableCell>
                  <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
                    <Box sx={{ flexGrow: 1, height: 10, bgcolor: 'var(--paper)' }}>
                      <Box sx={{ width: `${part.sharePercent}%`, height: 10, bgcolor: 'var(--ink)' }} />
                    </Box>
                    <Figure sx={{ minWidth: 58, textAlign: 'right' }}>
                      {formatFixed(part.sharePercent, 1)} %
                    </Figure>
                  </Box>
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </Box>
      <Typography variant="caption" sx={{ display: 'block', color: 'text.secondary', mt: 0.5 }}>
        u standard uncertainty, c sensitivity, share of the sum of (c u)²
      </Typography>
      <Working of="the budget" steps={() => workBudget(model, budget)} />
    </Sheet>
  );
}
