/** What a page says of a plan: which days can be planned, how the week stands, how the last plan came out. */
import { formatSignificant } from '@barys/core/text';
import type { Making } from '@barys/store/planning';
import dayjs from 'dayjs';
import { showMoment } from '@/server/dates';
import type { WeekPage } from './load';
import type { Span } from './PlanDesk';
import { WEEK_DAYS } from './query';
import { dayWord } from './words';

/** The days of the week that can still be planned: all of them, and each by itself. */
export function spansOf({ board, from, today }: Pick<WeekPage, 'board' | 'from' | 'today'>): Span[] {
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
export function madeWords({
  state,
  endedAt,
  askedAt,
  askedBy,
  placed,
  worth,
  bound,
  asItComes,
}: Making): string {
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

/** How the week stands, in words. */
export function standing({ board, due, duePlaced }: Pick<WeekPage, 'board' | 'due' | 'duePlaced'>): string {
  const clashing = board.cards.filter(({ clashes }) => clashes.length > 0).length;
  return `${duePlaced} of the ${due} due by Sunday are placed · checked: ${clashing === 0 ? 'nothing clashes' : `${clashing} clash, as marked`}`;
}
