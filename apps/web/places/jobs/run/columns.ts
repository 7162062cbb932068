/** The fields of a point: in which order they are typed, in which unit, and whether what is typed can be taken. */
import { CoreError } from '@barys/core/errors';
import type { ExtraColumn, MadeWith } from '@barys/store/runs';
import { tapUnit } from '../columnWords';
import type { Draft } from './keep';
import { outputTyped, typedIn } from './typed';

type Point = Pick<MadeWith['points'][number], 'nominalPercent'>;

export type Column = 'output' | ExtraColumn;
export type Field = Column | 'applied';

/** The fields of a point in the order they are typed: what shows before a tap comes before what shows after it. */
export const columnsOf = ({ columns }: Pick<MadeWith, 'columns'>): readonly Column[] => [
  ...columns.filter((column) => column === 'before-tap'),
  'output',
  ...columns.filter((column) => column !== 'before-tap'),
];

export const unitOfColumn = (
  madeWith: Pick<MadeWith, 'configuration' | 'secondIndication' | 'loop'>,
  column: Column,
): string => {
  const { configuration, secondIndication } = madeWith;
  if (column === 'digital') return configuration.inputUnit;
  if (column === 'output' || column === 'before-tap') return configuration.outputUnit;
  if (column !== 'second') return tapUnit(madeWith, column);
  return secondIndication === 'own display' ? configuration.displayUnit : '';
};

export const textOfColumn = (draft: Draft, column: Column): string =>
  column === 'output' ? draft.output : (draft.more?.[column] ?? '');

export const withText = (draft: Draft, column: Column, text: string): Draft =>
  column === 'output' ? { ...draft, output: text } : { ...draft, more: { ...draft.more, [column]: text } };

/** What is wrong with a text, in words; null where it can be read. */
function whyNot(read: () => unknown): string | null {
  try {
    read();
    return null;
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    return error.message;
  }
}

export interface Wrong {
  readonly at: Field;
  readonly why: string;
}

/** What is wrong with one column of a draft. */
export function wrongAt(madeWith: MadeWith, point: Point, draft: Draft, column: Column): Wrong | null {
  const text = textOfColumn(draft, column);
  const why = whyNot(() =>
    column === 'output' ? outputTyped(text, madeWith, point) : typedIn(text, unitOfColumn(madeWith, column)),
  );
  return why === null ? null : { at: column, why };
}

/** The first that is wrong of a draft, the applied value last. */
export function firstWrong(madeWith: MadeWith, point: Point, draft: Draft): Wrong | null {
  for (const column of columnsOf(madeWith)) {
    const wrong = wrongAt(madeWith, point, draft, column);
    if (wrong !== null) return wrong;
  }
  const { applied } = draft;
  const why = applied === null ? null : whyNot(() => typedIn(applied, madeWith.configuration.inputUnit));
  return why === null ? null : { at: 'applied', why };
}

/** A draft whose texts are numbers, without the units typed behind them. */
export function plainDraft(madeWith: MadeWith, point: Point, draft: Draft): Draft {
  const { inputUnit } = madeWith.configuration;
  const more = Object.fromEntries(
    madeWith.columns.map((column) => [
      column,
      typedIn(textOfColumn(draft, column), unitOfColumn(madeWith, column)).text,
    ]),
  );
  return {
    output: outputTyped(draft.output, madeWith, point).text,
    applied: draft.applied === null ? null : typedIn(draft.applied, inputUnit).text,
    more,
  };
}

/** A text with its sign turned. */
export const turned = (text: string): string =>
  /^\s*[-\u2212]/.test(text) ? text.replace(/[-\u2212]/, '') : `-${text}`;

/** A text as one that a null meter showed, or as the output itself again. */
export const nulled = (text: string): string =>
  /null\s*$/i.test(text) ? text.replace(/\s*null\s*$/i, '') : `${text.trim()} null`;
