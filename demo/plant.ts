/** Marrowfen Sugar Works, an invented beet-sugar factory: every name, serial and figure is made up. */
import type { SignalName } from '@barys/core/signal';
import { isPressureUnit, type PressureUnit } from '@barys/core/units';
import { type Bulk, openDatabase, type Database, type Queryable } from '@barys/store/db';
import { askCalculation, calculate } from '@barys/store/intervals';
import {
  addFirstPerson,
  addPerson,
  addSite,
  findSite,
  listPeople,
  setLetterhead,
  setSafetyAuthority,
  type Actor,
  type Letterhead,
  type Role,
} from '@barys/store/people';
import {
  addBody,
  addConfiguration,
  addInstrument,
  addCertificate,
  addFinding,
  addStandard,
  bodySchema,
  certificateSchema,
  decideFinding,
  findFinding,
  findInstrument,
  keepModule,
  listReferences,
  moduleSchema,
  releaseReference,
  runsInDoubt,
  standardSchema,
  usualHookUp,
  type Body,
  type NewCertificate,
  type NewConfiguration,
  type NewInstrument,
} from '@barys/store/registers';
import dayjs, { type Dayjs } from 'dayjs';
import bodyData from './data/bodies.json' with { type: 'json' };
import instrumentData from './data/instruments.json' with { type: 'json' };
import people from './data/people.json' with { type: 'json' };
import references from './data/references.json' with { type: 'json' };
import { plantHotCheck, plantLevelJobs, plantVessels } from './levels';
import { plantLoops } from './loops';
import { plantPast, type WithPast } from './past';
import { plantPlan } from './planning';
import { plantProcedures, procedureFor } from './procedures';
import { makeVisit, OLDEST_MONTHS, pastVisits, type DemoInstrument } from './visits';

const SITE = 'Marrowfen Sugar Works';
const LETTERHEAD: Letterhead = {
  laboratory: 'Marrowfen Sugar Works, Instrument Workshop',
  laboratoryAddress: '2 Sluice Lane, Marrowfen',
  customer: 'Marrowfen Sugar Works, Production',
  customerAddress: '1 Beet Wharf, Marrowfen',
};

/** An instrument as the data files have it: what is usual is left out there. */
interface InstrumentData {
  readonly tag: string;
  readonly serial: string;
  readonly service: string;
  readonly description?: string;
  readonly area: string;
  readonly walk?: number;
  readonly hazards: string[];
  readonly loop?: string;
  readonly criticality: NewInstrument['criticality'];
  readonly measures?: NewInstrument['measures'];
  readonly state?: NewInstrument['state'];
  readonly hookUp?: NewInstrument['hookUp'];
  readonly canBeIsolated?: NewInstrument['canBeIsolated'];
  readonly isolatedWith?: string;
  readonly toleranceMiddlePercentOfSpan?: number;
  readonly tolerancePercentOfReading?: number;
  readonly scaleDivision?: number;
  readonly switchingPoints?: NewConfiguration['switchingPoints'];
  readonly owner: string;
  readonly body: string;
  readonly unit: string;
  readonly lrv: number;
  readonly urv: number;
  readonly signal?: SignalName;
  /** Ends and unit of the output; 4 to 20 mA. */
  readonly output?: [low: number, high: number, unit: string];
  readonly transferFunction?: NewConfiguration['transferFunction'];
  /** Ends and unit of the display; those of the input. */
  readonly display?: [low: number, high: number, unit: string];
  readonly dampingS: number;
  readonly tolerancePercentOfSpan: number;
  readonly intervalMonths: number;
  readonly dueInDays: number;
}

type ReferenceData = (typeof references)[number];

const instruments = instrumentData as (InstrumentData & Partial<DemoInstrument>)[];

const ISO_DATE = 'YYYY-MM-DD';

function pressureUnit(text: string): PressureUnit {
  if (!isPressureUnit(text)) throw new Error(`the demo data has the unit "${text}"`);
  return text;
}

/** Whether the data say how the instrument errs, so that it has visits behind it. */
const isSimulated = (data: (typeof instruments)[number]): data is InstrumentData & DemoInstrument =>
  data.zeroErrorPercent !== undefined;

