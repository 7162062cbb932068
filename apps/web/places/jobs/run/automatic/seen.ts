/** What a page hears of the benches and of an automatic run, several times a second. */
import type { ShownBench, StateOfLink } from '@barys/store/benches';
import type { ShownReading } from '../types';

export interface SeenAutomatic {
  readonly bench: { readonly id: number; readonly name: string };
  readonly reference: string;
  readonly output: string;
  readonly digital: string | null;
  /** Whether a person works the pressure. */
  readonly isByHand: boolean;
  readonly startedBy: string;
  readonly state: StateOfLink['state'] | null;
}

export interface Seen {
  readonly benches: readonly ShownBench[];
  /** Null where the run goes by hand. */
  readonly automatic: SeenAutomatic | null;
  /** Why it cannot go by itself; null where it can. */
  readonly whyNot: string | null;
  /** Those of links. */
  readonly readings: readonly ShownReading[];
}
