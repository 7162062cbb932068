/**
 * Everything as JSON: one object a table row, table after table, as docs/export.md describes. Passwords, sessions and
 * tokens stay out, and files are named, not carried.
 */
import type { Database, Queryable } from '../db/database';

/** Tables in an order in which each refers only to earlier ones, with what leads their pages. */
const TABLES: readonly (readonly [name: string, columns: string])[] = [
  [
    'installation',
    'site_name, is_demo, review, letterhead, created_at, walk_minutes, permit_minutes, day_begins, grace_days',
  ],
  ['person', 'id, name, role, is_active, login, decides_safety, week_minutes'],
  ['interval_policy', '*'],
  ['body', '*'],
  ['procedure', '*'],
  ['procedure_version', '*'],
  ['instrument', '*'],
  ['configuration', '*'],
  ['reference_standard', '*'],
  ['reference_module', '*'],
  [
    'reference_certificate',
    'id, reference_id, number, laboratory, calibrated_on, due_on, uncertainty_percent_of_range, file_name, entered_by, entered_at',
  ],
  ['certificate_result', '*'],
  ['job', '*'],
  ['stage_passed', '*'],
  ['connection', '*'],
  ['run', '*'],
  ['run_thrown_away', '*'],
  ['reading', '*'],
  ['point_mark', '*'],
  ['adjustment', '*'],
  ['advice', '*'],
  ['cause', '*'],
  ['valve_move', '*'],
  ['amendment', '*'],
  ['setup_reading', '*'],
  ['job_line', '*'],
  ['job_line_tick', '*'],
  ['range_plan', '*'],
  ['automatic_run', '*'],
  ['automatic_order', '*'],
  ['reference_address', '*'],
  ['instrument_note', '*'],
  ['bias', '*'],
  ['vessel', '*'],
  ['loop', '*'],
  ['liquid', '*'],
  ['attachment', 'id, job_id, stage, run_id, position, remark, file_name, media_type, added_by, added_at'],
  ['reference_finding', '*'],
  ['finding_decision', '*'],
  ['finding_release', '*'],
  ['amendment_review', '*'],
  ['interval_change', '*'],
  ['absence', '*'],
  ['shutdown', '*'],
  ['planned', '*'],
  ['planned_reference', '*'],
  ['person_former_name', '*'],
  ['instrument_former_tag', '*'],
  ['past_result', '*'],
  ['audit_entry', "id, at, person_id, act, subject_kind, subject_id, detail, encode(hash, 'hex') as hash"],
  [
    'seal',
    `number as id, at, is_migration, entries::text as entries, encode(content_hash, 'hex') as content_hash,
       encode(hash, 'hex') as hash, encode(signature, 'hex') as signature, key`,
  ],
];

const PAGE = 5000;

/** The pieces of one JSON document of one moment; put together in this order they are the whole export. */
export async function* exportEverything(db: Database, madeAt: Date): AsyncGenerator<string> {
  const snapshot = await db.snapshot();
  try {
    yield* piecesOf(snapshot, madeAt);
  } finally {
    await snapshot.end();
  }
}

async function* piecesOf(db: Queryable, madeAt: Date): AsyncGenerator<string> {
  yield `{"format":"barys-export","version":1,"madeAt":${JSON.stringify(madeAt)},"tables":{`;
  for (const [index, [table, columns]] of TABLES.entries()) {
    yield `${index === 0 ? '' : ','}${JSON.stringify(table)}:[`;
    yield* rowsOf(db, table, columns);
    yield ']';
  }
  yield '}}';
}

async function* rowsOf(db: Queryable, table: string, columns: string): AsyncGenerator<string> {
  const isPaged = table !== 'installation';
  for (let last = -1, isFirst = true; ; isFirst = false) {
    // Table and columns are of the list above; nothing that anybody typed is in the text.
    const rows = await db.query<{ id: number; line: string }>(
      isPaged
        ? `select id, row_to_json(page)::text as line
           from (select * from (select ${columns} from ${table}) all_rows where id > $1 order by id limit ${PAGE}) page`
        : `select 0 as id, row_to_json(page)::text as line from (select ${columns} from ${table}) page where $1 < 0`,
      [last],
    );
    if (rows.length > 0) yield `${isFirst ? '' : ','}\n${rows.map(({ line }) => line).join(',\n')}`;
    if (!isPaged || rows.length < PAGE) return;
    last = rows.at(-1)?.id ?? last;
  }
}
