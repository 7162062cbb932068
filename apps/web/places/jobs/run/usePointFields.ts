'use client';
/** The fields of the point in hand: where the hand is, what is wrong, and how it goes from one to the next. */
import type { MadeWith } from '@barys/store/runs';
import { useEffect, useImperativeHandle, useRef, useState, type RefObject } from 'react';
import {
  nulled,
  columnsOf,
  firstWrong,
  plainDraft,
  textOfColumn,
  turned,
  withText,
  wrongAt,
  type Column,
  type Field,
  type Wrong,
} from './columns';
import type { Hand } from './HandKeys';
import type { Draft } from './keep';
import type { Doubt } from './useRunEntry';

export interface PointFields {
  readonly columns: readonly Column[];
  readonly isAppliedOpen: boolean;
  readonly wrong: Wrong | null;
  readonly elementOf: (field: Field) => HTMLInputElement | null;
  keep(this: void, field: Field, element: HTMLInputElement | null): void;
  focus(this: void, field: Field): void;
  focusFirst(this: void): void;
  write(this: void, column: Column, text: string): void;
  enter(this: void, from: Column): void;
  openApplied(this: void): void;
  closeApplied(this: void): void;
}

export function usePointFields({
  madeWith,
  point,
  draft,
  doubt,
  onDraft,
  onEnter,
  hand,
}: {
  madeWith: MadeWith;
  point: MadeWith['points'][number];
  draft: Draft;
  doubt: Pick<Doubt, 'column' | 'words'> | null;
  onDraft: (draft: Draft) => void;
  onEnter: (draft: Draft) => string | null;
  hand: RefObject<Hand | null>;
}): PointFields {
  const columns = columnsOf(madeWith);
  const [first = 'output'] = columns;
  const elements = useRef<Elements['current']>({});
  const [isAppliedOpen, setIsAppliedOpen] = useState(draft.applied !== null);
  const [wrong, setWrong] = useState<Wrong | null>(null);
  const focus = (field: Field) => focusOn(elements, field);
  useFocus(elements, { first, doubted: doubt, isAppliedAsked: isAppliedOpen && draft.applied === null });

  /** The next field, or the point after the last one. */
  const enter = (from: Column) => {
    const next = columns[columns.indexOf(from) + 1];
    const found =
      wrongAt(madeWith, point, draft, from) ??
      (next === undefined ? firstWrong(madeWith, point, draft) : null);
    setWrong(found);
    if (found !== null) elements.current[found.at]?.focus();
    else if (next !== undefined) focus(next);
    else {
      const refused = onEnter(plainDraft(madeWith, point, draft));
      if (refused !== null) setWrong({ at: 'applied', why: refused });
    }
  };
  const openApplied = () => (isAppliedOpen ? focus('applied') : setIsAppliedOpen(true));
  /** The field that the hand is in, else the first. */
  const here = (): Column =>
    columns.find((column) => elements.current[column] === document.activeElement) ?? first;
  const write = (column: Column, text: string) => {
    setWrong(null);
    onDraft(withText(draft, column, text));
  };
  useImperativeHandle(hand, () => ({
    enter: () => enter(here()),
    openApplied,
    turnNull: () => onDraft(withText(draft, 'output', nulled(draft.output))),
    turnSign: () => {
      const { applied } = elements.current;
      if (applied != null && applied === document.activeElement)
        onDraft({ ...draft, applied: turned(draft.applied ?? '') });
      else onDraft(withText(draft, here(), turned(textOfColumn(draft, here()))));
    },
  }));
  return {
    columns,
    isAppliedOpen,
    wrong,
    elementOf: (field) => elements.current[field] ?? null,
    keep: (field, element) => void (elements.current[field] = element),
    focus,
    focusFirst: () => focus(first),
    write,
    enter,
    openApplied,
    closeApplied: () => {
      onDraft({ ...draft, applied: null });
      setIsAppliedOpen(false);
      focus(first);
    },
  };
}

type Elements = RefObject<Partial<Record<Field, HTMLInputElement | null>>>;

function focusOn(elements: Elements, field: Field): void {
  elements.current[field]?.focus();
  elements.current[field]?.select();
}

/** Where the hand is put: on the first field of a point, on what is doubted, on an applied value that is asked for. */
function useFocus(
  elements: Elements,
  {
    first,
    doubted,
    isAppliedAsked,
  }: {
    readonly first: Column;
    readonly doubted: Pick<Doubt, 'column'> | null;
    readonly isAppliedAsked: boolean;
  },
): void {
  useEffect(() => focusOn(elements, first), [elements, first]);
  // What is doubted is selected: typing replaces it, Enter takes it.
  useEffect(() => {
    if (doubted !== null) focusOn(elements, doubted.column);
  }, [elements, doubted]);
  useEffect(() => {
    if (isAppliedAsked) focusOn(elements, 'applied');
  }, [elements, isAppliedAsked]);
}
