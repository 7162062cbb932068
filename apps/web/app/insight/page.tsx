import Stack from '@mui/material/Stack';
import { Charts } from '@/places/insight/overview/Charts';
import { monthWords, periodFrom } from '@/places/insight/overview/figures';
import { loadOverview } from '@/places/insight/overview/load';
import { localDate } from '@/server/dates';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { PERIODS, PeriodLinks } from '@/places/insight/overview/PeriodLinks';
import { CostSheet } from '@/places/insight/overview/CostSheet';

export const metadata = { title: 'Insight' };

type Search = Promise<{ months?: string }>;

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
