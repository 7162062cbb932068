/** What a loop comes to: what stands at each tap, whether the root is taken once, and which item is wrong. */
import {
  diagnose,
  judgeTap,
  rootsTo,
  tapsOf,
  toleranceAt,
  TOLERANCE_SUMS,
  trimEffectOn,
  wayTo,
  type Diagnosis,
  type LoopItem,
  type NextTap,
  type TapReading,
  type ToleranceSum,
} from '@barys/core/loop';
import { CoreError } from '@barys/core/errors';
import { decimalsForResolution, formatFixed, formatSigned, resolutionForSpan } from '@barys/core/text';
import Papa from 'papaparse';
import { readNumber } from '@/ui/readNumber';
import { fieldOf, isRootedTwice, itemsOfText, loopOf, type ItemFields, type LoopFields } from './fields';
import { numberAt } from '../typed';

export interface Tap {
  readonly fields: ItemFields;
  readonly expected: string;
  /** Where the signal stands on its rail, share of the output. */
  readonly share: number;
  /** What was read, where something was: on the rail, less what was expected, % of span, and judged where there is a tolerance. */
  readonly read: {
    readonly share: number;
    readonly errorPercent: number;
    readonly verdict: 'within' | 'outside' | 'not-judged';
  } | null;
  /** How often the root is taken on the way here. */
  readonly roots: number;
  /** What all items on the way here may put it off by, % of span; null at no flow behind a root. */
  readonly tolerance: { readonly sum: number; readonly rootSumSquare: number } | null;
  /** Whether nobody reads it: it ends a branch. */
  readonly isEnd: boolean;
}

export interface LoopResult {
  readonly items: readonly LoopItem[];
  readonly taps: readonly Tap[];
  readonly judgedBy: ToleranceSum;
  readonly applied: number;
  /** Null before anything is read. */
  readonly diagnosis: Diagnosis | null;
  /** The tap to measure next; null where no other would tell more. */
  readonly next: NextTap | null;
  /** What is not known yet of who is wrong, bits. */
  readonly doubt: number;
  /** Why no item can be named, in words. */
  readonly whyNot: string;
  /** Branches on which the root is not taken exactly once. */
  readonly wrongRoots: readonly { readonly name: string; readonly roots: number }[];
}

const STANDARD_OF_EXPANDED = 2;
/** From here on one item is called the likely one. */
export const LIKELY = 0.6;
/** A tap that takes away less than this says nothing more, bits. */
const WORTH_BITS = 0.05;

/** Exact on the limit, as the reading of a loop check. */
function verdictOf(
  items: readonly LoopItem[],
  place: number,
  applied: number,
  output: number,
  by: ToleranceSum,
): 'within' | 'outside' | 'not-judged' {
  const judged = judgeTap(
    items,
    place,
    { cycle: 1, direction: 'up', nominalPercent: 0, applied, output },
    by,
  );
  if (judged === null) return 'not-judged';
  return judged.verdict === 'outside' ? 'outside' : 'within';
}

/** @throws CoreError where the root at no flow hides what stands before it */
function toleranceOr(items: readonly LoopItem[], place: number, applied: number): Tap['tolerance'] {
  try {
    const { sum, rootSumSquare } = toleranceAt(items, place, applied);
    return { sum, rootSumSquare };
  } catch (error) {
    if (error instanceof CoreError && error.problem.code === 'undefined-result') return null;
    throw error;
  }
}

