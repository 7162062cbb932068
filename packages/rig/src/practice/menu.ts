/**
 * The local menu of an invented smart transmitter: in words, walked with a wheel and two keys. The wheel goes down a page or
 * turns the digit in hand; the one key takes what is shown, the other goes back. A number is taken digit by digit.
 */
import { START_VIEWS } from '@barys/core/setup';
import type { Settings } from '../smart';
import type { Command, Face } from './acts';

/** What the menu works on. */
export interface Menued {
  readonly settings: Settings;
  readonly face: Face;
  readonly units: readonly string[];
}

type Entry =
  | { readonly word: string; readonly kind: 'page'; readonly entries: readonly Entry[] }
  | { readonly word: string; readonly kind: 'do'; readonly command: Command }
  | {
      readonly word: string;
      readonly kind: 'number';
      read(of: Menued): number;
      tell(value: number, of: Menued): Command;
    }
  | {
      readonly word: string;
      readonly kind: 'choice';
      options(of: Menued): readonly string[];
      read(of: Menued): string;
      tell(option: string, of: Menued): Command;
    };

const set = (settings: Partial<Settings>): Command => ({ kind: 'set', settings });
const setting = (
  word: string,
  key: 'lrv' | 'urv' | 'dampingS' | 'displayDampingS' | 'displayLow' | 'displayHigh',
): Entry => ({
  word,
  kind: 'number',
  read: ({ settings }) => settings[key],
  tell: (value) => set({ [key]: value }),
});

const TRANSFERS = ['in proportion', 'by the root', 'by the root, nothing below a start'] as const;
/** Where the root starts, per cent of flow, until another is chosen. */
const USUAL_START = 5;

const startOf = ({ settings: { transfer } }: Menued): number =>
  transfer.kind === 'square-root-cut-off' ? transfer.cutOffPercentOfFlow : USUAL_START;

export const MENU: Entry = {
  word: 'Menu',
  kind: 'page',
  entries: [
    {
      word: 'Range',
      kind: 'page',
      entries: [setting('Begins at', 'lrv'), setting('Ends at', 'urv')],
    },
    {
      word: 'Output',
      kind: 'page',
      entries: [
        {
          word: 'Goes',
          kind: 'choice',
          options: () => TRANSFERS,
          read: ({ settings: { transfer } }) =>
            transfer.kind === 'linear'
              ? TRANSFERS[0]
              : transfer.kind === 'square-root'
                ? TRANSFERS[1]
                : TRANSFERS[2],
          tell: (option, of) =>
            set({
              transfer:
                option === TRANSFERS[0]
                  ? { kind: 'linear' }
                  : option === TRANSFERS[1]
                    ? { kind: 'square-root' }
                    : { kind: 'square-root-cut-off', cutOffPercentOfFlow: startOf(of) },
            }),
        },
        {
          word: 'Starts at, % of flow',
          kind: 'number',
          read: startOf,
          tell: (value) => set({ transfer: { kind: 'square-root-cut-off', cutOffPercentOfFlow: value } }),
        },
        {
          word: 'Is driven by',
          kind: 'choice',
          options: () => ['pressure', 'scaled variable'],
          read: ({ settings }) => settings.drivenBy,
          tell: (option) => set({ drivenBy: option === 'pressure' ? 'pressure' : 'scaled variable' }),
        },
        setting('Damping, s', 'dampingS'),
      ],
    },
    {
      word: 'Display',
      kind: 'page',
      entries: [
        setting('At 0 %', 'displayLow'),
        setting('At 100 %', 'displayHigh'),
        {
          word: 'Unit',
          kind: 'choice',
          options: ({ units }) => units,
          read: ({ face }) => face.displayUnit,
          tell: (displayUnit) => ({ kind: 'face', face: { displayUnit } }),
        },
        {
          word: 'Shows first',
          kind: 'choice',
          options: () => START_VIEWS,
          read: ({ face }) => face.startView,
          tell: (option) => ({
            kind: 'face',
            face: { startView: START_VIEWS.find((one) => one === option) ?? 'pressure' },
          }),
        },
        setting('Damping, s', 'displayDampingS'),
      ],
    },
    {
      word: 'Zero',
      kind: 'page',
      entries: [{ word: 'Take this for zero', kind: 'do', command: { kind: 'zero trim' } }],
    },
    {
      word: 'Loop test',
      kind: 'page',
      entries: [
        { word: 'Hold 4 mA', kind: 'do', command: { kind: 'hold', milliamp: 4 } },
        { word: 'Hold 20 mA', kind: 'do', command: { kind: 'hold', milliamp: 20 } },
        { word: 'Let go', kind: 'do', command: { kind: 'hold', milliamp: null } },
      ],
    },
  ],
};

