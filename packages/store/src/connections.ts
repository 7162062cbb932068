/** What a job was connected to, and the conditions around it. */
import { appendToTrail } from './audit';
import type { Queryable } from './database';
import { StoreError } from './errors';
import { findInstrument } from './instruments';
import { lockJobAt, moveJob } from './job-stages';
import { requireWorker, type Actor } from './people';
import { fitOf, quantityWanted, type Side } from './reference-fit';
import { findReference, type Reference } from './references';
import { startRun } from './runs';

export interface Ambient {
  readonly temperatureC: number;
  readonly humidityPercent: number;
  readonly barometerHpa: number;
}

/** Asked before the first point; each is ticked or not, and the record says which. */
export const CONNECT_CHECKS = [
  'isolated and vented',
  'reference zeroed',
  'leak checked',
  'exercised to full scale',
] as const;
export type ConnectCheck = (typeof CONNECT_CHECKS)[number];

export interface Connection {
  readonly pressureReference: Reference;
  readonly meter: Reference;
  readonly ambient: Ambient;
  readonly checksDone: readonly ConnectCheck[];
  /** Why a reference was used that did not fit; empty where both did. */
  readonly referenceReason: string;
  readonly madeBy: string;
  readonly madeAt: Date;
}

/** The connection in force for a job: the last one made. */
export async function connectionOfJob(db: Queryable, jobId: number): Promise<Connection | null> {
  const [row] = await db.query<{
    pressureModuleId: number;
    meterModuleId: number;
    ambient: Ambient;
    checksDone: ConnectCheck[];
    referenceReason: string;
    madeBy: string;
    madeAt: Date;
  }>(
    `select pressure_module_id as "pressureModuleId", meter_module_id as "meterModuleId",
       json_build_object('temperatureC', ambient_c, 'humidityPercent', humidity_percent,
         'barometerHpa', barometer_hpa) as ambient,
       checks_done as "checksDone", reference_reason as "referenceReason", person.name as "madeBy",
       made_at as "madeAt"
     from connection join person on person.id = made_by where job_id = $1 order by connection.id desc limit 1`,
    [jobId],
  );
  if (row === undefined) return null;
  const { pressureModuleId, meterModuleId, ...rest } = row;
  const pressureReference = await findReference(db, pressureModuleId);
  return { ...rest, pressureReference, meter: await findReference(db, meterModuleId) };
}

export interface NewConnection {
  /** Numbers of the modules used. */
  readonly pressureReference: number;
  readonly meter: number;
  /** Why a reference is used that does not fit; needed when one is. */
  readonly referenceReason: string;
  readonly ambient: Ambient;
  readonly checksDone: readonly ConnectCheck[];
  /** Why a check was left out; needed when one is. */
  readonly note: string;
}

/**
 * Keeps the connection, begins the as-found run and moves the job to it.
 * @throws StoreError `reference-unfit`, `reference-reason-needed`, `reason-needed`, `wrong-stage`, `no-such`, `unknown-person`, `not-allowed`
 */
export async function connectJob(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  entry: NewConnection,
): Promise<void> {
  await requireWorker(tx, actor);
  const { instrumentId } = await lockJobAt(tx, jobId, 'connect');
  const instrument = await findInstrument(tx, { id: instrumentId });
  const choose = async (id: number, side: Side): Promise<Reference> => {
    const reference = await findReference(tx, id);
    if (reference.quantity !== quantityWanted(instrument, side))
      throw new StoreError({
        code: 'reference-unfit',
        tag: reference.tag,
        why: `it measures ${reference.quantity}`,
      });
    const { unfit } = fitOf(reference, instrument, side, actor.today);
    if (unfit !== null && entry.referenceReason.trim() === '')
      throw new StoreError({ code: 'reference-reason-needed', tag: reference.tag, why: unfit });
    return reference;
  };
  const left = CONNECT_CHECKS.filter((check) => !entry.checksDone.includes(check));
  if (left.length > 0 && entry.note.trim() === '')
    throw new StoreError({ code: 'reason-needed', why: `not ticked is "${left.join('", "')}"` });
  const pressureReference = await choose(entry.pressureReference, 'input');
  const meter = await choose(entry.meter, 'output');
  const { temperatureC, humidityPercent, barometerHpa } = entry.ambient;
  await tx.query(
    `insert into connection (job_id, pressure_module_id, meter_module_id, ambient_c, humidity_percent, barometer_hpa,
       checks_done, reference_reason, made_by, made_at) values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)`,
    [
      jobId,
      pressureReference.id,
      meter.id,
      temperatureC,
      humidityPercent,
      barometerHpa,
      entry.checksDone,
      entry.referenceReason.trim(),
      actor.personId,
      actor.at,
    ],
  );
  await moveJob(tx, actor, jobId, { from: 'connect', to: 'as-found', note: entry.note.trim() });
  const connection = await connectionOfJob(tx, jobId);
  if (connection === null) throw new Error('the connection just inserted is not there');
  await startRun(tx, actor, jobId, { kind: 'as-found', pass: 1 }, instrument, connection);
  await appendToTrail(tx, actor, {
    act: 'connect',
    subject: { kind: 'job', id: jobId },
    detail: {
      ...entry,
      pressureReference: pressureReference.tag,
      meter: meter.tag,
      note: entry.note.trim(),
    },
  });
}