type Settings = Pick<NewConfiguration, 'displayDampingS' | 'application' | 'startView' | 'drivenBy'>;

const NO_SETTINGS: Settings = { displayDampingS: null, application: null, startView: null, drivenBy: null };

/** What is set in a smart transmitter besides its range. */
const smartSettings = ({ measures, dampingS }: InstrumentData): Settings => ({
  displayDampingS: 2 * dampingS,
  application: measures === 'flow' || measures === 'level' ? measures : 'pressure',
  startView: 'display scale',
  drivenBy: 'pressure',
});

async function plantInstrument(
  tx: Queryable,
  data: InstrumentData,
  bodies: ReadonlyMap<string, Pick<Body, 'id' | 'kind' | 'technology'>>,
  actor: Actor,
  dueOn: Dayjs,
): Promise<void> {
  const body = bodies.get(data.body);
  if (body === undefined) throw new Error(`the demo has no body "${data.body}"`);
  const unit = pressureUnit(data.unit);
  const [outputLow, outputHigh, outputUnit] = data.output ?? [4, 20, 'mA'];
  const [displayLow, displayHigh, displayUnit] = data.display ?? [data.lrv, data.urv, unit];
  await addInstrument(
    tx,
    actor,
    {
      tag: data.tag,
      serial: data.serial,
      service: data.service,
      description: data.description ?? '',
      site: SITE,
      area: data.area,
      walk: data.walk ?? null,
      hazards: data.hazards,
      loop: data.loop ?? '',
      criticality: data.criticality,
      measures: data.measures ?? 'pressure',
      kind: body.kind,
      hookUp: data.hookUp ?? usualHookUp(body.kind),
      canBeIsolated: data.canBeIsolated ?? 'any time',
      isolatedWith: data.isolatedWith ?? '',
      bodyId: body.id,
      procedureId: procedureFor(data),
      tolerance: {
        percentOfSpan: data.tolerancePercentOfSpan,
        middlePercentOfSpan: data.toleranceMiddlePercentOfSpan ?? null,
        percentOfReading: data.tolerancePercentOfReading ?? 0,
        adjustAbovePercentOfLimit: 70,
      },
      intervalMonths: data.intervalMonths,
      dueOn: dueOn.format(ISO_DATE),
      owner: data.owner,
      state: data.state ?? 'in service',
    },
    {
      inputUnit: unit,
      lrv: data.lrv,
      urv: data.urv,
      signal: data.signal ?? 'mA-4-20',
      outputUnit,
      outputLow,
      outputHigh,
      transferFunction: data.transferFunction ?? { kind: 'linear' },
      dampingS: data.dampingS,
      displayUnit,
      displayLow,
      displayHigh,
      scaleDivision: data.scaleDivision ?? null,
      ...(body.technology === 'smart' ? smartSettings(data) : NO_SETTINGS),
      switchingPoints: data.switchingPoints ?? [],
      reason: 'taken over from the instrument list',
    },
  );
}

/** A certificate on its way into the register. */
interface NewPaper {
  readonly referenceId: number;
  readonly at: Dayjs;
  readonly certificate: NewCertificate;
}

/** @returns the certificates that come in later, in the course of the demo's two years */
async function plantReferences(tx: Queryable, actor: Actor, begun: Dayjs, now: Dayjs): Promise<NewPaper[]> {
  const later: NewPaper[] = [];
  for (const { certificate, modules, ...entry } of references) {
    const referenceId = await addStandard(tx, actor, standardSchema.parse(entry));
    const results: NewCertificate['results'] = [];
    for (const module of modules) {
      const range = moduleSchema.parse({ ...module, isActive: true });
      const moduleId = await keepModule(tx, actor, referenceId, null, range);
      if ('results' in module) results.push({ moduleId, unit: range.unit, points: [...module.results] });
    }
    for (const paper of papersOf({ ...certificate, results }, begun, now))
      if (paper.calibratedOn <= actor.today) await addCertificate(tx, actor, referenceId, paper, null);
      else later.push({ referenceId, at: dayjs(paper.calibratedOn).hour(5), certificate: paper });
  }
  return later;
}

