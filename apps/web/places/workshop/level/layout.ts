/** Where everything of a level measurement stands in its drawing, to scale as far as the proportions allow. */
import { ARRANGEMENTS, type LevelMeasurement } from '@barys/core/level';

export const WIDTH = 400;
export const HEIGHT = 440;
const TOP = 50;
/** Room for the tank at the usual proportions, and what is left for the transmitter above or below it. */
const TANK_HEIGHT = 230;
const LONGEST_DROP = 95;
const BESIDE_TANK = 14;

export const TANK = { left: 92, right: 212, middle: 152 } as const;
export const BODY = { left: 252, right: 352, middle: 302, height: 42 } as const;
/** The tap side and the other side come into the transmitter here. */
export const PORTS = { tap: 277, other: 327 } as const;

/** A sphere, or a cylinder that lies, seen from its end. */
export interface Round {
  readonly diameterM: number;
  /** The lower tap above its lowest point, m. */
  readonly tapAboveM: number;
}

/** As wide as there is room beside the lines; the scale follows from it. */
const ROUND = 156;

export interface Layout {
  /** From a height above the lower tap, m. */
  readonly y: (heightM: number) => number;
  readonly tankTop: number;
  readonly tankBottom: number;
  readonly bodyTop: number;
  /** Whether the way to the transmitter is too long to be drawn to scale, and is broken. */
  readonly isBroken: boolean;
  readonly isClosed: boolean;
  /** In the middle of the tank, and as wide and high as it. */
  readonly circle: { readonly cy: number; readonly r: number } | null;
  /** Where the wall stands at a place, left and right. */
  readonly wall: (y: number) => readonly [left: number, right: number];
}

/**
 * The tank keeps its size and the scale follows from it; a transmitter far away stands at the end of a broken line, so
 * that a short tank on a high standpipe is still seen.
 * @param round null for a tank with upright walls
 */
export function layoutOf(
  { arrangement, tapsM, fullM, dropM }: LevelMeasurement,
  round: Round | null = null,
): Layout {
  const isClosed = ARRANGEMENTS[arrangement].leg !== null;
  const heightM = Math.max(isClosed ? (tapsM ?? 0) : 0, fullM);
  const scale = round === null ? TANK_HEIGHT / heightM : ROUND / round.diameterM;
  const drop = dropM * scale;
  const above = round === null ? TANK_HEIGHT : ROUND;
  const isBroken = Math.abs(drop) > (drop > 0 ? LONGEST_DROP : above);
  const shown = isBroken ? Math.sign(drop) * (drop > 0 ? LONGEST_DROP : above) : drop;
  const lowest = TOP + TANK_HEIGHT + BESIDE_TANK;
  const base = round === null ? TOP + TANK_HEIGHT : lowest - round.tapAboveM * scale;
  const circle = round === null ? null : { cy: lowest - ROUND / 2, r: ROUND / 2 };
  return {
    y: (height) => base - height * scale,
    tankTop: circle === null ? TOP - BESIDE_TANK : lowest - ROUND,
    tankBottom: lowest,
    bodyTop: base + shown,
    isBroken,
    isClosed,
    circle,
    wall: (y) => {
      if (circle === null) return [TANK.left, TANK.right];
      const half = Math.sqrt(Math.max(0, circle.r ** 2 - (y - circle.cy) ** 2));
      return [TANK.middle - half, TANK.middle + half];
    },
  };
}

/** The level that a place in the drawing stands for, within the tank, m. */
export const heightAt = (layout: Layout, { fullM, tapsM }: LevelMeasurement, y: number): number => {
  const highest = Math.max(layout.isClosed ? (tapsM ?? 0) : 0, fullM);
  const [bottom, top] = [layout.y(0), layout.y(highest)];
  return Math.min(highest, Math.max(0, ((bottom - y) / (bottom - top)) * highest));
};
