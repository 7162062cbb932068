/** What a level is measured in, in versions, so that its range can be worked out again from what the plant knows. */
import { z } from 'zod';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import type { Actor } from '../people/actor';
import { requireKeeper } from '../people/people';
import { findInstrument } from './instruments';

export const VESSEL_TOOLS = ['level', 'drum'] as const;

export const vesselSchema = z.object({
  tool: z.enum(VESSEL_TOOLS),
  /** The texts of the tool's fields. */
  fields: z.record(z.string().max(60), z.string().max(6000)),
  lrvPa: z.number({ error: 'The lower range value is a number.' }),
  urvPa: z.number({ error: 'The upper range value is a number.' }),
  reason: z.string().trim().min(1, 'Say why: the reason stays with this version.').max(500),
});
export type NewVessel = z.infer<typeof vesselSchema>;

export interface VesselVersion extends Readonly<NewVessel> {
  readonly version: number;
  readonly madeBy: string;
  readonly madeAt: Date;
}

/**
 * Keeps a new version of what an instrument's level is measured in.
 * @throws StoreError `no-such`, `not-walkable` of an instrument that measures no level, `unknown-person`, `not-allowed`
 */
export async function keepVessel(tx: Queryable, actor: Actor, tag: string, entry: NewVessel): Promise<void> {
  await requireKeeper(tx, actor);
  const { id, measures } = await findInstrument(tx, { tag });
  if (measures !== 'level')
    throw new StoreError({ code: 'not-walkable', why: `${tag} measures ${measures}, not a level.` });
  // One version after the other, also where two people enter one at once.
  await tx.query('select from instrument where id = $1 for no key update', [id]);
  const [kept] = await tx.query<{ version: number }>(
    `insert into vessel (instrument_id, version, tool, fields, lrv_pa, urv_pa, reason, made_by, made_at)
     select $1, coalesce(max(version), 0) + 1, $2, $3, $4, $5, $6, $7, $8 from vessel where instrument_id = $1
     returning version`,
    [
      id,
      entry.tool,
      JSON.stringify(entry.fields),
      entry.lrvPa,
      entry.urvPa,
      entry.reason,
      actor.personId,
      actor.at,
    ],
  );
  await appendToTrail(tx, actor, {
    act: 'enter vessel',
    subject: { kind: 'instrument', id },
    detail: { version: kept?.version, ...entry },
  });
}

/** The versions of what an instrument's level is measured in, the newest first. */
export const vesselsOf = (db: Queryable, instrumentId: number): Promise<VesselVersion[]> =>
  db.query<VesselVersion>(
    `select version, tool, fields, lrv_pa as "lrvPa", urv_pa as "urvPa", reason,
       name_at(made_by, made_at) as "madeBy", made_at as "madeAt"
     from vessel where instrument_id = $1 order by version desc`,
    [instrumentId],
  );
