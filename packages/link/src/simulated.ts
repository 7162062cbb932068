import type { PressureUnit } from '@barys/core/units';
import type { SmartWorld } from '@barys/rig/world';

/** What stand-ins look at: the world as it is now, and the unit that it is in. */
export interface SimulatedNow {
  readonly world: SmartWorld;
  readonly unit: PressureUnit;
  /** Of the instrument that the transmitter stands in for. */
  readonly tag: string;
}
