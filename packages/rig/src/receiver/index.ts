/** Receivers of a loop: an indicator, a recorder, an input card; each with zero, span, root and lag of its own. Common practice. */
import { share, type Transfer } from '@barys/core/signal';
import { lagged } from '../lag';

export interface Receiver {
  readonly low: number;
  readonly high: number;
  /** Share of span, and gain less one. */
  readonly zero: number;
  readonly gain: number;
  readonly transfer: Transfer;
  readonly lagS: number;
}

/** The share that it shows, after a time. */
export const receive = (
  { zero, gain, transfer, lagS }: Receiver,
  shown: number,
  milliamp: number,
  stepS: number,
): number => lagged(shown, share(transfer, (milliamp - 4) / 16) * (1 + gain) + zero, lagS, stepS);

export const readReceiver = ({ low, high }: Receiver, shown: number): number => low + shown * (high - low);
