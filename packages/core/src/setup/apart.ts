/** How an output comes about as an instrument is set, and where it is farthest from the one that has to be. */
import { LINEAR, share, type Transfer } from '../signal';
import { convertPressure } from '../units';
import type { SettingKey, Setup, WantedSetup } from './settings';

/** Two figures that differ by less than a billionth of the span are the same, written in other units. */
export const SAME = 1e-9;

/** A range in the wanted unit, and the transfer functions that are taken one after the other. */
export interface Made {
  readonly lrv: number;
  readonly urv: number;
  readonly transfers: readonly Transfer[];
}

export const madeAsWanted = ({ lrv, urv, transferFunction }: WantedSetup): Made => ({
  lrv,
  urv,
  transfers: [transferFunction],
});

/** How the output is made where one setting is as it was read and all else as it has to be; null where it makes no output. */
export function madeAsRead(wanted: WantedSetup, read: Setup, key: SettingKey): Made | null {
  const must = madeAsWanted(wanted);
  const asPressure = (value: number) =>
    convertPressure(value, read.inputUnit ?? wanted.inputUnit, wanted.inputUnit);
  if (key === 'lrv' && read.lrv !== null) return withSpan({ ...must, lrv: asPressure(read.lrv) }, wanted);
  if (key === 'urv' && read.urv !== null) return withSpan({ ...must, urv: asPressure(read.urv) }, wanted);
  if (key === 'transferFunction' && read.transferFunction !== null)
    return { ...must, transfers: [read.transferFunction] };
  // A scaled variable has a transfer function of its own; of a straight line nothing is known of it.
  if (key !== 'drivenBy' || wanted.transferFunction.kind === 'linear') return null;
  const root = wanted.transferFunction;
  return { ...must, transfers: read.drivenBy === 'scaled variable' ? [root, root] : [LINEAR] };
}

const withSpan = (made: Made, { lrv, urv }: WantedSetup): Made | null =>
  Math.abs(made.urv - made.lrv) <= SAME * Math.abs(urv - lrv) ? null : made;

type OfShare = (t: number) => number;

/** The share of the output, from a share of the wanted range. */
function outputOf({ lrv, urv, transfers }: Made, wanted: WantedSetup): OfShare {
  const span = wanted.urv - wanted.lrv;
  return (t) =>
    transfers.reduce((s, transfer) => share(transfer, s), (wanted.lrv + t * span - lrv) / (urv - lrv));
}

/** Share of the input at which a transfer function jumps; below every range where it does not. */
function jumpOf(transfer: Transfer): number {
  if (transfer.kind === 'square-root-cut-off') return (transfer.cutOffPercentOfFlow / 100) ** 2;
  return transfer.kind === 'square-root-slope-one' ? transfer.linearToPercentOfInput / 100 : -Infinity;
}

/**
 * In the sliver where one of two ranges is cut and the other not, the jump would be told and not the error of the range:
 * that a share of the wanted range does not lie there. Zero counts always.
 */
function isOutsideSliver({ lrv, urv }: Made, wanted: WantedSetup): (t: number) => boolean {
  // A knee that is met but for rounding is met, as in the transfer function itself.
  const isStarted = (t: number) => t >= jumpOf(wanted.transferFunction) * (1 - 1e-12);
  const own = (t: number) => (wanted.lrv + t * (wanted.urv - wanted.lrv) - lrv) / (urv - lrv);
  return (t) => t === 0 || isStarted(t) === isStarted(own(t));
}

/** Finer at its start, where a root is steepest and low flow is cut. */
const SCAN: readonly number[] = [
  ...Array.from({ length: 500 }, (_, step) => step / 50_000),
  ...Array.from({ length: 991 }, (_, step) => (step + 10) / 1000),
];

export interface Apart {
  /** Where in the wanted range, in the input unit. */
  readonly applied: number;
  /** The two outputs there, as shares of the output span. */
  readonly must: number;
  readonly is: number;
  /** Per cent of the output span. */
  readonly percent: number;
}

/**
 * Where two outputs are farthest apart over the wanted range.
 * @param key the setting that differs
 */
export function farthestApart(wanted: WantedSetup, made: Made, key: SettingKey): Apart {
  const [must, is] = [outputOf(madeAsWanted(wanted), wanted), outputOf(made, wanted)];
  const isRange = key === 'lrv' || key === 'urv';
  const counts = isRange ? isOutsideSliver(made, wanted) : () => true;
  let at = 0;
  for (const t of SCAN)
    if (counts(t) && Math.abs(is(t) - must(t)) > Math.abs(is(at) - must(at)) * (1 + SAME)) at = t;
  return {
    applied: wanted.lrv + at * (wanted.urv - wanted.lrv),
    must: must(at),
    is: is(at),
    percent: (is(at) - must(at)) * 100,
  };
}
