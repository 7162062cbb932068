/** The least that a job needs: two technicians, an auditor, one instrument, references good and bad. */
import { HOOK_UPS } from '@barys/core/hookup';
import { randomUUID } from 'node:crypto';
import { afterAll } from 'vitest';
import type { Queryable } from '../src/db/database';
import type { NewBody } from '../src/registers/body';
import { addBody } from '../src/registers/bodies';
import { addCertificate } from '../src/registers/certificates';
import type { NewModule } from '../src/registers/reference';
import { addStandard, keepModule } from '../src/registers/references';
import type { NewInstrument } from '../src/registers/instrument';
import { addInstrument } from '../src/registers/instruments';
import { addFirstPerson, addPerson, type Role } from '../src/people/people';
import { connectJob, type NewConnection } from '../src/jobs/connect';
import { CONNECT_CHECKS } from '../src/jobs/connection';
import { loadJob } from '../src/jobs/file';
import { openJob, passAsked } from '../src/jobs/decide';
import { keepMove, valvesOfJob, type ValveStage } from '../src/jobs/valves';
import { circumstancesOf, questionsAt } from '../src/jobs/questions';
import { saveReading, type TypedReading } from '../src/runs/reading';
import type { Actor } from '../src/people/actor';
import type { AskingStage } from '../src/jobs/stages';
import type { NewConfiguration } from '../src/registers/configuration';
import type { RunKind } from '../src/runs/copy';

import { throwaway, type Throwaway } from './throwaway';

export const TODAY = '2026-05-04';
export const TAG = 'PT-1';

export interface Works {
  readonly technician: Actor;
  readonly colleague: Actor;
  readonly auditor: Actor;
  readonly administrator: Actor;
}

const PRESSURE: NewModule = {
  name: '',
  quantity: 'pressure',
  kind: 'gauge',
  unit: 'bar',
  rangeLow: -1,
  rangeHigh: 20,
  resolution: 0.0001,
  percentOfReading: 0.02,
  percentOfRange: 0.01,
  floor: 0,
  driftPercentOfReadingPerYear: 0,
  percentOfReadingPerK: 0,
  isActive: true,
};

/** The references of the works and the numbers of their modules, in the order in which they are planted. */
export const MODULE = { 'PC-1': 1, 'PC-OLD': 2, 'PC-SHORT': 3, 'PC-COARSE': 4, 'DM-1': 5 } as const;

async function plantReferences(owner: Queryable, actor: Actor): Promise<void> {
  const add = async (tag: keyof typeof MODULE, more: Partial<NewModule>, dueOn: string = TODAY) => {
    const standard = { tag, description: 'calibrator', serial: '1', state: 'in use', location: '' } as const;
    const id = await addStandard(owner, actor, standard);
    const number = await keepModule(owner, actor, id, null, { ...PRESSURE, ...more });
    if (number !== MODULE[tag]) throw new Error(`${tag} has the module ${number}`);
    const certificate = {
      number: 'K-1',
      laboratory: '',
      calibratedOn: '2026-01-01',
      dueOn,
      uncertaintyPercentOfRange: 0.005,
    };
    await addCertificate(owner, actor, id, certificate, null);
  };
  await add('PC-1', {});
  await add('PC-OLD', { percentOfRange: 0.001 }, '2026-05-03');
  await add('PC-SHORT', { rangeHigh: 3 });
  await add('PC-COARSE', { percentOfRange: 0.1 });
  await add('DM-1', { quantity: 'current', unit: 'mA', rangeLow: 0, rangeHigh: 24, resolution: 0.001 });
}

/** The works in a database of its own, for the length of a test file. */
export async function openWorks(): Promise<{ readonly base: Throwaway; readonly works: Works }> {
  const base = await throwaway();
  afterAll(() => base.drop());
  return { base, works: await base.owner.transaction(plantWorks) };
}

async function plantWorks(owner: Queryable): Promise<Works> {
  const now = { at: new Date(`${TODAY}T08:00:00Z`), today: TODAY };
  const person = (name: string, role: Role) => ({ name, role, login: null, isActive: true });
  const administrator = await addFirstPerson(owner, now, person('Administrator', 'administrator'));
  const actor = async (name: string, role: Role): Promise<Actor> => ({
    ...now,
    personId: await addPerson(owner, administrator, person(name, role)),
  });
  const works: Works = {
    administrator,
    technician: await actor('Technician A', 'technician'),
    colleague: await actor('Technician B', 'technician'),
    auditor: await actor('Auditor', 'auditor'),
  };
  const bodyId = await addBody(owner, works.technician, CELL);
  await plantReferences(owner, works.technician);
  await addInstrument(owner, works.technician, entry({ bodyId }), RANGE);
  return works;
}

export const CELL: NewBody = {
  model: 'Cell 16',
  kind: 'gauge',
  technology: 'smart',
  unit: 'bar',
  lowerRangeLimit: -1,
  upperRangeLimit: 16,
  leastSpan: 0.8,
  greatestSpan: null,
  greatestElevationPercent: null,
  greatestSuppressionPercent: null,
  stampedTurndown: null,
  outputs: ['mA-4-20'],
  trims: ['zero trim', 'sensor trim', 'output trim'],
  spanClasses: [],
  accuracy: '',
  swapChecklist: [],
};

/** 0.25 % of span, adjust above 70 % of it. */
export const LIMIT = {
  percentOfSpan: 0.25,
  middlePercentOfSpan: null,
  percentOfReading: 0,
  adjustAbovePercentOfLimit: 70,
};

