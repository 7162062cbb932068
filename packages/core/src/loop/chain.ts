/**
 * A loop as a chain: each item reads the output of another one, or what is applied, and makes of it an output of its own by its
 * ranges and its transfer function. What is shown at a tap follows from what is applied; what each item may be off by counts
 * with the slope of all that stands behind it (common practice).
 */
import { CoreError, requireFinite, requireNotNegative } from '../errors';
import { exactSum } from '../exact';
import { share, type Transfer } from '../signal';
import { slope } from '../signal/transfer';

export const ITEM_KINDS = [
  'primary element',
  'transmitter',
  'isolator',
  'barrier',
  'resistor',
  'input card',
  'indicator',
  'recorder',
  'computing block',
  'controller',
] as const;
export type ItemKind = (typeof ITEM_KINDS)[number];

export interface Scale {
  readonly low: number;
  readonly high: number;
}

export interface LoopItem {
  readonly name: string;
  readonly kind: ItemKind;
  /** The place of the item whose output it reads, before it in the list; null where it reads what is applied. */
  readonly from: number | null;
  readonly input: Scale;
  readonly output: Scale;
  readonly transfer: Transfer;
  /** Per cent of its output span. */
  readonly tolerancePercent: number;
}

/** A resistor turns 4 to 20 mA into volts by its ohms; its tolerance is of its value. */
export const resistorItem = (
  name: string,
  from: number | null,
  ohm: number,
  tolerancePercent: number,
): LoopItem => ({
  name,
  kind: 'resistor',
  from,
  input: { low: 4, high: 20 },
  output: { low: 0.004 * ohm, high: 0.02 * ohm },
  transfer: { kind: 'linear' },
  tolerancePercent,
});

function check(items: readonly LoopItem[]): void {
  items.forEach(({ name, from, input, output, tolerancePercent }, place) => {
    if (from !== null && !(Number.isInteger(from) && from >= 0 && from < place))
      throw new CoreError(
        { code: 'missing', name: `What ${name} reads`, why: 'an item reads one that stands before it' },
        `items.${place}.from`,
      );
    for (const [side, scale] of [
      ['input', input],
      ['output', output],
    ] as const) {
      requireFinite(`The ${side} of ${name}`, scale.low, `items.${place}.${side}.low`);
      requireFinite(`The ${side} of ${name}`, scale.high, `items.${place}.${side}.high`);
      if (scale.low === scale.high)
        throw new CoreError(
          { code: 'zero-span', name: `The ${side} of ${name}`, value: scale.low },
          `items.${place}.${side}.high`,
        );
    }
    requireNotNegative(`The tolerance of ${name}`, tolerancePercent, `items.${place}.tolerancePercent`);
  });
}

const partOf = ({ low, high }: Scale, value: number): number => (value - low) / (high - low);
const valueOf = ({ low, high }: Scale, part: number): number => low + part * (high - low);

/**
 * What stands at the output of every item, each in its own unit.
 * @param applied in the unit of the first items' input
 * @throws CoreError `missing`, `zero-span`, `not-finite`, `negative`
 */
export function tapsOf(items: readonly LoopItem[], applied: number): readonly number[] {
  check(items);
  requireFinite('What is applied', applied, 'applied');
  const taps: number[] = [];
  for (const { from, input, output, transfer } of items)
    taps.push(valueOf(output, share(transfer, partOf(input, from === null ? applied : (taps[from] ?? 0)))));
  return taps;
}

/** The items on the way to one, itself the last. */
export function wayTo(items: readonly LoopItem[], at: number): readonly number[] {
  const way: number[] = [];
  for (let place: number | null = at; place !== null; place = items[place]?.from ?? null) way.unshift(place);
  return way;
}

/** How often the root is taken on the way to an item; exactly once is right for a flow. */
export const rootsTo = (items: readonly LoopItem[], at: number): number =>
  wayTo(items, at).filter((place) => items[place]?.transfer.kind.startsWith('square-root')).length;

export interface Contribution {
  readonly item: number;
  /** How much of the span at the tap one per cent of the item's span makes. */
  readonly sensitivity: number;
  /** Per cent of the span at the tap. */
  readonly percent: number;
}

export interface LoopTolerance {
  readonly contributions: readonly Contribution[];
  /** All the same way at once, and by the root of the sum of the squares; per cent of the span at the tap. */
  readonly sum: number;
  readonly rootSumSquare: number;
}

/** Adds up what items may be off by. */
export function addUp(parts: readonly { readonly tolerancePercent: number; readonly sensitivity: number }[]) {
  const percents = parts.map(({ tolerancePercent, sensitivity }) => Math.abs(tolerancePercent * sensitivity));
  return {
    percents,
    // In decimals, so that 0.25 and twice 0.1 are 0.45 and not a hair beside it.
    sum: percents.reduce(exactSum, 0),
    rootSumSquare: Math.sqrt(percents.reduce((total, one) => total + one * one, 0)),
  };
}

/**
 * What all items on the way to one may put it off by, where something is applied.
 * @throws CoreError as `tapsOf`; `undefined-result` for a root at no flow, where the slope has no bound
 */
export function toleranceAt(items: readonly LoopItem[], at: number, applied: number): LoopTolerance {
  const taps = tapsOf(items, applied);
  const way = wayTo(items, at);
  // From the tap backwards: each item is seen through the slopes of those behind it.
  let through = 1;
  const parts = [...way].reverse().map((place) => {
    const item = items[place] as LoopItem;
    const part = { item: place, tolerancePercent: item.tolerancePercent, sensitivity: Math.abs(through) };
    const given = item.from === null ? applied : (taps[item.from] ?? 0);
    const before = item.from === null ? item.input : (items[item.from]?.output ?? item.input);
    // One per cent of the span before is so much of the span that this item reads.
    const ratio = (before.high - before.low) / (item.input.high - item.input.low);
    // The first on the way has nothing before it whose tolerance would need its slope.
    if (item.from !== null) through *= slope(item.transfer, partOf(item.input, given)) * ratio;
    return part;
  });
  const { percents, sum, rootSumSquare } = addUp(parts);
  return {
    contributions: parts
      .map(({ item, sensitivity }, i) => ({ item, sensitivity, percent: percents[i] ?? 0 }))
      .reverse(),
    sum,
    rootSumSquare,
  };
}
