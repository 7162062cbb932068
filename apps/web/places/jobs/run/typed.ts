/** A reading as people type it: a number, with or without its unit. */
import { isDeviation, keptDeviation, parseOutput } from '@barys/core/adjust';
import { CoreError } from '@barys/core/errors';
import { parseTyped, type TypedNumber } from '@barys/core/text';
import { isPressureUnit, parseUnit } from '@barys/core/units';
import type { MadeWith } from '@barys/store/runs';

const WITH_UNIT = /^([-+−–]?[\d.,]+)\s*([^\d\s.,].*)$/;

/**
 * The number alone, where the unit is the one that is asked for.
 * @param unit key of a pressure unit, or another unit as it is shown
 * @throws CoreError for what is no number, or in another unit
 * @example typedIn('12,04 mA', 'mA') // { text: '12,04', value: 12.04 }
 */
export function typedIn(typed: string, unit: string): TypedNumber {
  const [, number, words] = WITH_UNIT.exec(typed.trim()) ?? [];
  if (number === undefined || words === undefined) return parseTyped(typed);
  const isSame =
    words.toLowerCase() === unit.toLowerCase() || (isPressureUnit(unit) && pressureUnitOf(words) === unit);
  if (!isSame)
    throw new CoreError({
      code: 'no-such-conversion',
      from: words,
      to: unit,
      why: 'a reading is kept as it was read, so read it in the unit of the field',
    });
  return parseTyped(number);
}

/**
 * An output as people type it: as above, or a deviation that a null meter showed at a point, `0.02 null`.
 * @throws CoreError as above, and for a deviation at a point where no null meter stands at nothing
 */
export function outputTyped(
  typed: string,
  { configuration }: Pick<MadeWith, 'configuration'>,
  { nominalPercent }: Pick<MadeWith['points'][number], 'nominalPercent'>,
): TypedNumber {
  return isDeviation(typed)
    ? parseOutput(keptDeviation(configuration, nominalPercent, typed))
    : typedIn(typed, configuration.outputUnit);
}

function pressureUnitOf(words: string): string | null {
  try {
    return parseUnit(words).unit;
  } catch (error) {
    if (error instanceof CoreError && error.problem.code !== 'ambiguous-unit') return null;
    throw error;
  }
}

/** What was typed as a number, or null while it is none. */
function typedOrNull(text: string): TypedNumber | null {
  try {
    return parseOutput(text);
  } catch (error) {
    if (error instanceof CoreError) return null;
    throw error;
  }
}

/** The number typed, or another one where nothing is typed or it is no number yet. */
export const numberOr = (text: string | null, otherwise: number): number =>
  (text === null ? null : typedOrNull(text))?.value ?? otherwise;

/** The digits typed, empty where they make no number. */
export const plainOr = (text: string | null): string =>
  (text === null ? null : typedOrNull(text))?.text ?? '';
