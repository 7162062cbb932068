/** The leak check before a run. Free of PostgreSQL, so that a page shows the rate while it is typed. */
import { requirePositive } from '@barys/core/errors';
import { withoutNoise } from '@barys/core/exact';
import { inputSpan } from '@barys/core/signal';
import { parseTyped } from '@barys/core/text';
import { convertPressure, type PressureKind } from '@barys/core/units';
import type { Configuration } from '../registers/configuration';
import type { SpanTolerance } from '../registers/instrument';

/** A leak check as it was typed: shut in, and looked at again. */
export interface LeakEntry {
  readonly startText: string;
  readonly endText: string;
  readonly minutes: number;
}

export interface Leak extends LeakEntry {
  /** How fast the pressure went towards that of the air outside, per cent a minute; negative where away from it. */
  readonly percentOfSpanPerMinute: number;
  /** What the per cent is of; records of earlier days say nothing, and mean the span. */
  readonly of?: 'span' | 'reading';
  readonly limit: number;
  /** Which way it went; records of earlier days say nothing. */
  readonly direction?: 'lost' | 'rose' | 'stood';
}

/** What a leak is judged by. */
export interface LeakBasis {
  readonly kind: PressureKind;
  readonly configuration: Pick<Configuration, 'inputUnit' | 'lrv' | 'urv' | 'outputLow' | 'outputHigh'>;
  readonly tolerance: SpanTolerance;
}

/** A vacuum gauge whose limit is of the reading is judged by its rate of rise against what it reads. */
const isOfReading = ({ tolerance }: LeakBasis): boolean => tolerance.percentOfSpan === 0;

/** A leak is looked for down to a tenth of the tolerance a minute: common practice. */
export const leakLimit = ({ tolerance }: LeakBasis): number =>
  withoutNoise((tolerance.percentOfSpan + tolerance.percentOfReading) / 10);

/**
 * The rate of a leak. What leaks goes towards the pressure of the air outside: it is lost above it and rises below it.
 * @param barometerHpa where it is known; an absolute pressure is compared with it
 * @throws CoreError for text that is no number, `not-positive` for no time
 */
export function leakOf(basis: LeakBasis, entry: LeakEntry, barometerHpa: number | null): Leak {
  const { configuration, kind } = basis;
  const [start, end] = [parseTyped(entry.startText), parseTyped(entry.endText)];
  requirePositive('The time of the leak check', entry.minutes, 'leakMinutes');
  const ambient =
    kind === 'absolute' || kind === 'vacuum'
      ? convertPressure(barometerHpa ?? 1013.25, 'hPa', configuration.inputUnit)
      : 0;
  const ofReading = isOfReading(basis);
  const size = ofReading ? Math.abs(start.value) || Math.abs(end.value) : Math.abs(inputSpan(configuration));
  const rise = end.value - start.value;
  const towards = start.value < ambient ? rise : -rise;
  return {
    startText: start.text,
    endText: end.text,
    minutes: entry.minutes,
    percentOfSpanPerMinute: size === 0 ? 0 : withoutNoise((towards / size / entry.minutes) * 100) + 0,
    of: ofReading ? 'reading' : 'span',
    limit: leakLimit(basis),
    direction: rise === 0 ? 'stood' : rise > 0 ? 'rose' : 'lost',
  };
}

/** Whether a leak check asks for a word: a change away from the air outside is no leak, but no rest either. */
export const isTooFast = ({ percentOfSpanPerMinute, limit }: Leak): boolean =>
  Math.abs(percentOfSpanPerMinute) > limit;
