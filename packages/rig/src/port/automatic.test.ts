/** The automatic run of the core at simulated instruments, through the port. */
import { advance, begin, obey } from '@barys/core/automatic';
import { evaluateRun, spanTolerance } from '@barys/core/run';
import { describe, expect, it } from 'vitest';
import { Bench, leastTime, PLAN, RANGE, SETTINGS, STOPS } from '../running';

describe('an automatic run at a simulated bench', () => {
  it('reads every point once, settled and from its own side, and vents at its end', async () => {
    const bench = new Bench();
    await bench.go();
    expect(bench.state.phase).toBe('finished');
    expect(bench.taken.map(({ position }) => position)).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9]);
    expect(bench.worstPast).toBeLessThan(0.1);
    for (const { position, reference, output, digital } of bench.taken) {
      const nominal = STOPS[position - 1]?.applied ?? NaN;
      expect(Math.abs(reference.value - nominal)).toBeLessThan(0.125);
      expect(Math.abs(output.s - reference.s)).toBeLessThan(2);
      expect(digital?.value).toBeCloseTo(nominal, 0);
    }
    const found = evaluateRun(
      RANGE,
      spanTolerance(0.25, 70),
      bench.taken.map(({ position, reference, output }) => ({
        cycle: 1,
        direction: STOPS[position - 1]?.direction ?? 'up',
        nominalPercent: (STOPS[position - 1]?.applied ?? NaN) / 2.5,
        applied: reference.value,
        output: output.value,
      })),
    );
    expect(found.verdict).toBe('within');
    await bench.go();
    bench.world.step(30);
    expect(await bench.ports.controller.state()).toBe('vented');
    expect(bench.world.truth.applied).toBeCloseTo(0, 0);
  });

  it('waits for the taps of a loop as for the output, and holds where one gives nothing', async () => {
    const taps = [
      { key: 'tap-1', span: 4 },
      { key: 'tap-2', span: 100 },
    ];
    const bench = new Bench([], { ...PLAN, taps });
    await bench.go(3);
    for (const { reference, taps: read } of bench.taken) {
      // 1 V to 5 V over the range, and per cent of it.
      expect(Math.abs((read[0]?.value ?? NaN) - (1 + reference.value / 62.5))).toBeLessThan(0.004);
      expect(Math.abs((read[1]?.value ?? NaN) - reference.value / 2.5)).toBeLessThan(0.1);
    }
    bench.isBlindAtCard = true;
    await bench.go();
    expect(bench.state.held).toMatchObject({ why: 'no contact', words: 'A tap of the loop gives no value.' });
    expect(bench.taken).toHaveLength(3);
    // What stood before the gap says nothing of what stands now.
    expect(bench.state.taps).toEqual([]);
  });

  it('is the same whether values come ten times a second or once in one', async () => {
    const [often, seldom] = [new Bench(), new Bench()];
    await often.go(3, 30_000, 0.1);
    await seldom.go(3, 3000, 1);
    expect(often.taken).toHaveLength(3);
    expect(seldom.taken).toHaveLength(3);
  });

  it('goes faster where the procedure says so, and past no point at any rate', async () => {
    const settling = STOPS.length * (PLAN.settle.waitS + PLAN.settle.holdS);
    const took: number[] = [];
    for (const ratePercentPerS of [5, 10, 20, 50]) {
      const bench = new Bench([], { ...PLAN, approach: { ratePercentPerS, overshootPercent: 0.1 } });
      const begun = bench.s;
      await bench.go(Infinity, 30_000, 0.1);
      expect(bench.state.phase).toBe('finished');
      expect(bench.taken).toHaveLength(STOPS.length);
      expect(bench.worstPast).toBeLessThan(0.1);
      took.push((bench.s - begun) / settling);
    }
    expect(took).toEqual([...took].sort((a, b) => b - a));
    expect(took[0]).toBeLessThan(1.75);
    expect(took[3]).toBeLessThan(1.45);
  });

  it('takes at most a tenth longer than its steps take to settle by themselves', async () => {
    for (const ratePercentPerS of [5, 10, 20, 50]) {
      const plan = { ...PLAN, approach: { ratePercentPerS, overshootPercent: 0.1 } };
      const bench = new Bench([], plan);
      const begun = bench.s;
      await bench.go(Infinity, 30_000, 0.1);
      const ratio = (bench.s - begun) / (await leastTime(plan));
      expect(ratio).toBeLessThan(1.1);
    }
  });

  it('reads a strongly damped output only once it has followed, at any rate', async () => {
    // Ten seconds of damping: a step is left to a thousandth after 69 s.
    const settle = { waitS: 69, holdS: 5, bandPercent: 0.1 };
    for (const ratePercentPerS of [5, 50]) {
      const plan = { ...PLAN, settle, patienceS: 600, approach: { ratePercentPerS, overshootPercent: 0.1 } };
      const damped = new Bench([], plan, 7, { ...SETTINGS, dampingS: 10 });
      const quick = new Bench([], plan, 7, SETTINGS);
      for (const bench of [damped, quick]) await bench.go(Infinity, 30_000, 0.1);
      damped.taken.forEach(({ output, reference }, index) => {
        const other = quick.taken[index];
        const off = output.value - (16 * (reference.value - (other?.reference.value ?? NaN))) / 250;
        // The lag of a rising and a falling point would have opposite signs; noise alone is below 0.01 % of span.
        expect(Math.abs(off - (other?.output.value ?? NaN)) / 0.16).toBeLessThan(0.03);
      });
    }
  });

  it('goes on after the points that are there, and does not read the one in hand twice', async () => {
    const bench = new Bench();
    bench.state = begin(7, bench.s);
    await bench.go();
    expect(bench.taken.map(({ position }) => position)).toEqual([8, 9]);
  });

  it('waits after each point when it is told to, holds and goes on, and repeats the one before', async () => {
    const bench = new Bench();
    const tell = async (order: Parameters<typeof obey>[2]) => {
      const { state, act } = obey(
        bench.plan,
        bench.state,
        order,
        bench.s,
        bench.taken.at(-1)?.position ?? null,
      );
      bench.state = state;
      if (act?.kind === 'hold') await bench.ports.controller.hold?.();
    };
    await tell('one point');
    await bench.go();
    expect(bench.state).toMatchObject({ phase: 'held', index: 1, held: { why: 'by hand' } });
    await tell('go on');
    await bench.go(2);
    await tell('hold');
    expect(await bench.ports.controller.state()).toBe('holding');
    await bench.look();
    expect(bench.taken).toHaveLength(2);
    await tell('repeat');
    await bench.go(3);
    expect(bench.taken.map(({ position }) => position)).toEqual([1, 2, 2]);
    await tell('go on');
    await bench.go();
    expect(bench.taken.map(({ position }) => position)).toEqual([1, 2, 2, 3, 4, 5, 6, 7, 8, 9]);
  });

  it('comes back from the wrong side before it reads', async () => {
    const bench = new Bench();
    await bench.go(2);
    // Somebody pumped it up by hand, past the rising point at 125.
    await bench.ports.controller.set?.(160, 'kPa', null);
    bench.world.step(60);
    bench.s += 60;
    bench.state = begin(2, bench.s);
    const phases = new Set<string>();
    while (bench.taken.length < 3 && bench.state.phase !== 'held') {
      await bench.look();
      phases.add(bench.state.phase);
      bench.world.step(0.5);
      bench.s += 0.5;
    }
    expect([...phases]).toEqual(expect.arrayContaining(['backing off', 'closing in', 'settling']));
    expect(bench.taken.at(-1)?.position).toBe(3);
  });
});