/** @throws CoreError at the field that is wrong */
export function computeLoop(fields: LoopFields): LoopResult {
  const typed = itemsOfText(fields.items);
  const items = loopOf(typed);
  const applied = numberAt(fields, 'applied', 'What is applied');
  const percent = numberAt(fields, 'meter', 'What a reading is known to');
  if (!(percent > 0))
    throw new CoreError(
      { code: 'not-positive', name: 'What a reading is known to', value: percent },
      'meter',
    );
  const judgedBy = TOLERANCE_SUMS.find((one) => one === fields.judgedBy) ?? 'sum';
  const values = tapsOf(items, applied);
  const readings: TapReading[] = [];
  const taps = typed.map((one, place): Tap => {
    const { output } = items[place] as LoopItem;
    const span = output.high - output.low;
    const shareOf = (value: number) => (value - output.low) / span;
    const value = values[place] ?? 0;
    const { value: read, error } = readNumber(one.read);
    if (error !== null) throw new CoreError({ code: 'not-a-number', text: one.read }, fieldOf(place, 'read'));
    const tolerance = toleranceOr(items, place, applied);
    if (read !== null)
      readings.push({
        item: place,
        applied,
        value: read,
        uncertainty: ((percent / 100) * Math.abs(span)) / STANDARD_OF_EXPANDED,
      });
    const errorPercent = read === null ? 0 : (shareOf(read) - shareOf(value)) * 100;
    return {
      fields: one,
      expected: formatFixed(value, decimalsForResolution(resolutionForSpan(Math.abs(span))) + 1),
      share: shareOf(value),
      read:
        read === null
          ? null
          : {
              share: shareOf(read),
              errorPercent,
              verdict: verdictOf(items, place, applied, read, judgedBy),
            },
      roots:
        rootsTo(items, place) + wayTo(items, place).filter((at) => isRootedTwice(typed[at] ?? one)).length,
      tolerance,
      isEnd: !items.some(({ from }) => from === place),
    };
  });
  let diagnosis: Diagnosis | null = null;
  let next: NextTap | null = null;
  let doubt = 0;
  let whyNot = '';
  try {
    const believed = diagnose(items, readings, applied, percent / STANDARD_OF_EXPANDED);
    doubt = believed.doubt;
    next = believed.next.find(({ bits }) => bits >= WORTH_BITS) ?? null;
    if (readings.length > 0) diagnosis = believed;
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    whyNot = 'Nothing flows: a root hides what stands before it. Apply something and read again.';
  }
  return {
    items,
    taps,
    judgedBy,
    applied,
    diagnosis,
    next,
    doubt,
    whyNot,
    wrongRoots:
      fields.isFlow === 'yes'
        ? taps.flatMap(({ isEnd, roots, fields: { name } }) =>
            isEnd && roots !== 1 ? [{ name, roots }] : [],
          )
        : [],
  };
}

/** What comes of trimming the first item until a receiver that is wrong agrees: what every other end would then be off by. */
export interface TrimEffect {
  readonly receiver: string;
  /** By how much the first item would be trimmed, per cent of its span. */
  readonly percent: number;
  readonly others: readonly { readonly name: string; readonly percent: number }[];
}

/** Receivers stand at the ends; null where the likeliest is not one of them, or is none. */
export function trimEffect({ items, applied, diagnosis }: LoopResult): TrimEffect | null {
  const [best] = diagnosis?.suspicions ?? [];
  const place = best?.item ?? null;
  if (place === null || items[place]?.from === null || best?.offPercent == null) return null;
  const effect = trimEffectOn(items, place, best.offPercent, applied);
  return effect === null
    ? null
    : {
        receiver: items[place]?.name ?? '',
        percent: effect.percent,
        others: effect.others.map((one) => ({ name: items[one.place]?.name ?? '', percent: one.percent })),
      };
}

export const noteOfLoop = ({ taps, diagnosis, items }: LoopResult): string => {
  const [best] = diagnosis?.suspicions ?? [];
  const who =
    best === undefined
      ? ''
      : best.item === null
        ? ' All inside their tolerances.'
        : best.probability < LIKELY
          ? ' Which item is wrong cannot be told yet.'
          : ` Likely wrong: ${items[best.item]?.name ?? ''} (${formatFixed(best.probability * 100, 0)} %).`;
  return `Loop of ${taps.length} items: ${taps.map(({ fields }) => fields.name).join(', ')}.${who}`;
};

export const csvOfLoop = ({ taps }: LoopResult): string =>
  Papa.unparse({
    fields: [
      'Item',
      'Kind',
      'Unit',
      'Expected',
      'Read',
      'Error, % of span',
      'Sum of tolerances, %',
      'Root of the sum of squares, %',
      'Roots on the way',
    ],
    data: taps.map(({ fields, expected, read, tolerance, roots }) => [
      fields.name,
      fields.kind,
      fields.outUnit,
      expected.replace('\u2212', '-'),
      fields.read,
      read === null ? '' : formatSigned(read.errorPercent, 3).replace('\u2212', '-'),
      tolerance === null ? '' : tolerance.sum.toFixed(3),
      tolerance === null ? '' : tolerance.rootSumSquare.toFixed(3),
      roots,
    ]),
  });
