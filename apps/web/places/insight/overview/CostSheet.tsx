import { YEAR_DAYS } from '@barys/core/drift';
import { formatFixed } from '@barys/core/text';
import type { Costs } from '@barys/store/insight';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import { Facts } from '@/ui/Facts';
import { Sheet } from '@/ui/Sheet';

/** What calibrating too often costs, and being outside unseen. */
export function CostSheet({ costs }: { costs: Costs }) {
  const link = (kind: string, words: string) => (
    <Link prefetch={false} href={`/insight/intervals?kind=${kind}`}>
      {words}
    </Link>
  );
  const days = (count: number) => `${formatFixed(count, count < 10 ? 1 : 0)} instrument-days a year`;
  return (
    <Sheet title="What intervals cost" aside="as the last calculation advised">
      <Facts
        facts={[
          [
            'Too often',
            <>
              {formatFixed(costs.spared, 1)} jobs a year, at {link('longer', `${costs.longer} instruments`)}{' '}
              that may go longer
            </>,
          ],
          [
            'Too seldom',
            <>
              {formatFixed(costs.added, 1)} jobs a year more, at{' '}
              {link('shorter', `${costs.shorter} instruments`)} that should come sooner
            </>,
          ],
          ['Outside, unseen', <>{days(costs.daysOutside)}, as intervals are</>],
          ['As advised', <>{days(costs.daysOutsideAdvised)}</>],
        ]}
      />
      <Typography variant="body2" sx={{ mt: 1, color: 'text.secondary' }}>
        Expected from drift, else from the family; of {YEAR_DAYS} days a year and instrument. Instruments
        whose interval was changed since are left out until it is worked out anew.
      </Typography>
    </Sheet>
  );
}
