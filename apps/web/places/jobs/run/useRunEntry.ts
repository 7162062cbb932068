'use client';
/** What is entered in a run: the point in hand, what is typed at it, and what its keys do. */
import { appliedAt, evaluateStoredRun, openPoints } from '@barys/store/evaluation';
import type { ExtraColumn } from '@barys/store/runs';
import { useMemo, useState } from 'react';
import { figuresOfRun } from '@/ui/figures';
import type { Draft } from './keep';
import type { WordedMark } from './MarkField';
import { parseColumn } from './paste';
import { atStandard, draftOfEntry, readingOfDraft, slipOfDraft, textOfDraft } from './point';
import { overRange } from './slips';
import { numberOr, plainOr } from './typed';
import type { ShownRun } from './types';
import type { Readings } from './useReadings';

/** The readings of a run with what they say so far. */
function useStanding({ madeWith }: ShownRun, readings: Readings) {
  const { entries, marks } = readings;
  const figures = useMemo(() => figuresOfRun(madeWith), [madeWith]);
  const standing = useMemo(
    () => ({
      madeWith,
      readings: [...entries.values()].sort((a, b) => a.position - b.position),
      marks,
    }),
    [madeWith, entries, marks],
  );
  const evaluation = useMemo(() => evaluateStoredRun(standing), [standing]);
  const judgedAt = (position: number) =>
    evaluation.readings[standing.readings.findIndex((reading) => reading.position === position)];
  return { readings, figures, standing, evaluation, judgedAt, open: openPoints(standing) };
}

/** A question about what was entered at a point. */
export interface Doubt {
  readonly at: number;
  /** All that was typed when it was asked; entered again unchanged it is taken. */
  readonly text: string;
  readonly column: ExtraColumn | 'output';
  readonly words: string;
}

/** A point that was chosen, or one that the hand went to by itself. */
type Choice = 'begin' | { readonly position: number | null; readonly isGoneTo: boolean };

/** The point in hand, and how the hand goes from one to the next. */
function usePointInHand(run: ShownRun, { open, readings }: ReturnType<typeof useStanding>) {
  const { points } = run.madeWith;
  const [choice, setChoice] = useState<Choice>('begin');
  const { drafts } = readings;
  const isOpen = (position: number) => open.some((point) => point.position === position);
  const chosen = chosenOf();
  function chosenOf(): number | null {
    // Until a point is chosen: the one that something was typed at, else the first without a reading.
    if (choice === 'begin') return Object.keys(drafts).map(Number)[0] ?? open[0]?.position ?? null;
    const { position, isGoneTo } = choice;
    if (position === null || !isGoneTo || isOpen(position) || drafts[position] !== undefined) return position;
    // A link has read it meanwhile: the hand goes on.
    return (open.find((point) => point.position > position) ?? open[0])?.position ?? null;
  }
  const choose = (position: number | null) => setChoice({ position, isGoneTo: false });
  return {
    current: points.find(({ position }) => position === chosen) ?? null,
    choose,
    /** To the next point without a reading, then to one that was passed over, then to none. */
    goOn: (from: number, done: readonly number[]) => {
      const left = open.filter(({ position }) => !done.includes(position));
      const next = left.find(({ position }) => position > from) ?? left[0];
      setChoice({ position: next?.position ?? null, isGoneTo: true });
    },
    move: (step: 1 | -1) => {
      const index = points.findIndex(({ position }) => position === chosen);
      const next = points[index === -1 && step === -1 ? points.length - 1 : index + step];
      if (next !== undefined) choose(next.position);
      else if (open.length === 0 && step === 1) choose(null);
    },
  };
}

type InHand = ReturnType<typeof usePointInHand>;

/** What is said at a point besides its reading: marks, and since when it settles. */
function useMarking(readings: Readings, { current, goOn }: InHand, draft: Draft) {
  const [marking, setMarking] = useState<WordedMark | null>(null);
  const [settled, setSettled] = useState<{ at: number; since: number } | null>(null);
  return {
    marking,
    setMarking,
    /** A bad approach stays as a mark; the point is approached again. */
    overshot: () => {
      if (current === null) return;
      const appliedText = plainOr(draft.applied);
      const outputText = plainOr(draft.output);
      readings.mark({ position: current.position, mark: 'overshot', appliedText, outputText, remark: '' });
      setSettled(null);
    },
    keepMark: (mark: WordedMark, remark: string) => {
      if (current === null) return;
      readings.mark({ position: current.position, mark, appliedText: '', outputText: '', remark });
      setMarking(null);
      if (mark === 'no reading') goOn(current.position, [current.position]);
    },
    settlingSince: settled !== null && settled.at === current?.position ? settled.since : null,
    startSettling: (since: number) => {
      if (current !== null) setSettled({ at: current.position, since });
    },
  };
}

