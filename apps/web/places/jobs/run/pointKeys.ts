/** What the keys of a field of a point do. */
import type { KeyboardEvent } from 'react';

/** Acts of the field in hand that a key can ask for. */
export type PointKey = 'enter' | 'down' | 'up' | 'applied';

const KEYS: Readonly<Record<string, PointKey>> = {
  Enter: 'enter',
  ArrowDown: 'down',
  ArrowUp: 'up',
  a: 'applied',
};

const isAllSelected = ({ target }: KeyboardEvent): boolean =>
  target instanceof HTMLInputElement &&
  target.selectionStart === 0 &&
  target.selectionEnd === target.value.length;

/**
 * @param isEmpty whether nothing is typed yet: a letter behind digits is the beginning of a unit
 * @returns the act, a letter that may be a command of the run, or null of what is only typed
 */
export function pointKey(
  event: KeyboardEvent,
  isEmpty: boolean,
): { readonly act: PointKey } | { readonly letter: string } | null {
  if (event.ctrlKey || event.metaKey || event.altKey) return null;
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
  const isCommand = !/^[a-z]$/.test(key) || isEmpty || isAllSelected(event);
  if (!isCommand) return null;
  const act = KEYS[key];
  return act === undefined ? { letter: key } : { act };
}