describe('a run whose pressure a person works', () => {
  const byHand = () => new Bench([], { ...PLAN, isByHand: true });
  const pump = async (bench: Bench, pressure: number) => bench.ports.controller.set?.(pressure, 'kPa', null);
  const until = async (bench: Bench, phase: string, most = 200) => {
    for (let looks = 0; looks < most && bench.state.phase !== phase; looks += 1) {
      await bench.look();
      bench.world.step(0.5);
      bench.s += 0.5;
    }
    expect(bench.state.phase).toBe(phase);
  };
  const take = (bench: Bench) => {
    bench.state = obey(bench.plan, bench.state, 'take', bench.s, null).state;
  };

  it('is watched, says when a point stands, and is read when that is wanted, as it was applied', async () => {
    const bench = byHand();
    await until(bench, 'ready');
    expect(bench.taken).toEqual([]);
    take(bench);
    await bench.look();
    expect(bench.taken.map(({ position }) => position)).toEqual([1]);
    // Somebody pumps to a little below the next point, and asks for it before it stands.
    await pump(bench, 60);
    take(bench);
    await bench.go(2);
    expect(bench.taken[1]?.reference.value).toBeCloseTo(60, 1);
    // It is seen to stand only after the damping has followed.
    expect(Math.abs((bench.taken[1]?.output.value ?? NaN) - (4 + (16 * 60) / 250))).toBeLessThan(0.04);
    // Far from the next one nothing is ready.
    for (let looks = 0; looks < 60; looks += 1) {
      await bench.look();
      bench.world.step(0.5);
      bench.s += 0.5;
    }
    expect([bench.state.phase, bench.taken.length]).toEqual(['approaching', 2]);
  });

  it('sets, holds and vents nothing', async () => {
    const bench = byHand();
    const acts: unknown[] = [];
    for (const name of ['set', 'hold', 'vent'] as const) {
      const before = bench.ports.controller[name];
      Object.assign(bench.ports.controller, {
        [name]: (...given: never[]) => (
          acts.push(name),
          (before as (...all: never[]) => Promise<void>)(...given)
        ),
      });
    }
    await until(bench, 'ready');
    bench.state = begin(8, bench.s);
    await until(bench, 'ready');
    take(bench);
    await bench.look();
    expect(bench.state.phase).toBe('finished');
    for (const order of ['hold', 'vent'] as const) {
      const { act, state } = obey(bench.plan, begin(1, 0), order, 0, null);
      expect([act, state.phase]).toEqual([null, 'held']);
    }
    expect(acts).toEqual([]);
  });

  it('says that an instrument says failure, and does not read it', async () => {
    const bench = new Bench([{ fault: 'stuck output', size: 21.5 }], { ...PLAN, isByHand: true });
    take(bench);
    await until(bench, 'held');
    expect(bench.state.held).toMatchObject({ why: 'alarm' });
    expect(bench.taken).toEqual([]);
  });

  it('shuts nothing in when nothing is seen, and says so', () => {
    const plan = { ...PLAN, isByHand: true };
    const none = { reference: null, output: null, digital: null, alarm: null };
    const blind = advance(plan, begin(0, 0), { ...none, s: 0 }).state;
    const step = advance(plan, blind, { ...none, s: 20 });
    expect([step.act, step.state.held?.why]).toEqual([null, 'no contact']);
  });

  it('is taken only where it is asked for: an order to a controller’s run is none', () => {
    const state = begin(0, 0);
    expect(obey(PLAN, state, 'take', 0, null)).toEqual({ state, act: null });
  });
});

