import type { Act, PracticeBench } from '@barys/rig/practice';

/** Turns of a control so far, from what was done. */
export function turnedOf(bench: PracticeBench, is: (act: Act) => number | null): number {
  return bench.done.reduce((sum, { act }) => sum + (is(act) ?? 0), 0);
}

/** What a control was last set to. */
export function lastOf<T>(bench: PracticeBench, first: T, is: (act: Act) => T | null | undefined): T {
  return bench.done.reduce((so, { act }) => is(act) ?? so, first);
}
