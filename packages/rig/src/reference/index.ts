/** A reference with the errors that its specification allows, drawn once. Common practice; sizes are inventions. */
import type { Chance } from '../chance';

export interface Specification {
  /** Per cent of the reading, per cent of the range, and a floor in its unit; they add up to the largest error. */
  readonly percentOfReading: number;
  readonly percentOfRange: number;
  readonly floor: number;
  readonly range: number;
  readonly resolution: number;
}

/** What is wrong with one reference: gain less one, and offset, in its unit. */
export interface Reference {
  readonly gain: number;
  readonly offset: number;
  readonly resolution: number;
}

/** Drawn once, so that a reference is wrong by the same all its life, and never by more than it is specified for. */
export const drawReference = (
  { percentOfReading, percentOfRange, floor, range, resolution }: Specification,
  chance: Chance,
): Reference => ({
  gain: chance.uniform(-percentOfReading, percentOfReading) / 100,
  offset: chance.uniform(-1, 1) * ((percentOfRange / 100) * range + floor),
  resolution,
});

export const TRUE_REFERENCE: Reference = { gain: 0, offset: 0, resolution: 0 };

/** What it shows of a value, to its resolution. */
export function shownBy({ gain, offset, resolution }: Reference, value: number): number {
  const read = value * (1 + gain) + offset;
  return resolution > 0 ? Math.round(read / resolution) * resolution : read;
}

/** The value at which it shows this, but for its resolution. */
export const shownFor = ({ gain, offset }: Reference, shown: number): number => (shown - offset) / (1 + gain);
