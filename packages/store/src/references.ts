/** Reference standards and how well each one serves an instrument. */
import {
  accuracyRatio,
  convertPressure,
  formatPlain,
  isPressureUnit,
  spanTolerance,
  type PressureUnit,
} from '@barys/core';
import dayjs from 'dayjs';
import type { Queryable } from './database';
import type { Instrument } from './instruments';

export interface Reference {
  readonly id: number;
  readonly tag: string;
  readonly description: string;
  readonly serial: string;
  readonly quantity: 'pressure' | 'current';
  /** A pressure unit for pressure, mA for current. */
  readonly unit: string;
  readonly rangeLow: number;
  readonly rangeHigh: number;
  readonly accuracyPercentOfReading: number;
  readonly accuracyPercentOfRange: number;
  readonly resolution: number;
  readonly certificate: string;
  readonly calibratedOn: string;
  readonly dueOn: string;
}

/** Common practice; a site's own figure comes with its settings. */
export const LEAST_ACCURACY_RATIO = 4;

const REFERENCE_SQL = `
  select id, tag, description, serial, quantity, unit, range_low as "rangeLow", range_high as "rangeHigh",
    accuracy_percent_of_reading as "accuracyPercentOfReading", accuracy_percent_of_range as "accuracyPercentOfRange",
    resolution, certificate, calibrated_on as "calibratedOn", due_on as "dueOn"
  from reference_standard`;

export function listReferences(db: Queryable): Promise<Reference[]> {
  return db.query<Reference>(`${REFERENCE_SQL} order by tag`);
}

export async function addReference(tx: Queryable, entry: Omit<Reference, 'id'>): Promise<void> {
  await tx.query(
    `insert into reference_standard (tag, description, serial, quantity, unit, range_low, range_high,
       accuracy_percent_of_reading, accuracy_percent_of_range, resolution, certificate, calibrated_on, due_on)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13)`,
    [
      entry.tag,
      entry.description,
      entry.serial,
      entry.quantity,
      entry.unit,
      entry.rangeLow,
      entry.rangeHigh,
      entry.accuracyPercentOfReading,
      entry.accuracyPercentOfRange,
      entry.resolution,
      entry.certificate,
      entry.calibratedOn,
      entry.dueOn,
    ],
  );
}

/** References due by a date, the first first. */
export function referencesDueBy(db: Queryable, date: string): Promise<Reference[]> {
  return db.query<Reference>(`${REFERENCE_SQL} where due_on <= $1 order by due_on, tag`, [date]);
}

/** Sum of both accuracy terms at a value, in the reference's unit. */
export function accuracyAt(reference: Reference, value: number): number {
  const { accuracyPercentOfReading, accuracyPercentOfRange, rangeLow, rangeHigh } = reference;
  return (
    (accuracyPercentOfReading / 100) * Math.abs(value) +
    (accuracyPercentOfRange / 100) * (rangeHigh - rangeLow)
  );
}

/** The unit of a pressure reference, checked: its column is free text because meters share it. */
function pressureUnitOf(reference: Reference): PressureUnit {
  if (!isPressureUnit(reference.unit))
    throw new Error(`${reference.tag} has no pressure unit: ${reference.unit}`);
  return reference.unit;
}

/** Smallest step of a pressure reference in another unit. */
export function resolutionIn(reference: Reference, unit: PressureUnit): number {
  return convertPressure(reference.resolution, pressureUnitOf(reference), unit);
}

export interface Fit {
  readonly reference: Reference;
  /** Tolerance over accuracy at the end of the range where the reference is weakest; null where it does not reach. */
  readonly ratio: number | null;
  /** Why it cannot be used, in words; null when it can. */
  readonly unfit: string | null;
  /** What to know before using it all the same, in words; null when nothing. */
  readonly caution: string | null;
}

function fitOf(reference: Reference, instrument: Instrument, today: string): Fit {
  const { configuration: range, tolerance } = instrument;
  const isPressure = reference.quantity === 'pressure';
  const ends = isPressure ? [range.lrv, range.urv] : [range.outputLow, range.outputHigh];
  const own = ends.map((end) =>
    isPressure ? convertPressure(end, range.inputUnit, pressureUnitOf(reference)) : end,
  );
  const [low, high] = [Math.min(...own), Math.max(...own)];
  if (low < reference.rangeLow || high > reference.rangeHigh)
    return {
      reference,
      ratio: null,
      unfit: `its range of ${formatPlain(reference.rangeLow)} to ${formatPlain(reference.rangeHigh)} ${reference.unit} does not cover the points`,
      caution: null,
    };
  const weakest = Math.max(...own.map((value) => accuracyAt(reference, value)));
  // Both as a part of their span, so that pressure and current are compared with the tolerance in the same way.
  const accuracyInput = (weakest / (high - low)) * Math.abs(range.urv - range.lrv);
  const ratio = accuracyRatio(range, spanTolerance(tolerance.percentOfSpan), accuracyInput);
  const outOfDate =
    reference.dueOn < today
      ? `its certificate ran out on ${dayjs(reference.dueOn).format('D MMM YYYY')}`
      : null;
  const tooCoarse =
    ratio < LEAST_ACCURACY_RATIO
      ? `accuracy ratio below ${LEAST_ACCURACY_RATIO}:1, the usual practice`
      : null;
  return { reference, ratio, unfit: outOfDate, caution: tooCoarse };
}

/**
 * All references of one quantity for an instrument: those that serve first, the best ratio leading.
 * @param today ISO date; a reference may be used up to and including its due date
 */
export function rankReferences(
  references: readonly Reference[],
  quantity: Reference['quantity'],
  instrument: Instrument,
  today: string,
): Fit[] {
  return references
    .filter((reference) => reference.quantity === quantity)
    .map((reference) => fitOf(reference, instrument, today))
    .sort((a, b) => Number(a.unfit !== null) - Number(b.unfit !== null) || (b.ratio ?? 0) - (a.ratio ?? 0));
}