/** The certificate of today and those before it, oldest first, back to one that the oldest visits were made under. */
function papersOf(
  { calibratedDaysAgo, dueInDays, ...rest }: ReferenceData['certificate'] & Pick<NewCertificate, 'results'>,
  begun: Dayjs,
  now: Dayjs,
): NewCertificate[] {
  const [calibrated, due] = [now.subtract(calibratedDaysAgo, 'day'), now.add(dueInDays, 'day')];
  const days = calibratedDaysAgo + dueInDays;
  const before = Math.max(0, Math.ceil(calibrated.diff(begun, 'day') / days));
  return Array.from({ length: before + 1 }, (_, place) => {
    const back = before - place;
    const calibratedOn = calibrated.subtract(back * days, 'day');
    return certificateSchema.parse({
      ...rest,
      // An earlier year's certificate has that year in its number.
      number: back === 0 ? rest.number : rest.number.replace(/-\d+-/, `-${calibratedOn.format('YY')}-`),
      calibratedOn: calibratedOn.format(ISO_DATE),
      dueOn: due.subtract(back * days, 'day').format(ISO_DATE),
    });
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
    await db.bulk((tx) => plant(tx, dayjs(now)));
    await plantAdvice(db, dayjs(now));
    await plantPlan(db, dayjs(now));
    return true;
  } finally {
    await db.close();
  }
}

async function plant(tx: Bulk, now: Dayjs): Promise<void> {
  await addSite(tx, { siteName: SITE, isDemo: true });
  const begun = now.subtract(OLDEST_MONTHS, 'month').hour(6);
  const moment = { at: begun.toDate(), today: begun.format(ISO_DATE) };
  const [first, ...others] = people.map(({ name, role }) => ({
    name,
    role: role as Role,
    login: null,
    isActive: true,
  }));
  if (first === undefined) throw new Error('the demo has nobody in it');
  const administrator = await addFirstPerson(tx, moment, first);
  await setLetterhead(tx, administrator, LETTERHEAD);
  const ids = new Map<string, number>();
  for (const person of others) ids.set(person.name, await addPerson(tx, administrator, person));
  await setSafetyAuthority(tx, administrator, ids.get('Planner') ?? 0, true);
  const [technicianA = 0, technicianB = 0] = [ids.get('Technician A'), ids.get('Technician B')];
  const beginning: Actor = { ...moment, personId: technicianA };
  const papers = await plantReferences(tx, beginning, begun, now);
  const bodies = new Map<string, Pick<Body, 'id' | 'kind' | 'technology'>>();
  for (const body of bodyData.map((data) => bodySchema.parse(data)))
    bodies.set(body.model, {
      id: await addBody(tx, beginning, body),
      kind: body.kind,
      technology: body.technology,
    });
  await plantProcedures(tx, beginning);
  for (const data of instruments)
    await plantInstrument(tx, data, bodies, beginning, now.add(data.dueInDays, 'day'));

  await plantVessels(tx, beginning);
  await plantLoops(tx, beginning);

  const visits = instruments.filter(isSimulated).flatMap((instrument, index) => {
    const dueOn = now.add(instrument.dueInDays, 'day');
    const past = pastVisits(now, dueOn, instrument.intervalMonths);
    const base = {
      instrument,
      personId: index % 2 === 0 ? technicianA : technicianB,
      reviewerId: ids.get('Reviewer') ?? technicianB,
    };
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
  const events = [
    ...visits.map((visit) => ({ at: visit.start, happen: () => makeVisit(tx, visit) })),
    ...papers.map(({ referenceId, at, certificate }) => ({
      at,
      happen: () =>
        addCertificate(
          tx,
          { ...beginning, at: at.toDate(), today: at.format(ISO_DATE) },
          referenceId,
          certificate,
          null,
        ),
    })),
    ...levelEvents(tx, now, { technicianA, technicianB, reviewer: ids.get('Reviewer') ?? technicianB }),
    {
      at: now.subtract(70, 'day'),
      happen: () => plantRangeChange(tx, technicianB, now.subtract(70, 'day')),
    },
  ];
  for (const { happen } of events.sort((a, b) => a.at.valueOf() - b.at.valueOf())) await happen();
  await plantFinding(tx, ids.get('Technician B') ?? 0, now);
  await plantPast(tx, { ...administrator, at: now.toDate(), today: now.format(ISO_DATE) }, pastsOf(now));
}

/** Instruments in service whose calibrations before Barys the works has in a table. */
function pastsOf(now: Dayjs): WithPast[] {
  return instruments
    .filter(({ state = 'in service', tolerancePercentOfSpan: limit }) => state === 'in service' && limit > 0)
    .map((data) => {
      const dueOn = now.add(data.dueInDays, 'day');
      const [first] = isSimulated(data) ? pastVisits(now, dueOn, data.intervalMonths) : [];
      return {
        ...data,
        next: first ?? dueOn,
        foundNext: first !== undefined && isSimulated(data) ? data.zeroErrorPercent : null,
      };
    });
}

/** The advice on intervals, as a planner would have it worked out. */
async function plantAdvice(db: Database, now: Dayjs): Promise<void> {
  const today = now.format(ISO_DATE);
  const planner = (await listPeople(db)).find(({ role }) => role === 'planner');
  const id = await db.transaction((tx) =>
    askCalculation(tx, { personId: planner?.id ?? 0, at: now.toDate(), today }),
  );
  await calculate(db, id, today);
}

/** The boiler drum was checked hot; it is to be set up cold, and a tank waits for its new range. */
function levelEvents(
  tx: Queryable,
  now: Dayjs,
  by: { readonly technicianA: number; readonly technicianB: number; readonly reviewer: number },
): { at: Dayjs; happen: () => Promise<void> }[] {
  const actor = (at: Dayjs, personId: number): Actor => ({
    at: at.toDate(),
    today: at.format(ISO_DATE),
    personId,
  });
  const [checked, opened] = [now.subtract(40, 'day'), now.subtract(300, 'minute')];
  return [
    {
      at: checked,
      happen: () => plantHotCheck(tx, actor(checked, by.technicianA), actor(checked, by.reviewer)),
    },
    { at: opened, happen: () => plantLevelJobs(tx, actor(opened, by.technicianB)) },
  ];
}

/** The syrup in LT-2302's tank grew denser, so its range was stretched: a second version to compare with. */
async function plantRangeChange(tx: Queryable, personId: number, at: Dayjs): Promise<void> {
  const { id, configuration } = await findInstrument(tx, { tag: 'LT-2302' });
  const { version: _version, madeBy: _by, madeAt: _at, ...range } = configuration;
  const denser: Actor = { at: at.toDate(), today: at.format(ISO_DATE), personId };
  const urv = Number((configuration.urv * 1.08).toPrecision(3));
  await addConfiguration(tx, denser, id, { ...range, urv, reason: 'syrup runs at 72 Bx this campaign' });
}

/** DM-01 was found to read high when it was last calibrated; what the runs before that are worth is half decided. */
async function plantFinding(tx: Queryable, personId: number, now: Dayjs): Promise<void> {
  const meter = (await listReferences(tx)).find(
    ({ tag, quantity }) => tag === 'DM-01' && quantity === 'current',
  );
  if (meter?.calibratedOn == null) throw new Error('the demo has no DM-01 with a certificate');
  const found = dayjs(meter.calibratedOn);
  const actor: Actor = { personId, at: now.toDate(), today: now.format(ISO_DATE) };
  const id = await addFinding(tx, actor, meter.id, {
    foundOn: found.format(ISO_DATE),
    goodUntil: found.subtract(1, 'year').format(ISO_DATE),
    errors: [
      { at: 4, error: 0.004 },
      { at: 12, error: 0.011 },
      { at: 20, error: 0.021 },
    ],
    note: 'Reads high, found by the laboratory before it was adjusted.',
  });
  await releaseReference(tx, actor, id, 'Adjusted by the laboratory and calibrated anew, good since.');
  const runs = await runsInDoubt(tx, await findFinding(tx, id), 100);
  for (const run of runs.filter(({ verdictThen, verdictNow }) => verdictThen === verdictNow).slice(0, 2))
    await decideFinding(tx, actor, id, { runId: run.runId, decision: 'no effect', remark: 'same verdict' });
}
