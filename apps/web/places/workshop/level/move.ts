/** What an end of the stave, dragged or set by a key, means for the levels. */
import { levelFromDifferential } from '@barys/core/level';
import { formatSignificant } from '@barys/core/text';
import { convert } from '@barys/core/units';
import type { LevelResult } from './compute';
import { unitsOfFields, type LevelFields } from './fields';

/** The level at 0 or at 100 % follows the end that was moved. */
export function levelForEnd(
  fields: LevelFields,
  { measurement }: LevelResult,
  end: 'low' | 'high',
  pressure: number,
): Partial<LevelFields> {
  const units = unitsOfFields(fields);
  const metres = levelFromDifferential(measurement, convert(pressure, units.pressure, 'Pa'));
  const text = formatSignificant(convert(metres, 'm', units.height), 4).replace('\u2212', '-');
  return end === 'low' ? { zero: text } : { full: text };
}
