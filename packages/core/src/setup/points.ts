/** Switching points as people write them, `name: on / off`, one after the other by semicolons or on lines of their own. */
import { CoreError } from '../errors';
import { formatPlain, parseTyped } from '../text';
import type { SwitchingPoint } from './settings';

const plain = (value: number): string => formatPlain(value).replace('\u2212', '-');

/** @example switchingPointsText([{ name: 'high', on: 5, off: 4.8 }]) // 'high: 5 / 4.8' */
export const switchingPointsText = (points: readonly SwitchingPoint[]): string =>
  points.map(({ name, on, off }) => `${name}: ${plain(on)} / ${plain(off)}`).join('; ');

/** A figure that is missing is null, one that is none NaN: who reads them says what is wrong. */
interface WrittenPoint {
  readonly name: string;
  readonly on: number | null;
  readonly off: number | null;
}

function figureOf(text: string): number | null {
  if (text.trim() === '') return null;
  try {
    return parseTyped(text).value;
  } catch (error) {
    if (error instanceof CoreError) return NaN;
    throw error;
  }
}

/** @example readSwitchingPoints('high: 5 / 4,8') // [{ name: 'high', on: 5, off: 4.8 }] */
export const readSwitchingPoints = (text: string): WrittenPoint[] =>
  text
    .split(/[;\n]/)
    .map((part) => part.trim())
    .filter((part) => part !== '')
    .map((part) => {
      const [, name = part, on = '', off = ''] = /^(.*?):\s*(.*?)\s*\/\s*(.*)$/.exec(part) ?? [];
      return { name, on: figureOf(on), off: figureOf(off) };
    });
