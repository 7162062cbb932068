/** What is read beside the output of a run, in words; a tap of a loop is called as its item is. */
import { isTapColumn, tapOfColumn, type Beside, type TapColumn } from '@barys/store/beside';
import type { ExtraColumn, MadeWith } from '@barys/store/runs';

type OfRun = Partial<Pick<MadeWith, 'loop'>>;

const tapName = (madeWith: OfRun, column: TapColumn): string =>
  tapOfColumn(madeWith, column)?.item.name ?? column;

/** Its unit; empty where it has none, or nobody said. */
export const tapUnit = (madeWith: OfRun, column: TapColumn): string =>
  tapOfColumn(madeWith, column)?.item.outputUnit ?? '';

type Named = Readonly<{ name: string; label: string; heading: string }>;
const WORDS: Readonly<Record<Exclude<ExtraColumn, TapColumn> | 'output', Named>> = {
  output: { name: 'Reading', label: 'reading', heading: 'Reading' },
  'before-tap': {
    name: 'Reading before a tap',
    label: 'before a tap',
    heading: 'Before a tap',
  },
  digital: { name: 'Digital value', label: 'digital', heading: 'Digital' },
  second: { name: 'Second indication', label: 'second', heading: 'Second' },
};

/** As a field is called aloud. */
export const columnName = (madeWith: OfRun, column: ExtraColumn | 'output'): string =>
  isTapColumn(column) ? tapName(madeWith, column) : WORDS[column].name;

/** As it stands before its figure, where there is little room. */
export const columnLabel = (madeWith: OfRun, column: ExtraColumn | 'output'): string =>
  isTapColumn(column) ? tapName(madeWith, column) : WORDS[column].label;

/** As a column of a table is headed. */
export function columnHeading(madeWith: OfRun, column: ExtraColumn): string {
  if (!isTapColumn(column)) return WORDS[column].heading;
  const unit = tapUnit(madeWith, column);
  return `${tapName(madeWith, column)}${unit === '' ? '' : `, ${unit}`}`;
}

const BESIDE: Readonly<Record<Exclude<Beside, TapColumn>, string>> = {
  sensor: 'Sensor: digital value against applied',
  output: 'Output: reading against digital value',
  second: 'Second indication',
  friction: 'Friction: before and after a tap',
};
/** What is judged of it. */
export const besideWord = (madeWith: OfRun, kind: Beside): string =>
  isTapColumn(kind) ? `${tapName(madeWith, kind)}, by all on the way there` : BESIDE[kind];
