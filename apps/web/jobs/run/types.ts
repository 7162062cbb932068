import type { MadeWith, RunKind } from '@barys/store';

/** A reading as the page shows it. */
export interface ShownReading {
  readonly id: number;
  readonly position: number;
  readonly appliedText: string;
  readonly applied: number;
  readonly outputText: string;
  readonly output: number;
  readonly savedClock: string;
}

/** A run as the server hands it to the desk. */
export interface ShownRun {
  readonly id: number;
  readonly kind: RunKind;
  readonly madeWith: MadeWith;
  readonly readings: readonly ShownReading[];
}

/** A point's reading with how far it has come. */
export interface Entry {
  readonly position: number;
  readonly appliedText: string;
  readonly applied: number;
  readonly outputText: string;
  readonly output: number;
  readonly isSaved: boolean;
}
