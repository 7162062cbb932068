/** Worlds of all kinds: each source and each instrument at its place, held against what it has to come to by hand. */
import { describe, expect, it } from 'vitest';
import { TRUE_REFERENCE } from '../reference';
import {
  NO_SPREAD,
  plant,
  soundController,
  soundSmart,
  soundSurroundings,
  worldOf,
  type AnySource,
  type AnyTested,
  type Parts,
  type Planted,
  type SourceParts,
  type TestedParts,
  type World,
} from './index';
import { makeChance } from '../chance';

const SPAN = 100;
const CONTROLLER = soundController(SPAN, NO_SPREAD.referencePercent, makeChance(1));
const partsOf = (tested: TestedParts, source: SourceParts = CONTROLLER, unitPa = 1000): Parts => ({
  ...soundSurroundings(SPAN, 0, unitPa),
  source,
  tested,
});
const made = (parts: Parts, planted: readonly Planted[] = []): World => worldOf(plant(parts, planted), 5);

/** Narrows to the kind that a world was made with. */
function as<K extends AnyTested['kind']>(world: World, kind: K): Extract<AnyTested, { kind: K }> {
  if (world.tested.kind !== kind) throw new Error(`not a ${kind}`);
  return world.tested as Extract<AnyTested, { kind: K }>;
}
function from<K extends AnySource['kind']>(world: World, kind: K): Extract<AnySource, { kind: K }> {
  if (world.source.kind !== kind) throw new Error(`not a ${kind}`);
  return world.source as Extract<AnySource, { kind: K }>;
}
function goTo(world: World, pressure: number): World['shown'] {
  from(world, 'controller').set(pressure);
  world.step(60);
  return world.shown;
}

const SMART = soundSmart(
  {
    lrv: 0,
    urv: SPAN,
    transfer: { kind: 'linear' },
    dampingS: 0.5,
    displayDampingS: 1,
    displayLow: 0,
    displayHigh: SPAN,
    drivenBy: 'pressure',
    scaledTransfer: { kind: 'linear' },
    isProtected: false,
  },
  0,
);
const ANALOG: TestedParts = {
  kind: 'analog transmitter',
  analog: {
    range: { lrv: 0, urv: SPAN, outputLow: 10, outputHigh: 50 },
    pivot: 0.3,
    zeroPerTurn: 0.02,
    spanPerTurn: 0.03,
    backlashTurns: 0,
    bend: 0,
    loop: 0,
    friction: 0,
    dampingS: 0.4,
    noise: { sigma: 0, tauS: 1 },
    zeroPer10K: 0,
    spanPer10K: 0,
    positionHead: 0,
    perVolt: 0,
    saturation: [9.5, 52],
  },
};
const BALANCE: TestedParts = {
  kind: 'force balance',
  range: { lrv: 0, urv: SPAN },
  supply: 1,
  balance: {
    wheelPerTurn: 0.02,
    zeroPerTurn: 0.01,
    springAtZero: 0,
    nozzleGain: 5000,
    friction: 0,
    settlingS: 1,
    burr: null,
    low: 20,
    high: 100,
  },
};
const DIAL: TestedParts = {
  kind: 'dial gauge',
  dial: { low: 0, high: SPAN, division: 1, friction: 0, loop: 0, zero: 0, gain: 0, parallax: 0 },
};