/** What is typed becomes readings: one by one, with a question where it looks like a slip, or a pasted column. */
function useEntering(
  run: ShownRun,
  { readings, figures }: ReturnType<typeof useStanding>,
  inHand: Pick<InHand, 'current' | 'goOn'>,
) {
  const { madeWith } = run;
  const { points } = madeWith;
  const { entries } = readings;
  const { current } = inHand;
  const [doubt, setDoubt] = useState<Doubt | null>(null);
  const [sheetTime, setSheetTime] = useState('');
  const [pasteProblem, setPasteProblem] = useState<string | null>(null);
  const goOn = (from: number, done: readonly number[]) => {
    inHand.goOn(from, done);
    setDoubt(null);
  };
  const keep = (position: number, typed: Draft): void => {
    const point = points.find((one) => one.position === position);
    if (point === undefined) return;
    const reading = readingOfDraft(madeWith, point, typed, entries.get(position), figures);
    if (reading === null) readings.keepDraft(position, null);
    else readings.enter(reading, sheetTime === '' ? null : new Date(sheetTime));
  };

  /** What is typed is kept at every key, and any question about what stood there before is gone. */
  const type = (next: Draft) => {
    setDoubt(null);
    if (current !== null) readings.keepDraft(current.position, next);
  };

  /** @returns why it cannot be entered, or null */
  const enter = (typed: Draft): string | null => {
    if (current === null) return null;
    setPasteProblem(null);
    const stop = overRange(madeWith, current, numberOr(typed.applied, atStandard(madeWith, current)));
    if (stop !== null) return stop;
    const text = textOfDraft(typed);
    const isAsked = doubt?.at === current.position && doubt.text === text;
    const slip = isAsked ? null : slipOfDraft(madeWith, current, typed, entries, figures);
    if (slip !== null) setDoubt({ at: current.position, text, ...slip });
    else {
      keep(current.position, typed);
      goOn(current.position, [current.position]);
    }
    return null;
  };

  const enterColumn = (text: string) => {
    if (current === null) return;
    const from = points.filter(({ position }) => position >= current.position);
    const lines = parseColumn(text, from.length);
    if (typeof lines === 'string') {
      setPasteProblem(lines);
      return;
    }
    setPasteProblem(null);
    const filled = from.slice(0, lines.length).map(({ position }) => position);
    lines.forEach((line, index) => keep(filled[index] ?? 0, line));
    goOn(current.position, filled);
  };

  return {
    type,
    /** What looks like a slip in what is typed, as a question. */
    doubt: doubt !== null && doubt.at === current?.position ? doubt : null,
    enter,
    enterColumn,
    pasteProblem,
    sheetTime,
    setSheetTime,
  };
}

/** @param readings where they are kept: at the server for a job, at the bench for practice */
export function useRunEntry(run: ShownRun, readings: Readings, onHelp: () => void) {
  const { madeWith } = run;
  const standing = useStanding(run, readings);
  const { figures, open } = standing;
  const { entries, drafts } = readings;
  const inHand = usePointInHand(run, standing);
  const { current } = inHand;
  const draft: Draft =
    current === null
      ? { output: '', applied: null, more: {} }
      : (drafts[current.position] ?? draftOfEntry(madeWith, current, entries.get(current.position), figures));
  const marks = useMarking(readings, inHand, draft);

  const entering = useEntering(run, standing, {
    ...inHand,
    goOn: (from, done) => {
      inHand.goOn(from, done);
      marks.setMarking(null);
    },
  });

  /** @returns whether the letter is a key of the run */
  const onLetter = (letter: string): boolean => {
    const commands: Record<string, () => void> = {
      o: marks.overshot,
      x: () => marks.setMarking('no reading'),
      n: () => marks.setMarking('note'),
      t: () => marks.startSettling(Date.now()),
      '?': onHelp,
    };
    commands[letter]?.();
    return commands[letter] !== undefined;
  };

  return {
    ...standing,
    ...inHand,
    isComplete: open.length === 0,
    draft,
    /** What the instrument sees at the point in hand, in the input unit. */
    applied:
      current === null
        ? null
        : appliedAt(madeWith, current, numberOr(draft.applied, atStandard(madeWith, current))),
    ...entering,
    onLetter,
    marking: marks.marking,
    keepMark: marks.keepMark,
    leaveMark: () => marks.setMarking(null),
    settlingSince: marks.settlingSince,
    startSettling: marks.startSettling,
  };
}
