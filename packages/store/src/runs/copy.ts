/** What a run is: its own copy of all it was made with, and its readings. */
import { SCHOOLS, TECHNOLOGIES, TRIMS } from '@barys/core/adjust';
import { isPressureUnit, type PressureUnit } from '@barys/core/units';
import { z } from 'zod';
import { configurationCopySchema } from '../registers/configuration';
import type { PointMark } from './marks';
import { decisionRuleSchema } from '../registers/procedures';
import { loopContentSchema } from '../registers/loop-content';
import { certificateResultSchema } from '../registers/reference';

const finite = z.number();

/** Taps of a loop that one run can read beside the output. */
export const TAP_COLUMNS = ['tap-1', 'tap-2', 'tap-3', 'tap-4', 'tap-5', 'tap-6', 'tap-7', 'tap-8'] as const;
export type TapColumn = (typeof TAP_COLUMNS)[number];
export const EXTRA_COLUMNS = ['before-tap', 'digital', 'second', ...TAP_COLUMNS] as const;
/** Readings beside the output: before a gauge is tapped, the digital value, another indication, taps of a loop. */
export type ExtraColumn = (typeof EXTRA_COLUMNS)[number];
/** Scale of a second indication, and its own tolerance. */
export const secondScaleSchema = z.object({
  unit: z.string().trim().max(20),
  low: finite,
  high: finite,
  percentOfSpan: finite.positive('The tolerance of the second indication is greater than zero.'),
});
export type SecondScale = z.infer<typeof secondScaleSchema>;

const pressureUnit = z.string().refine((unit): unit is PressureUnit => isPressureUnit(unit));

const referenceCopy = z.object({
  tag: z.string(),
  /** The module used; empty where the reference has one range. */
  name: z.string().default(''),
  description: z.string(),
  serial: z.string(),
  unit: z.string(),
  rangeLow: finite,
  rangeHigh: finite,
  resolution: finite,
  certificate: z.string(),
  calibratedOn: z.string().nullable(),
  dueOn: z.string().nullable(),
  // Copies made before runs had an uncertainty say nothing of the specification.
  percentOfReading: finite.default(0),
  percentOfRange: finite.default(0),
  floor: finite.default(0),
  driftPercentOfReadingPerYear: finite.default(0),
  percentOfReadingPerK: finite.default(0),
  uncertaintyPercentOfRange: finite.nullable().default(null),
  /** Of the range used. Copies of before certificates were kept point by point have none, and correct nothing. */
  results: z.array(certificateResultSchema.readonly()).readonly().default([]),
});

