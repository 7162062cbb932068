/** What is given on the command line of a link or of stand-ins. */
import { FAULTS, type FaultName, type Planted } from '@barys/rig/world';

/** @throws Error in words for who typed it */
export function seedOf(text: string): number {
  const seed = Number(text);
  if (text.trim() === '' || !Number.isInteger(seed))
    throw new Error(`--seed is a whole number, not "${text}".`);
  return seed;
}

/** How much faster than the clock a simulated bench goes. @throws Error in words for who typed it */
export function speedOf(text: string): number {
  const speed = Number(text);
  if (!(speed > 0 && speed <= 100))
    throw new Error(`--speed is a number above 0, at most 100, not "${text}".`);
  return speed;
}

/**
 * `tilt` is of its usual size, `tilt=0.4` of its own.
 * @throws Error in words for who typed it
 */
export function faultOf(text: string): Planted {
  const [name = '', size] = text.split('=');
  if (!(name in FAULTS))
    throw new Error(`There is no fault "${name}". There are: ${Object.keys(FAULTS).join(', ')}.`);
  const fault = name as FaultName;
  if (size === undefined) return { fault };
  if (size.trim() === '' || !Number.isFinite(Number(size)))
    throw new Error(
      `The size of a fault is a number, not "${size}": ${name} is counted in ${FAULTS[fault].unit || 'nothing'}.`,
    );
  return { fault, size: Number(size) };
}

/** Says what is wrong with what was typed, and ends. */
export function orFail<T>(work: () => T): T {
  try {
    return work();
  } catch (error) {
    console.error(error instanceof Error ? error.message : String(error));
    process.exit(1);
  }
}
