/** The vessel of an instrument: the texts of a tool's fields, and the range that they come to. */
import { drumRange, levelRange } from '@barys/core/level';
import { textsOf } from '@/server/texts';
import { DRUM_FIELDS, rangedOfFields, tapsOfFields } from '../drum/fields';
import { LEVEL_FIELDS, measurementOfFields } from '../level/fields';

export interface VesselRange {
  readonly lrvPa: number;
  readonly urvPa: number;
}

/** What a tool has about the visit and not about the vessel. */
const OF_THE_VISIT: ReadonlySet<string> = new Set(['tag', 'job', 'why', 'glass', 'shown', 'bias']);

/**
 * @param given texts of the fields of the tool
 * @throws ZodError where fields are missing, CoreError where they come to no range
 */
export function readVessel(
  tool: 'level' | 'drum',
  given: unknown,
): { readonly fields: Record<string, string>; readonly why: string; readonly range: VesselRange } {
  const usual = tool === 'level' ? LEVEL_FIELDS : DRUM_FIELDS;
  const texts: Readonly<Record<string, string>> =
    textsOf<Readonly<Record<string, string>>>(usual).parse(given);
  const fields = Object.fromEntries(Object.entries(texts).filter(([name]) => !OF_THE_VISIT.has(name)));
  return { fields, why: texts['why'] ?? '', range: rangeOfVessel(tool, fields) };
}

/** The range that kept fields come to; fields that the tool has got since have their usual texts. */
export function rangeOfVessel(tool: 'level' | 'drum', fields: Readonly<Record<string, string>>): VesselRange {
  if (tool === 'level') return levelRange(measurementOfFields({ ...LEVEL_FIELDS, ...fields }));
  const drum = { ...DRUM_FIELDS, ...fields };
  return drumRange(tapsOfFields(drum), rangedOfFields(drum));
}
