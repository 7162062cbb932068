/** What a form shows after an act: nothing, or what was wrong and at which field. */
export interface Answer {
  readonly error: string | null;
  readonly field?: string | undefined;
}
export const DONE: Answer = { error: null };