/** The run's own copy of all that it was made with, so that later changes elsewhere leave its record as it was. */
export const madeWithSchema = z.object({
  body: z.object({
    model: z.string(),
    unit: pressureUnit,
    lowerRangeLimit: finite,
    upperRangeLimit: finite,
    leastSpan: finite,
    greatestSpan: finite.nullable().default(null),
    // Runs of before there was advice do not say how they are adjusted.
    technology: z.enum(TECHNOLOGIES).nullable().default(null),
    trims: z.array(z.enum(TRIMS)).default([]),
  }),
  configuration: configurationCopySchema,
  /** Runs begun before there were procedures name none. */
  procedure: z
    .object({ name: z.string(), version: z.number().int(), isAsFoundOnly: z.boolean().default(false) })
    .nullable()
    .default(null),
  tolerance: z.object({
    percentOfSpan: finite,
    middlePercentOfSpan: finite.nullable().default(null),
    percentOfReading: finite.default(0),
    adjustAbovePercentOfLimit: finite,
  }),
  decisionRule: decisionRuleSchema.default({ kind: 'simple' }),
  school: z.enum(SCHOOLS).default('past the adjust limit'),
  /** Runs of before points could not be judged were judged however large the uncertainty was, and stay so. */
  judgesBeyondUncertainty: z.boolean().default(true),
  /** The least ratio of limit to uncertainty that the procedure asked for. */
  leastRatio: finite.default(4),
  settle: z.object({ waitS: finite, holdS: finite, bandPercent: finite }).nullable().default(null),
  /** Runs of before procedures said how a controller comes to a point have none. */
  approach: z
    .object({ ratePercentPerS: finite, onLoss: z.enum(['hold', 'vent']) })
    .nullable()
    .default(null),
  points: z.array(
    z.object({
      position: z.number().int(),
      /** Which climb of the run, from 1. */
      cycle: z.number().int().default(1),
      direction: z.enum(['up', 'down']),
      nominalPercent: finite,
      /** In the input unit. */
      nominalApplied: finite,
      /** Which of two standards measures it. */
      standard: z.enum(['first', 'second']).default('first'),
    }),
  ),
  pressureReference: referenceCopy,
  secondReference: referenceCopy.nullable().default(null),
  /** Null where the output is read by eye. */
  meter: referenceCopy.nullable(),
  /** What the instrument sees more than the standard, in the input unit. */
  head: finite.default(0),
  /** What is read at each point beside the output, in the order it is typed. */
  columns: z.array(z.enum(EXTRA_COLUMNS)).default([]),
  /** The loop that is checked, with the places of the items whose output each tap column reads; null of another job. */
  loop: z
    .object({ version: z.number().int(), content: loopContentSchema, taps: z.array(z.number().int()) })
    .nullable()
    .default(null),
  secondIndication: z.string().default(''),
  /** What the second indication shows over the range; null where nobody said, or there is none. */
  secondScale: secondScaleSchema.nullable().default(null),
  /** ISO date; drift of the references is counted up to it. */
  takenOn: z.string().default(''),
  /** Whether drift is counted up to the day of each reading; runs of before that count it up to `takenOn`. */
  driftsToReading: z.boolean().default(false),
  ambient: z.object({ temperatureC: finite, humidityPercent: finite, barometerHpa: finite }),
});
export type MadeWith = z.infer<typeof madeWithSchema>;

export type RunKind = 'as-found' | 'as-left';

/** Where a reading comes from that nobody typed, with what came over the wire. */
export interface ReadingSource {
  readonly link: string;
  readonly reference: string;
  readonly output: string;
  readonly digital: string | null;
  readonly raw: {
    readonly applied: string;
    readonly output: string;
    readonly digital: string;
    /** By their column; readings of before there were any have none. */
    readonly taps?: Readonly<Record<string, string>>;
  };
}

export interface Reading {
  readonly id: number;
  readonly position: number;
  readonly appliedText: string;
  readonly applied: number;
  readonly appliedAs: 'set' | 'read';
  readonly outputText: string;
  readonly output: number;
  /** As typed, by their column. */
  readonly more: Readonly<Partial<Record<ExtraColumn, string>>>;
  /** By the clock of whoever took it; null where that was the server's. */
  readonly takenAt: Date | null;
  /** ISO date, in the days of the site, on which it was taken; never after it was kept, whatever a browser's clock says. */
  readonly day: string;
  readonly readBy: string;
  readonly readAt: Date;
  /** Null of one that was typed. */
  readonly source: ReadingSource | null;
}

export interface Run {
  readonly id: number;
  readonly kind: RunKind;
  readonly pass: number;
  readonly madeWith: MadeWith;
  /** The connection it was made under; null of runs begun before runs named theirs. */
  readonly connectionId: number | null;
  readonly startedBy: string;
  readonly startedAt: Date;
  /** Where it does not count: why, by whom and when. */
  readonly thrownAway: { readonly reason: string; readonly by: string; readonly at: string } | null;
  /** The readings that stand, by position. */
  readonly readings: readonly Reading[];
  /** Readings that were corrected since, oldest first. */
  readonly superseded: readonly Reading[];
  readonly marks: readonly PointMark[];
}
