'use client';
/** The readings of a practice run: they stand in the record of the bench, and what is typed stays in this browser. */
import type { Act, Pass, PracticeBench } from '@barys/rig/practice';
import { useState } from 'react';
import type { Draft, Kept } from '@/places/jobs/run/keep';
import { numberOr, outputTyped } from '@/places/jobs/run/typed';
import type { Entry, ShownRun } from '@/places/jobs/run/types';
import type { Readings } from '@/places/jobs/run/useReadings';
import { MOST, MOST_REMARK, MOST_TEXT } from '@/places/practice/schema';
import { draftsKey } from '../useBench';
import { pointsOf } from './lessonRun';

type Drafts = Kept['drafts'];

function keptDrafts(key: string): Drafts {
  try {
    return JSON.parse(localStorage.getItem(key) ?? '{}') as Drafts;
  } catch {
    return {};
  }
}

export function useBenchReadings(
  bench: PracticeBench,
  pass: Pass,
  run: ShownRun,
  work: (act: Act) => string | null,
): Readings {
  const key = draftsKey(bench.lesson, bench.seed, pass);
  const [drafts, setDrafts] = useState(() => keptDrafts(key));
  const { madeWith } = run;
  const keep = (next: Drafts) => {
    try {
      localStorage.setItem(key, JSON.stringify(next));
    } catch {
      // Without storage a reload loses what is typed and not entered.
    }
    setDrafts(next);
  };
  const keepDraft = (position: number, draft: Draft | null) => {
    const { [position]: _gone, ...others } = drafts;
    keep(draft === null ? others : { ...others, [position]: draft });
  };
  const placeOf = (position: number) => ({ ...pointsOf(bench.lesson)[position - 1], pass });
  const isRead = run.readings.map((reading): [number, Entry] => [
    reading.position,
    { ...reading, isSaved: true },
  ]);
  return {
    entries: new Map(isRead),
    marks: run.marks,
    drafts,
    waitingCount: 0,
    savedClock: null,
    problem: null,
    keepDraft,
    enter: ({ position, appliedText, outputText, more }) => {
      const point = madeWith.points[position - 1];
      const { percent, way } = placeOf(position);
      if (point === undefined || percent === undefined || way === undefined) return;
      const bounded = (value: number) => Math.min(MOST, Math.max(-MOST, value));
      const cut = (text: string) => text.slice(0, MOST_TEXT);
      const wrote = {
        applied: bounded(numberOr(appliedText, point.nominalApplied)),
        output: bounded(outputTyped(outputText, madeWith, point).value),
        typed: {
          applied: cut(appliedText),
          output: cut(outputText),
          more: Object.fromEntries(Object.entries(more).map(([column, text]) => [column, cut(text)])),
        },
      };
      work({ do: 'read', percent, way, pass, wrote });
      keepDraft(position, null);
    },
    mark: ({ position, mark, appliedText, outputText, remark }) => {
      const { percent, way } = placeOf(position);
      if (percent === undefined || way === undefined) return;
      const [applied, output] = [appliedText.slice(0, MOST_TEXT), outputText.slice(0, MOST_TEXT)];
      work({ do: 'mark', percent, way, pass, mark, applied, output, remark: remark.slice(0, MOST_REMARK) });
    },
    learn: () => undefined,
  };
}
