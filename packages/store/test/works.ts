/** The least that a job needs: two technicians, an auditor, one instrument, references good and bad. */
import { randomUUID } from 'node:crypto';
import type { Queryable } from '../src/database';
import {
  addBody,
  addConfiguration,
  addInstrument,
  addPerson,
  addReference,
  connectJob,
  CONNECT_CHECKS,
  loadJob,
  openJob,
  passBrief,
  saveReading,
  type Actor,
  type NewConnection,
  type RunKind,
  type TypedReading,
} from '../src/index';

export const TODAY = '2026-05-04';
export const TAG = 'PT-1';

export interface Works {
  readonly technician: Actor;
  readonly colleague: Actor;
  readonly auditor: Actor;
}

const PRESSURE = {
  description: 'calibrator',
  serial: '1',
  quantity: 'pressure' as const,
  unit: 'bar',
  rangeLow: -1,
  rangeHigh: 20,
  accuracyPercentOfReading: 0.02,
  accuracyPercentOfRange: 0.01,
  resolution: 0.0001,
  certificate: 'K-1',
  calibratedOn: '2026-01-01',
  dueOn: TODAY,
};

export async function plantWorks(owner: Queryable): Promise<Works> {
  const actor = async (name: string, role: 'technician' | 'auditor'): Promise<Actor> => ({
    personId: await addPerson(owner, name, role),
    at: new Date(`${TODAY}T08:00:00Z`),
    today: TODAY,
  });
  const works: Works = {
    technician: await actor('Technician A', 'technician'),
    colleague: await actor('Technician B', 'technician'),
    auditor: await actor('Auditor', 'auditor'),
  };
  await addBody(owner, {
    model: 'Cell 16',
    unit: 'bar',
    lowerRangeLimit: -1,
    upperRangeLimit: 16,
    leastSpan: 0.8,
  });
  await addReference(owner, { ...PRESSURE, tag: 'PC-1' });
  await addReference(owner, {
    ...PRESSURE,
    tag: 'PC-OLD',
    accuracyPercentOfRange: 0.001,
    dueOn: '2026-05-03',
  });
  await addReference(owner, { ...PRESSURE, tag: 'PC-SHORT', rangeHigh: 3 });
  await addReference(owner, { ...PRESSURE, tag: 'PC-COARSE', accuracyPercentOfRange: 0.1 });
  await addReference(owner, {
    ...PRESSURE,
    tag: 'DM-1',
    quantity: 'current',
    unit: 'mA',
    rangeLow: 0,
    rangeHigh: 24,
    resolution: 0.001,
  });
  const id = await addInstrument(owner, works.technician, {
    tag: TAG,
    serial: 'S-1',
    service: 'test service',
    area: 'bench',
    hazards: [],
    bodyModel: 'Cell 16',
    tolerance: { percentOfSpan: 0.25, adjustAbovePercentOfLimit: 70 },
    intervalMonths: 12,
    dueOn: TODAY,
  });
  await addConfiguration(owner, works.technician, id, RANGE);
  return works;
}

export const RANGE = {
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
} as const;

export const CONNECTION: NewConnection = {
  pressureReference: 'PC-1',
  meter: 'DM-1',
  ambient: { temperatureC: 21, humidityPercent: 45, barometerHpa: 1010 },
  checksDone: CONNECT_CHECKS,
  note: '',
};

/** Opens a job and brings it to the as-found run. */
export async function jobAtAsFound(tx: Queryable, actor: Actor): Promise<{ jobId: number; runId: number }> {
  const jobId = await openJob(tx, actor, TAG, 'due');
  await passBrief(tx, actor, jobId);
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