describe('the instruments at the end of a line', () => {
  it('an analog transmitter of 10 to 50 mA, whose screws disturb each other', () => {
    const world = made({ ...partsOf(ANALOG), loop: { ...partsOf(ANALOG).loop, supplyV: 48 } });
    expect(goTo(world, 50).meter).toBeCloseTo(30, 3);
    as(world, 'analog transmitter').turn({ span: 1 });
    // Gain 1.03, and zero by the pivot: 0.3 x 0.03.
    expect(goTo(world, 0).meter).toBeCloseTo(10 + 40 * 0.009, 3);
    expect(goTo(world, 100).meter).toBeCloseTo(10 + 40 * (1.03 + 0.009), 2);
  });

  it('a bent linkage bows between its ends, and friction holds back', () => {
    const loop = { ...partsOf(ANALOG).loop, supplyV: 48 };
    const bent = made({ ...partsOf(ANALOG), loop }, [{ fault: 'bent linkage', size: 0.6 }]);
    const error = (world: World, pressure: number) =>
      ((goTo(world, pressure).meter ?? NaN) - 10 - 0.4 * pressure) / 0.4;
    expect([error(bent, 0), error(bent, 50), error(bent, 100)].map((one) => Math.abs(one) < 0.02)).toEqual([
      true,
      true,
      true,
    ]);
    // The cubic is largest at 1/2 - 1/sqrt(12).
    expect(error(bent, 21.13)).toBeCloseTo(0.6, 2);
    if (CONTROLLER.kind !== 'controller') throw new Error('no controller');
    // One that overshoots would take the friction up by itself.
    const slow: SourceParts = { ...CONTROLLER, controller: { ...CONTROLLER.controller, zeta: 0.999 } };
    const rubbing = made({ ...partsOf(ANALOG, slow), loop }, [{ fault: 'friction', size: 0.8 }]);
    expect(error(rubbing, 50)).toBeCloseTo(-0.4, 2);
    goTo(rubbing, 100);
    expect(error(rubbing, 50)).toBeCloseTo(0.4, 2);
  });

  it('a force balance, which wet air makes weak and slow', () => {
    const [dry, wet] = [made(partsOf(BALANCE)), made(partsOf(BALANCE), [{ fault: 'moisture in the air' }])];
    // y = K x / (1 + K): 1/5001 and 1/501 of the signal are missing.
    expect(goTo(dry, 50).own).toBeCloseTo(20 + (40 * 5000) / 5001, 4);
    expect(goTo(wet, 50).own).toBeLessThan(59.95);
    from(dry, 'controller').set(100);
    from(wet, 'controller').set(100);
    for (const world of [dry, wet]) world.step(12);
    expect(100 - (wet.shown.own ?? 0)).toBeGreaterThan(10 * (100 - (dry.shown.own ?? 0)));
    as(dry, 'force balance').turn({ wheel: 1 });
    expect(goTo(dry, 100).own).toBeCloseTo(20 + 80 / 1.02, 1);
  });

  it('a dial gauge sticks until it is tapped', () => {
    const world = made(partsOf(DIAL), [{ fault: 'friction', size: 4 }]);
    expect(goTo(world, 50).own).toBe(48);
    as(world, 'dial gauge').tap();
    expect(world.shown.own).toBe(50);
    expect(world.shown.meter).toBeNull();
  });

  it('a digital gauge takes a point once it stands still, and cures its bow in the middle', () => {
    const gauge = { offset: 0, gain: 0, bow: 0.002, full: SPAN, resolution: 0.01, waitS: 5 };
    const world = made(partsOf({ kind: 'digital gauge', gauge }));
    from(world, 'controller').set(50);
    world.step(2);
    expect(as(world, 'digital gauge').calibrate('middle', 50)).toBe('not steady yet');
    expect(goTo(world, 50).own).toBeCloseTo(50.2, 2);
    expect(as(world, 'digital gauge').calibrate('middle', 50)).toBe('done');
    expect(goTo(world, 50).own).toBeCloseTo(50, 2);
    expect(as(world, 'digital gauge').state.fieldCalibrations).toBe(1);
  });

  it('a level gauge switches its contacts and sends its level', () => {
    const gauge = {
      start: 0,
      end: 10,
      contacts: [{ name: 'high', on: 8, off: 7.5 }],
      dampingS: 1,
      displayDampingS: 3,
      offset: 0,
      gain: 0,
    };
    // 10 kPa are 1.02 m of water.
    const world = made(partsOf({ kind: 'level gauge', gauge, perUnit: 0.102 }));
    const { own, meter } = goTo(world, 80);
    expect(own).toBeCloseTo(8.16, 3);
    expect(meter).toBeCloseTo(4 + 1.6 * 8.16, 2);
    expect(as(world, 'level gauge').state.switched).toEqual([true]);
  });

  it('a transmitter with a filled leg reads high by what the leg has lost', () => {
    const parts: Parts = {
      ...partsOf(SMART),
      leg: { leg: { heightM: 3, fillKgPerM3: 1000, drainS: 20, condenseS: 3600 }, filled: 1 },
    };
    const full = goTo(made(parts), 80).digital ?? NaN;
    // By hand: 3 m of 1000 kg/m3 are 29.42 kPa.
    expect(full).toBeCloseTo(80 - 29.42, 2);
    const read = (planted: Planted) => (goTo(made(parts, [planted]), 80).digital ?? NaN) - full;
    expect(read({ fault: 'drained leg', size: 30 })).toBeCloseTo(0.3 * 29.42, 2);
    expect(read({ fault: 'wrongly filled leg', size: -6 })).toBeCloseTo(0.06 * 29.42, 2);
  });
});

