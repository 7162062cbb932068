/** The density of the liquid that is chosen in Level. */
import { densityFromTable, densityOfWater } from '@barys/core/level';
import type { Liquid } from '@barys/store/registers';
import { numberAt } from '../typed';
import type { LevelFields } from './fields';

/** Density of a liquid of the plant, or of water, kg/m³; null where none is chosen. @throws CoreError at the field */
export function densityOfChosen(fields: LevelFields, liquids: readonly Liquid[]): number | null {
  if (fields.liquidId === 'typed') return null;
  const temperature = numberAt(fields, 'temperature', 'The temperature of the liquid');
  if (fields.liquidId === 'water') return densityOfWater(temperature);
  const liquid = liquids.find(({ id }) => String(id) === fields.liquidId);
  return liquid === undefined ? null : densityFromTable(liquid.points, temperature);
}
