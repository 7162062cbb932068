/** Faults that can be planted in a world, each by one name and one size with its unit. */
import { CoreError } from '@barys/core/errors';
import type { Parts, TestedParts } from './parts';

interface Fault {
  /** What it is, in the trade's words. */
  readonly words: string;
  readonly unit: string;
  /** A size that hurts. */
  readonly usual: number;
  readonly plant: (parts: Parts, size: number) => Parts;
}

type Kind = TestedParts['kind'];
type Of<K extends Kind> = TestedParts & { readonly kind: K };

const refuse = (what: string): never => {
  throw new CoreError({ code: 'undefined-result', name: 'The fault', why: `this world has no ${what}` });
};

/** What a fault changes, by the kinds of instruments that can have it. */
function inTested(parts: Parts, changes: { readonly [K in Kind]?: (tested: Of<K>) => Of<K> }): Parts {
  const change = changes[parts.tested.kind] as ((tested: TestedParts) => TestedParts) | undefined;
  return { ...parts, tested: change?.(parts.tested) ?? refuse(Object.keys(changes).join(' or ')) };
}

const inSensor = (parts: Parts, patch: Partial<Of<'smart transmitter'>['smart']['sensor']>): Parts =>
  inTested(parts, {
    'smart transmitter': (tested) => ({
      ...tested,
      smart: { ...tested.smart, sensor: { ...tested.smart.sensor, ...patch } },
    }),
  });
const inStage = (parts: Parts, patch: Partial<Of<'smart transmitter'>['smart']['stage']>): Parts =>
  inTested(parts, {
    'smart transmitter': (tested) => ({
      ...tested,
      smart: { ...tested.smart, stage: { ...tested.smart.stage, ...patch } },
    }),
  });
type SmartSettings = Of<'smart transmitter'>['settings'];
const inSettings = (parts: Parts, patch: (settings: SmartSettings) => Partial<SmartSettings>): Parts =>
  inTested(parts, {
    'smart transmitter': (tested) => ({
      ...tested,
      settings: { ...tested.settings, ...patch(tested.settings) },
    }),
  });
const inLoop = (parts: Parts, patch: Partial<Parts['loop']>): Parts => ({
  ...parts,
  loop: { ...parts.loop, ...patch },
});
const inLine = (parts: Parts, patch: Partial<Parts['line']>): Parts => ({
  ...parts,
  line: { ...parts.line, ...patch },
});
function inLeg(parts: Parts, change: (leg: NonNullable<Parts['leg']>) => NonNullable<Parts['leg']>): Parts {
  return { ...parts, leg: parts.leg === null ? refuse('filled leg') : change(parts.leg) };
}
/** The upper range value that makes the span longer by a share. */
const longer =
  (percent: number) =>
  ({ lrv, urv }: SmartSettings): Partial<SmartSettings> => ({ urv: lrv + (urv - lrv) * (1 + percent / 100) });