/** Places of a number that are turned, from the left. */
const PLACES = [100, 10, 1, 0.1, 0.01, 0.001] as const;

export interface MenuState {
  /** Pages that are open, by their place in the page above; empty while the menu is shut. */
  readonly path: readonly number[];
  readonly isOpen: boolean;
  /** The line in hand. */
  readonly at: number;
  readonly number: { readonly value: number; readonly place: number } | null;
  readonly choice: number | null;
  /** What the last act was answered with. */
  readonly said: string;
}
export const MENU_SHUT: MenuState = { path: [], isOpen: false, at: 0, number: null, choice: null, said: '' };

const pageOf = ({ path }: MenuState): Entry & { readonly kind: 'page' } =>
  path.reduce<Entry & { readonly kind: 'page' }>((page, place) => {
    const next = page.entries[place];
    return next?.kind === 'page' ? next : page;
  }, MENU);

const entryOf = (state: MenuState): Entry | undefined => pageOf(state).entries[state.at];

const round = (value: number): number => Number(value.toFixed(3));
const within = (at: number, count: number): number => Math.min(count - 1, Math.max(0, at));

/** The menu after the wheel was turned. */
export function wheeled(state: MenuState, clicks: number, of: Menued): MenuState {
  if (!state.isOpen) return state;
  const entry = entryOf(state);
  if (state.number !== null) {
    const step = PLACES[state.number.place] ?? 1;
    return { ...state, number: { ...state.number, value: round(state.number.value + clicks * step) } };
  }
  if (state.choice !== null && entry?.kind === 'choice')
    return { ...state, choice: within(state.choice + clicks, entry.options(of).length) };
  return { ...state, said: '', at: within(state.at + clicks, pageOf(state).entries.length) };
}

/** The menu after a key, and what it tells the transmitter. */
export function keyed(
  state: MenuState,
  key: 'take' | 'back',
  of: Menued,
): { readonly state: MenuState; readonly command: Command | null } {
  const only = (next: MenuState) => ({ state: next, command: null });
  if (!state.isOpen) return only(key === 'take' ? { ...MENU_SHUT, isOpen: true } : state);
  if (key === 'back') {
    if (state.number !== null || state.choice !== null) return only({ ...state, number: null, choice: null });
    const last = state.path.at(-1);
    if (last === undefined) return only(MENU_SHUT);
    return only({ ...state, said: '', path: state.path.slice(0, -1), at: last });
  }
  const entry = entryOf(state);
  switch (entry?.kind) {
    case 'page':
      return only({ ...state, said: '', path: [...state.path, state.at], at: 0 });
    case 'do':
      return { state, command: entry.command };
    case 'number': {
      if (state.number === null)
        return only({ ...state, said: '', number: { value: round(entry.read(of)), place: 0 } });
      const { value, place } = state.number;
      if (place < PLACES.length - 1) return only({ ...state, number: { value, place: place + 1 } });
      return { state: { ...state, number: null }, command: entry.tell(value, of) };
    }
    case 'choice': {
      if (state.choice === null)
        return only({ ...state, said: '', choice: Math.max(0, entry.options(of).indexOf(entry.read(of))) });
      const option = entry.options(of)[state.choice] ?? entry.read(of);
      return { state: { ...state, choice: null }, command: entry.tell(option, of) };
    }
    case undefined:
      return only(state);
  }
}

export interface MenuLine {
  readonly word: string;
  readonly value: string;
  readonly isInHand: boolean;
}

/** A number with the digit in hand between marks. */
function numberWords({ value, place }: NonNullable<MenuState['number']>): string {
  const [whole = '0', part = ''] = Math.abs(value).toFixed(3).split('.');
  const digits = `${whole.padStart(3, '0')}.${part}`;
  const at =
    place < 3 ? whole.padStart(3, '0').length - 3 + place : whole.padStart(3, '0').length + place - 2;
  return `${value < 0 ? '\u2212' : ''}${digits.slice(0, at)}[${digits[at] ?? ''}]${digits.slice(at + 1)}`;
}

/** What the menu shows; nothing while it is shut. */
export function menuLines(state: MenuState, of: Menued): readonly MenuLine[] {
  if (!state.isOpen) return [];
  return pageOf(state).entries.map((entry, place) => {
    const isInHand = place === state.at;
    const number = isInHand ? state.number : null;
    const value =
      entry.kind === 'number'
        ? number === null
          ? String(round(entry.read(of)))
          : numberWords(number)
        : entry.kind === 'choice'
          ? isInHand && state.choice !== null
            ? `[${entry.options(of)[state.choice] ?? ''}]`
            : entry.read(of)
          : '';
    return { word: entry.word, value, isInHand };
  });
}
