'use client';
import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { Figure } from '@/ui/Figure';
import { Scroller } from '@/ui/Scroller';
import { Working } from '@/ui/Working';
import type { ShownAct } from './shownActs';
import { SufficesMark } from './SufficesMark';

/** Acts that are taken by the buttons of the decision, not by a row. */
const BY_DECISION: ReadonlySet<ShownAct['act']> = new Set(['none', 'repair']);

/** All possible acts with what each would leave; one that does not lead can be taken instead. Stands inside a form. */
export function ActTable({ acts, isPending }: { acts: readonly ShownAct[]; isPending: boolean }) {
  return (
    <Scroller label="Possible acts">
      <Table size="small" sx={{ '& td, & th': { px: 1, py: 0.25 } }}>
        <TableHead>
          <TableRow>
            <TableCell>Act</TableCell>
            <TableCell align="right">Worst after, % of span</TableCell>
            <TableCell>Adjust limit</TableCell>
            <TableCell />
          </TableRow>
        </TableHead>
        <TableBody>
          {acts.map(({ act, name, worst, suffices, remark, isLead, working }) => (
            <TableRow key={act} sx={isLead ? { bgcolor: 'var(--wash)', '& td': { fontWeight: 600 } } : {}}>
              <TableCell>{name}</TableCell>
              <TableCell align="right">{worst === '' ? '–' : <Figure>{worst}</Figure>}</TableCell>
              <TableCell>{suffices === null ? '–' : <SufficesMark suffices={suffices} />}</TableCell>
              <TableCell sx={{ color: 'text.secondary', fontSize: 14, minWidth: { xs: 170, sm: 0 } }}>
                {remark}
                {!isLead && !BY_DECISION.has(act) && (
                  <Button
                    type="submit"
                    name="act"
                    value={act}
                    size="small"
                    aria-label={`Do this instead: ${name}`}
                    aria-busy={isPending}
                    sx={{ ml: remark === '' ? 0 : 1, minHeight: { xs: 44, sm: 32 }, py: 0 }}
                  >
                    Do this instead
                  </Button>
                )}
                {working.length > 0 && !isLead && <Working of={name.toLowerCase()} steps={working} />}
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </Scroller>
  );
}
