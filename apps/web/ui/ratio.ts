import { formatFixed } from '@barys/core/text';

/** An accuracy ratio as it is spoken of, rounded down, so that 3.96 is never shown as the 4 that it is not. */
export function ratioInWords(ratio: number): string {
  if (ratio < 1) return 'below 1 : 1';
  return ratio < 10 ? `${formatFixed(Math.floor(ratio * 10) / 10, 1)} : 1` : `${Math.floor(ratio)} : 1`;
}
