import Typography from '@mui/material/Typography';
import dayjs from 'dayjs';
import { loadWeekPage } from '@/places/planning/load';
import { madeWords, spansOf, standing } from '@/places/planning/made';
import { PlanDesk } from '@/places/planning/PlanDesk';
import { weekLater } from '@/places/planning/query';
import { WeekDesk } from '@/places/planning/WeekDesk';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { PrintButton } from '@/ui/PrintButton';

export const metadata = { title: 'Planning' };

type Search = Promise<Record<string, string | string[] | undefined>>;

export default async function PlanningPage({ searchParams }: { searchParams: Search }) {
  const { from, also } = await searchParams;
  const tag = typeof also === 'string' && also.trim() !== '' ? also.slice(0, 60) : undefined;
  const page = await loadWeekPage(from, tag);
  const { board, making, mayChange, asked } = page;
  return (
    <>
      <PageHead title={`Week of ${dayjs(page.from).format('D MMMM YYYY')}`} about={standing(page)}>
        <LinkButton href={`/planning?from=${weekLater(page.from, -1)}`}>Week before</LinkButton>
        <LinkButton href={`/planning?from=${weekLater(page.from, 1)}`}>Next week</LinkButton>
        <PrintButton />
        {mayChange && (
          <PlanDesk
            key={page.from}
            running={
              making?.state === 'runs' ? { id: making.id, state: making.state, part: making.part } : null
            }
            spans={spansOf(page)}
          />
        )}
      </PageHead>
      <WeekDesk
        key={`${page.from} ${tag ?? ''}`}
        board={board}
        from={page.from}
        mayChange={mayChange}
        asked={asked}
        unknown={asked === null ? (tag ?? null) : null}
        walkMinutes={page.walkMinutes}
        standing={page.standing}
      />
      {making !== null && (
        <Typography variant="body2" sx={{ color: 'text.secondary', mt: 1, displayPrint: 'none' }}>
          {madeWords(making)}
        </Typography>
      )}
    </>
  );
}
