/** The instrument itself: its sensor, its output, its display, and the resistor across which it is read. */
import type { Variant } from '../evidence';
import { logNormal, normal } from '../priors';
import { alike, alone, type Case, drift, gains } from './case';

/** Resistors that stand where another should. */
const RESISTORS = [50, 100, 120, 125, 150, 200, 240, 249, 250, 270, 300, 500, 600];

/** Of the sensor, about true zero; or by a screw or a lever, about the low end. */
export function gainVariants(of: Case): Variant[] {
  const { lrv } = of.range;
  const parameters = [gains(of)];
  const ofSensor = { parameters, condition: ([sensorGain = 0]: readonly number[]) => ({ sensorGain }) };
  if (lrv === 0) return alone(ofSensor);
  const ofSpan = {
    parameters,
    condition: ([sensorGain = 0]: readonly number[]) => ({ sensorGain, sensorZero: -sensorGain * lrv }),
  };
  // What reads a signal and no pressure has no true zero but its live one.
  return of.unit === null ? alone(ofSpan) : alike([ofSensor, ofSpan]);
}

/** An output stage whose zero is off, share of its span. */
export function outputZeroes(of: Case): Variant[] {
  return alone({
    parameters: [normal(0, drift(of, 'zeroPercent'))],
    condition: ([outputZero = 0]) => ({ outputZero }),
  });
}

/** An output stage whose gain is off: about its low end, or about true zero. */
export function outputGains(of: Case): Variant[] {
  const parameters = [gains(of)];
  return alike([
    { parameters, condition: ([outputGain = 0]) => ({ outputGain }) },
    // Of the whole signal, live zero and all.
    { parameters, condition: ([gain = 0]) => ({ scale: 1 + gain }) },
  ]);
}

/** Friction, in the input unit: free at the first reading, or come to from its direction. */
export function rubbing(of: Case): Variant[] {
  return alike(
    [true, false].map((isFreeAtFirst) => ({
      parameters: [logNormal(Math.max(of.limit, 0.004) * of.span, 0.7)],
      condition: ([friction = 0]: readonly number[]) => ({ friction, isFreeAtFirst }),
    })),
  );
}

/** A line that is bent, as a bow or a wave, share of span. */
export function bends(of: Case): Variant[] {
  const parameters = [normal(0, 2.5 * of.limit)];
  return alike([
    { name: 'bow', parameters, condition: ([bow = 0]) => ({ bow }) },
    { name: 'wave', parameters, condition: ([wave = 0]) => ({ wave }) },
  ]);
}

/** A display scaled otherwise: as something known, or by any factor. */
export function displayVariants(of: Case): Variant[] {
  const { display, readings, range } = of;
  if (display === undefined || readings.every(({ shown }) => shown === undefined)) return [];
  const { low, high } = display;
  const scales = [
    { name: 'per cent', low: 0, high: 100 },
    { name: 'the input', low: range.lrv, high: range.urv },
    { name: 'the output', low: range.outputLow, high: range.outputHigh },
  ].filter((one) => one.low !== low || one.high !== high);
  return [
    ...alike(
      scales.map((one) => ({
        name: one.name,
        parameters: [],
        condition: () => ({ displayLow: one.low, displayHigh: one.high }),
      })),
      0.5,
    ),
    {
      weight: 0.5,
      parameters: [logNormal(1, 0.4)],
      condition: ([by = 1]) => ({ displayHigh: low + (high - low) * by }),
    },
  ];
}

/** Another resistor than it should be: one that is made, or any a little off. */
export function resistors(of: Case): Variant[] {
  const { resistorOhm } = of;
  if (resistorOhm === undefined) return [];
  return [
    {
      weight: 0.5,
      parameters: [logNormal(1, 0.03)],
      condition: ([scale = 1]) => ({ scale }),
    },
    ...alike(
      RESISTORS.filter((ohm) => ohm !== resistorOhm).map((ohm) => ({
        parameters: [],
        condition: () => ({ scale: ohm / resistorOhm }),
      })),
      0.5,
    ),
  ];
}