export const FAULTS = {
  offset: {
    words: 'the sensor reads too much',
    unit: '% of span',
    usual: 0.6,
    plant: (parts, size) => inSensor(parts, { offset: (size / 100) * parts.span }),
  },
  gain: {
    words: 'the sensor’s gain is off',
    unit: '%',
    usual: 0.8,
    plant: (parts, size) => inSensor(parts, { gain: size / 100 }),
  },
  'output offset': {
    words: 'the output stage is off',
    unit: 'mA',
    usual: 0.08,
    plant: (parts, size) => inStage(parts, { offset: size }),
  },
  'bent linkage': {
    words: 'the linkage is bent: the curve bows between its ends',
    unit: '% of span',
    usual: 0.6,
    plant: (parts, size) =>
      inTested(parts, {
        'analog transmitter': (tested) => ({ ...tested, analog: { ...tested.analog, bend: size / 100 } }),
      }),
  },
  friction: {
    words: 'something rubs: it sticks until it is moved enough',
    unit: '% of span',
    usual: 0.8,
    plant: (parts, size) =>
      inTested(parts, {
        'analog transmitter': (tested) => ({ ...tested, analog: { ...tested.analog, friction: size / 100 } }),
        'force balance': (tested) => ({ ...tested, balance: { ...tested.balance, friction: size / 100 } }),
        'dial gauge': (tested) => ({ ...tested, dial: { ...tested.dial, friction: size / 100 } }),
      }),
  },
  'moisture in the air': {
    words: 'water in the air supply: the nozzle gives less and answers slowly',
    unit: '% of the nozzle gain lost',
    usual: 90,
    plant: (parts, size) =>
      inTested(parts, {
        'force balance': (tested) => ({
          ...tested,
          balance: {
            ...tested.balance,
            nozzleGain: tested.balance.nozzleGain * (1 - size / 100),
            settlingS: tested.balance.settlingS / (1 - size / 100),
          },
        }),
      }),
  },
  'plugged line': {
    words: 'a line answers slowly',
    unit: 's',
    usual: 40,
    plant: (parts, size) => inLine(parts, { fillS: size }),
  },
  leak: {
    words: 'the line loses pressure',
    unit: 's to 63 %',
    usual: 15,
    plant: (parts, size) => inLine(parts, { leakS: size }),
  },
  'trapped gas': {
    words: 'a bubble stands in the liquid of a line',
    unit: 'of the input unit, missing at the pressure of the air',
    usual: 2,
    plant: (parts, size) => inLine(parts, { bubble: size }),
  },
  'wrong water reference': {
    words: 'the range is set for water of another temperature',
    unit: '%',
    usual: 0.177,
    plant: (parts, size) => inSettings(parts, longer(size)),
  },
  'doubled root': {
    words: 'the root is taken twice',
    unit: '',
    usual: 1,
    plant: (parts) =>
      inSettings(parts, () => ({
        drivenBy: 'scaled variable',
        scaledTransfer: { kind: 'square-root' },
        transfer: { kind: 'square-root' },
      })),
  },
  'missing root': {
    words: 'the root is not taken',
    unit: '',
    usual: 1,
    plant: (parts) => inSettings(parts, () => ({ drivenBy: 'pressure', transfer: { kind: 'linear' } })),
  },
  'wrong range': {
    words: 'the range is another one',
    unit: '% of span',
    usual: 4,
    plant: (parts, size) => inSettings(parts, longer(size)),
  },
  'drained leg': {
    words: 'the filled leg has lost its fill',
    unit: '% of its height',
    usual: 30,
    plant: (parts, size) => inLeg(parts, ({ leg }) => ({ leg, filled: 1 - size / 100 })),
  },
  'wrongly filled leg': {
    words: 'the leg is filled with another liquid',
    unit: '% of the density',
    usual: -6,
    plant: (parts, size) =>
      inLeg(parts, ({ leg, filled }) => ({
        leg: { ...leg, fillKgPerM3: leg.fillKgPerM3 * (1 + size / 100) },
        filled,
      })),
  },
  tilt: {
    words: 'the body hangs tilted since its zero',
    unit: '% of span',
    usual: 0.56,
    plant: (parts, size) => ({ ...parts, positionHead: (size / 100) * parts.span }),
  },
  'wrong resistor': {
    words: 'the receiver’s resistor is another one',
    unit: 'Ω',
    usual: 249,
    plant: (parts, size) => inLoop(parts, { seriesOhm: size }),
  },
  'low supply': {
    words: 'the supply is too low for the loop',
    unit: 'V',
    usual: 15.5,
    plant: (parts, size) => inLoop(parts, { supplyV: size }),
  },
  'corroded terminal': {
    words: 'a terminal is corroded',
    unit: 'Ω',
    usual: 700,
    plant: (parts, size) => inLoop(parts, { corrodedOhm: size }),
  },
  'stuck output': {
    words: 'the output stands still',
    unit: 'mA',
    usual: 12,
    plant: (parts, size) => ({ ...parts, stuckMilliamp: size }),
  },
  'over-ranged reference': {
    words: 'the reference was over-ranged',
    unit: '% of span',
    usual: 0.6,
    plant: (parts, size) => {
      if (parts.source.kind !== 'controller') return refuse('controller');
      const { controller } = parts.source;
      const offset = controller.offset + (size / 100) * parts.span;
      return { ...parts, source: { kind: 'controller', controller: { ...controller, offset } } };
    },
  },
  'wrong receiver': {
    words: 'the receiver shows too much',
    unit: '% of span',
    usual: 2,
    plant: (parts, size) => ({
      ...parts,
      receivers: parts.receivers.map((receiver, index) =>
        index === 0 ? { ...receiver, zero: size / 100 } : receiver,
      ),
    }),
  },
} as const satisfies Record<string, Fault>;

export type FaultName = keyof typeof FAULTS;

export interface Planted {
  readonly fault: FaultName;
  /** In the unit of the fault; its usual size where nothing is said. */
  readonly size?: number;
}

/**
 * The parts with faults in them.
 * @throws CoreError `undefined-result` where the world has nothing that can have the fault
 */
export const plant = (parts: Parts, planted: readonly Planted[]): Parts =>
  planted.reduce((so, { fault, size }) => FAULTS[fault].plant(so, size ?? FAULTS[fault].usual), parts);
