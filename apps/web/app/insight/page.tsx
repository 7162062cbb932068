import { YEAR_DAYS } from '@barys/core/drift';
import { formatFixed } from '@barys/core/text';
import type { Costs } from '@barys/store/insight';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import { Charts } from '@/places/insight/overview/Charts';
import { monthWords, periodFrom } from '@/places/insight/overview/figures';
import { loadOverview } from '@/places/insight/overview/load';
import { localDate } from '@/server/dates';
import { Facts } from '@/ui/Facts';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'Insight' };

const PERIODS = [12, 24, 60] as const;

type Search = Promise<{ months?: string }>;

/** What calibrating too often costs, and being outside unseen. */
function CostSheet({ costs }: { costs: Costs }) {
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

function PeriodLinks({ months }: { months: number }) {
  return (
    <Stack component="nav" aria-label="Period" direction="row" sx={{ gap: 1.5 }}>
      {PERIODS.map((period) => (
        <Link
          key={period}
          prefetch={false}
          href={`/insight?months=${period}`}
          aria-current={period === months ? 'page' : undefined}
          style={{ fontWeight: period === months ? 700 : 400, lineHeight: '44px', color: 'inherit' }}
        >
          {period} months
        </Link>
      ))}
    </Stack>
  );
}

export default async function InsightPage({ searchParams }: { searchParams: Search }) {
  const { months: asked } = await searchParams;
  const months = PERIODS.find((period) => String(period) === asked) ?? 24;
  const today = localDate(new Date());
  const { from, costs, ...figures } = await loadOverview({ months, end: today, today });
  const lastMonth = periodFrom(today, 2).slice(0, 7);
  return (
    <>
      <PageHead
        title="Insight"
        about={`Since ${monthWords(from)}, from what each calibration came to when its job was signed.`}
      >
        <PeriodLinks months={months} />
        <LinkButton href={`/insight/report?month=${lastMonth}`} isFile>
          Report of {monthWords(`${lastMonth}-01`)} (PDF)
        </LinkButton>
      </PageHead>
      <Stack sx={{ gap: 1.5 }}>
        <Charts {...figures} />
        <CostSheet costs={costs} />
      </Stack>
    </>
  );
}
