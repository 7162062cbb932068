/** Volumes of what a level stands in, from the fields of Level. */
import { CoreError } from '@barys/core/errors';
import {
  fullVolume,
  reachOfVessel,
  VESSEL_SHAPES,
  volumeAt,
  type LevelMeasurement,
  type Vessel,
} from '@barys/core/level';
import { formatSignificant } from '@barys/core/text';
import { convert } from '@barys/core/units';
import { typedNumber } from '@/ui/readNumber';
import { cellsOfLine, linesOfTable } from '@/ui/typedTable';
import { readerOf, unitsOfFields, type LevelFields } from './fields';
import { numberAt } from '../typed';
import type { Round } from './layout';

/** Cubic metres in each unit; the inch is 0.0254 m, the US gallon 231 cubic inches (exact). */
export const VOLUME_UNITS: Readonly<Record<string, number>> = {
  'm³': 1,
  L: 0.001,
  'ft³': 0.3048 ** 3,
  'US gal': 231 * 0.0254 ** 3,
};
const volumeUnit = ({ volume }: LevelFields): string => (volume in VOLUME_UNITS ? volume : 'm³');

export const isShape = (text: string): text is Vessel['shape'] =>
  (VESSEL_SHAPES as readonly string[]).includes(text);

/** Level and volume of each line of a strapping table. */
function strapsOf(fields: LevelFields): { levelM: number; volumeM3: number }[] {
  const unit = VOLUME_UNITS[volumeUnit(fields)] ?? 1;
  return linesOfTable(fields.straps).map((line) => {
    const [level, volume] = cellsOfLine(line).map((cell) => typedNumber(cell));
    if (level == null || volume == null || Number.isNaN(level) || Number.isNaN(volume))
      throw new CoreError({ code: 'not-a-number', text: line }, 'straps');
    return { levelM: convert(level, unitsOfFields(fields).height, 'm'), volumeM3: volume * unit };
  });
}

/** @throws CoreError at the field that is wrong */
function vesselOf(fields: LevelFields, shape: Vessel['shape']): Vessel {
  const { metres } = readerOf(fields);
  switch (shape) {
    case 'vertical cylinder':
      return { shape, diameterM: metres('diameter', 'The diameter'), heightM: metres('tall', 'The height') };
    case 'horizontal cylinder':
      return {
        shape,
        diameterM: metres('diameter', 'The diameter'),
        lengthM: metres('length', 'The length'),
        headDepthM: metres('head', 'The depth of the heads'),
      };
    case 'sphere':
      return { shape, diameterM: metres('diameter', 'The diameter') };
    case 'cone':
      return {
        shape,
        bottomDiameterM: metres('bottom', 'The diameter at the bottom'),
        topDiameterM: metres('top', 'The diameter at the top'),
        heightM: metres('tall', 'The height'),
      };
    case 'strapping table':
      return { shape, table: strapsOf(fields) };
  }
}

export interface Volumes {
  readonly unit: string;
  readonly full: string;
  /** At a level above the lower tap, m; a dash where the vessel does not reach. */
  readonly at: (levelM: number) => string;
}

/**
 * What has no upright walls, for the drawing; null where the shape is another one or its measures are not whole yet.
 */
export function roundOf(fields: LevelFields): Round | null {
  if (fields.shape !== 'sphere' && fields.shape !== 'horizontal cylinder') return null;
  const { height } = unitsOfFields(fields);
  const metres = (text: string) => convert(typedNumber(text) ?? NaN, height, 'm');
  const [diameterM, tapAboveM] = [metres(fields.diameter), metres(fields.tapAbove)];
  return diameterM > 0 && tapAboveM >= 0 && tapAboveM < diameterM ? { diameterM, tapAboveM } : null;
}

/**
 * Null where no shape is chosen.
 * @throws CoreError at the field that is wrong
 */
export function computeVolumes(
  fields: LevelFields,
  measurement: Pick<LevelMeasurement, 'zeroM' | 'fullM'>,
): Volumes | null {
  if (!isShape(fields.shape)) return null;
  const vessel = vesselOf(fields, fields.shape);
  const tapAbove = convert(
    numberAt(fields, 'tapAbove', 'The height of the lower tap'),
    unitsOfFields(fields).height,
    'm',
  );
  const [lowest, highest] = reachOfVessel(vessel);
  const top = tapAbove + measurement.fullM;
  if (tapAbove + measurement.zeroM < lowest - 1e-9 || top > highest + 1e-9)
    throw new CoreError(
      {
        code: 'undefined-result',
        name: 'The volume',
        why: 'the range of the level reaches beyond the vessel; see its height and the height of the tap',
      },
      'tapAbove',
    );
  const unit = volumeUnit(fields);
  const shown = (cubicMetres: number) => formatSignificant(cubicMetres / (VOLUME_UNITS[unit] ?? 1), 5);
  return {
    unit,
    full: shown(fullVolume(vessel)),
    at: (levelM) => shown(volumeAt(vessel, Math.min(highest, Math.max(lowest, tapAbove + levelM)))),
  };
}
