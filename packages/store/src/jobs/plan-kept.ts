/** The range that a job was opened for, as it is kept. */
import { z } from 'zod';
import type { Queryable } from '../db/database';
import { configurationCopySchema, type Configuration } from '../registers/configuration';

const plannedSchema = configurationCopySchema.extend({ reason: z.string() });

export interface RangePlan {
  readonly configuration: Configuration;
  readonly reason: string;
  readonly label: string;
  readonly madeBy: string;
  readonly madeAt: Date;
}

/** The range that a job was opened for; null where it was not opened for one. */
export async function rangePlanOf(db: Queryable, jobId: number): Promise<RangePlan | null> {
  const [row] = await db.query<{
    configuration: Record<string, unknown>;
    label: string;
    madeBy: string;
    madeAt: Date;
  }>(
    `select configuration, label, name_at(made_by, made_at) as "madeBy", made_at as "madeAt"
     from range_plan where job_id = $1`,
    [jobId],
  );
  if (row === undefined) return null;
  const { reason, ...configuration } = plannedSchema.parse({ ...row.configuration, version: 0 });
  return { ...row, configuration, reason };
}