describe('what it does not read', () => {
  const held = async (bench: Bench) => {
    await bench.go();
    expect(bench.state.phase, JSON.stringify(bench.state)).toBe('held');
    return bench.state.held;
  };

  it('a point that does not come to rest', async () => {
    const noisy = new Bench([{ fault: 'corroded terminal', size: 700 }]);
    await noisy.go();
    expect(noisy.state.held).toMatchObject({
      why: 'not settled',
      words: expect.stringContaining('output') as string,
    });
    // The lower points, where the supply still suffices, were read; none where it flickers.
    expect(noisy.taken.length).toBeLessThan(5);
  });

  it('a pressure that cannot be reached, and one beyond the range of the reference', async () => {
    const weak = new Bench([], { ...PLAN, patienceS: 30 });
    Object.assign(weak.ports.controller, { set: () => Promise.resolve() });
    expect(await held(weak)).toMatchObject({
      why: 'not settled',
      words: expect.stringContaining('does not come to') as string,
    });
    const short = new Bench([], { ...PLAN, reference: { low: 0, high: 200 } });
    expect(await held(short)).toMatchObject({ why: 'end of range' });
    expect(short.taken.map(({ position }) => position)).toEqual([1, 2, 3, 4]);
  });

  it('a leak: the pressure falls away where it had arrived', async () => {
    const bench = new Bench([{ fault: 'leak', size: 20 }]);
    await bench.go(2);
    await bench.untilSettling();
    // Its supply gives out: it only shows what is left in the line.
    await bench.ports.controller.hold?.();
    expect(await held(bench)).toMatchObject({ why: 'leak' });
    expect(bench.taken).toHaveLength(2);
  });

  it('an overshoot', async () => {
    const bench = new Bench();
    await bench.go(1);
    await bench.untilSettling();
    await bench.ports.controller.set?.(64, 'kPa', null);
    expect(await held(bench)).toMatchObject({ why: 'overshot' });
    expect(bench.taken).toHaveLength(1);
    // Told to go on, it comes from the right side again.
    bench.state = obey(bench.plan, bench.state, 'go on', bench.s, null).state;
    await bench.go(2);
    expect(bench.taken.at(-1)?.position).toBe(2);
  });

  it('what goes past a point that has only one side, once it had arrived there', async () => {
    // At the low end of the reference nothing can come from below.
    const bench = new Bench([], { ...PLAN, reference: { low: 0, high: 700 } });
    await bench.ports.controller.set?.(3, 'kPa', null);
    bench.world.step(30);
    await bench.untilSettling();
    expect(bench.taken).toEqual([]);
    await bench.ports.controller.set?.(0.6, 'kPa', null);
    expect(await held(bench)).toMatchObject({ why: 'overshot' });
  });

  it('an instrument that says failure, or whose port says so', async () => {
    expect(await held(new Bench([{ fault: 'stuck output', size: 21.5 }]))).toMatchObject({ why: 'alarm' });
    const bench = new Bench();
    await bench.look({ ...(await bench.seen()), alarm: 'The transmitter says that its sensor failed.' });
    expect(bench.state.held).toMatchObject({
      why: 'alarm',
      words: expect.stringContaining('sensor failed') as string,
    });
  });

  it('a stale value, however well it stood, and no value at all', async () => {
    const bench = new Bench();
    await bench.go(1);
    await bench.untilSettling();
    const last = await bench.seen();
    // The same values come for a minute: nothing is read from them, and after ten seconds that is said.
    for (let waited = 0; waited < 60; waited += 1) {
      bench.s += 1;
      bench.world.step(1);
      await bench.look({ ...last, s: bench.s });
    }
    expect(bench.taken).toHaveLength(1);
    expect(bench.state.held).toMatchObject({ why: 'no contact' });
    const blown = new Bench();
    Object.assign(blown.ports.meter, { read: () => Promise.reject(new Error('nothing')) });
    expect(await held(blown)).toMatchObject({ why: 'no contact', words: 'The output gives no value.' });
  });

  it('values of before a gap, joined to those after it', async () => {
    const bench = new Bench();
    await bench.go(1);
    await bench.untilSettling();
    const none = { reference: null, output: null, digital: null, alarm: null };
    bench.world.step(7);
    bench.s += 7;
    await bench.look({ ...none, s: bench.s });
    await bench.look();
    expect(bench.taken).toHaveLength(1);
    await bench.go(2);
    expect(bench.taken).toHaveLength(2);
  });

  it('anything that is no number', async () => {
    const bench = new Bench();
    const { reference, ...rest } = await bench.seen();
    for (let looks = 0; looks < 40; looks += 1) {
      bench.s += 0.5;
      await bench.look({
        ...rest,
        s: bench.s,
        reference: reference && { ...reference, s: bench.s, value: NaN },
      });
    }
    expect(bench.taken).toEqual([]);
    expect(bench.state.held).toMatchObject({ why: 'no contact', words: 'The reference gives no value.' });
  });
});

it('a run takes little longer than its points have to settle', async () => {
  const bench = new Bench();
  const begun = bench.s;
  await bench.go(Infinity, 30_000, 0.1);
  const settling = STOPS.length * (PLAN.settle.waitS + PLAN.settle.holdS);
  // Besides settling it has to go twice over the span at its rate, and the last part of each way slowly.
  const travel = 2 * 20 + 8 * 4;
  expect(bench.s - begun).toBeLessThan((settling + travel) * 1.1);
});
