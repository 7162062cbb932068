import { dayNumber } from '@barys/core/drift';
import { configurationsOf } from '@barys/store/registers';
import {
  adviseNow,
  intervalChangesOf,
  lastFinished,
  loadFamilies,
  type NamedDifference,
} from '@barys/store/intervals';
import { SCHEDULING_ROLES, type Person } from '@barys/store/people';
import type { Instrument } from '@barys/store/registers';
import { adjustmentsOf, historyOf, rangeKeyOf, type Visit } from '@barys/store/results';
import Stack from '@mui/material/Stack';
import { DriftSheet } from '@/places/instruments/history/DriftSheet';
import { FamilySheet } from '@/places/instruments/history/FamilySheet';
import { ErrorsSheet } from '@/places/instruments/history/ErrorsSheet';
import { HistoryTable } from '@/places/instruments/history/HistoryTable';
import { ChangesSheet, WorthALook } from '@/places/instruments/history/Sheets';
import { IntervalSheet } from '@/places/instruments/history/IntervalSheet';
import { historyShape } from '@/places/instruments/history/shape';
import { loadInstrument, type Params } from '@/places/instruments/load';
import { database } from '@/server/database';
import { localDate } from '@/server/dates';
import { actingPerson } from '@/server/person';
import { Columns } from '@/ui/Columns';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { rangeInWords } from '@/ui/range/rangeInWords';
import { Sheet } from '@/ui/Sheet';
import { Compare } from '@/places/instruments/history/Compare';

export async function generateMetadata({ params }: { params: Params }) {
  return { title: `History of ${decodeURIComponent((await params).tag)}` };
}

type Search = Promise<{ first?: string; second?: string }>;

/** Why the acting person cannot change the interval here; null where they can. */
function whyNot(person: Person | null, { criticality, state }: Instrument): string | null {
  if (state === 'retired') return 'It is retired, and not calibrated any more.';
  if (person === null || !SCHEDULING_ROLES.includes(person.role)) return 'A planner decides on the interval.';
  if (criticality === 'safety function' && !person.decidesSafety)
    return 'A safety function: only who is entrusted with their intervals changes it (Office, People).';
  return null;
}

/** References and people of its own calibrations that differ from the others. */
const differencesHere = (visits: readonly Visit[], differences: readonly NamedDifference[]) => {
  const names = new Set(
    visits
      .flatMap(({ found, left }) => [found, left])
      .flatMap((run) => (run === null ? [] : [run.standard, run.doneBy])),
  );
  return differences.filter(({ name }) => names.has(name));
};

/** All that the page is made of. */
async function loadHistory(instrument: Instrument) {
  const { id, body, measures, area, configuration } = instrument;
  const db = database();
  const [visits, marks, changes, families, finished, versions] = await Promise.all([
    historyOf(db, id),
    adjustmentsOf(db, id),
    intervalChangesOf(db, id),
    loadFamilies(db, body.model),
    lastFinished(db),
    configurationsOf(db, id),
  ]);
  const advised = await adviseNow(db, id, visits, families);
  const rangeKey = rangeKeyOf(configuration);
  const shape = historyShape(visits, marks, advised, {
    rangeKey,
    day: dayNumber(localDate(configuration.madeAt)),
  });
  const family = families.of({ model: body.model, measures, area });
  return { visits, marks, changes, finished, versions, advised, rangeKey, shape, family };
}

export default async function HistoryPage({
  params,
  searchParams,
}: {
  params: Params;
  searchParams: Search;
}) {
  const instrument = await loadInstrument(params, '/history');
  const { tag, service, configuration } = instrument;
  const [{ first, second }, person, history] = await Promise.all([
    searchParams,
    actingPerson(),
    loadHistory(instrument),
  ]);
  const { visits, marks, changes, finished, versions, advised, rangeKey, shape, family } = history;
  const { advice, insideUntil, since } = advised;
  return (
    <>
      <PageHead title={`${tag}: history`} about={`${service}, ${rangeInWords(configuration)}`}>
        {shape !== null && (
          <LinkButton href={`/instruments/${tag}/history/export`} isFile>
            CSV
          </LinkButton>
        )}
        <LinkButton href={`/instruments/${tag}`}>Back to {tag}</LinkButton>
      </PageHead>
      <Columns columns="minmax(0, 1.9fr) minmax(0, 1fr)">
        <Stack sx={{ gap: 1.5 }}>
          <ErrorsSheet shape={shape} />
          <DriftSheet
            visits={visits}
            rangeKey={rangeKey}
            drift={advice.drift}
            since={since}
            insideUntil={insideUntil}
            today={localDate(new Date())}
            months={advice.now.months}
          />
        </Stack>
        <Stack sx={{ gap: 1.5 }}>
          <IntervalSheet
            instrument={instrument}
            advised={advised}
            may={{ why: whyNot(person, instrument) }}
          />
          <WorthALook
            anomalies={advised.anomalies}
            differences={differencesHere(visits, finished?.differences ?? [])}
            calibrations={visits.length}
          />
        </Stack>
      </Columns>
      <Stack sx={{ gap: 1.5, mt: 1.5 }}>
        <Compare visits={visits} first={first} second={second} />
        <FamilySheet family={family} />
        {visits.length > 0 && (
          <Sheet title="All calibrations" aside={`range versions: ${versions.length}`}>
            <HistoryTable visits={visits} marks={marks} />
          </Sheet>
        )}
        <ChangesSheet changes={changes} />
      </Stack>
    </>
  );
}
