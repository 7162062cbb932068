/** Questions about a reading before it is taken, in words. */
import { convertPressure, expectedOutput, isPressureUnit, slipOf, type Slip } from '@barys/core';
import { standardAt } from '@barys/store/evaluation';
import type { MadeWith } from '@barys/store';
import type { Figures } from '@/ui/figures';
import type { Entry } from './types';

type Point = MadeWith['points'][number];

const WORDS: Readonly<Record<Slip, string>> = {
  'decimal-sign': 'a digit too many, or a decimal sign moved?',
  'same-as-before': 'the figure of the point before?',
  'other-way': 'it went the other way than the input',
};

/**
 * What looks like a slip of the fingers, as a question; null where nothing does.
 * @param outputText as typed
 */
export function slipQuestion(
  { configuration, points, head }: MadeWith,
  point: Point,
  typed: { readonly applied: number; readonly output: number; readonly outputText: string },
  entries: ReadonlyMap<number, Entry>,
  figures: Figures,
): string | null {
  const last = points.filter(({ position }) => position < point.position).at(-1);
  const entry = last === undefined ? undefined : entries.get(last.position);
  const before =
    last === undefined || entry === undefined
      ? null
      : { applied: entry.applied + head, output: entry.output, direction: last.direction };
  const slip = slipOf(configuration, typed.applied + head, typed.output, before);
  if (slip === null) return null;
  const expected = figures.output(expectedOutput(configuration, typed.applied + head));
  return `${typed.outputText}: ${WORDS[slip]} Expected is about ${expected}. Enter again takes it as it is.`;
}

/** Why a pressure must not be applied: beyond what its standard reaches; null where it may. */
export function overRange(madeWith: MadeWith, point: Point, applied: number): string | null {
  const standard = standardAt(madeWith, point);
  const { inputUnit } = madeWith.configuration;
  if (!isPressureUnit(standard.unit)) return null;
  const at = convertPressure(applied, inputUnit, standard.unit);
  const slack = (standard.rangeHigh - standard.rangeLow) * 1e-9;
  if (at <= standard.rangeHigh + slack && at >= standard.rangeLow - slack) return null;
  return `Stop: ${standard.tag} is over-ranged. It reaches from ${standard.rangeLow} to ${standard.rangeHigh} ${standard.unit}. Bring the pressure back; if it really was there, the standard has to be checked before it is used again.`;
}
