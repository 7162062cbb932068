/** Reference standards and their modules. */
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { refuseTaken, StoreError } from '../db/errors';
import { requireKeeper } from '../people/people';
import type { Actor } from '../people/actor';
import { CERTIFICATE_IN_FORCE, certificatesOf, resultsSql } from './certificates';
import { columnsOf, keysOf, rowOf, selectOf, type Column } from './fields';
import type { NewModule, NewStandard, Reference, Standard } from './reference';

const STANDARD_COLUMNS = {
  tag: { column: 'tag', type: 'text' },
  description: { column: 'description', type: 'text' },
  serial: { column: 'serial', type: 'text' },
  state: { column: 'state', type: 'text' },
  location: { column: 'location', type: 'text' },
} as const satisfies Record<keyof NewStandard, Column>;
// The tag stays: runs are found by it.
const { tag: _tag, ...CHANGEABLE } = STANDARD_COLUMNS;

const MODULE_COLUMNS = {
  name: { column: 'name', type: 'text' },
  quantity: { column: 'quantity', type: 'text' },
  kind: { column: 'pressure_kind', type: 'text' },
  unit: { column: 'unit', type: 'text' },
  rangeLow: { column: 'range_low', type: 'numeric' },
  rangeHigh: { column: 'range_high', type: 'numeric' },
  resolution: { column: 'resolution', type: 'numeric' },
  percentOfReading: { column: 'percent_of_reading', type: 'numeric' },
  percentOfRange: { column: 'percent_of_range', type: 'numeric' },
  floor: { column: 'floor', type: 'numeric' },
  driftPercentOfReadingPerYear: { column: 'drift_percent_of_reading_per_year', type: 'numeric' },
  percentOfReadingPerK: { column: 'percent_of_reading_per_k', type: 'numeric' },
  isActive: { column: 'is_active', type: 'boolean' },
} as const satisfies Record<keyof NewModule, Column>;
const { isActive: _isActive, ...RANGE_COLUMNS } = MODULE_COLUMNS;

const REFERENCE_SQL = `
  select module.id, ${selectOf(STANDARD_COLUMNS)}, ${selectOf(RANGE_COLUMNS)},
    coalesce(number, '') as certificate, calibrated_on as "calibratedOn", due_on as "dueOn",
    uncertainty_percent_of_range as "uncertaintyPercentOfRange",
    ${resultsSql('certificate.id', 'module.id')} as results,
    (select max(found_on) from reference_finding finding where finding.module_id = module.id
       and not exists (select from finding_release where finding_id = finding.id)) as "heldSince"
  from reference_module module
    join reference_standard standard on standard.id = reference_id
    left join lateral (${CERTIFICATE_IN_FORCE}) certificate on true`;

/** All usable ranges. */
export function listReferences(db: Queryable): Promise<Reference[]> {
  return db.query<Reference>(`${REFERENCE_SQL} where is_active order by tag, module.id`);
}

/** @throws StoreError `no-such` */
export async function findReference(db: Queryable, moduleId: number): Promise<Reference> {
  const [row] = await db.query<Reference>(`${REFERENCE_SQL} where module.id = $1`, [moduleId]);
  if (row === undefined) throw new StoreError({ code: 'no-such', what: 'reference', name: moduleId });
  return row;
}

export interface DueReference extends Pick<Reference, 'tag' | 'description' | 'certificate'> {
  readonly dueOn: string;
}

/** References that are not retired and due by a date, the first first. */
export function referencesDueBy(db: Queryable, date: string): Promise<DueReference[]> {
  return db.query<DueReference>(
    `select tag, description, number as certificate, due_on as "dueOn"
     from reference_standard standard
       join lateral (${CERTIFICATE_IN_FORCE}) certificate on true
     where state <> 'retired' and due_on <= $1 order by due_on, tag`,
    [date],
  );
}

/** @throws StoreError `no-such` */
export async function findStandard(db: Queryable, tag: string): Promise<Standard> {
  const [standard] = await db.query<Omit<Standard, 'modules' | 'certificates'>>(
    `select id, revision, ${selectOf(STANDARD_COLUMNS)} from reference_standard where tag = $1`,
    [tag],
  );
  if (standard === undefined) throw new StoreError({ code: 'no-such', what: 'reference', name: tag });
  const modules = await db.query<NewModule & { id: number }>(
    `select id, ${selectOf(MODULE_COLUMNS)} from reference_module where reference_id = $1 order by id`,
    [standard.id],
  );
  const certificates = await certificatesOf(db, standard.id);
  return { ...standard, modules, certificates };
}

