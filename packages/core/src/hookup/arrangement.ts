/**
 * How an instrument hangs on its process: the spaces that can hold pressure and the valves between them.
 *
 * The orders are common practice, from memory: a differential body is kept equalised while one side after the other is
 * shut off; a wet leg is shut off first and never meets the other side; a system with remote seals has no equaliser.
 * A site's own order comes first.
 */
export const ARRANGEMENTS = [
  'block-and-bleed',
  '2-valve',
  '3-valve',
  '5-valve',
  'wet-leg',
  'remote-seals',
  'vacuum',
  'tank-nozzle',
] as const;
export type Arrangement = (typeof ARRANGEMENTS)[number];

export type Space = 'process-high' | 'process-low' | 'high' | 'low' | 'middle' | 'atmosphere';
export type ValveId =
  | 'block'
  | 'bleed'
  | 'high-block'
  | 'low-block'
  | 'equaliser'
  | 'equaliser-high'
  | 'equaliser-low'
  | 'vent'
  | 'vent-high'
  | 'vent-low';
export type ValvePosition = 'open' | 'closed';

export interface Valve {
  readonly id: ValveId;
  readonly name: string;
  readonly role: 'block' | 'equaliser' | 'vent';
  readonly joins: readonly [Space, Space];
}

export interface ValveMove {
  readonly valve: ValveId;
  readonly to: ValvePosition;
}

export interface HookUp {
  readonly arrangement: Arrangement;
  readonly name: string;
  readonly valves: readonly Valve[];
  /** The usual order out of service; the last position of each valve is that of an isolated instrument. */
  readonly isolate: readonly ValveMove[];
  /** The usual order back, beginning where `isolate` ended. */
  readonly restore: readonly ValveMove[];
  /** Whether the low side is a leg filled with a liquid that must stay there. */
  readonly hasWetLeg: boolean;
  /** Whether one side may hold pressure without the other: there is no equaliser, or there is one side only. */
  readonly toleratesOneSide: boolean;
  /** What to know before the first valve, in a sentence. */
  readonly caution: string;
}

const open = (valve: ValveId): ValveMove => ({ valve, to: 'open' });
const close = (valve: ValveId): ValveMove => ({ valve, to: 'closed' });

const valve = (id: ValveId, name: string, role: Valve['role'], from: Space, to: Space): Valve => ({
  id,
  name,
  role,
  joins: [from, to],
});

const HIGH_BLOCK = valve('high-block', 'High side block', 'block', 'process-high', 'high');
const LOW_BLOCK = valve('low-block', 'Low side block', 'block', 'process-low', 'low');
const VENT_HIGH = valve('vent-high', 'High side vent', 'vent', 'high', 'atmosphere');
const VENT_LOW = valve('vent-low', 'Low side vent', 'vent', 'low', 'atmosphere');
const EQUALISER = valve('equaliser', 'Equaliser', 'equaliser', 'high', 'low');

/** One line to the process, one valve in it and one to let off what is behind it. */
function single(
  arrangement: Arrangement,
  name: string,
  [block, bleed]: readonly [string, string],
  caution: string,
): HookUp {
  return {
    arrangement,
    name,
    valves: [
      valve('block', block, 'block', 'process-high', 'high'),
      valve('bleed', bleed, 'vent', 'high', 'atmosphere'),
    ],
    isolate: [close('block'), open('bleed')],
    restore: [close('bleed'), open('block')],
    hasWetLeg: false,
    toleratesOneSide: true,
    caution,
  };
}

const THREE_VALVES = [HIGH_BLOCK, LOW_BLOCK, EQUALISER, VENT_HIGH, VENT_LOW];

export const HOOK_UPS: Readonly<Record<Arrangement, HookUp>> = {
  'block-and-bleed': single(
    'block-and-bleed',
    'Block and bleed',
    ['Block', 'Bleed'],
    'Open the bleed slowly and stand clear of it; it must run clear and then stop.',
  ),
  '2-valve': single(
    '2-valve',
    '2-valve manifold',
    ['Isolating valve', 'Test and vent valve'],
    'Take the plug from the test connection only when the vent has run out.',
  ),
  'tank-nozzle': single(
    'tank-nozzle',
    'Tank nozzle',
    ['Nozzle valve', 'Drain'],
    'Drain into what the product allows; a plugged nozzle looks drained and is not.',
  ),
  vacuum: single(
    'vacuum',
    'Vacuum manifold',
    ['Isolating valve', 'Air admittance'],
    'Never admit air to the process. Admit it slowly to the gauge; glass can implode.',
  ),
  '3-valve': {
    arrangement: '3-valve',
    name: '3-valve manifold',
    valves: THREE_VALVES,
    isolate: [
      close('high-block'),
      open('equaliser'),
      close('low-block'),
      open('vent-high'),
      open('vent-low'),
    ],
    restore: [
      close('vent-high'),
      close('vent-low'),
      open('high-block'),
      close('equaliser'),
      open('low-block'),
    ],
    hasWetLeg: false,
    toleratesOneSide: false,
    caution:
      'The body must never see the line pressure on one side alone: keep it equalised until both are shut.',
  },
  '5-valve': {
    arrangement: '5-valve',
    name: '5-valve manifold',
    valves: [
      HIGH_BLOCK,
      LOW_BLOCK,
      valve('equaliser-high', 'High side equaliser', 'equaliser', 'high', 'middle'),
      valve('equaliser-low', 'Low side equaliser', 'equaliser', 'low', 'middle'),
      valve('vent', 'Manifold vent', 'vent', 'middle', 'atmosphere'),
    ],
    isolate: [
      close('high-block'),
      open('equaliser-high'),
      open('equaliser-low'),
      close('low-block'),
      open('vent'),
    ],
    restore: [
      close('vent'),
      open('high-block'),
      close('equaliser-high'),
      close('equaliser-low'),
      open('low-block'),
    ],
    hasWetLeg: false,
    toleratesOneSide: false,
    caution:
      'The body must never see the line pressure on one side alone: keep it equalised until both are shut.',
  },
  'wet-leg': {
    arrangement: 'wet-leg',
    name: '3-valve manifold with a wet leg',
    valves: THREE_VALVES,
    isolate: [
      close('low-block'),
      close('high-block'),
      open('equaliser'),
      open('vent-high'),
      open('vent-low'),
    ],
    restore: [
      close('vent-high'),
      close('vent-low'),
      open('high-block'),
      close('equaliser'),
      open('low-block'),
    ],
    hasWetLeg: true,
    toleratesOneSide: false,
    caution:
      'The leg on the low side must stay full: shut it first, and never open the equaliser while it is open. If it was lost, it is filled again before the return.',
  },
  'remote-seals': {
    arrangement: 'remote-seals',
    name: 'Remote seals',
    valves: [HIGH_BLOCK, LOW_BLOCK, VENT_HIGH, VENT_LOW],
    isolate: [close('high-block'), close('low-block'), open('vent-high'), open('vent-low')],
    restore: [close('vent-high'), close('vent-low'), open('low-block'), open('high-block')],
    hasWetLeg: false,
    toleratesOneSide: true,
    caution:
      'There is no equaliser: one side may see the static pressure alone for a while, so check the body’s one-sided limit. Never loosen a capillary.',
  },
};
