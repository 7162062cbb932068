import { PRESSURE_UNITS } from '../units';

/** The standard signals, by their end points. */
export interface SignalKind {
  readonly label: string;
  readonly low: number;
  readonly high: number;
  readonly unit: string;
}

/**
 * Current and voltage signals after IEC 60381-1 and -2, pneumatic after IEC 60382 and ISA-7.0 (from memory);
 * 10-50 mA and 6-30 psi are common practice of older plants. A local indication and a digital value have the ends of
 * their own scale, so they stand in the list without figures of a standard.
 */
export const SIGNALS = {
  'mA-4-20': { label: '4–20 mA', low: 4, high: 20, unit: 'mA' },
  'mA-0-20': { label: '0–20 mA', low: 0, high: 20, unit: 'mA' },
  'mA-10-50': { label: '10–50 mA', low: 10, high: 50, unit: 'mA' },
  'V-1-5': { label: '1–5 V', low: 1, high: 5, unit: 'V' },
  'V-0-5': { label: '0–5 V', low: 0, high: 5, unit: 'V' },
  'V-0-10': { label: '0–10 V', low: 0, high: 10, unit: 'V' },
  'mV-0-100': { label: '0–100 mV', low: 0, high: 100, unit: 'mV' },
  'psi-3-15': { label: '3–15 psi', low: 3, high: 15, unit: 'psi' },
  'psi-6-30': { label: '6–30 psi', low: 6, high: 30, unit: 'psi' },
  'kPa-20-100': { label: '20–100 kPa', low: 20, high: 100, unit: 'kPa' },
  'bar-0.2-1': { label: '0.2–1 bar', low: 0.2, high: 1, unit: 'bar' },
  digital: { label: 'digital value', low: 0, high: 100, unit: '%' },
  indication: { label: 'local indication', low: 0, high: 100, unit: '%' },
} as const satisfies Record<string, SignalKind>;

export type SignalName = keyof typeof SIGNALS;

/** The units that a signal can be in; null for one with a scale of its own, which may be in any. */
export function unitsOfSignal(signal: SignalName): readonly string[] | null {
  const { unit } = SIGNALS[signal];
  if (unit === 'mA') return ['mA'];
  if (unit === 'V' || unit === 'mV') return ['V', 'mV'];
  return unit === '%' ? null : Object.keys(PRESSURE_UNITS);
}
