/**
 * Calibrations from before Barys, as the works had them in a table: brought in by a file, as a works would. What each instrument did is
 * invented; a few have something in their history that is worth a look.
 */
import { makeTransmitter } from '@barys/rig/transmitter';
import type { Bulk, Queryable } from '@barys/store/db';
import { bringFile, openImport, takeImport, toCsv } from '@barys/store/imports';
import type { Actor } from '@barys/store/people';
import { configurationsOf, findInstrument } from '@barys/store/registers';
import dayjs, { type Dayjs } from 'dayjs';
import stories from './data/past.json' with { type: 'json' };

/** What an instrument did over the years, in parts of its limit. */
interface Story {
  readonly visits?: number;
  readonly perYear?: number;
  /** At which visit it jumped, and by how much. */
  readonly step?: readonly [visit: number, size: number];
  /** From which visit on it drifts otherwise, and by how much a year. */
  readonly later?: readonly [visit: number, perYear: number];
  /** First width of the loop between rising and falling, and its growth a year. */
  readonly hysteresis?: readonly [first: number, perYear: number];
  /** References, visit by visit; the last one goes on. */
  readonly references?: readonly string[];
}

/** An instrument as its past is made: when it was calibrated first since Barys came, and how it was found then. */
export interface WithPast {
  readonly tag: string;
  readonly tolerancePercentOfSpan: number;
  readonly intervalMonths: number;
  /** The first visit that is no past; the day it is due where there was none. */
  readonly next: Dayjs;
  /** Zero error at that visit, per cent of span; null where it was not made yet. */
  readonly foundNext: number | null;
}

/** A reference that left the works, and read high. */
const OLD_REFERENCE = { tag: 'PC-00', readsHigh: 0.24 };
const ADJUSTED_ABOVE = 0.7;
const NOISE = 0.025;
const VISITS = 7;
const HEADER = [
  'Tag',
  'Date',
  'Point, %',
  'Applied',
  'Reading',
  'Run',
  'Direction',
  'Who',
  'Reference',
  'Record',
];

/** A number that is a tag's own, from 0 to 1, so that the demo is the same each time. */
function chanceOf(tag: string): number {
  let hash = 7;
  for (const letter of tag) hash = (hash * 31 + letter.charCodeAt(0)) % 9973;
  return hash / 9973;
}

function usualReference(unit: string, urv: number, visit: number, tag: string): string {
  if (unit === 'psi') return 'PC-06';
  if (unit === 'bar') return urv > 20 ? 'PC-04' : 'PC-02';
  if (visit >= VISITS - 3) return 'PC-05';
  if (!/^(LT|PDT)-(1|2)/.test(tag)) return 'PC-01';
  return (visit + Math.round(chanceOf(tag) * 10)) % 2 === 0 ? OLD_REFERENCE.tag : 'PC-01';
}

/** One visit as it goes into the table: how far off it was found and left, in parts of its limit. */
interface PastVisit {
  readonly on: Dayjs;
  readonly found: number;
  readonly left: number | null;
  readonly hysteresis: number;
  readonly reference: string;
}

function visitsOf(
  { tag, intervalMonths, next, foundNext, tolerancePercentOfSpan }: WithPast,
  story: Story,
  referenceOf: (visit: number) => string,
): PastVisit[] {
  const count = story.visits ?? (intervalMonths > 12 ? 5 : VISITS);
  const years = intervalMonths / 12;
  const rate = (visit: number): number =>
    story.later !== undefined && visit >= story.later[0]
      ? story.later[1]
      : (story.perYear ?? (chanceOf(tag) - 0.5) * 0.4);
  let off = (chanceOf(`${tag} zero`) - 0.5) * 0.4;
  return Array.from({ length: count }, (_, visit) => {
    if (visit > 0) off += rate(visit) * years;
    if (story.step?.[0] === visit) off += story.step[1];
    const reference = referenceOf(visit);
    const seen = off + (reference === OLD_REFERENCE.tag ? OLD_REFERENCE.readsHigh : 0);
    const isLast = visit === count - 1;
    // The last one left it so that it was found as it was at the first visit of Barys.
    const end = foundNext === null ? null : foundNext / tolerancePercentOfSpan - rate(count) * years;
    const left = isLast && end !== null ? end : Math.abs(seen) > ADJUSTED_ABOVE ? 0.02 : null;
    if (left !== null) off = left;
    const [width, growth] = story.hysteresis ?? [0.06, 0];
    return {
      on: next.subtract((count - visit) * intervalMonths, 'month'),
      found: seen,
      left,
      hysteresis: width + growth * years * visit,
      reference,
    };
  });
}

async function rowsOf(tx: Queryable, one: WithPast): Promise<string[][]> {
  const { id } = await findInstrument(tx, { tag: one.tag });
  const configuration = (await configurationsOf(tx, id)).at(-1);
  if (configuration === undefined) throw new Error(`${one.tag} has no configuration`);
  const story: Story = (stories as unknown as Readonly<Record<string, Story>>)[one.tag] ?? {};
  const { lrv, urv, inputUnit } = configuration;
  const visits = visitsOf(one, story, (visit) =>
    story.references === undefined
      ? usualReference(inputUnit, urv, visit, one.tag)
      : (story.references[visit] ?? story.references.at(-1) ?? ''),
  );
  return visits.flatMap(({ on, found, left, hysteresis, reference }, visit) =>
    [found, ...(left === null ? [] : [left])].flatMap((off, run) => {
      const limit = one.tolerancePercentOfSpan;
      const transmitter = makeTransmitter(
        configuration,
        {
          zeroErrorPercent: off * limit,
          spanErrorPercent: 0.1 * limit,
          hysteresisPercent: hysteresis * limit,
          noisePercent: NOISE * limit,
        },
        Math.round(chanceOf(`${one.tag} ${visit} ${run}`) * 9973),
      );
      const points = [
        [0, 'up'],
        [50, 'up'],
        [100, 'up'],
        [50, 'down'],
      ] as const;
      return points.map(([percent, direction]) => {
        const applied = lrv + ((urv - lrv) * percent) / 100;
        return [
          one.tag,
          on.format('YYYY-MM-DD'),
          String(percent),
          String(Number(applied.toPrecision(6))),
          transmitter.read(applied, direction).toFixed(4),
          run === 0 ? 'as found' : 'as left',
          direction,
          'Contractor',
          reference,
          `book ${on.format('YYYY')}`,
        ];
      });
    }),
  );
}

/** Brings the table of the years before in. */
export async function plantPast(tx: Bulk, administrator: Actor, all: readonly WithPast[]): Promise<void> {
  const rows: string[][] = [];
  for (const one of all) rows.push(...(await rowsOf(tx, one)));
  const day = dayjs(administrator.today);
  const known = rows.filter(([, on]) => dayjs(on).isBefore(day));
  const id = await bringFile(tx, administrator, {
    kind: 'results',
    name: 'calibration book.csv',
    bytes: Buffer.from(toCsv(HEADER, known)),
  });
  await takeImport(tx, administrator, id, (await openImport(tx, id)).choice, 'all or none');
}
