/**
 * A level gauge with contacts: a head at its bottom, an analog output between its start and its end, contacts that switch at one
 * level and back at another, display and output damped apart. Common practice, from memory.
 */
import type { SwitchingPoint } from '@barys/core/setup';
import { lagged } from '../lag';

export interface LevelGauge {
  /** Heights at 4 and at 20 mA, in one unit with the contacts. */
  readonly start: number;
  readonly end: number;
  readonly contacts: readonly SwitchingPoint[];
  readonly dampingS: number;
  readonly displayDampingS: number;
  /** What it reads too much, and gain less one. */
  readonly offset: number;
  readonly gain: number;
}

export interface LevelGaugeState {
  readonly output: number;
  readonly display: number;
  /** Whether each contact has switched, in their order. */
  readonly switched: readonly boolean[];
}

export const gaugeAt = ({ contacts }: LevelGauge, level = 0): LevelGaugeState => ({
  output: level,
  display: level,
  switched: contacts.map(() => false),
});

/** A contact that switches above its release switches on rising, another one on falling; between the two it stays as it is. */
function switchedAt({ on, off }: SwitchingPoint, was: boolean, level: number): boolean {
  if (on > off) return level >= on || (was && level > off);
  return level <= on || (was && level < off);
}

/** The gauge after a time at a level that is held; contacts follow the damped output. */
export function stepGauge(
  gauge: LevelGauge,
  state: LevelGaugeState,
  level: number,
  stepS: number,
): LevelGaugeState {
  const read = level * (1 + gauge.gain) + gauge.offset;
  const output = lagged(state.output, read, gauge.dampingS, stepS);
  return {
    output,
    display: lagged(state.display, read, gauge.displayDampingS, stepS),
    switched: gauge.contacts.map((contact, index) =>
      switchedAt(contact, state.switched[index] ?? false, output),
    ),
  };
}

/** mA. */
export const analogOf = ({ start, end }: LevelGauge, { output }: LevelGaugeState): number =>
  4 + (16 * (output - start)) / (end - start);
