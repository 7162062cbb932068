'use client';
/** The fields of the point in hand: where the hand is, what is wrong, and how it goes from one to the next. */
import type { MadeWith } from '@barys/store/runs';
import { useEffect, useEffectEvent, useImperativeHandle, useRef, useState, type RefObject } from 'react';
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
  const { elements, keep, wasTyping } = useElements(draft, onDraft);
  const [isAppliedOpen, setIsAppliedOpen] = useState(draft.applied !== null);
  const [wrong, setWrong] = useState<Wrong | null>(null);
  const focus = (field: Field) => focusOn(elements, field);
  const isAppliedAsked = isAppliedOpen && draft.applied === null;
  useFocus(elements, { first, wasTyping, doubted: doubt, isAppliedAsked });

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
    keep,
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

interface FieldElements {
  readonly elements: Elements;
  keep(this: void, field: Field, element: HTMLInputElement | null): void;
  /** Whether somebody was typing as the page began to listen; asked once. */
  wasTyping(this: void): boolean;
}

/**
 * The elements of the fields. What was typed before the page listened stands in one of them and nowhere else, until it is
 * drawn anew.
 */
function useElements(draft: Draft, onDraft: (draft: Draft) => void): FieldElements {
  const elements = useRef<Elements['current']>({});
  const typed = useRef<Draft | null>(null);
  const isTyping = useRef(false);
  useEffect(() => {
    if (typed.current !== null) onDraft(typed.current);
    typed.current = null;
  });
  return {
    elements,
    keep: (field, element) => {
      const isNew = element !== null && !(field in elements.current);
      elements.current[field] = element;
      if (!isNew || field === 'applied' || element.value === textOfColumn(draft, field)) return;
      typed.current = withText(typed.current ?? draft, field, element.value);
      isTyping.current = true;
    },
    wasTyping: () => {
      const was = isTyping.current;
      isTyping.current = false;
      return was;
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
    wasTyping,
    doubted,
    isAppliedAsked,
  }: {
    readonly first: Column;
    readonly wasTyping: () => boolean;
    readonly doubted: Pick<Doubt, 'column'> | null;
    readonly isAppliedAsked: boolean;
  },
): void {
  const wasTypingAt = useEffectEvent(wasTyping);
  useEffect(() => {
    // Whoever is typing there goes on where they are.
    if (wasTypingAt()) elements.current[first]?.focus();
    else focusOn(elements, first);
  }, [elements, first]);
  // What is doubted is selected: typing replaces it, Enter takes it.
  useEffect(() => {
    if (doubted !== null) focusOn(elements, doubted.column);
  }, [elements, doubted]);
  useEffect(() => {
    if (isAppliedAsked) focusOn(elements, 'applied');
  }, [elements, isAppliedAsked]);
}
