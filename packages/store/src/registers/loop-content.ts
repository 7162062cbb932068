/** What a loop is made of. Free of PostgreSQL, so that forms and runs in a browser say the same. */
import { ITEM_KINDS, TOLERANCE_SUMS, type ItemKind, type LoopItem } from '@barys/core/loop';
import { z } from 'zod';
import { transferSchema, type Configuration } from './configuration';

const number = z.number({ error: 'A number is needed at every item.' });
const scale = z.object({ low: number, high: number });

const itemSchema = z.object({
  name: z.string().trim().min(1, 'Every item of a loop needs a name.').max(60),
  kind: z.enum(ITEM_KINDS),
  /** Place of the one that it reads; null of the instrument itself. */
  from: z.number().int().min(0).nullable(),
  input: scale,
  output: scale,
  inputUnit: z.string().max(40),
  outputUnit: z.string().max(40),
  transfer: transferSchema,
  tolerancePercent: z.number().nonnegative(),
});

export const loopContentSchema = z.object({
  items: z.array(itemSchema).min(2, 'A loop has the instrument and at least one item behind it.').max(20),
  /** Whether it measures a flow, so that the root is to be taken exactly once. */
  isFlow: z.boolean(),
  /** By what of their tolerances the taps are judged. */
  judgedBy: z.enum(TOLERANCE_SUMS).default('sum'),
});
export type LoopContent = Readonly<z.output<typeof loopContentSchema>>;

/** Items that somebody reads: what only passes a signal on has nothing to read. */
const READ_KINDS: ReadonlySet<ItemKind> = new Set([
  'resistor',
  'input card',
  'indicator',
  'recorder',
  'computing block',
  'controller',
]);

/** Places of the items that a loop check reads, the instrument's own output apart. */
export const tapsToRead = ({ items }: LoopContent): readonly number[] =>
  items.flatMap(({ kind, from }, place) => (from !== null && READ_KINDS.has(kind) ? [place] : []));

/** The loop with the instrument in it as its configuration in force says, whatever was typed of it. */
export function loopWith(
  { items, ...rest }: LoopContent,
  configuration: Pick<
    Configuration,
    'lrv' | 'urv' | 'outputLow' | 'outputHigh' | 'inputUnit' | 'outputUnit' | 'transferFunction'
  >,
  tolerancePercent: number,
): LoopContent {
  return {
    ...rest,
    items: items.map((item) =>
      item.from === null
        ? {
            ...item,
            input: { low: configuration.lrv, high: configuration.urv },
            output: { low: configuration.outputLow, high: configuration.outputHigh },
            inputUnit: configuration.inputUnit,
            outputUnit: configuration.outputUnit,
            transfer: configuration.transferFunction,
            tolerancePercent,
          }
        : item,
    ),
  };
}

/** The items as the core takes them. */
export const itemsOf = ({ items }: LoopContent): readonly LoopItem[] => items;
