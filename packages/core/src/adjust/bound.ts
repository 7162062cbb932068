/** How near to nothing the largest error can come, whatever a zero or a span does (exact, by the geometry of the points). */
import { independentDeviation } from '../run';

interface ErrorAt {
  /** Ideal output, share of span. */
  readonly share: number;
  readonly errorPercentSpan: number;
}

/** Per cent of span: half of what lies between the largest and the smallest error. */
export function bestByZero(readings: readonly ErrorAt[]): number {
  const errors = readings.map(({ errorPercentSpan }) => errorPercentSpan);
  return errors.length === 0 ? 0 : (Math.max(...errors) - Math.min(...errors)) / 2;
}

/** Per cent of span: from the straight line that leaves the least largest error of all readings. */
export function bestByZeroAndSpan(readings: readonly ErrorAt[]): number {
  const rising = [...readings].sort((a, b) => a.share - b.share || a.errorPercentSpan - b.errorPercentSpan);
  const [x, y] = [rising.map(({ share }) => share), rising.map(({ errorPercentSpan }) => errorPercentSpan)];
  const isOnePoint = x[0] === x.at(-1);
  return isOnePoint ? bestByZero(readings) : independentDeviation(x, y).largest;
}
