/** A tolerance in words: what it is a per cent of is always said. */
import { formatPlain } from '@barys/core/text';
import type { SpanTolerance } from '@barys/store/registers';

/** @example toleranceInWords(…) // ±0.25 % of span */
export function toleranceInWords({
  percentOfSpan,
  middlePercentOfSpan,
  percentOfReading,
}: Omit<SpanTolerance, 'adjustAbovePercentOfLimit'>): string {
  const span =
    middlePercentOfSpan === null
      ? `${formatPlain(percentOfSpan)} % of span`
      : `${formatPlain(percentOfSpan)} % of span, ${formatPlain(middlePercentOfSpan)} % in the middle half`;
  const reading = `${formatPlain(percentOfReading)} % of reading`;
  if (percentOfReading === 0) return `±${span}`;
  return percentOfSpan === 0 ? `±${reading}` : `±(${span} + ${reading})`;
}
