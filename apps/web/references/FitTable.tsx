import type { Fit } from '@barys/store';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Link from 'next/link';
import { showDate } from '@/server/dates';
import { Figure } from '@/ui/Figure';
import { ratioInWords } from '@/ui/ratio';
import { Scroller } from '@/ui/Scroller';
import { rangeWords } from './words';

const ratioWords = (ratio: number | null): string => (ratio === null ? '—' : ratioInWords(ratio));

/** All references for one side of an instrument: those that fit, ranked, then the others with the reason. */
export function FitTable({ fits, label, tag }: { fits: readonly Fit[]; label: string; tag: string }) {
  if (fits.length === 0) return <>Nothing has to be measured there, or no reference measures it.</>;
  return (
    <Scroller label={label}>
      <Table size="small">
        <TableHead>
          <TableRow>
            <TableCell>Reference</TableCell>
            <TableCell>Range</TableCell>
            <TableCell>Accuracy ratio</TableCell>
            <TableCell>Uncertainty ratio</TableCell>
            <TableCell>Fits</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {fits.map(({ reference, ratio, uncertaintyRatio, unfit, caution }) => (
            <TableRow key={reference.id} sx={unfit === null ? {} : { '& td': { color: 'text.secondary' } }}>
              <TableCell>
                <Link prefetch={false} href={`/references/${reference.tag}?instrument=${tag}`}>
                  {reference.tag}
                </Link>{' '}
                {reference.name}
              </TableCell>
              <TableCell>
                <Figure>{rangeWords(reference)}</Figure>
              </TableCell>
              <TableCell>
                <Figure>{ratioWords(ratio)}</Figure>
              </TableCell>
              <TableCell>
                <Figure>{ratioWords(uncertaintyRatio)}</Figure>
              </TableCell>
              <TableCell>
                {unfit === null ? (
                  <>
                    <strong>yes</strong>
                    {caution === null ? '' : `, but ${caution}`}; in date until{' '}
                    {showDate(reference.dueOn ?? '')}
                  </>
                ) : (
                  `no: ${unfit}`
                )}
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </Scroller>
  );
}
