/** What a world is made of, and how a sound one is drawn by its seed. */
import type { Line as AirLine } from '../air';
import type { Analog } from '../analog';
import { makeChance, type Chance } from '../chance';
import type { Dial } from '../dial';
import type { DigitalGauge } from '../digital';
import type { ForceBalance } from '../force-balance';
import type { LevelGauge } from '../level-gauge';
import type { Line } from '../line';
import type { Loop } from '../loop';
import type { Manifold } from '../manifold';
import type { Receiver } from '../receiver';
import { drawReference, type Reference } from '../reference';
import type { Settings, Smart } from '../smart';
import type { Controller, Deadweight, Regulator } from '../sources';
import type { Capacitance, Gas, HeatLoss } from '../vacuum';
import type { WetLeg } from '../wet-leg';
import {
  ControllerSource,
  DeadweightSource,
  ManifoldSource,
  PumpSource,
  RegulatorSource,
  type AnySource,
  type Surrounding,
} from './source';
import {
  AnalogTested,
  CapacitanceTested,
  DialTested,
  DigitalTested,
  ForceBalanceTested,
  HeatLossTested,
  LevelTested,
  SmartTested,
  type AnyTested,
} from './tested';

export type SourceParts =
  | { readonly kind: 'controller'; readonly controller: Controller }
  | { readonly kind: 'pump'; readonly air: AirLine; readonly gauge: Reference }
  | { readonly kind: 'regulator'; readonly regulator: Regulator; readonly gauge: Reference }
  | { readonly kind: 'deadweight tester'; readonly deadweight: Deadweight }
  | { readonly kind: 'manifold'; readonly manifold: Manifold; readonly gauge: Reference };

export type TestedParts =
  | { readonly kind: 'smart transmitter'; readonly smart: Smart; readonly settings: Settings }
  | { readonly kind: 'analog transmitter'; readonly analog: Analog }
  | {
      readonly kind: 'force balance';
      readonly balance: ForceBalance;
      readonly range: { readonly lrv: number; readonly urv: number };
      /** Of the air, over the usual one. */
      readonly supply: number;
    }
  | { readonly kind: 'dial gauge'; readonly dial: Dial }
  | { readonly kind: 'digital gauge'; readonly gauge: DigitalGauge }
  | { readonly kind: 'level gauge'; readonly gauge: LevelGauge; readonly perUnit: number }
  | { readonly kind: 'heat-loss gauge'; readonly gauge: HeatLoss; readonly gas: Gas }
  | { readonly kind: 'capacitance gauge'; readonly gauge: Capacitance };

export interface Parts {
  readonly source: SourceParts;
  readonly line: Line;
  readonly tested: TestedParts;
  /** Span that faults are sized by, in the unit of the world. */
  readonly span: number;
  readonly loop: Loop;
  readonly receivers: readonly Receiver[];
  /** What a tilt of the body reads as, in the unit of the world. */
  readonly positionHead: number;
  /** A filled leg on the low side, and the share of its height that is full; null where there is none. */
  readonly leg: { readonly leg: WetLeg; readonly filled: number } | null;
  /** mA at which the output stands still; null where it does not. */
  readonly stuckMilliamp: number | null;
  readonly temperatureC: number;
  readonly electronicsC: number;
  readonly around: Surrounding;
}

export function sourceOf({ source, around }: Parts): AnySource {
  switch (source.kind) {
    case 'controller':
      return new ControllerSource(source.controller);
    case 'pump':
      return new PumpSource(source.air, source.gauge, around);
    case 'regulator':
      return new RegulatorSource(source.regulator, source.gauge);
    case 'deadweight tester':
      return new DeadweightSource(source.deadweight);
    case 'manifold':
      return new ManifoldSource(source.manifold, source.gauge, around);
  }
}

