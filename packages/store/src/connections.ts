/** What a job was connected to, and the conditions around it. */
import { appendToTrail } from './audit';
import type { Queryable } from './database';
import { StoreError } from './errors';
import { findInstrument } from './instruments';
import { lockJobAt, moveJob } from './job-stages';
import { requireWorker, type Actor } from './people';
import { listReferences, rankReferences, type Reference } from './references';
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
  readonly madeBy: string;
  readonly madeAt: Date;
}

/** The connection in force for a job: the last one made. */
export async function connectionOfJob(db: Queryable, jobId: number): Promise<Connection | null> {
  const [row] = await db.query<{
    pressureReferenceId: number;
    meterId: number;
    ambient: Ambient;
    checksDone: ConnectCheck[];
    madeBy: string;
    madeAt: Date;
  }>(
    `select pressure_reference_id as "pressureReferenceId", meter_id as "meterId",
       json_build_object('temperatureC', ambient_c, 'humidityPercent', humidity_percent,
         'barometerHpa', barometer_hpa) as ambient,
       checks_done as "checksDone", person.name as "madeBy", made_at as "madeAt"
     from connection join person on person.id = made_by where job_id = $1 order by connection.id desc limit 1`,
    [jobId],
  );
  if (row === undefined) return null;
  const { pressureReferenceId, meterId, ...rest } = row;
  const references = await listReferences(db);
  const byId = (id: number): Reference => {
    const found = references.find((reference) => reference.id === id);
    if (found === undefined) throw new StoreError({ code: 'no-such', what: 'reference', name: id });
    return found;
  };
  return { ...rest, pressureReference: byId(pressureReferenceId), meter: byId(meterId) };
}

export interface NewConnection {
  readonly pressureReference: string;
  readonly meter: string;
  readonly ambient: Ambient;
  readonly checksDone: readonly ConnectCheck[];
  /** Why a check was left out; needed when one is. */
  readonly note: string;
}

/**
 * Keeps the connection, begins the as-found run and moves the job to it.
 * @throws StoreError `reference-unfit`, `reason-needed`, `wrong-stage`, `no-such`, `unknown-person`, `not-allowed`
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
  const references = await listReferences(tx);
  const choose = (tag: string, quantity: Reference['quantity']): Reference => {
    const fit = rankReferences(references, quantity, instrument, actor.today).find(
      ({ reference }) => reference.tag === tag,
    );
    if (fit === undefined)
      throw new StoreError({ code: 'no-such', what: `${quantity} reference`, name: tag });
    if (fit.unfit !== null) throw new StoreError({ code: 'reference-unfit', tag, why: fit.unfit });
    return fit.reference;
  };
  const left = CONNECT_CHECKS.filter((check) => !entry.checksDone.includes(check));
  if (left.length > 0 && entry.note.trim() === '')
    throw new StoreError({ code: 'reason-needed', why: `not ticked is "${left.join('", "')}"` });
  const pressureReference = choose(entry.pressureReference, 'pressure');
  const meter = choose(entry.meter, 'current');
  const { temperatureC, humidityPercent, barometerHpa } = entry.ambient;
  await tx.query(
    `insert into connection (job_id, pressure_reference_id, meter_id, ambient_c, humidity_percent, barometer_hpa,
       checks_done, made_by, made_at) values ($1, $2, $3, $4, $5, $6, $7, $8, $9)`,
    [
      jobId,
      pressureReference.id,
      meter.id,
      temperatureC,
      humidityPercent,
      barometerHpa,
      entry.checksDone,
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
    detail: { ...entry, note: entry.note.trim() },
  });
}