export const entry = (more: Partial<NewInstrument> & { bodyId: number }): NewInstrument => ({
  tag: TAG,
  serial: 'S-1',
  service: 'test service',
  description: '',
  site: '',
  area: 'bench',
  walk: null,
  hazards: [],
  loop: '',
  criticality: 'general',
  measures: 'pressure',
  kind: 'gauge',
  hookUp: 'block-and-bleed',
  canBeIsolated: 'any time',
  isolatedWith: '',
  procedureId: 1,
  tolerance: LIMIT,
  intervalMonths: 12,
  dueOn: TODAY,
  owner: '',
  state: 'in service',
  ...more,
});

export const RANGE: NewConfiguration = {
  scaleDivision: null,
  displayDampingS: null,
  application: null,
  startView: null,
  drivenBy: null,
  switchingPoints: [],
  signal: 'mA-4-20',
  outputUnit: 'mA',
  transferFunction: { kind: 'linear' },
  inputUnit: 'bar',
  lrv: 0,
  urv: 6,
  outputLow: 4,
  outputHigh: 20,
  dampingS: 2,
  displayUnit: 'bar',
  displayLow: 0,
  displayHigh: 6,
  reason: 'first entry',
};

export const CONNECTION: NewConnection = {
  pressureReference: MODULE['PC-1'],
  secondReference: null,
  meter: MODULE['DM-1'],
  leak: null,
  place: 'on site',
  heightM: 0,
  liquidDensityKgPerM3: 0,
  readsDigital: false,
  secondIndication: '',
  given: { damping: 'done' },
  referenceReason: '',
  ambient: { temperatureC: 21, humidityPercent: 45, barometerHpa: 1010 },
  checksDone: CONNECT_CHECKS,
  note: '',
};

/** An answer to all that a stage asks. */
export async function answersAt(
  tx: Queryable,
  jobId: number,
  stage: AskingStage,
): Promise<{ given: Record<string, string>; skipReason: string }> {
  const job = await loadJob(tx, jobId);
  const { isLegLost } = valvesOfJob(job.instrument.hookUp, job.moves);
  const given = questionsAt(stage, job.instrument, circumstancesOf({ ...job, isLegLost })).map(
    ({ key, kind, options }): [string, string] => [
      key,
      kind === 'tick' ? 'done' : kind === 'choice' ? (options?.[0] ?? '') : 'as usual',
    ],
  );
  return { given: Object.fromEntries(given), skipReason: '' };
}

/** Moves all valves in the usual order. */
export async function turnValves(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  stage: ValveStage,
): Promise<void> {
  const { instrument, moves } = await loadJob(tx, jobId);
  const { isolate, restore } = HOOK_UPS[instrument.hookUp];
  for (const [index, move] of (stage === 'isolate' ? isolate : restore).entries())
    await keepMove(tx, actor, jobId, { ...move, stage, isMadeAnyway: false, known: moves.length + index });
}

/** From the brief to the connection, all asked and answered. */
export async function walkToConnect(tx: Queryable, actor: Actor, jobId: number): Promise<void> {
  for (const stage of ['brief', 'authorise', 'isolate'] as const) {
    if (stage === 'isolate') await turnValves(tx, actor, jobId, 'isolate');
    await passAsked(tx, actor, jobId, stage, await answersAt(tx, jobId, stage));
  }
}

/** From the return to the signature. */
export async function bringBack(tx: Queryable, actor: Actor, jobId: number): Promise<void> {
  await turnValves(tx, actor, jobId, 'return');
  await passAsked(tx, actor, jobId, 'return', await answersAt(tx, jobId, 'return'));
}

/** Signs without a remark and without a password, which the people of the works do not have. */
export const SIGNED = { remark: '', password: '' };

/** Leaves every instrument free for the next test: jobs left open are closed as the owner of the tables. */
export async function closeOpenJobs(owner: Queryable): Promise<void> {
  await owner.query(
    `update job set stage = 'closed', signed_by = opened_by, signed_at = now(), as_found_verdict = 'within',
       as_left_verdict = 'within' where stage not in ('closed', 'cancelled')`,
  );
}

/** Opens a job and brings it to the as-found run. */
export async function jobAtAsFound(tx: Queryable, actor: Actor): Promise<{ jobId: number; runId: number }> {
  const jobId = await openJob(tx, actor, TAG, 'due');
  await walkToConnect(tx, actor, jobId);
  await connectJob(tx, actor, jobId, CONNECTION);
  return { jobId, runId: await lastRunId(tx, jobId, 'as-found') };
}

export async function lastRunId(tx: Queryable, jobId: number, kind: RunKind): Promise<number> {
  const run = (await loadJob(tx, jobId)).runs.filter((one) => one.kind === kind).at(-1);
  if (run === undefined) throw new Error(`job ${jobId} has no ${kind} run`);
  return run.id;
}

export const reading = (
  position: number,
  outputText: string,
  more: Partial<TypedReading> = {},
): TypedReading => ({
  position,
  clientKey: randomUUID(),
  appliedText: '0.000',
  appliedAs: 'set',
  outputText,
  supersedes: null,
  ...more,
});

/** Nine readings with the same error, mA. */
export async function readAll(
  tx: Queryable,
  actor: Actor,
  runId: number,
  errorMilliamp: number,
): Promise<void> {
  const applied = [0, 1.5, 3, 4.5, 6, 4.5, 3, 1.5, 0];
  for (const [index, bar] of applied.entries())
    await saveReading(
      tx,
      actor,
      runId,
      reading(index + 1, (4 + (bar / 6) * 16 + errorMilliamp).toFixed(3), { appliedText: bar.toFixed(3) }),
    );
}
