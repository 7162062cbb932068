/**
 * Volume from level for the usual shapes, and back. Geometry; heads of a horizontal cylinder after the closed forms of
 * solid geometry (flat, half a sphere, half an ellipsoid of a given depth). Metres and cubic metres.
 */
import { CoreError, requireBetween, requireFinite, requireNotNegative, requirePositive } from '../errors';

export type Vessel =
  | { readonly shape: 'vertical cylinder'; readonly diameterM: number; readonly heightM: number }
  | {
      readonly shape: 'horizontal cylinder';
      readonly diameterM: number;
      /** Of the cylinder, without its heads. */
      readonly lengthM: number;
      /** How far each head stands out: 0 flat, a quarter of the diameter 2:1 ellipsoidal, half of it hemispherical. */
      readonly headDepthM: number;
    }
  | { readonly shape: 'sphere'; readonly diameterM: number }
  | {
      readonly shape: 'cone';
      /** Inside diameters at the bottom and at the top; a tip is 0. */
      readonly bottomDiameterM: number;
      readonly topDiameterM: number;
      readonly heightM: number;
    }
  | {
      readonly shape: 'strapping table';
      /** In rising order, from the lowest level up. */
      readonly table: readonly { readonly levelM: number; readonly volumeM3: number }[];
    };

export const VESSEL_SHAPES = [
  'vertical cylinder',
  'horizontal cylinder',
  'sphere',
  'cone',
  'strapping table',
] as const satisfies readonly Vessel['shape'][];

const MOST_STRAPS = 5000;

/** Level from which a vessel is counted, and its full height, m. @throws CoreError with the field that is wrong */
export function reachOfVessel(vessel: Vessel): readonly [lowestM: number, highestM: number] {
  switch (vessel.shape) {
    case 'vertical cylinder':
      requirePositive('The diameter', vessel.diameterM, 'diameterM');
      requirePositive('The height', vessel.heightM, 'heightM');
      return [0, vessel.heightM];
    case 'horizontal cylinder':
      requirePositive('The diameter', vessel.diameterM, 'diameterM');
      requirePositive('The length', vessel.lengthM, 'lengthM');
      requireBetween(
        'The depth of the heads',
        vessel.headDepthM,
        [0, vessel.diameterM / 2, 'm'],
        'headDepthM',
      );
      return [0, vessel.diameterM];
    case 'sphere':
      requirePositive('The diameter', vessel.diameterM, 'diameterM');
      return [0, vessel.diameterM];
    case 'cone':
      requireNotNegative('The diameter at the bottom', vessel.bottomDiameterM, 'bottomDiameterM');
      requireNotNegative('The diameter at the top', vessel.topDiameterM, 'topDiameterM');
      requirePositive(
        'The larger of its diameters',
        Math.max(vessel.bottomDiameterM, vessel.topDiameterM),
        'topDiameterM',
      );
      requirePositive('The height', vessel.heightM, 'heightM');
      return [0, vessel.heightM];
    case 'strapping table':
      return reachOfTable(vessel.table);
  }
}

function reachOfTable(
  table: Extract<Vessel, { shape: 'strapping table' }>['table'],
): readonly [lowestM: number, highestM: number] {
  if (table.length < 2)
    throw new CoreError({ code: 'too-few-points', count: table.length, least: 2 }, 'table');
  if (table.length > MOST_STRAPS)
    throw new CoreError(
      { code: 'too-many', name: 'The table', count: table.length, most: MOST_STRAPS },
      'table',
    );
  table.forEach(({ levelM, volumeM3 }, index) => {
    requireFinite('A level of the table', levelM, `table.${index}.levelM`);
    requireNotNegative('A volume of the table', volumeM3, `table.${index}.volumeM3`);
    const before = table[index - 1];
    if (before !== undefined && (levelM <= before.levelM || volumeM3 < before.volumeM3))
      throw new CoreError({ code: 'not-rising', name: 'The table' }, `table.${index}`);
  });
  return [table[0]?.levelM ?? 0, table.at(-1)?.levelM ?? 0];
}

/** Area of a circle's segment up to a height. */
function segment(diameter: number, height: number): number {
  const radius = diameter / 2;
  // At the very top rounding would take the cosine out of its reach.
  const cosine = Math.min(1, Math.max(-1, (radius - height) / radius));
  return (
    radius * radius * Math.acos(cosine) -
    (radius - height) * Math.sqrt(Math.max(0, height * (diameter - height)))
  );
}

/** Volume of a spherical cap up to a height. */
const cap = (diameter: number, height: number): number =>
  (Math.PI * height * height * (1.5 * diameter - height)) / 3;

function inTable(table: Extract<Vessel, { shape: 'strapping table' }>['table'], levelM: number): number {
  const above = Math.max(
    1,
    table.findIndex((one) => one.levelM >= levelM),
  );
  const [low, high] = [table[above - 1], table[above]];
  if (low === undefined || high === undefined) return NaN;
  return low.volumeM3 + ((levelM - low.levelM) / (high.levelM - low.levelM)) * (high.volumeM3 - low.volumeM3);
}

/**
 * Volume of the contents, m³.
 * @param levelM above the lowest point, inside
 * @throws CoreError with the field that is wrong; `out-of-bounds` for a level that the vessel does not have
 */
export function volumeAt(vessel: Vessel, levelM: number): number {
  const [lowest, highest] = reachOfVessel(vessel);
  requireBetween('The level', levelM, [lowest, highest, 'm'], 'levelM');
  switch (vessel.shape) {
    case 'vertical cylinder':
      return (Math.PI / 4) * vessel.diameterM ** 2 * levelM;
    case 'horizontal cylinder':
      // Both heads together are a sphere, pressed along the axis to the depth that they have.
      return (
        vessel.lengthM * segment(vessel.diameterM, levelM) +
        cap(vessel.diameterM, levelM) * (vessel.headDepthM / (vessel.diameterM / 2))
      );
    case 'sphere':
      return cap(vessel.diameterM, levelM);
    case 'cone': {
      const { bottomDiameterM: bottom, topDiameterM: top, heightM } = vessel;
      const at = bottom + ((top - bottom) * levelM) / heightM;
      return (Math.PI / 12) * levelM * (bottom * bottom + bottom * at + at * at);
    }
    case 'strapping table':
      return inTable(vessel.table, levelM);
  }
}

export const fullVolume = (vessel: Vessel): number => volumeAt(vessel, reachOfVessel(vessel)[1]);

/**
 * The level at which a vessel holds a volume, m: halving, to the last digit of a double.
 * @throws CoreError `out-of-bounds` for a volume that the vessel does not hold
 */
export function levelForVolume(vessel: Vessel, volumeM3: number): number {
  let [low, high] = reachOfVessel(vessel);
  // Halving towards an end would stop short of it: there a sphere has no width.
  for (const end of [low, high]) if (volumeM3 === volumeAt(vessel, end)) return end;
  requireBetween('The volume', volumeM3, [volumeAt(vessel, low), volumeAt(vessel, high), 'm³'], 'volumeM3');
  for (;;) {
    const middle = (low + high) / 2;
    if (middle <= low || middle >= high) return middle;
    if (volumeAt(vessel, middle) < volumeM3) low = middle;
    else high = middle;
  }
}
