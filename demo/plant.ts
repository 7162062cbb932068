/** Marrowfen Sugar Works, an invented beet-sugar factory: every name, serial and figure is made up. */
import { isPressureUnit, type PressureUnit } from '@barys/core';
import {
  addBody,
  addConfiguration,
  addInstrument,
  addPerson,
  addReference,
  addSite,
  findSite,
  openDatabase,
  type Actor,
  type Queryable,
  type Role,
} from '@barys/store';
import dayjs, { type Dayjs } from 'dayjs';
import bodies from './data/bodies.json' with { type: 'json' };
import instruments from './data/instruments.json' with { type: 'json' };
import people from './data/people.json' with { type: 'json' };
import references from './data/references.json' with { type: 'json' };
import { makeVisit, OLDEST_MONTHS, pastVisits } from './visits';

type InstrumentData = (typeof instruments)[number];

const ISO_DATE = 'YYYY-MM-DD';

function pressureUnit(text: string): PressureUnit {
  if (!isPressureUnit(text)) throw new Error(`the demo data has the unit "${text}"`);
  return text;
}

async function plantInstrument(
  tx: Queryable,
  data: InstrumentData,
  actor: Actor,
  dueOn: Dayjs,
): Promise<void> {
  const unit = pressureUnit(data.unit);
  const id = await addInstrument(tx, actor, {
    tag: data.tag,
    serial: data.serial,
    service: data.service,
    area: data.area,
    hazards: data.hazards,
    bodyModel: data.body,
    tolerance: { percentOfSpan: data.tolerancePercentOfSpan, adjustAbovePercentOfLimit: 70 },
    intervalMonths: data.intervalMonths,
    dueOn: dueOn.format(ISO_DATE),
  });
  await addConfiguration(tx, actor, id, {
    inputUnit: unit,
    lrv: data.lrv,
    urv: data.urv,
    outputLow: 4,
    outputHigh: 20,
    dampingS: data.dampingS,
    displayUnit: unit,
    displayLow: data.lrv,
    displayHigh: data.urv,
    reason: 'taken over from the instrument list',
  });
}

/**
 * Plants the demo in an empty database, whole or not at all.
 * @param url a role that owns the tables
 * @returns false if something was planted before
 */
export async function plantDemo(url: string, now: Date): Promise<boolean> {
  const db = openDatabase(url, 'owner');
  try {
    if ((await findSite(db)) !== null) return false;
    await db.transaction((tx) => plant(tx, dayjs(now)));
    return true;
  } finally {
    await db.close();
  }
}

async function plant(tx: Queryable, now: Dayjs): Promise<void> {
  await addSite(tx, { siteName: 'Marrowfen Sugar Works', isDemo: true });
  const ids: number[] = [];
  for (const { name, role } of people) ids.push(await addPerson(tx, name, role as Role));
  const [technicianA = 0, technicianB = 0] = ids;
  for (const body of bodies) await addBody(tx, { ...body, unit: pressureUnit(body.unit) });
  for (const { calibratedDaysAgo, dueInDays, quantity, ...reference } of references)
    await addReference(tx, {
      ...reference,
      quantity: quantity as 'pressure' | 'current',
      calibratedOn: now.subtract(calibratedDaysAgo, 'day').format(ISO_DATE),
      dueOn: now.add(dueInDays, 'day').format(ISO_DATE),
    });

  const begun = now.subtract(OLDEST_MONTHS, 'month').hour(6);
  const beginning: Actor = { personId: technicianA, at: begun.toDate(), today: begun.format(ISO_DATE) };
  for (const data of instruments) await plantInstrument(tx, data, beginning, now.add(data.dueInDays, 'day'));

  const visits = instruments.flatMap((instrument, index) => {
    const dueOn = now.add(instrument.dueInDays, 'day');
    const past = pastVisits(now, dueOn, instrument.intervalMonths);
    const base = { instrument, personId: index % 2 === 0 ? technicianA : technicianB };
    return [
      ...past.map((start, number) => ({ ...base, start, number, seed: 100 * index + number })),
      ...(instrument.openAt === undefined
        ? []
        : [
            {
              ...base,
              start: now.subtract(200 - 10 * index, 'minute'),
              number: past.length,
              seed: 100 * index + 50,
              stopAt: instrument.openAt,
            },
          ]),
    ];
  });
  // In the order they happened, as the trail keeps them.
  for (const visit of visits.sort((a, b) => a.start.valueOf() - b.start.valueOf()))
    await makeVisit(tx, visit);
}