describe('the sources of a world', () => {
  it('a hand pump: the pressure falls after pumping though nothing leaks, and the adjuster sets it', () => {
    const world = made(
      partsOf(SMART, {
        kind: 'pump',
        gauge: TRUE_REFERENCE,
        air: {
          volumeM3: 5e-5,
          strokeM3: 1e-5,
          perTurnM3: 2e-7,
          turns: 10,
          warmth: 0.5,
          coolingS: 20,
          leakS: Infinity,
          ventS: 0.5,
        },
      }),
    );
    const pump = from(world, 'pump');
    for (let count = 0; count < 4; count += 1) pump.stroke();
    world.step(1);
    const first = world.shown.reference;
    world.step(200);
    // Isothermal, by hand: 4 strokes of 10 ml into 50 ml press 0.8 of the air's pressure on top of it.
    expect(world.shown.reference).toBeCloseTo(0.8 * 101.325, 1);
    expect(first).toBeGreaterThan(world.shown.reference * 1.01);
    pump.adjust(1);
    world.step(5);
    expect(world.shown.digital).toBeGreaterThan(81.06 + 0.5);
    pump.vent(1);
    world.step(20);
    expect(world.shown.digital).toBeCloseTo(0, 2);
  });

  it('a regulator does nothing at its low end, and then jumps', () => {
    const regulator = { perTurn: 20, deadTurns: 1, jump: 8, droop: 0, creepPerS: 0 };
    const world = made(partsOf(SMART, { kind: 'regulator', regulator, gauge: TRUE_REFERENCE }));
    const at = (turns: number) => {
      from(world, 'regulator').knob(turns);
      world.step(10);
      return world.shown.digital ?? NaN;
    };
    expect(at(0.9)).toBeCloseTo(0, 3);
    expect(at(1.1)).toBeCloseTo(8, 2);
    expect(at(4)).toBeCloseTo(60, 2);
  });

  it('a deadweight tester is right while it floats and turns', () => {
    const deadweight = { float: 10, sinkPerS: 0.05, friction: 0.002, spinS: 40 };
    const world = made(partsOf(SMART, { kind: 'deadweight tester', deadweight }));
    const tester = from(world, 'deadweight tester');
    tester.load(60);
    world.step(5);
    expect(world.shown).toMatchObject({ isStable: false });
    expect(world.shown.digital).toBeCloseTo(60 * 0.998, 2);
    tester.spin();
    world.step(5);
    expect(world.shown.isStable).toBe(true);
    expect(world.shown.digital).toBeCloseTo(60, 2);
    // It sinks to its stop, and is lifted again.
    world.step(200);
    expect(world.shown.digital).toBeCloseTo(0, 2);
    tester.lift();
    tester.spin();
    world.step(5);
    expect(world.shown.digital).toBeCloseTo(60, 2);
  });

  it('a vacuum manifold with gauges of both kinds: each is poor where the other is good', () => {
    const manifold: SourceParts = {
      kind: 'manifold',
      gauge: TRUE_REFERENCE,
      manifold: {
        volumeM3: 0.002,
        outgassing: 1e-6,
        bleed: 0.02,
        rotary: { speedM3PerS: 0.001, endPa: 1 },
        diffusion: { speedM3PerS: 0.02, endPa: 1e-4 },
        stallsPa: 10,
      },
    };
    const vacuum = (tested: TestedParts) => ({
      ...partsOf(tested, manifold, 1),
      line: { ...soundSurroundings(1, 0, 1).line },
    });
    const heat = made(
      vacuum({
        kind: 'heat-loss gauge',
        gas: 'nitrogen',
        gauge: { v0: 0.3, v0PerK: 0, k: 0.002, p1: 2000, excitation: 1 },
      }),
    );
    from(heat, 'manifold').change({ rotary: true, valve: 1 });
    heat.step(300);
    expect(heat.shown.own).toBeCloseTo(1, 1);
    const capacitance = made(
      vacuum({
        kind: 'capacitance gauge',
        gauge: { fullPa: 1333, gain: 0, zeroPa: 0.2, coldPa: 5, warmUpS: 600 },
      }),
    );
    from(capacitance, 'manifold').change({ rotary: true, valve: 1 });
    capacitance.step(300);
    // Cold it still reads its drift.
    expect(capacitance.shown.own).toBeGreaterThan(3);
    capacitance.step(7200);
    expect(capacitance.shown.own).toBeCloseTo(1.2, 1);
  });
});
