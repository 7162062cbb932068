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

export interface Layout {
  /** From a height above the lower tap, m. */
  readonly y: (heightM: number) => number;
  readonly tankTop: number;
  readonly tankBottom: number;
  readonly bodyTop: number;
  /** Whether the way to the transmitter is too long to be drawn to scale, and is broken. */
  readonly isBroken: boolean;
  readonly isClosed: boolean;
}

/**
 * The tank keeps its size and the scale follows from it; a transmitter far away stands at the end of a broken line, so
 * that a short tank on a high standpipe is still seen.
 */
export function layoutOf({ arrangement, tapsM, fullM, dropM }: LevelMeasurement): Layout {
  const isClosed = ARRANGEMENTS[arrangement].leg !== null;
  const heightM = Math.max(isClosed ? (tapsM ?? 0) : 0, fullM);
  const scale = TANK_HEIGHT / heightM;
  const drop = dropM * scale;
  const isBroken = Math.abs(drop) > (drop > 0 ? LONGEST_DROP : TANK_HEIGHT);
  const shown = isBroken ? Math.sign(drop) * (drop > 0 ? LONGEST_DROP : TANK_HEIGHT) : drop;
  const base = TOP + TANK_HEIGHT;
  return {
    y: (height) => base - height * scale,
    tankTop: TOP - BESIDE_TANK,
    tankBottom: base + BESIDE_TANK,
    bodyTop: base + shown,
    isBroken,
    isClosed,
  };
}

/** The level that a place in the drawing stands for, within the tank, m. */
export const heightAt = (layout: Layout, { fullM, tapsM }: LevelMeasurement, y: number): number => {
  const highest = Math.max(layout.isClosed ? (tapsM ?? 0) : 0, fullM);
  const [bottom, top] = [layout.y(0), layout.y(highest)];
  return Math.min(highest, Math.max(0, ((bottom - y) / (bottom - top)) * highest));
};