export function testedOf({ tested, around }: Parts): AnyTested {
  switch (tested.kind) {
    case 'smart transmitter':
      return new SmartTested(tested.smart, tested.settings);
    case 'analog transmitter':
      return new AnalogTested(tested.analog);
    case 'force balance':
      return new ForceBalanceTested(tested.balance, tested.range, tested.supply);
    case 'dial gauge':
      return new DialTested(tested.dial);
    case 'digital gauge':
      return new DigitalTested(tested.gauge);
    case 'level gauge':
      return new LevelTested(tested.gauge, tested.perUnit);
    case 'heat-loss gauge':
      return new HeatLossTested(tested.gauge, tested.gas, around.unitPa);
    case 'capacitance gauge':
      return new CapacitanceTested(tested.gauge, around.unitPa);
  }
}

/** How large what chance draws is at most: a sound world has noise and small errors of its references, and no fault. */
export interface Spread {
  /** Accuracy of the pressure reference, per cent of the span, and of the meter, mA. */
  readonly referencePercent: number;
  readonly meterMilliamp: number;
  /** Noise of the sensor, share of the span. */
  readonly noise: number;
}
export const USUAL_SPREAD: Spread = { referencePercent: 0.01, meterMilliamp: 0.0005, noise: 0.00005 };
export const NO_SPREAD: Spread = { referencePercent: 0, meterMilliamp: 0, noise: 0 };

/** A sound pressure controller for a span; its error is drawn once, within its specification. */
export function soundController(span: number, percent: number, chance: Chance): SourceParts {
  const { gain, offset } = drawReference(
    { percentOfReading: 0, percentOfRange: percent, floor: 0, range: span, resolution: 0 },
    chance,
  );
  return {
    kind: 'controller',
    controller: {
      omega: 2.5,
      zeta: 0.85,
      ratePerS: span / 8,
      band: span * 0.0002,
      holdS: 3,
      offset,
      gain,
    },
  };
}

const KILOPASCAL = 1000;

/** All but source and instrument of a sound world, in kilopascals unless its unit is another. */
export function soundSurroundings(
  span: number,
  meterOffset: number,
  unitPa = KILOPASCAL,
): Omit<Parts, 'source' | 'tested'> {
  return {
    line: { fillS: 0.02, leakS: Infinity, head: 0, bubble: 0, ambient: 101_325 / unitPa },
    span,
    loop: {
      supplyV: 24,
      wireOhm: 15,
      barrierOhm: 0,
      seriesOhm: 250,
      liftOffV: 12,
      corrodedOhm: 0,
      meter: { place: 'in series', ohm: 8, gain: 0, offset: meterOffset, jack: 'current' },
    },
    receivers: [{ low: 0, high: 100, zero: 0, gain: 0, transfer: { kind: 'linear' }, lagS: 0.5 }],
    positionHead: 0,
    leg: null,
    stuckMilliamp: null,
    temperatureC: 20,
    electronicsC: 24,
    around: { unitPa, ambientPa: 101_325 },
  };
}

/** A sound smart transmitter. */
export function soundSmart(settings: Settings, noise: number): TestedParts & { kind: 'smart transmitter' } {
  const span = Math.abs(settings.urv - settings.lrv);
  return {
    kind: 'smart transmitter',
    settings,
    smart: {
      sensor: {
        offset: 0,
        gain: 0,
        upperLimit: 2 * Math.max(Math.abs(settings.urv), Math.abs(settings.lrv)),
        trimLimit: 0.05,
        noise: { sigma: noise * span, tauS: 0.8 },
      },
      stage: { offset: 0, gain: 0, saturation: [3.8, 20.5], alarmMilliamp: 21.5 },
    },
  };
}

/** A sound world of a controller and a smart transmitter for a range. */
export function soundParts(settings: Settings, seed: number, spread: Spread = USUAL_SPREAD): Parts {
  const chance = makeChance(seed);
  const span = Math.abs(settings.urv - settings.lrv);
  return {
    source: soundController(span, spread.referencePercent, chance),
    ...soundSurroundings(span, chance.uniform(-spread.meterMilliamp, spread.meterMilliamp)),
    tested: soundSmart(settings, spread.noise),
  };
}