/** @throws StoreError `taken`, `unknown-person`, `not-allowed` */
export async function addStandard(tx: Queryable, actor: Actor, entry: NewStandard): Promise<number> {
  await requireKeeper(tx, actor);
  const [row] = await refuseTaken({ what: 'reference', name: entry.tag }, () =>
    tx.query<{ id: number }>(
      `insert into reference_standard (${columnsOf(STANDARD_COLUMNS)})
       select ${keysOf(STANDARD_COLUMNS)} from jsonb_to_record($1::jsonb) as entry (${rowOf(STANDARD_COLUMNS)})
       returning id`,
      [JSON.stringify(entry)],
    ),
  );
  const id = row?.id ?? 0;
  await appendToTrail(tx, actor, {
    act: 'add reference',
    subject: { kind: 'reference', id },
    detail: { ...entry },
  });
  return id;
}

/**
 * Changes what is said of a reference. Its tag stays: runs are found by it.
 * @throws StoreError `changed-meanwhile`, `unknown-person`, `not-allowed`
 */
export async function changeStandard(
  tx: Queryable,
  actor: Actor,
  { id, revision, tag }: Pick<Standard, 'id' | 'revision' | 'tag'>,
  entry: Omit<NewStandard, 'tag'>,
): Promise<void> {
  await requireKeeper(tx, actor);
  const changed = await tx.query(
    `update reference_standard set (${columnsOf(CHANGEABLE)}, revision) =
       (select ${keysOf(CHANGEABLE)}, $2::integer + 1 from jsonb_to_record($3::jsonb) as entry (${rowOf(CHANGEABLE)}))
     where id = $1 and revision = $2 returning id`,
    [id, revision, JSON.stringify(entry)],
  );
  if (changed.length === 0) throw new StoreError({ code: 'changed-meanwhile', what: tag });
  await appendToTrail(tx, actor, {
    act: 'change reference',
    subject: { kind: 'reference', id },
    detail: { ...entry },
  });
}

/**
 * Adds a module to a reference, or changes one of its modules. Runs keep their own copy of what it was.
 * @throws StoreError `no-such`, `taken`, `unit-stays`, `unknown-person`, `not-allowed`
 */
export async function keepModule(
  tx: Queryable,
  actor: Actor,
  standardId: number,
  moduleId: number | null,
  entry: NewModule,
): Promise<number> {
  await requireKeeper(tx, actor);
  if (moduleId !== null) await requireUnit(tx, moduleId, entry.unit);
  const [row] = await refuseTaken({ what: 'module', name: entry.name }, () =>
    moduleId === null
      ? tx.query<{ id: number }>(
          `insert into reference_module (reference_id, ${columnsOf(MODULE_COLUMNS)})
           select $1::bigint, ${keysOf(MODULE_COLUMNS)}
           from jsonb_to_record($2::jsonb) as entry (${rowOf(MODULE_COLUMNS)}) returning id`,
          [standardId, JSON.stringify(entry)],
        )
      : tx.query<{ id: number }>(
          `update reference_module set (${columnsOf(MODULE_COLUMNS)}) =
             (select ${keysOf(MODULE_COLUMNS)} from jsonb_to_record($3::jsonb) as entry (${rowOf(MODULE_COLUMNS)}))
           where reference_id = $1 and id = $2 returning id`,
          [standardId, moduleId, JSON.stringify(entry)],
        ),
  );
  if (row === undefined) throw new StoreError({ code: 'no-such', what: 'module', name: moduleId ?? '' });
  await appendToTrail(tx, actor, {
    act: moduleId === null ? 'add module' : 'change module',
    subject: { kind: 'reference', id: standardId },
    detail: { module: row.id, ...entry },
  });
  return row.id;
}

/** What certificates say of a range stands in its unit, which therefore stays. */
async function requireUnit(tx: Queryable, moduleId: number, unit: string): Promise<void> {
  // A certificate that is being entered has the range, and is waited for.
  await tx.query('select from reference_module where id = $1 for update', [moduleId]);
  const [other] = await tx.query<{ unit: string }>(
    `select unit from reference_module where id = $1 and unit <> $2
       and exists (select from certificate_result where module_id = $1)`,
    [moduleId, unit],
  );
  if (other !== undefined) throw new StoreError({ code: 'unit-stays', unit: other.unit });
}
