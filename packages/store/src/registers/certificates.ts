/** Certificates of reference standards, and what they say range by range. */
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import { requireKeeper } from '../people/people';
import type { Actor } from '../people/actor';
import { columnsOf, keysOf, rowOf, selectOf, type Column } from './fields';
import type { Certificate, NewCertificate } from './reference';

const CERTIFICATE_COLUMNS = {
  number: { column: 'number', type: 'text' },
  laboratory: { column: 'laboratory', type: 'text' },
  calibratedOn: { column: 'calibrated_on', type: 'date' },
  dueOn: { column: 'due_on', type: 'date' },
  uncertaintyPercentOfRange: { column: 'uncertainty_percent_of_range', type: 'numeric' },
} as const satisfies Record<Exclude<keyof NewCertificate, 'results'>, Column>;

/** The certificate in force of `standard`: the newest calibration. */
export const CERTIFICATE_IN_FORCE = `
  select id, ${columnsOf(CERTIFICATE_COLUMNS)} from reference_certificate
  where reference_certificate.reference_id = standard.id order by calibrated_on desc, id desc limit 1`;

/** The points of a certificate for one range, as JSON. */
export const resultsSql = (certificate: string, module: string): string => `coalesce((
    select json_agg(json_build_object('at', at, 'correction', correction, 'uncertainty', uncertainty) order by at)
    from certificate_result where certificate_id = ${certificate} and module_id = ${module}), '[]')`;

/** All certificates of a reference, the newest calibration first. */
export function certificatesOf(db: Queryable, standardId: number): Promise<Certificate[]> {
  return db.query<Certificate>(
    `select certificate.id, ${selectOf(CERTIFICATE_COLUMNS)}, file_name as "fileName",
       coalesce((
         select json_agg(json_build_object('moduleId', module.id, 'unit', module.unit, 'points',
           ${resultsSql('certificate.id', 'module.id')}) order by module.id)
         from reference_module module where module.id in
           (select module_id from certificate_result where certificate_id = certificate.id)), '[]') as results,
       name_at(entered_by, entered_at) as "enteredBy"
     from reference_certificate certificate
     where reference_id = $1 order by calibrated_on desc, certificate.id desc`,
    [standardId],
  );
}

export interface AttachedFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/**
 * Enters a certificate; the newest calibration is in force from now on.
 * @throws StoreError `no-such` of a range that is another reference's, `unit-moved` of one that has another unit by now,
 *   `unknown-person`, `not-allowed`
 */
export async function addCertificate(
  tx: Queryable,
  actor: Actor,
  standardId: number,
  entry: NewCertificate,
  file: AttachedFile | null,
): Promise<void> {
  await requireKeeper(tx, actor);
  const [added] = await tx.query<{ id: number }>(
    `insert into reference_certificate (reference_id, ${columnsOf(CERTIFICATE_COLUMNS)},
       file_name, file, entered_by, entered_at)
     select $1::bigint, ${keysOf(CERTIFICATE_COLUMNS)}, $3::text, $4::bytea, $5::bigint, $6::timestamptz
     from jsonb_to_record($2::jsonb) as entry (${rowOf(CERTIFICATE_COLUMNS)}) returning id`,
    [standardId, JSON.stringify(entry), file?.name ?? '', file?.bytes ?? null, actor.personId, actor.at],
  );
  for (const { moduleId, unit, points } of entry.results ?? []) {
    if (points.length > 0) await requireUnitOf(tx, standardId, moduleId, unit);
    await tx.query(
      `insert into certificate_result (certificate_id, module_id, at, correction, uncertainty)
       select $1, module.id, point.at, point.correction, point.uncertainty
       from reference_module module,
         json_to_recordset($3) as point (at numeric, correction numeric, uncertainty numeric)
       where module.id = $2`,
      [added?.id, moduleId, JSON.stringify(points)],
    );
  }
  await appendToTrail(tx, actor, {
    act: 'add certificate',
    subject: { kind: 'reference', id: standardId },
    detail: { ...entry, file: file?.name ?? null },
  });
}

/** The range that figures are entered for has their unit, and keeps it until they are kept. */
async function requireUnitOf(
  tx: Queryable,
  standardId: number,
  moduleId: number,
  unit: string,
): Promise<void> {
  const [range] = await tx.query<{ unit: string }>(
    'select unit from reference_module where id = $1 and reference_id = $2 for share',
    [moduleId, standardId],
  );
  if (range === undefined) throw new StoreError({ code: 'no-such', what: 'module', name: moduleId });
  if (range.unit !== unit) throw new StoreError({ code: 'unit-moved', unit: range.unit });
}

/** The file attached to a certificate. @throws StoreError `no-such` */
export async function fileOfCertificate(db: Queryable, certificateId: number): Promise<AttachedFile> {
  const [row] = await db.query<AttachedFile>(
    'select file_name as name, file as bytes from reference_certificate where id = $1 and file is not null',
    [certificateId],
  );
  if (row === undefined)
    throw new StoreError({ code: 'no-such', what: 'file of certificate', name: certificateId });
  return row;
}
