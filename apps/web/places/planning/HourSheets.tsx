/** What a plan goes by: ways and permits, hours of technicians, who is away, what stands still. */
import type { absencesIn, planSite, shutdownsIn, workersOn } from '@barys/store/planning';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { showDate } from '@/server/dates';
import { DataTable } from '@/ui/DataTable';
import { Sheet } from '@/ui/Sheet';
import { AbsenceForm, HoursForm, PlanSiteForm, ShutdownForm, TakeBack } from './SettingForms';
import { hoursWord } from './words';

const span = ({ firstDay, lastDay }: { firstDay: string; lastDay: string }): string =>
  firstDay === lastDay ? showDate(firstDay) : `${showDate(firstDay)} to ${showDate(lastDay)}`;

type Site = Awaited<ReturnType<typeof planSite>>;
type Workers = Awaited<ReturnType<typeof workersOn>>;

export function Ways({ site, mayChange }: { site: Site; mayChange: boolean }) {
  return (
    <Sheet title="Ways, permits and grace">
      <Typography variant="body2" sx={{ mb: 1.5 }}>
        A way is that from the shop to an area, from one to the next, or back. A permit is asked for once an
        area, a person and a day. In grace is what is overdue by at most so many days; what the site allows
        there is for the site to say.
      </Typography>
      {mayChange ? (
        <PlanSiteForm site={site} />
      ) : (
        <Typography>
          Work begins at {site.dayBegins}; {site.walkMinutes} min a way, {site.permitMinutes} min a permit,{' '}
          {site.graceDays} days of grace. A planner changes this.
        </Typography>
      )}
    </Sheet>
  );
}

export function Hours({ workers, mayChange }: { workers: Workers; mayChange: boolean }) {
  return (
    <Sheet title="Hours of technicians">
      {workers.length === 0 && (
        <Typography sx={{ color: 'text.secondary' }}>
          No technician works here. An administrator enters people in Office.
        </Typography>
      )}
      {workers.map((worker) =>
        mayChange ? (
          <HoursForm key={worker.id} {...worker} />
        ) : (
          <Typography key={worker.id}>
            {worker.name}: {hoursWord(worker.week.reduce((sum, of) => sum + of, 0))} a week
          </Typography>
        ),
      )}
    </Sheet>
  );
}

/** The last column of what whoever plans may take back. */
function takingBack<Row extends { readonly id: number }>(
  mayChange: boolean,
  kind: 'absence' | 'shutdown',
  label: (row: Row) => string,
) {
  if (!mayChange) return [];
  return [['Change', (row: Row) => <TakeBack kind={kind} id={row.id} label={label(row)} />]] as const;
}

export function Away({
  absences,
  workers,
  today,
  mayChange,
}: {
  absences: Awaited<ReturnType<typeof absencesIn>>;
  workers: Workers;
  today: string;
  mayChange: boolean;
}) {
  const nameOf = (id: number): string => workers.find((worker) => worker.id === id)?.name ?? 'no longer here';
  return (
    <Sheet title="Away">
      <DataTable
        label="Away"
        rows={absences}
        keyOf={({ id }) => id}
        none="Nobody is entered as away."
        columns={[
          ['Who', ({ personId }) => nameOf(personId)],
          ['Days', span],
          ['Why', ({ reason }) => reason],
          ...takingBack<(typeof absences)[number]>(
            mayChange,
            'absence',
            (one) => `Take back the absence of ${nameOf(one.personId)}, ${span(one)}`,
          ),
        ]}
      />
      {mayChange && workers.length > 0 && (
        <Stack sx={{ mt: 1.5 }}>
          <AbsenceForm people={workers.map(({ id, name }) => ({ id, name }))} today={today} />
        </Stack>
      )}
    </Sheet>
  );
}

export function Shutdowns({
  shutdowns,
  areas,
  today,
  mayChange,
}: {
  shutdowns: Awaited<ReturnType<typeof shutdownsIn>>;
  areas: readonly string[];
  today: string;
  mayChange: boolean;
}) {
  return (
    <Sheet title="Shutdowns">
      <Typography variant="body2" sx={{ mb: 1 }}>
        What can be isolated only in a shutdown is planned on these days alone.
      </Typography>
      <DataTable
        label="Shutdowns"
        rows={shutdowns}
        keyOf={({ id }) => id}
        none="No shutdown is entered."
        columns={[
          ['Area', ({ area }) => area],
          ['Days', span],
          ['What for', ({ what }) => what],
          ...takingBack<(typeof shutdowns)[number]>(
            mayChange,
            'shutdown',
            (one) => `Take back the shutdown of ${one.area}, ${span(one)}`,
          ),
        ]}
      />
      {mayChange && (
        <Stack sx={{ mt: 1.5 }}>
          <ShutdownForm areas={areas} today={today} />
        </Stack>
      )}
    </Sheet>
  );
}
