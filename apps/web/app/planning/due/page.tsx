import { dueByDay, dueOn, dueStanding, planSite } from '@barys/store/planning';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import dayjs from 'dayjs';
import Link from 'next/link';
import { z } from 'zod';
import { dueCell, inHand } from '@/places/planning/dueCells';
import { DueCounts } from '@/places/planning/DueCounts';
import { DueMonth } from '@/places/planning/DueMonth';
import { monthAsked, monthLater, weeksOf } from '@/places/planning/month';
import { database } from '@/server/database';
import { localDate, showDate } from '@/server/dates';
import { DataTable } from '@/ui/DataTable';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'Due' };

const MOST_LINES = 100;

type Search = Promise<Record<string, string | string[] | undefined>>;

export default async function DuePage({ searchParams }: { searchParams: Search }) {
  const query = await searchParams;
  const db = database();
  const today = localDate(new Date());
  const month = monthAsked(query['month'], today);
  const asked = z.iso.date().safeParse(query['day']);
  const chosen = asked.success && asked.data.startsWith(month) ? asked.data : null;
  const shown = weeksOf(month).flat();
  const end = dayjs(`${month}-01`).endOf('month').format('YYYY-MM-DD');
  const [counts, lines, standing, { graceDays }] = await Promise.all([
    dueByDay(db, shown[0] ?? today, shown.at(-1) ?? today),
    dueOn(db, chosen ?? `${month}-01`, chosen ?? end, MOST_LINES),
    dueStanding(db, today),
    planSite(db),
  ]);
  const monthWord = dayjs(`${month}-01`).format('MMMM YYYY');
  const title = chosen === null ? `Due in ${monthWord}` : `Due on ${showDate(chosen)}`;
  return (
    <>
      <PageHead
        title={monthWord}
        about="What comes due of what is in service, and what of it stands in a plan."
      >
        <LinkButton href={`/planning/due?month=${monthLater(month, -1)}`}>Month before</LinkButton>
        <LinkButton href={`/planning/due?month=${monthLater(month, 1)}`}>Next month</LinkButton>
        {chosen !== null && <LinkButton href={`/planning/due?month=${month}`}>The whole month</LinkButton>}
      </PageHead>
      <Stack sx={{ gap: 1.5 }}>
        <Sheet>
          <DueCounts standing={standing} graceDays={graceDays} />
          <DueMonth month={month} counts={counts} today={today} chosen={chosen} />
        </Sheet>
        <Sheet
          title={title}
          aside={lines.length === MOST_LINES ? `the first ${MOST_LINES}` : `${lines.length}`}
        >
          <DataTable
            label={title}
            rows={lines}
            keyOf={({ tag }) => tag}
            none="Nothing comes due here."
            columns={[
              ['Due', (line) => <span style={{ whiteSpace: 'nowrap' }}>{showDate(line.dueOn)}</span>],
              ['When', (line) => dueCell(line.dueOn, today, graceDays)],
              [
                'Instrument',
                (line) => (
                  <>
                    <Link prefetch={false} href={`/instruments/${encodeURIComponent(line.tag)}`}>
                      {line.tag}
                    </Link>{' '}
                    {line.service}
                  </>
                ),
              ],
              ['Area', (line) => line.area],
              ['Criticality', (line) => line.criticality],
              ['In hand or planned', inHand],
            ]}
          />
          {lines.length === MOST_LINES && (
            <Typography variant="body2" sx={{ mt: 1 }}>
              <Link
                prefetch={false}
                href={`/instruments?${new URLSearchParams({ state: 'in service', due: chosen ?? month })}`}
              >
                All of them
              </Link>
            </Typography>
          )}
        </Sheet>
      </Stack>
    </>
  );
}
