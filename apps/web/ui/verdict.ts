import type { Verdict } from '@barys/core/run';

/** The word that always stands beside the mark. */
export const VERDICT_WORD: Record<Verdict, string> = {
  within: 'within',
  'within-adjust': 'within, adjust',
  undecided: 'undecided',
  'not-judged': 'cannot be judged with this standard',
  outside: 'outside',
};

/** A shorter word for tables, where the longer one stands above or below. */
export const SHORT_VERDICT_WORD: Record<Verdict, string> = {
  ...VERDICT_WORD,
  'not-judged': 'not judged',
};

/** The palette's name for a verdict's colour. */
export const VERDICT_COLOUR = {
  within: 'within',
  'within-adjust': 'adjust',
  undecided: 'undecided',
  'not-judged': 'undecided',
  outside: 'outside',
} as const satisfies Record<Verdict, string>;

/** The mark on a 20 by 20 ground, as shapes that screen and paper both draw. */
export type MarkShape = { readonly path: string; readonly isFilled: boolean };
export const VERDICT_SHAPES: Record<Verdict, readonly MarkShape[]> = {
  within: [{ path: 'M10 2 A8 8 0 1 1 10 18 A8 8 0 1 1 10 2 Z', isFilled: true }],
  'within-adjust': [
    { path: 'M10 2 A8 8 0 1 1 10 18 A8 8 0 1 1 10 2 Z', isFilled: false },
    { path: 'M10 2 A8 8 0 0 1 10 18 Z', isFilled: true },
  ],
  undecided: [{ path: 'M10 1.5 L18.5 10 L10 18.5 L1.5 10 Z', isFilled: false }],
  'not-judged': [
    { path: 'M10 2 A8 8 0 1 1 10 18 A8 8 0 1 1 10 2 Z', isFilled: false },
    { path: 'M4.5 15.5 L15.5 4.5', isFilled: false },
  ],
  outside: [{ path: 'M10 0.5 L19.5 10 L10 19.5 L0.5 10 Z', isFilled: true }],
};
