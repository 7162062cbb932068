/** What a check of a file found, as it travels to the page. */
import type { ImportChoice } from '@barys/store/imports';

export interface Found {
  readonly good: number;
  readonly known: number;
  readonly bad: number;
  /** The first of the rows that are not good. */
  readonly problems: readonly {
    readonly line: number;
    readonly cells: readonly string[];
    readonly reason: string;
  }[];
  readonly questions: readonly (
    | { readonly about: 'dateOrder'; readonly rows: number }
    | {
        readonly about: 'unit';
        readonly unit: string;
        readonly choices: readonly string[];
        readonly rows: number;
      }
  )[];
  readonly isTaken: boolean;
}

export type Line =
  | { readonly done: number; readonly of: number }
  | { readonly found: Found }
  | { readonly error: string };

export type Wanted = 'check' | 'good rows' | 'all or none';

export interface RunRequest extends ImportChoice {
  readonly wanted: Wanted;
}
