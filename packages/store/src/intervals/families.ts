/** Families: instruments of one model, that measure the same, in one area; and how their calibrations came out. */
import { MONTH_DAYS } from '@barys/core/drift';
import { countOf, familyOf, LEAST_OF_FAMILY, type AtInterval, type Family } from '@barys/core/interval';
import type { Queryable } from '../db/database';
import { groupedBy } from '../results/grouped';

/** What a family has in common. */
export interface FamilyKey {
  readonly model: string;
  readonly measures: string;
  readonly area: string;
}

interface FamilyRow extends FamilyKey, AtInterval {}

/**
 * Calibrations of all that is in the register, by family and the months since the one before. Left out are those on a fault, which
 * come when an instrument is known to be wrong, and those that were not judged.
 */
const COUNT_SQL = `
  insert into family_count (model, measures, area, months, calibrations, out_of_tolerance)
  select body.model, instrument.measures, instrument.area,
    greatest(1, round(since_days / ${MONTH_DAYS}))::integer as months, count(*),
    count(*) filter (where verdict = 'outside')
  from result join instrument on instrument.id = result.instrument_id join body on body.id = body_id
    left join job on job.id = result.job_id
  where result.kind = 'as-found' and since_days > 0 and verdict in ('within', 'within-adjust', 'outside')
    and job.reason is distinct from 'fault'
  group by 1, 2, 3, 4`;

/** From the narrowest to the widest, each by what it has in common. */
const LEVELS: readonly (readonly (keyof FamilyKey)[])[] = [
  ['model', 'measures', 'area'],
  ['model', 'measures'],
  ['model'],
];

const keyOf = (level: readonly (keyof FamilyKey)[], one: FamilyKey): string =>
  JSON.stringify(level.map((part) => one[part]));

/** A family in words: what it has in common. */
export interface NamedFamily {
  readonly name: string;
  readonly family: Family;
}

/** Adds up rows of one interval. */
function byInterval(rows: readonly AtInterval[]): AtInterval[] {
  const sums = new Map<number, AtInterval>();
  for (const { interval, calibrations, out } of rows) {
    const sum = sums.get(interval) ?? { interval, calibrations: 0, out: 0 };
    sums.set(interval, { interval, calibrations: sum.calibrations + calibrations, out: sum.out + out });
  }
  return [...sums.values()].sort((a, b) => a.interval - b.interval);
}

/** All families, each worked out when it is first asked for. */
export class Families {
  private readonly rows: readonly ReadonlyMap<string, readonly FamilyRow[]>[];
  private readonly known = new Map<string, NamedFamily>();

  constructor(rows: readonly FamilyRow[]) {
    this.rows = LEVELS.map((level) => groupedBy(rows, (row) => keyOf(level, row)));
  }

  /** The narrowest family of an instrument that has calibrations enough; the widest where none has. */
  of(one: FamilyKey): NamedFamily {
    const own = LEVELS.map((level, place) => this.rows[place]?.get(keyOf(level, one)) ?? []);
    const enough = own.findIndex((rows) => countOf(rows).calibrations >= LEAST_OF_FAMILY);
    const place = enough < 0 ? LEVELS.length - 1 : enough;
    const level = LEVELS[place] as readonly (keyof FamilyKey)[];
    const key = keyOf(level, one);
    const known = this.known.get(`${place} ${key}`);
    if (known !== undefined) return known;
    const made = {
      name: level.map((part) => one[part]).join(', '),
      family: familyOf(byInterval(own[place] ?? [])),
    };
    this.known.set(`${place} ${key}`, made);
    return made;
  }
}

/** Counts all families anew. */
export async function countFamilies(tx: Queryable): Promise<void> {
  await tx.query('delete from family_count');
  await tx.query(COUNT_SQL);
}

/**
 * The families as they were counted last.
 * @param model those of one model, or all
 */
export async function loadFamilies(db: Queryable, model: string | null = null): Promise<Families> {
  const rows = await db.query<FamilyRow>(
    `select model, measures, area, months as interval, calibrations, out_of_tolerance as out
     from family_count where $1::text is null or model = $1`,
    [model],
  );
  return new Families(rows);
}

export const FAMILY_PARTS = ['model', 'measures', 'area'] as const satisfies readonly (keyof FamilyKey)[];
export type FamilyPart = (typeof FAMILY_PARTS)[number];

export interface FamilySum {
  readonly name: string;
  readonly calibrations: number;
  readonly out: number;
}

/** How all that has one thing in common was found, whatever the time since the calibration before; the worst first. */
export const familySums = (db: Queryable, part: FamilyPart): Promise<FamilySum[]> =>
  db.query<FamilySum>(
    `select ${part} as name, sum(calibrations)::integer as calibrations, sum(out_of_tolerance)::integer as out
     from family_count group by ${part}
     order by sum(out_of_tolerance)::float8 / sum(calibrations) desc, sum(calibrations) desc, ${part} limit 200`,
  );
