/** The free bench: any instrument with any fault that it can have, chosen by the trainee or hidden by the seed. */
import { drawAnalog } from '../../adjusting';
import { makeChance, type Chance } from '../../chance';
import {
  FAULTS,
  plant,
  soundController,
  soundSmart,
  soundSurroundings,
  USUAL_SPREAD,
  worldOf,
  type FaultName,
  type Parts,
  type TestedParts,
  type World,
} from '../../world';
import type { Cause } from '../acts';
import { balanceBench, either, gaugeBench, pump, ROOT, SETTINGS } from './benches';
import { legBench, WET_LEG } from './leg';
import { COMMON, RANGE, type Lesson } from './lesson';
import { VACUUM, vacuumBench } from './vacuum';

/** What a fault is called by who finds it, and whether anything at the bench cures it. */
interface Named {
  readonly causes: readonly Cause[];
  readonly isCurable: boolean;
}
const cured = (...causes: Cause[]): Named => ({ causes, isCurable: true });
const not = (...causes: Cause[]): Named => ({ causes, isCurable: false });

/** A fault with the instrument as it is then. */
interface FreeFault extends Named {
  make(seed: number): World;
}

interface FreeKind {
  readonly title: string;
  readonly lesson: Partial<Lesson>;
  readonly faults: Readonly<Record<string, FreeFault>>;
}

/** Parts with a fault of its usual size, larger or smaller by a third. */
function planted(parts: (chance: Chance) => Parts, fault: FaultName | null, named: Named): FreeFault {
  return {
    ...named,
    make(seed) {
      const chance = makeChance(seed);
      const sound = parts(chance);
      if (fault === null) return worldOf(sound, seed + 1);
      const size = FAULTS[fault].usual * chance.uniform(0.8, 1.3);
      return worldOf(plant(sound, [{ fault, size }]), seed + 1);
    },
  };
}

const faultsOf = (
  parts: (chance: Chance) => Parts,
  named: Partial<Readonly<Record<FaultName, Named>>>,
): Readonly<Record<string, FreeFault>> => ({
  nothing: planted(parts, null, cured('nothing')),
  ...Object.fromEntries(
    Object.entries(named).map(([fault, of]) => [fault, planted(parts, fault as FaultName, of)]),
  ),
});

const controlled =
  (tested: (chance: Chance) => TestedParts) =>
  (chance: Chance): Parts => ({
    source: soundController(100, USUAL_SPREAD.referencePercent, chance),
    ...soundSurroundings(100, chance.uniform(-0.0005, 0.0005)),
    tested: tested(chance),
  });
const pumped =
  (tested: (chance: Chance) => TestedParts) =>
  (chance: Chance): Parts => ({
    ...controlled(tested)(chance),
    source: pump(chance),
  });

const smart = controlled(() => soundSmart(SETTINGS, USUAL_SPREAD.noise));
const rooted = controlled(() => soundSmart({ ...SETTINGS, transfer: ROOT }, USUAL_SPREAD.noise));
const analog = pumped((chance) => ({
  kind: 'analog transmitter',
  analog: { ...drawAnalog(chance), bend: 0.0003 },
}));
const dial =
  ({ zero = 0, gain = 0, friction = 0.001 }) =>
  (seed: number): World => {
    const chance = makeChance(seed);
    const way = either(chance, 0.9, 1.1);
    return worldOf(
      pumped(() => ({
        kind: 'dial gauge',
        dial: {
          low: 0,
          high: 100,
          division: 1,
          friction,
          loop: 0.0008,
          zero: zero * way,
          gain: gain * way,
          parallax: 0.1,
        },
      }))(chance),
      seed + 1,
    );
  };
const level =
  ({ offset = 0, gain = 0 }) =>
  (seed: number): World => {
    const chance = makeChance(seed);
    const way = either(chance, 0.9, 1.1);
    return worldOf(
      controlled(() => ({
        kind: 'level gauge',
        gauge: {
          start: 0,
          end: 10,
          contacts: [],
          dampingS: 0.5,
          displayDampingS: 0.5,
          offset: offset * way,
          gain: gain * way,
        },
        perUnit: 0.1,
      }))(chance),
      seed + 1,
    );
  };
const balance = (zeroTurns: number, wheelTurns: number) => (seed: number) =>
  balanceBench(seed, (chance) => ({
    zeroTurns: zeroTurns * either(chance, 0.9, 1.1),
    wheelTurns: wheelTurns * either(chance, 0.9, 1.1),
  }));
const capacitance =
  (coldPa: number, gain: number) =>
  (seed: number): World => {
    const chance = makeChance(seed);
    return worldOf(
      {
        ...controlled(() => ({
          kind: 'capacitance gauge',
          gauge: { fullPa: 100_000, gain: gain * either(chance, 0.9, 1.1), zeroPa: 0, coldPa, warmUpS: 1200 },
        }))(chance),
      },
      seed + 1,
    );
  };

const FIGURE = { outputUnit: 'kPa', range: { ...RANGE, outputLow: 0, outputHigh: 100 } } as const;

