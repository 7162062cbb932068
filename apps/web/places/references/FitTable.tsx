import type { Fit } from '@barys/store/runs';
import Link from 'next/link';
import { showDate } from '@/server/dates';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { ratioInWords } from '@/ui/ratio';
import { rangeWords } from './words';

const ratioWords = (ratio: number | null): string => (ratio === null ? '—' : ratioInWords(ratio));

/** All references for one side of an instrument: those that fit, ranked, then the others with the reason. */
export function FitTable({ fits, label, tag }: { fits: readonly Fit[]; label: string; tag: string }) {
  if (fits.length === 0) return <>Nothing has to be measured there, or no reference measures it.</>;
  return (
    <DataTable
      label={label}
      rows={fits}
      keyOf={({ reference }) => reference.id}
      isFaint={({ unfit }) => unfit !== null}
      columns={[
        [
          'Reference',
          ({ reference }) => (
            <>
              <Link prefetch={false} href={`/references/${reference.tag}?instrument=${tag}`}>
                {reference.tag}
              </Link>{' '}
              {reference.name}
            </>
          ),
        ],
        ['Range', ({ reference }) => <Figure>{rangeWords(reference)}</Figure>],
        ['Accuracy ratio', ({ ratio }) => <Figure>{ratioWords(ratio)}</Figure>],
        ['Uncertainty ratio', ({ uncertaintyRatio }) => <Figure>{ratioWords(uncertaintyRatio)}</Figure>],
        [
          'Fits',
          ({ reference, unfit }) =>
            unfit === null ? (
              <>
                <strong>yes</strong>; in date until {showDate(reference.dueOn ?? '')}
              </>
            ) : (
              `no: ${unfit}`
            ),
        ],
      ]}
    />
  );
}
