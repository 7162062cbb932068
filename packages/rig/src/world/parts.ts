/** What a world is made of, and how a sound one is drawn by its seed. */
import { makeChance } from '../chance';
import type { Loop } from '../loop';
import type { Receiver } from '../receiver';
import type { Settings, Smart } from '../smart';
import type { Controller } from '../sources';

export interface Parts {
  readonly controller: Controller;
  /** Time constant of a leak on the way to the instrument, s; Infinity is tight. */
  readonly leakS: number;
  readonly smart: Smart;
  readonly settings: Settings;
  readonly loop: Loop;
  readonly receiver: Receiver;
  /** What a tilt of the body reads as, in the input unit. */
  readonly positionHead: number;
  /** Time constant of the way to the instrument, s. */
  readonly pluggedS: number;
  /** mA at which the output stands still; null where it does not. */
  readonly stuckMilliamp: number | null;
}

/** How large what chance draws is at most: a sound world has noise and small errors of its references, and no fault. */
export interface Spread {
  /** Accuracy of the pressure reference, share of the span, and of the meter, mA. */
  readonly reference: number;
  readonly meterMilliamp: number;
  /** Noise of the sensor, share of the span. */
  readonly noise: number;
}
export const USUAL_SPREAD: Spread = { reference: 0.0001, meterMilliamp: 0.0005, noise: 0.00005 };
export const NO_SPREAD: Spread = { reference: 0, meterMilliamp: 0, noise: 0 };

/** A sound world for a range; the errors of its references are drawn once, within their specification. */
export function soundParts(settings: Settings, seed: number, spread: Spread = USUAL_SPREAD): Parts {
  const chance = makeChance(seed);
  const span = settings.urv - settings.lrv;
  const within = (most: number) => chance.uniform(-most, most);
  return {
    controller: {
      omega: 2.5,
      zeta: 0.85,
      ratePerS: Math.abs(span) / 8,
      band: Math.abs(span) * 0.0002,
      holdS: 3,
      offset: within(spread.reference * Math.abs(span)),
      gain: 0,
    },
    leakS: Infinity,
    smart: {
      sensor: {
        offset: 0,
        gain: 0,
        upperLimit: 2 * Math.abs(settings.urv),
        trimLimit: 0.05,
        noise: { sigma: spread.noise * Math.abs(span), tauS: 0.8 },
      },
      stage: { offset: 0, gain: 0, saturation: [3.8, 20.5], alarmMilliamp: 21.5 },
    },
    settings,
    loop: {
      supplyV: 24,
      wireOhm: 15,
      barrierOhm: 0,
      seriesOhm: 250,
      liftOffV: 12,
      corrodedOhm: 0,
      meter: { place: 'in series', ohm: 8, gain: 0, offset: within(spread.meterMilliamp), jack: 'current' },
    },
    receiver: { low: 0, high: 100, zero: 0, gain: 0, transfer: { kind: 'linear' }, lagS: 0.5 },
    positionHead: 0,
    pluggedS: 0,
    stuckMilliamp: null,
  };
}