export const FREE_KINDS: Readonly<Record<string, FreeKind>> = {
  'smart transmitter': {
    title: 'smart transmitter',
    lesson: { readsDigital: true },
    faults: faultsOf(smart, {
      offset: cured('sensor off'),
      gain: cured('sensor off'),
      'output offset': cured('output off'),
      'wrong range': cured('range wrong'),
      'wrong water reference': cured('range wrong'),
      tilt: cured('body tilted'),
      'plugged line': cured('line plugged'),
      leak: cured('leak'),
      'trapped gas': cured('gas trapped'),
      'low supply': cured('supply low'),
      'corroded terminal': cured('terminal corroded'),
      'stuck output': not('output stuck'),
      'wrong receiver': cured('receiver wrong'),
      'wrong resistor': cured('receiver wrong'),
      'over-ranged reference': cured('reference off'),
    }),
  },
  'flow transmitter': {
    title: 'smart transmitter with a root',
    lesson: { range: { ...RANGE, transferFunction: ROOT } },
    faults: faultsOf(rooted, {
      'doubled root': cured('root twice'),
      'missing root': cured('root missing'),
      'wrong range': cured('range wrong'),
    }),
  },
  'analog transmitter': {
    title: 'analog transmitter',
    lesson: { limitPercent: 0.5 },
    faults: faultsOf(analog, {
      'bent linkage': not('linkage bent'),
      friction: not('friction'),
      leak: cured('leak'),
      'plugged line': cured('line plugged'),
    }),
  },
  'pneumatic balance': {
    title: 'pneumatic balance',
    lesson: {
      range: { ...RANGE, outputLow: 3, outputHigh: 15 },
      outputUnit: 'psi',
      readBy: 'meniscus',
      limitPercent: 1,
    },
    faults: {
      nothing: { ...cured('nothing'), make: balance(0, 0) },
      'zero off': { ...cured('zero off'), make: balance(0.9, 0) },
      'zero and wheel off': { ...cured('zero off', 'span off'), make: balance(0.7, 1) },
      'moisture in the air': {
        ...not('air supply bad'),
        make: (seed) =>
          balanceBench(seed, () => ({ zeroTurns: 0, wheelTurns: 0 }), [{ fault: 'moisture in the air' }]),
      },
    },
  },
  'dial gauge': {
    title: 'dial gauge',
    lesson: { ...FIGURE, readBy: 'needle', limitPercent: 1 },
    faults: {
      nothing: { ...cured('nothing'), make: dial({}) },
      'zero off': { ...not('zero off'), make: dial({ zero: 0.02 }) },
      'span off': { ...not('span off'), make: dial({ gain: 0.03 }) },
      friction: { ...not('friction'), make: dial({ friction: 0.03 }) },
    },
  },
  'digital gauge': {
    title: 'digital gauge',
    lesson: { ...FIGURE, limitPercent: 0.2 },
    faults: { 'field values wrong': { ...cured('field values wrong'), make: gaugeBench } },
  },
  'wet leg': {
    title: 'level transmitter with a wet leg',
    lesson: WET_LEG,
    faults: {
      nothing: { ...cured('nothing'), make: (seed) => legBench(seed, []) },
      'drained leg': {
        ...cured('leg lost'),
        make: (seed) =>
          legBench(seed, [{ fault: 'drained leg', size: makeChance(seed + 13).uniform(30, 95) }]),
      },
      'wrongly filled leg': {
        ...not('leg fill wrong'),
        make: (seed) => legBench(seed, [{ fault: 'wrongly filled leg' }]),
      },
    },
  },
  'heat-loss gauge': {
    title: 'heat-loss vacuum gauge',
    lesson: VACUUM,
    faults: { 'zero and span off': { ...cured('zero off', 'span off'), make: vacuumBench } },
  },
  'level gauge': {
    title: 'level gauge',
    lesson: {},
    faults: {
      nothing: { ...cured('nothing'), make: level({}) },
      'zero off': { ...not('zero off'), make: level({ offset: 0.06 }) },
      'span off': { ...not('span off'), make: level({ gain: 0.008 }) },
    },
  },
  'capacitance gauge': {
    title: 'capacitance vacuum gauge',
    lesson: FIGURE,
    faults: {
      nothing: { ...cured('nothing'), make: capacitance(0, 0) },
      cold: { ...cured('not warm yet'), make: capacitance(900, 0) },
      'span off': { ...not('span off'), make: capacitance(0, 0.008) },
    },
  },
};

/** What is chosen where the seed is to choose. */
export const HIDDEN = 'hidden';
const PREFIX = 'free bench: ';

export const freeId = (kind: string, fault: string): string => `${PREFIX}${kind}, ${fault}`;

/** The lesson of a free bench by its id; undefined where no such bench can be made. */
export function freeLesson(id: string): Lesson | undefined {
  if (!id.startsWith(PREFIX)) return undefined;
  const [name = '', chosen = ''] = id.slice(PREFIX.length).split(', ');
  const kind = Object.hasOwn(FREE_KINDS, name) ? FREE_KINDS[name] : undefined;
  if (kind === undefined) return undefined;
  const isHidden = chosen === HIDDEN;
  const only = Object.hasOwn(kind.faults, chosen) ? kind.faults[chosen] : undefined;
  if (!isHidden && only === undefined) return undefined;
  const all = Object.values(kind.faults);
  const at = (seed: number): FreeFault | undefined =>
    only ?? all[Math.floor(makeChance(seed * 31 + 5).uniform(0, all.length - 1e-9))];
  const of = (seed: number): FreeFault => at(seed) ?? { ...cured('nothing'), make: gaugeBench };
  return {
    ...COMMON,
    ...kind.lesson,
    id,
    title: `Free bench: ${kind.title}`,
    brief: isHidden
      ? 'Something may be wrong with it, or nothing. Read it, say what it is, and put right what the bench can put right.'
      : `You chose it: ${chosen}. See how it shows in the readings.`,
    minutes: 45,
    hints: [],
    reasoning:
      'What is wrong stands above; the replay shows how it read. A fault that no control of this bench cures is named and left to the workshop.',
    isCurable: only?.isCurable ?? true,
    causes: only?.causes ?? [],
    hidden: isHidden ? (seed) => of(seed) : null,
    make: (seed) => of(seed).make(seed),
  };
}
