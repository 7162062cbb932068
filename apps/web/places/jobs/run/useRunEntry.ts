'use client';
/** What is entered in a run: the point in hand, what is typed at it, and what its keys do. */
import { atInstrument } from '@barys/core/corrections';
import { appliedAt, evaluateStoredRun, openPoints } from '@barys/store/evaluation';
import type { ExtraColumn } from '@barys/store/runs';
import { useMemo, useState } from 'react';
import { figuresOfRun } from '@/ui/figures';
import type { Draft } from './keep';
import type { WordedMark } from './MarkField';
import { parseColumn } from './paste';
import { overRange, slipQuestion } from './slips';
import { numberOr, plainOr } from './typed';
import type { More, ShownRun } from './types';
import { useReadings } from './useReadings';

const isSame = (a: More, b: More): boolean => JSON.stringify(a) === JSON.stringify(b);

/** The readings of a run with what they say so far. */
function useStanding(run: ShownRun) {
  const { madeWith } = run;
  const readings = useReadings(run);
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

export function useRunEntry(run: ShownRun, onHelp: () => void) {
  const { madeWith } = run;
  const { points } = madeWith;
  const { readings, figures, standing, evaluation, judgedAt, open } = useStanding(run);
  const { entries, drafts } = readings;
  const [choice, setChosen] = useState<number | null | 'begin'>('begin');
  const [doubt, setDoubt] = useState<Doubt | null>(null);
  const [marking, setMarking] = useState<WordedMark | null>(null);
  const [settled, setSettled] = useState<{ at: number; since: number } | null>(null);
  const [sheetTime, setSheetTime] = useState('');
  const [pasteProblem, setPasteProblem] = useState<string | null>(null);

  // Until a point is chosen: the one that something was typed at, else the first without a reading.
  const chosen =
    choice === 'begin' ? (Object.keys(drafts).map(Number)[0] ?? open[0]?.position ?? null) : choice;
  const current = points.find(({ position }) => position === chosen) ?? null;
  const isComplete = open.length === 0;

  /** What the standard has to show for a point: less than the nominal where the instrument sees more. */
  const atStandard = ({ nominalApplied }: (typeof points)[number]): number =>
    atInstrument(nominalApplied, -madeWith.head);
  const draftAt = (point: (typeof points)[number]): Draft => {
    const entry = entries.get(point.position);
    const rounded = numberOr(figures.input(atStandard(point)), atStandard(point));
    return (
      drafts[point.position] ?? {
        output: entry?.outputText ?? '',
        applied: entry !== undefined && entry.applied !== rounded ? entry.appliedText : null,
        more: entry?.more ?? {},
      }
    );
  };
  const draft: Draft = current === null ? { output: '', applied: null, more: {} } : draftAt(current);

  /** To the next point without a reading, then to one that was passed over, then to none. */
  const goOn = (from: number, done: readonly number[]) => {
    const left = open.filter(({ position }) => !done.includes(position));
    setChosen((left.find(({ position }) => position > from) ?? left[0])?.position ?? null);
    setDoubt(null);
    setMarking(null);
  };

  const keep = (position: number, typed: Draft): void => {
    const point = points.find((one) => one.position === position);
    if (point === undefined) return;
    const appliedText = typed.applied?.trim() ?? figures.input(atStandard(point));
    const outputText = typed.output.trim();
    const more = typed.more ?? {};
    const before = entries.get(position);
    const isUnchanged =
      before?.outputText === outputText && before.appliedText === appliedText && isSame(before.more, more);
    const appliedAs = typed.applied === null ? 'set' : 'read';
    const takenAt = sheetTime === '' ? null : new Date(sheetTime);
    if (isUnchanged) readings.keepDraft(position, null);
    else readings.enter({ position, appliedText, appliedAs, outputText, more }, takenAt);
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
    const applied = numberOr(typed.applied, atStandard(current));
    const stop = overRange(madeWith, current, applied);
    if (stop !== null) return stop;
    const text = JSON.stringify([typed.output, typed.applied, typed.more]);
    const isAsked = doubt?.at === current.position && doubt.text === text;
    if (!isAsked) {
      for (const column of ['output', ...madeWith.columns] as const) {
        const typedText = column === 'output' ? typed.output : (typed.more?.[column] ?? '');
        const read = { column, applied, value: numberOr(typedText, NaN), text: typedText };
        const words = Number.isNaN(read.value)
          ? null
          : slipQuestion(madeWith, current, read, entries, figures);
        if (words === null) continue;
        setDoubt({ at: current.position, text, column, words });
        return null;
      }
    }
    keep(current.position, typed);
    goOn(current.position, [current.position]);
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

  /** A bad approach stays as a mark; the point is approached again. */
  const overshot = () => {
    if (current === null) return;
    const appliedText = plainOr(draft.applied);
    const outputText = plainOr(draft.output);
    readings.mark({ position: current.position, mark: 'overshot', appliedText, outputText, remark: '' });
    setSettled(null);
  };
  const keepMark = (mark: WordedMark, remark: string) => {
    if (current === null) return;
    readings.mark({ position: current.position, mark, appliedText: '', outputText: '', remark });
    if (mark === 'no reading') goOn(current.position, [current.position]);
    else setMarking(null);
  };
  const startSettling = (since: number) => {
    if (current !== null) setSettled({ at: current.position, since });
  };
  /** @returns whether the letter is a key of the run */
  const onLetter = (letter: string): boolean => {
    const commands: Record<string, () => void> = {
      o: overshot,
      x: () => setMarking('no reading'),
      n: () => setMarking('note'),
      t: () => startSettling(Date.now()),
      '?': onHelp,
    };
    commands[letter]?.();
    return commands[letter] !== undefined;
  };

  const move = (step: 1 | -1) => {
    const index = points.findIndex(({ position }) => position === chosen);
    const next = points[index === -1 && step === -1 ? points.length - 1 : index + step];
    if (next !== undefined) setChosen(next.position);
    else if (isComplete && step === 1) setChosen(null);
  };

  return {
    readings,
    figures,
    standing,
    evaluation,
    judgedAt,
    isComplete,
    current,
    choose: setChosen,
    move,
    draft,
    type,
    /** What the instrument sees at the point in hand, in the input unit. */
    applied:
      current === null ? null : appliedAt(madeWith, current, numberOr(draft.applied, atStandard(current))),
    /** What looks like a slip in what is typed, as a question. */
    doubt: doubt !== null && doubt.at === current?.position ? doubt : null,
    enter,
    enterColumn,
    pasteProblem,
    sheetTime,
    setSheetTime,
    onLetter,
    marking,
    keepMark,
    leaveMark: () => setMarking(null),
    settlingSince: settled !== null && settled.at === current?.position ? settled.since : null,
    startSettling,
  };
}
