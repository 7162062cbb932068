/** A loop as it is typed: its items in their order, each with what it reads and makes of it. */
import { CoreError } from '@barys/core/errors';
import { ITEM_KINDS, type ItemKind, type LoopItem } from '@barys/core/loop';
import type { Transfer } from '@barys/core/signal';
import { readNumber } from '@/ui/readNumber';
import { isFault, orFault, type Fault } from '../typed';

export const TRANSFERS = ['linear', 'root', 'root, cut'] as const;
export type TransferName = (typeof TRANSFERS)[number];

export const DRIVEN_BY = ['pressure', 'scaled variable'] as const;
export type DrivenBy = (typeof DRIVEN_BY)[number];

/** One item, all of it as typed. */
export interface ItemFields {
  /** Its own for ever, so that what another one reads stays right when items change places. */
  readonly id: string;
  readonly name: string;
  readonly kind: ItemKind;
  /** Whose output it reads; empty where it reads what is applied. */
  readonly from: string;
  readonly inLow: string;
  readonly inHigh: string;
  readonly inUnit: string;
  readonly outLow: string;
  readonly outHigh: string;
  readonly outUnit: string;
  readonly transfer: TransferName;
  /** What drives the output of a transmitter: the pressure, or a scaled variable that has taken its root before. */
  readonly drivenBy: DrivenBy;
  /** Per cent of flow below which nothing is put out. */
  readonly cutOff: string;
  /** Per cent of its output span. */
  readonly tolerance: string;
  /** What was read at its output; empty where nothing was. */
  readonly read: string;
}
export type ItemName = Exclude<keyof ItemFields, 'id'>;

export const MOST_ITEMS = 20;

const item = (
  id: string,
  name: string,
  kind: ItemKind,
  from: string,
  patch: Partial<ItemFields>,
): ItemFields => ({
  id,
  name,
  kind,
  from,
  inLow: '4',
  inHigh: '20',
  inUnit: 'mA',
  outLow: '4',
  outHigh: '20',
  outUnit: 'mA',
  transfer: 'linear',
  drivenBy: 'pressure',
  cutOff: '12',
  tolerance: '0.1',
  read: '',
  ...patch,
});

/** An invented flow loop: the root once, in the transmitter; card, panel meter and recorder behind it. */
const USUAL: readonly ItemFields[] = [
  item('a', 'FT-1305', 'transmitter', '', {
    inLow: '0',
    inHigh: '250',
    inUnit: 'mbar',
    transfer: 'root, cut',
    tolerance: '0.25',
  }),
  item('b', 'IS-12', 'barrier', 'a', {}),
  item('c', 'R 250 Ω', 'resistor', 'b', { outLow: '1', outHigh: '5', outUnit: 'V' }),
  item('d', 'AI-3.7', 'input card', 'c', {
    inLow: '1',
    inHigh: '5',
    inUnit: 'V',
    outLow: '0',
    outHigh: '320',
    outUnit: 'm³/h',
  }),
  item('e', 'FI-1305', 'indicator', 'b', { outLow: '0', outHigh: '320', outUnit: 'm³/h', tolerance: '2' }),
  item('f', 'FR-1305', 'recorder', 'c', {
    inLow: '1',
    inHigh: '5',
    inUnit: 'V',
    outLow: '0',
    outHigh: '100',
    outUnit: '%',
    tolerance: '2',
  }),
];

/** The items as an address says them: what is as usual is left out, so that a long chain still fits one. */
export const textOfItems = (items: readonly ItemFields[]): string =>
  JSON.stringify(
    items.map((one) => {
      const usual = item(one.id, '', 'transmitter', '', {});
      return Object.fromEntries(
        Object.entries(one).filter(
          ([name, value]) => name === 'id' || value !== usual[name as keyof ItemFields],
        ),
      );
    }),
  );

export const LOOP_FIELDS = {
  tag: '',
  applied: '62.5',
  /** Whether it measures a flow, so that the root is to be taken exactly once. */
  isFlow: 'yes',
  /** What a reading is known to, % of span of its tap. */
  meter: '0.05',
  items: textOfItems(USUAL),
  /** Whether readings are judged by the sum of the tolerances or by the root of the sum of their squares. */
  judgedBy: 'sum' as string,
  /** Why it is kept with an instrument. */
  why: '',
};
export type LoopFields = Readonly<typeof LOOP_FIELDS>;

const TEXTS = [
  'name',
  'from',
  'inLow',
  'inHigh',
  'inUnit',
  'outLow',
  'outHigh',
  'outUnit',
  'cutOff',
  'tolerance',
  'read',
] as const;
const LONGEST_TEXT = 40;

/** The items that an address says; what it says wrongly is left out. */
export function itemsOfText(text: string): readonly ItemFields[] {
  let given: unknown;
  try {
    given = JSON.parse(text);
  } catch {
    return USUAL;
  }
  if (!Array.isArray(given)) return USUAL;
  const seen = new Set<string>();
  return given.slice(0, MOST_ITEMS).flatMap((one: unknown): ItemFields[] => {
    if (one === null || typeof one !== 'object') return [];
    const of = one as Record<string, unknown>;
    const id = typeof of['id'] === 'string' ? of['id'].slice(0, 8) : '';
    if (id === '' || seen.has(id)) return [];
    seen.add(id);
    const usual = item(id, '', 'transmitter', '', {});
    const texts = Object.fromEntries(
      TEXTS.map((name) => [
        name,
        typeof of[name] === 'string' ? of[name].slice(0, LONGEST_TEXT) : usual[name],
      ]),
    );
    return [
      {
        ...usual,
        ...texts,
        kind: ITEM_KINDS.find((kind) => kind === of['kind']) ?? 'transmitter',
        transfer: TRANSFERS.find((transfer) => transfer === of['transfer']) ?? 'linear',
        drivenBy: DRIVEN_BY.find((one) => one === of['drivenBy']) ?? 'pressure',
      },
    ];
  });
}

