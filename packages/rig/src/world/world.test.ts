import { upAndDown } from '@barys/core/procedure';
import { evaluateRun, spanTolerance } from '@barys/core/run';
import { expectedOutput } from '@barys/core/signal';
import { describe, expect, it } from 'vitest';
import { trimOutput, trimSensor, trimZero, type SmartState, type Written } from '../smart';
import { FAULTS, makeWorld, NO_SPREAD, type FaultName, type Planted, type SmartWorld } from './index';
import { RANGE, SETTINGS } from '../running';

const quiet = (planted: readonly Planted[] = []) => makeWorld(SETTINGS, 7, { planted, spread: NO_SPREAD });

/** Goes to a pressure and waits until the reference stands, and the output with it. */
function goTo(world: SmartWorld, pressure: number): SmartWorld['shown'] {
  world.source.set(pressure);
  for (let waited = 0; waited < 600 && !(world.shown.isStable && waited > 12); waited += 1) world.step(1);
  world.step(10);
  return world.shown;
}
/** Five points up and down as they are read at reference and meter. */
const run = (world: SmartWorld) =>
  evaluateRun(
    RANGE,
    spanTolerance(0.25, 70),
    upAndDown([0, 25, 50, 75, 100]).map(({ direction, nominalPercent }) => {
      const { reference, meter } = goTo(world, (nominalPercent / 100) * 250);
      return { cycle: 1, direction, nominalPercent, applied: reference, output: meter ?? NaN };
    }),
  );
const done = (found: Written): SmartState => {
  if (typeof found === 'string') throw new Error(found);
  return found;
};

describe('a world', () => {
  it('without a fault has no error beyond noise, and none at all without that', () => {
    const exact = run(quiet());
    for (const point of exact.points) expect(Math.abs(point.mean)).toBeLessThan(1e-3);
    const noisy = run(makeWorld(SETTINGS, 7));
    expect(noisy.verdict).toBe('within');
    expect(Math.max(...noisy.points.map((point) => Math.abs(point.mean)))).toBeLessThan(0.06);
  });

  it('is the same by its seed, and another one by another', () => {
    const trace = (seed: number) => {
      const world = makeWorld(SETTINGS, seed);
      world.source.set(100);
      return Array.from({ length: 50 }, () => {
        world.step(0.3);
        return world.shown;
      });
    };
    expect(trace(3)).toEqual(trace(3));
    expect(trace(4)).not.toEqual(trace(3));
  });

  it('is the same however its time is cut', () => {
    const [one, many] = [quiet(), quiet()];
    for (const world of [one, many]) world.source.set(200);
    one.step(30);
    for (let step = 0; step < 300; step += 1) many.step(0.1);
    expect(many.shown.meter).toBeCloseTo(one.shown.meter ?? NaN, 9);
  });

  it('is brought to no error by who knows what is wrong', () => {
    const world = quiet([{ fault: 'offset' }, { fault: 'gain' }, { fault: 'output offset' }]);
    const { tested } = world;
    expect(run(world).verdict).toBe('outside');
    const raw = (pressure: number) => {
      goTo(world, pressure);
      return { raw: tested.state.raw, applied: world.truth.applied };
    };
    const [low, high] = [raw(0), raw(250)];
    tested.state = done(trimSensor(tested.smart, tested.state, low, high));
    const told = (milliamp: number) => {
      tested.state = { ...tested.state, held: milliamp };
      world.step(1);
      return world.truth.milliamp ?? NaN;
    };
    const [at4, at20] = [told(4), told(20)];
    tested.state = done(trimOutput({ ...tested.state, held: null }, at4, at20));
    for (const point of run(world).points) expect(Math.abs(point.mean)).toBeLessThan(1e-3);
  });

  it('tells sensor and output apart, and what the display says', () => {
    const { digital, meter, own } = goTo(quiet([{ fault: 'output offset', size: 0.16 }]), 125);
    expect(digital).toBeCloseTo(125, 2);
    expect(own).toBeCloseTo(125, 2);
    expect(meter).toBeCloseTo(12.16, 3);
  });

  it('refuses a fault that nothing in it can have', () => {
    expect(() => quiet([{ fault: 'moisture in the air' }])).toThrow('no force balance');
    expect(() => quiet([{ fault: 'drained leg' }])).toThrow('no filled leg');
  });
});

