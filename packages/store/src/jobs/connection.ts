/** What a job was connected to, and the conditions around it, as it is kept. */
import type { PressureUnit } from '@barys/core/units';
import type { Queryable } from '../db/database';
import type { Leak } from './leak';
import type { Reference } from '../registers/reference';
import { findReference } from '../registers/references';
import type { SecondScale } from '../runs/copy';

export interface Ambient {
  readonly temperatureC: number;
  readonly humidityPercent: number;
  readonly barometerHpa: number;
}

/** Asked before the first point; each is ticked or not, and the record says which. */
export const CONNECT_CHECKS = [
  'warmed up',
  'reference zeroed',
  'leak checked',
  'exercised to full scale',
] as const;
export type ConnectCheck = (typeof CONNECT_CHECKS)[number];

/** Where the readings are taken. */
export const WORK_PLACES = ['on site', 'at the bench'] as const;
export type WorkPlace = (typeof WORK_PLACES)[number];

/** Indications that can be read beside the output at the same points. */
export const SECOND_INDICATIONS = ['own display', 'panel meter', 'computer input'] as const;

export interface Connection {
  readonly id: number;
  readonly pressureReference: Reference;
  readonly secondReference: Reference | null;
  /** Null where the output is read by eye. */
  readonly meter: Reference | null;
  readonly ambient: Ambient;
  readonly place: WorkPlace;
  readonly checksDone: readonly ConnectCheck[];
  /** Why a reference was used that did not fit; empty where all did. */
  readonly referenceReason: string;
  readonly leak: Leak | null;
  /** Height of the instrument above the standard. */
  readonly heightM: number;
  readonly liquidDensityKgPerM3: number;
  /** What the instrument sees more than the standard, in the unit that was in force. */
  readonly head: number;
  readonly inputUnit: PressureUnit;
  readonly readsDigital: boolean;
  readonly secondIndication: string;
  readonly secondScale: SecondScale | null;
  readonly madeBy: string;
  readonly madeAt: Date;
}

type ConnectionRow = Omit<Connection, 'pressureReference' | 'secondReference' | 'meter'> & {
  pressureModuleId: number;
  secondModuleId: number | null;
  meterModuleId: number | null;
};

/** All connections of a job, in order: a range that was changed in it is connected anew. */
export async function connectionsOfJob(db: Queryable, jobId: number): Promise<Connection[]> {
  const rows = await db.query<ConnectionRow>(
    `select connection.id, pressure_module_id as "pressureModuleId", second_module_id as "secondModuleId",
       meter_module_id as "meterModuleId",
       json_build_object('temperatureC', ambient_c, 'humidityPercent', humidity_percent,
         'barometerHpa', barometer_hpa) as ambient,
       place, checks_done as "checksDone", reference_reason as "referenceReason", leak, height_m as "heightM",
       liquid_density as "liquidDensityKgPerM3", head, input_unit as "inputUnit", reads_digital as "readsDigital",
       second_indication as "secondIndication", second_scale as "secondScale", name_at(made_by, made_at) as "madeBy", made_at as "madeAt"
     from connection where job_id = $1 order by connection.id`,
    [jobId],
  );
  const connections: Connection[] = [];
  for (const { pressureModuleId, secondModuleId, meterModuleId, ...rest } of rows)
    connections.push({
      ...rest,
      pressureReference: await findReference(db, pressureModuleId),
      secondReference: secondModuleId === null ? null : await findReference(db, secondModuleId),
      meter: meterModuleId === null ? null : await findReference(db, meterModuleId),
    });
  return connections;
}

/** The connection in force for a job: the last one made. */
export const connectionOfJob = async (db: Queryable, jobId: number): Promise<Connection | null> =>
  (await connectionsOfJob(db, jobId)).at(-1) ?? null;
