/** Faults that can be planted in a world, each by one name and one size with its unit. */
import type { Parts } from './parts';

interface Fault {
  /** What it is, in the trade's words. */
  readonly words: string;
  readonly unit: string;
  /** A size that hurts. */
  readonly usual: number;
  readonly plant: (parts: Parts, size: number) => Parts;
}

const inSensor = (parts: Parts, patch: Partial<Parts['smart']['sensor']>): Parts => ({
  ...parts,
  smart: { ...parts.smart, sensor: { ...parts.smart.sensor, ...patch } },
});
const inStage = (parts: Parts, patch: Partial<Parts['smart']['stage']>): Parts => ({
  ...parts,
  smart: { ...parts.smart, stage: { ...parts.smart.stage, ...patch } },
});
const inLoop = (parts: Parts, patch: Partial<Parts['loop']>): Parts => ({
  ...parts,
  loop: { ...parts.loop, ...patch },
});
const inSettings = (parts: Parts, patch: Partial<Parts['settings']>): Parts => ({
  ...parts,
  settings: { ...parts.settings, ...patch },
});
const spanOf = ({ settings }: Parts): number => settings.urv - settings.lrv;

export const FAULTS = {
  offset: {
    words: 'the sensor reads too much',
    unit: '% of span',
    usual: 0.6,
    plant: (parts, size) => inSensor(parts, { offset: (size / 100) * spanOf(parts) }),
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
  'plugged line': {
    words: 'a line answers slowly',
    unit: 's',
    usual: 40,
    plant: (parts, size) => ({ ...parts, pluggedS: size }),
  },
  leak: {
    words: 'the line loses pressure',
    unit: 's to 63 %',
    usual: 600,
    plant: (parts, size) => ({ ...parts, leakS: size }),
  },
  'wrong water reference': {
    words: 'the range is set for water of another temperature',
    unit: '%',
    usual: 0.177,
    plant: (parts, size) => inSettings(parts, { urv: parts.settings.lrv + spanOf(parts) * (1 + size / 100) }),
  },
  'doubled root': {
    words: 'the root is taken twice',
    unit: '',
    usual: 1,
    plant: (parts) =>
      inSettings(parts, {
        drivenBy: 'scaled variable',
        scaledTransfer: { kind: 'square-root' },
        transfer: { kind: 'square-root' },
      }),
  },
  'missing root': {
    words: 'the root is not taken',
    unit: '',
    usual: 1,
    plant: (parts) => inSettings(parts, { drivenBy: 'pressure', transfer: { kind: 'linear' } }),
  },
  'wrong range': {
    words: 'the range is another one',
    unit: '% of span',
    usual: 4,
    plant: (parts, size) => inSettings(parts, { urv: parts.settings.lrv + spanOf(parts) * (1 + size / 100) }),
  },
  tilt: {
    words: 'the body hangs tilted since its zero',
    unit: 'of the input unit',
    usual: 1.4,
    plant: (parts, size) => ({ ...parts, positionHead: size }),
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
    unit: 'of the input unit',
    usual: 1.5,
    plant: (parts, size) => ({
      ...parts,
      controller: { ...parts.controller, offset: parts.controller.offset + size },
    }),
  },
  'wrong receiver': {
    words: 'the receiver shows too much',
    unit: '% of span',
    usual: 2,
    plant: (parts, size) => ({ ...parts, receiver: { ...parts.receiver, zero: size / 100 } }),
  },
} as const satisfies Record<string, Fault>;

export type FaultName = keyof typeof FAULTS;
