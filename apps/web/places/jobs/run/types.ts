import type { ExtraColumn, MadeWith, MarkKind, RunKind } from '@barys/store/runs';

/** What is read at a point beside the output, as typed, by its column. */
export type More = Readonly<Partial<Record<ExtraColumn, string>>>;

/** What was marked at a point. */
export interface ShownMark {
  readonly position: number;
  readonly kind: MarkKind;
  readonly appliedText: string;
  readonly outputText: string;
  readonly remark: string;
}

/** A reading as the page shows it. */
export interface ShownReading {
  readonly id: number;
  readonly position: number;
  readonly appliedText: string;
  readonly applied: number;
  readonly outputText: string;
  readonly output: number;
  readonly more: More;
  readonly savedClock: string;
}

/** A run as the server hands it to the desk. */
export interface ShownRun {
  readonly id: number;
  readonly kind: RunKind;
  readonly madeWith: MadeWith;
  readonly readings: readonly ShownReading[];
  readonly marks: readonly ShownMark[];
}

/** A point's reading with how far it has come. */
export interface Entry {
  readonly position: number;
  readonly appliedText: string;
  readonly applied: number;
  readonly outputText: string;
  readonly output: number;
  readonly more: More;
  readonly isSaved: boolean;
}