/** Those that are planted at other instruments are held to theirs in kinds.test. */
type Elsewhere = 'bent linkage' | 'friction' | 'moisture in the air' | 'drained leg' | 'wrongly filled leg';

describe('each fault of a smart transmitter', () => {
  const EFFECTS: Readonly<Record<Exclude<FaultName, Elsewhere>, (world: SmartWorld) => void>> = {
    offset: (world) => expect(goTo(world, 125).digital).toBeCloseTo(126.5, 1),
    gain: (world) => expect(goTo(world, 250).digital).toBeCloseTo(252, 1),
    'output offset': (world) => expect((goTo(world, 125).meter ?? 0) - 12).toBeCloseTo(0.08, 3),
    'plugged line': (world) => {
      world.source.set(250);
      world.step(40);
      expect(world.truth.applied).toBeLessThan(200);
    },
    // What is lost on the way: 0.02 s of filling beside 15 s of leaking.
    leak: (world) => expect(250 - (goTo(world, 250), world.truth.applied)).toBeCloseTo(0.333, 2),
    // At 101 kPa absolute 2 kPa are missing, at 351 kPa 0.58.
    'trapped gas': (world) => {
      expect(goTo(world, 0).digital).toBeCloseTo(-2, 2);
      expect((goTo(world, 250).digital ?? 0) - 250).toBeCloseTo((-2 * 101.325) / 351.325, 2);
    },
    'wrong water reference': (world) => expect((goTo(world, 250).meter ?? 0) - 20).toBeCloseTo(-0.028, 2),
    // A quarter of the range: one root makes it half, two make it 70.7 %.
    'doubled root': (world) => expect(goTo(world, 62.5).meter).toBeCloseTo(4 + 16 * Math.SQRT1_2, 2),
    'missing root': (world) => expect(goTo(world, 62.5).meter).toBeCloseTo(8, 2),
    'wrong range': (world) => expect(goTo(world, 250).meter).toBeCloseTo(4 + 16 / 1.04, 2),
    tilt: (world) => {
      expect(goTo(world, 0).digital).toBeCloseTo(1.4, 2);
      // Zero is trimmed in the position that it keeps.
      world.tested.state = done(trimZero(world.tested.smart, world.tested.state));
      expect(goTo(world, 0).digital).toBeCloseTo(0, 2);
    },
    'wrong resistor': (world) => {
      const { meter, receivers } = goTo(world, 125);
      expect(meter).toBeCloseTo(12, 3);
      // 249 for 250 ohms: 12 mA are taken for 11.952.
      expect(receivers[0]).toBeCloseTo(((11.952 - 4) / 16) * 100, 2);
    },
    'low supply': (world) => {
      expect(goTo(world, 0).meter).toBeCloseTo(4, 3);
      expect(goTo(world, 250).meter).toBeLessThan(14);
    },
    'corroded terminal': (world) => {
      goTo(world, 250);
      const seen = Array.from({ length: 200 }, () => (world.step(0.1), world.shown.meter ?? 0));
      expect(Math.min(...seen)).toBeLessThan(18);
      expect(Math.max(...seen)).toBeCloseTo(20, 2);
    },
    'stuck output': (world) => expect(goTo(world, 250).meter).toBeCloseTo(12, 6),
    'over-ranged reference': (world) => {
      const { reference, digital } = goTo(world, 125);
      expect(reference).toBeCloseTo(125, 2);
      expect(digital).toBeCloseTo(123.5, 2);
    },
    'wrong receiver': (world) => {
      const { meter, receivers } = goTo(world, 125);
      expect(meter).toBeCloseTo(expectedOutput(RANGE, 125), 3);
      expect(receivers[0]).toBeCloseTo(52, 2);
    },
  };

  it.each(Object.keys(EFFECTS) as (keyof typeof EFFECTS)[])('%s does what it is known by', (fault) => {
    EFFECTS[fault](quiet([{ fault }]));
  });

  it('is held to here or at another instrument', () => {
    expect(Object.keys(FAULTS).length).toBe(Object.keys(EFFECTS).length + 5);
  });
});
