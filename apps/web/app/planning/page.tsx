import { formatSignificant } from '@barys/core/text';
import type { Making } from '@barys/store/planning';
import Typography from '@mui/material/Typography';
import dayjs from 'dayjs';
import { loadWeekPage, type WeekPage } from '@/places/planning/load';
import { PlanDesk, type Span } from '@/places/planning/PlanDesk';
import { WEEK_DAYS, weekLater } from '@/places/planning/query';
import { WeekDesk } from '@/places/planning/WeekDesk';
import { dayWord } from '@/places/planning/words';
import { showMoment } from '@/server/dates';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { PrintButton } from '@/ui/PrintButton';

export const metadata = { title: 'Planning' };

/** The days of the week that can still be planned: all of them, and each by itself. */
function spansOf({ board, from, today }: WeekPage): Span[] {
  const last = dayjs(from).add(WEEK_DAYS - 1, 'day');
  const first = today > from ? today : from;
  const free = board.days.filter(({ day }) => day >= first);
  if (free.length === 0) return [];
  return [
    {
      words: today > from ? 'rest of the week' : 'the whole week',
      firstDay: first,
      days: last.diff(first, 'day') + 1,
    },
    ...free.map(({ day }) => ({ words: dayWord(day), firstDay: day, days: 1 })),
  ];
}

/** Below it two plans are worth the same, as far as anybody would see. */
const LEAST_GAIN = 0.0005;

/** How the last plan came out, in words. */
function madeWords({ state, endedAt, askedAt, askedBy, placed, worth, bound, asItComes }: Making): string {
  const when = `${showMoment(endedAt ?? askedAt)}, asked for by ${askedBy}`;
  if (state === 'cancelled') return `The last plan was stopped ${when}; this one stayed as it was.`;
  if (state === 'cut off' || state === 'failed')
    return `The last plan was not finished (${when}); this one stayed as it was. Ask again.`;
  if (state === 'runs' || placed === null || worth === null || bound === null || asItComes === null)
    return '';
  const share = (part: number): string => `${formatSignificant(Math.max(0, part) * 100, 2)} %`;
  const gain = asItComes > 0 ? worth / asItComes - 1 : 0;
  const asComes =
    gain < LEAST_GAIN ? 'as much as one taken as it comes' : `${share(gain)} more than one taken as it comes`;
  const best = worth > 0 ? `; none can be worth over ${share(bound / worth - 1)} more` : '';
  return `Last planned ${when}: ${placed} placed. The plan was worth ${asComes}${best}.`;
}

function standing({ board, due, duePlaced }: WeekPage): string {
  const clashing = board.cards.filter(({ clashes }) => clashes.length > 0).length;
  return `${duePlaced} of the ${due} due by Sunday are placed · checked: ${clashing === 0 ? 'nothing clashes' : `${clashing} clash, as marked`}`;
}

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
