'use client';
import type { PlanSite } from '@barys/store/planning';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { Answer } from '@/server/answer';
import { Draft } from '@/ui/Draft';
import { FieldGrid, unplaced, type FieldSpec } from '@/ui/FieldGrid';
import { Kept } from '@/ui/Kept';
import { Refused } from '@/ui/Refused';
import { useSubmit } from '@/ui/useSubmit';
import { useTyped } from '@/ui/useTyped';
import {
  addAbsenceAction,
  addShutdownAction,
  removeAbsenceAction,
  removeShutdownAction,
  setHoursAction,
  setPlanSiteAction,
} from './actions';

type Fields = Readonly<Record<string, string>>;

/** Fields with one button; what was typed and not sent stands there again after a reload. */
function SmallForm({
  name,
  specs,
  initial,
  action,
  button,
  label,
  isEmptied = false,
}: {
  name: string;
  specs: readonly FieldSpec[];
  initial: Fields;
  action: (fields: Fields) => Promise<Answer>;
  button: string;
  /** What the button keeps, where several are alike. */
  label?: string;
  /** Whether it is for the next entry once one is kept. */
  isEmptied?: boolean;
}) {
  const [fields, change, draft] = useTyped<Record<string, string>>({ ...initial }, name);
  const { answer, isKept, isPending, form } = useSubmit(action);
  const onKept = () => {
    draft.forget();
    if (isEmptied) change({ ...initial });
  };
  return (
    <form {...form(() => fields, onKept)}>
      <Draft draft={draft} />
      <FieldGrid specs={specs} fields={fields} change={change} answer={answer} />
      <Button type="submit" aria-busy={isPending} aria-label={label} sx={{ mt: 0.5 }}>
        {button}
      </Button>
      <Kept isKept={isKept} />
      <Refused answer={unplaced(specs, answer)} />
    </form>
  );
}

const SITE_SPECS: readonly FieldSpec<keyof PlanSite>[] = [
  { name: 'dayBegins', label: 'Work begins', width: 3 },
  { name: 'walkMinutes', label: 'Way to an area, min', kind: 'number', width: 3 },
  { name: 'permitMinutes', label: 'Permit of an area, min', kind: 'number', width: 3 },
  { name: 'graceDays', label: 'Grace, days', kind: 'number', width: 3 },
];

export const PlanSiteForm = ({ site }: { site: PlanSite }) => (
  <SmallForm
    name="plan site"
    specs={SITE_SPECS}
    initial={{
      dayBegins: site.dayBegins,
      walkMinutes: String(site.walkMinutes),
      permitMinutes: String(site.permitMinutes),
      graceDays: String(site.graceDays),
    }}
    action={setPlanSiteAction}
    button="Keep"
    label="Keep ways and grace"
  />
);

const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;

/** Hours a day of one technician. */
export function HoursForm({
  id,
  name,
  week,
}: {
  id: number;
  name: string;
  /** Minutes from Monday to Sunday. */
  week: readonly number[];
}) {
  return (
    <Box role="group" aria-label={`Hours of ${name}`} sx={{ mb: 1.5 }}>
      <Typography variant="h3" sx={{ mb: 1 }}>
        {name}
      </Typography>
      <SmallForm
        name={`hours of ${id}`}
        specs={WEEKDAYS.map((day, index) => ({
          name: `hours.${index}`,
          label: `${day}, h`,
          kind: 'number',
          width: index < 5 ? 2 : 1,
        }))}
        initial={Object.fromEntries(
          WEEKDAYS.map((_, index) => [
            `hours.${index}`,
            String(Number(((week[index] ?? 0) / 60).toFixed(2))),
          ]),
        )}
        action={(fields) =>
          setHoursAction({ personId: id, hours: WEEKDAYS.map((_, index) => fields[`hours.${index}`] ?? '') })
        }
        button="Keep"
        label={`Keep the hours of ${name}`}
      />
    </Box>
  );
}

const SPAN: readonly FieldSpec[] = [
  { name: 'firstDay', label: 'First day', kind: 'date', width: 3 },
  { name: 'lastDay', label: 'Last day', kind: 'date', width: 3 },
];

export function AbsenceForm({
  people,
  today,
}: {
  people: readonly { readonly id: number; readonly name: string }[];
  today: string;
}) {
  return (
    <SmallForm
      name="absence"
      specs={[
        {
          name: 'personId',
          label: 'Who is away',
          options: people.map(({ id, name }) => [String(id), name] as const),
          width: 3,
        },
        ...SPAN,
        { name: 'reason', label: 'Why, if it is to be seen', width: 3 },
      ]}
      initial={{ personId: String(people[0]?.id ?? ''), firstDay: today, lastDay: today, reason: '' }}
      action={addAbsenceAction}
      button="Enter the absence"
      isEmptied
    />
  );
}

export function ShutdownForm({ areas, today }: { areas: readonly string[]; today: string }) {
  return (
    <SmallForm
      name="shutdown"
      specs={[
        { name: 'area', label: 'Area', options: areas, width: 3 },
        ...SPAN,
        { name: 'what', label: 'What for', width: 3 },
      ]}
      initial={{ area: areas[0] ?? '', firstDay: today, lastDay: today, what: '' }}
      action={addShutdownAction}
      button="Enter the shutdown"
      isEmptied
    />
  );
}

/** Takes back an absence or a shutdown that was entered. */
export function TakeBack({ kind, id, label }: { kind: 'absence' | 'shutdown'; id: number; label: string }) {
  const { answer, isPending, submit } = useSubmit(
    kind === 'absence' ? removeAbsenceAction : removeShutdownAction,
  );
  return (
    <>
      <Button onClick={() => submit(id)} aria-busy={isPending} aria-label={label}>
        Take back
      </Button>
      <Refused answer={answer} />
    </>
  );
}
