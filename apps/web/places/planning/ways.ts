import type { Move } from './actions';

/** A place that breaks nothing: of an instrument, with all that is isolated with it. */
export interface WayOut {
  readonly personId: number;
  readonly day: string;
  /** When the instrument begins, `07:20`. */
  readonly clock: string;
  /** The instrument that was asked for first. */
  readonly moves: readonly Move[];
}
