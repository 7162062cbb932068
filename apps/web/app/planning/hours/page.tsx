import { SCHEDULING_ROLES } from '@barys/store/people';
import { absencesIn, planSite, shutdownsIn, workersOn } from '@barys/store/planning';
import { listFacets } from '@barys/store/registers';
import Stack from '@mui/material/Stack';
import dayjs from 'dayjs';
import { Away, Hours, Shutdowns, Ways } from '@/places/planning/HourSheets';
import { database } from '@/server/database';
import { localDate } from '@/server/dates';
import { actingPerson } from '@/server/person';
import { PageHead } from '@/ui/PageHead';

export const metadata = { title: 'Hours and shutdowns' };

/** Absences and shutdowns are listed so far ahead. */
const AHEAD_DAYS = 400;

export default async function HoursPage() {
  const db = database();
  const today = localDate(new Date());
  const until = dayjs(today).add(AHEAD_DAYS, 'day').format('YYYY-MM-DD');
  const [site, workers, absences, shutdowns, { areas }, person] = await Promise.all([
    planSite(db),
    workersOn(db, [today]),
    absencesIn(db, today, until),
    shutdownsIn(db, today, until),
    listFacets(db),
    actingPerson(),
  ]);
  const mayChange = person !== null && SCHEDULING_ROLES.includes(person.role);
  return (
    <>
      <PageHead
        title="Hours and shutdowns"
        about="What a plan goes by. What is planned already stays where it is and is shown to clash."
      />
      <Stack sx={{ gap: 1.5 }}>
        <Ways site={site} mayChange={mayChange} />
        <Hours workers={workers} mayChange={mayChange} />
        <Away absences={absences} workers={workers} today={today} mayChange={mayChange} />
        <Shutdowns shutdowns={shutdowns} areas={areas} today={today} mayChange={mayChange} />
      </Stack>
    </>
  );
}