/** A new item behind the last, which reads it. */
export function newItem(items: readonly ItemFields[]): ItemFields {
  const last = items.at(-1);
  const ids = new Set(items.map(({ id }) => id));
  const id = Array.from({ length: MOST_ITEMS + 1 }, (_, i) => `n${i}`).find((one) => !ids.has(one)) ?? 'n';
  if (last === undefined)
    return item(id, 'FT', 'transmitter', '', { inLow: '0', inHigh: '250', inUnit: 'mbar' });
  return item(id, `Item ${items.length + 1}`, 'indicator', last.id, {
    inLow: last.outLow,
    inHigh: last.outHigh,
    inUnit: last.outUnit,
    outLow: '0',
    outHigh: '100',
    outUnit: '%',
    tolerance: '1',
  });
}

/** Whether the root is taken in the scaled variable and in the output once more. */
export const isRootedTwice = ({ drivenBy, transfer }: ItemFields): boolean =>
  drivenBy === 'scaled variable' && transfer !== 'linear';

/** A field of an item, as a fault names it. */
export const fieldOf = (place: number, name: ItemName): string => `items.${place}.${name}`;

function numberIn(items: readonly ItemFields[], place: number, name: ItemName, what: string): number {
  const one = items[place];
  const text = one?.[name] ?? '';
  const { value, error } = readNumber(text);
  if (error !== null) throw new CoreError({ code: 'not-a-number', text }, fieldOf(place, name));
  if (value === null)
    throw new CoreError(
      {
        code: 'missing',
        name: `${what} of ${one?.name ?? 'an item'}`,
        why: 'what stands behind it is made of it',
      },
      fieldOf(place, name),
    );
  return value;
}

function transferIn(items: readonly ItemFields[], place: number): Transfer {
  switch (items[place]?.transfer) {
    case 'root':
      return { kind: 'square-root' };
    case 'root, cut': {
      const cutOffPercentOfFlow = numberIn(items, place, 'cutOff', 'The cut-off');
      if (!(cutOffPercentOfFlow >= 0 && cutOffPercentOfFlow <= 100))
        throw new CoreError(
          {
            code: 'out-of-bounds',
            name: 'The low-flow cut-off',
            value: cutOffPercentOfFlow,
            lowest: 0,
            highest: 100,
            unit: '%',
          },
          fieldOf(place, 'cutOff'),
        );
      return { kind: 'square-root-cut-off', cutOffPercentOfFlow };
    }
    case 'linear':
    case undefined:
      // A scaled variable has taken its root before the output makes its own of it.
      return { kind: items[place]?.drivenBy === 'scaled variable' ? 'square-root' : 'linear' };
  }
}

/** @throws CoreError at the field of the item that is wrong */
export const loopOf = (items: readonly ItemFields[]): readonly LoopItem[] =>
  items.map(({ name, kind, from }, place) => {
    const source = items.findIndex(({ id }) => id === from);
    if (from !== '' && (source === -1 || source >= place))
      throw new CoreError(
        { code: 'missing', name: `What ${name} reads`, why: 'an item reads one that stands before it' },
        fieldOf(place, 'from'),
      );
    return {
      name,
      kind,
      from: from === '' ? null : source,
      input: {
        low: numberIn(items, place, 'inLow', 'The input'),
        high: numberIn(items, place, 'inHigh', 'The input'),
      },
      output: {
        low: numberIn(items, place, 'outLow', 'The output'),
        high: numberIn(items, place, 'outHigh', 'The output'),
      },
      transfer: transferIn(items, place),
      tolerancePercent: numberIn(items, place, 'tolerance', 'The tolerance'),
    };
  });

/** Names of the core's fields, by those of the items: `items.2.input.high` stands in `items.2.inHigh`. */
const CORE_NAME: Readonly<Record<string, ItemName>> = {
  from: 'from',
  'input.low': 'inLow',
  'input.high': 'inHigh',
  'output.low': 'outLow',
  'output.high': 'outHigh',
  tolerancePercent: 'tolerance',
};

/** What is wrong, at a field of the loop or at one of an item. */
export interface LoopFault {
  readonly message: string;
  readonly field: string | null;
}

/** Does work with the fields; what the core refuses is told at its field. */
export function orLoopFault<T extends object>(work: () => T): T | LoopFault {
  let at: string | null = null;
  const result: T | Fault = orFault(LOOP_FIELDS, {}, () => {
    try {
      return work();
    } catch (error) {
      if (error instanceof CoreError) {
        const [, place, name] = /^items\.(\d+)\.(.+)$/.exec(error.field ?? '') ?? [];
        at =
          place === undefined || name === undefined
            ? (error.field ?? null)
            : `items.${place}.${CORE_NAME[name] ?? name}`;
      }
      throw error;
    }
  });
  return isFault(result) ? { message: result.message, field: at } : result;
}
