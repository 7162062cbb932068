/** A link at a simulated bench against a Barys in memory, in a time of its own. */
import { obey, type Order, type Plan } from '@barys/core/automatic';
import {
  METER_DRIVER,
  type Beat,
  type BeatAnswer,
  type BeatTaken,
  type End,
  type Port,
  type PortValue,
  type ReadSetup,
  type Task,
} from '@barys/core/port';
import { makeChance } from '@barys/rig/chance';
import { describe, expect, it } from 'vitest';
import { Bench, type Simulated } from './bench';
import { Link, textOf } from './link';
import { portsOf } from '@barys/rig/port';
import { PLAN as FIVE_POINTS, stopsOf } from '@barys/rig/running';
import { Simulation } from './standIn';

const CONFIGURATION = {
  tag: 'PT-1',
  lrv: 0,
  urv: 250,
  inputUnit: 'kPa',
  dampingS: 0.5,
  transferFunction: { kind: 'linear' } as const,
};
const PLAN: Plan = {
  ...FIVE_POINTS,
  stops: stopsOf([0, 50, 100]),
  approach: { ratePercentPerS: 10, overshootPercent: 0.1 },
};

/** Barys as the link knows it: what is kept, and what is to do. */
class FakeBarys {
  readonly kept = new Map<number, BeatTaken>();
  readonly all: BeatTaken[] = [];
  orders: { id: number; name: Order }[] = [];
  isAway = false;
  plan: Plan = PLAN;
  taps: Task['taps'] = [];
  ends: BeatAnswer['ends'] = [];
  requests: BeatAnswer['requests'] = [];
  answers: Beat['answers'][number][] = [];
  mostAnswers = 0;
  /** The beat arrives, and its answer does not. */
  losesAnswers = false;
  isEnded = false;
  refuses = false;
  last: Beat | null = null;
  doneOrder = 0;
  private held: string | null = null;

  beat = (beat: Beat): Promise<BeatAnswer> => {
    if (this.isAway) return Promise.reject(new Error('away'));
    this.last = beat;
    this.answers.push(...beat.answers);
    this.mostAnswers = Math.max(this.mostAnswers, beat.answers.length);
    this.requests = this.requests.filter(({ id }) => beat.answers.every((one) => one.id !== id));
    const refused: { clientKey: string; words: string }[] = [];
    for (const taken of beat.taken) {
      if (this.refuses) refused.push({ clientKey: taken.clientKey, words: 'The stage has passed.' });
      else if (
        !this.kept.has(taken.position) ||
        (taken.isRepeat && this.kept.get(taken.position)?.clientKey !== taken.clientKey)
      ) {
        this.kept.set(taken.position, taken);
        this.all.push(taken);
      }
    }
    this.doneOrder = beat.state?.doneOrder ?? this.doneOrder;
    if (beat.state !== null) this.held = beat.state.state.phase === 'held' ? beat.state.state.words : null;
    if (beat.state?.state.phase === 'finished') this.isEnded = true;
    if (this.losesAnswers) return Promise.reject(new Error('lost'));
    return Promise.resolve({
      refused,
      task: this.isEnded ? null : this.task(),
      ends: this.ends,
      requests: this.requests,
    });
  };

  private task(): Task {
    return {
      automatic: 1,
      plan: this.plan,
      open: PLAN.stops.map(({ position }) => position).filter((position) => !this.kept.has(position)),
      devices: { reference: 'Controller', output: 'Loop meter', digital: 'Transmitter' },
      taps: this.taps,
      lastTaken: this.all.at(-1)?.position ?? null,
      orders: this.orders.filter(({ id }) => id > this.doneOrder),
      wasHeld: this.held,
      doneOrder: this.doneOrder,
      decimals: { input: 3, output: 4 },
      configuration: CONFIGURATION,
    };
  }
}

/** The bench in memory, so that its time is the test's; over wires it is driven in text.test and in the journeys. */
function benchOf(simulation: Simulation): Simulated & { readonly atTaps: Simulated['devices'] } {
  const through = (of: 'controller' | 'meter' | 'transmitter' | 'voltmeter' | 'receiver'): Port => {
    const now = () => {
      const { world, unit } = simulation.now();
      return portsOf(world, unit, 7, () => Date.now())[of];
    };
    const first = now();
    let state: Awaited<ReturnType<Port['state']>> = of === 'controller' ? 'vented' : 'measuring';
    return {
      channels: first.channels,
      identify: () => now().identify(),
      read: (channel) => now().read(channel),
      state: () => Promise.resolve(state),
      close: () => Promise.resolve(),
      ...(first.set && {
        set: (value, unit, rate) => (
          (state = 'controlling'),
          now().set?.(value, unit, rate) ?? Promise.resolve()
        ),
      }),
      ...(first.hold && { hold: () => ((state = 'holding'), now().hold?.() ?? Promise.resolve()) }),
      ...(first.vent && { vent: () => ((state = 'vented'), now().vent?.() ?? Promise.resolve()) }),
    };
  };
  return {
    takeOn: simulation.takeOn,
    devices: [
      { name: 'Controller', port: through('controller') },
      { name: 'Loop meter', port: through('meter') },
      { name: 'Transmitter', port: through('transmitter') },
    ],
    atTaps: [
      { name: 'Voltmeter', port: through('voltmeter') },
      { name: 'Receiver', port: through('receiver') },
    ],
  };
}

class Scene {
  s = 0;
  readonly barys = new FakeBarys();
  readonly bench: Simulated;
  link: Link;
  constructor(readonly end?: (bench: Simulated) => Simulated) {
    this.bench = benchOf(new Simulation(7, () => this.s));
    this.link = this.started();
  }
  started(): Link {
    const bench = this.end?.(this.bench) ?? this.bench;
    return new Link(new Bench(bench), { beat: this.barys.beat }, () => this.s, 20);
  }
  async turn(): Promise<void> {
    await this.link.turn().catch(() => undefined);
    this.s += 0.5;
  }
  async until(isSo: () => boolean, most = 2000): Promise<void> {
    for (let turns = 0; turns < most && !isSo(); turns += 1) await this.turn();
    expect(isSo(), JSON.stringify(this.barys.last?.state)).toBe(true);
  }
  get phase(): string | undefined {
    return this.barys.last?.state?.state.phase;
  }
  stateOf(name: string): Promise<string> {
    return this.bench.devices.find((one) => one.name === name)?.port.state() ?? Promise.resolve('');
  }
}

describe('a link', () => {
  const broken = (of: string, change: (port: Port) => Port) =>
    new Scene((bench) => ({
      ...bench,
      devices: bench.devices.map((one) => (one.name === of ? { ...one, port: change(one.port) } : one)),
    }));

  it('reads the taps of a loop, in their units: volts as they are, per cent of a receiver on its scale', async () => {
    const scene = new Scene((bench) => ({
      ...bench,
      devices: [...bench.devices, ...(bench as ReturnType<typeof benchOf>).atTaps],
    }));
    const tap = { low: 0, high: 320, decimals: 2 } as const;
    scene.barys.taps = [
      {
        ...tap,
        key: 'tap-1',
        device: 'Voltmeter',
        channel: 'voltage',
        unit: 'V',
        low: 1,
        high: 5,
        decimals: 4,
      },
      { ...tap, key: 'tap-2', device: 'Receiver', channel: 'display', unit: 'm³/h' },
    ];
    scene.barys.plan = {
      ...PLAN,
      taps: [
        { key: 'tap-1', span: 4 },
        { key: 'tap-2', span: 320 },
      ],
    };
    await scene.until(() => scene.barys.isEnded);
    const [volts, flow] = scene.barys.kept.get(2)?.taps ?? [];
    expect([volts?.key, flow?.key]).toEqual(['tap-1', 'tap-2']);
    // Half the range: 12 mA over 250 ohms, and half of 320.
    expect(Math.abs(Number(volts?.text) - 3)).toBeLessThan(0.005);
    expect(Math.abs(Number(flow?.text) - 160)).toBeLessThan(0.4);
    expect(volts?.raw).toMatch(/ V$/);
  });

  it('tells all values, goes through its run, and keeps each point once with what came over the wire', async () => {
    const scene = new Scene();
    await scene.until(() => scene.barys.isEnded);
    expect([...scene.barys.kept.keys()]).toEqual([1, 2, 3, 4, 5]);
    expect(scene.barys.kept.get(1)?.taps).toEqual([]);
    const middle = scene.barys.kept.get(2);
    expect(middle?.appliedText).toMatch(/^12[45]\.\d{3}$/);
    expect(middle?.outputText).toMatch(/^1[12]\.\d{4}$/);
    expect(middle?.digitalText).toMatch(/^12[45]\.\d{3}$/);
    expect(middle?.raw.applied).toMatch(/^1\.2[45]\d+e\+2 kPa$/);
    expect(scene.barys.last?.values.map(({ device, channel }) => `${device} ${channel}`)).toEqual([
      'Controller pressure',
      'Loop meter current',
      'Transmitter digital value',
      'Transmitter display',
    ]);
    expect(await scene.stateOf('Controller')).toBe('vented');
  });

  it('killed 200 times at any moment loses, doubles and hurries nothing', async () => {
    const chance = makeChance(11);
    for (let runs = 0; runs < 10; runs += 1) {
      const scene = new Scene();
      for (let kills = 0; kills < 20; kills += 1) {
        // Sometimes it dies with the answer on its way: what it sent has been kept.
        scene.barys.losesAnswers = chance.uniform(0, 1) < 0.5;
        for (let turns = chance.uniform(0, 12); turns > 0; turns -= 1) {
          await scene.turn();
          if (turns > 1) scene.barys.losesAnswers = false;
        }
        scene.barys.losesAnswers = false;
        scene.link = scene.started();
      }
      await scene.until(() => scene.barys.isEnded);
      expect([...scene.barys.kept.keys()].sort()).toEqual([1, 2, 3, 4, 5]);
      expect(scene.barys.all).toHaveLength(5);
      for (const { position, appliedText } of scene.barys.all)
        expect(Math.abs(Number(appliedText) - (PLAN.stops[position - 1]?.applied ?? NaN))).toBeLessThan(
          0.126,
        );
    }
  });

  it('passes over what somebody typed meanwhile', async () => {
    const scene = new Scene();
    await scene.until(() => scene.barys.kept.size === 1);
    const typed = { position: 3 } as BeatTaken;
    scene.barys.kept.set(3, typed);
    await scene.until(() => scene.barys.isEnded);
    expect(scene.barys.all.map(({ position }) => position)).toEqual([1, 2, 4, 5]);
    expect(scene.barys.kept.get(3)).toBe(typed);
  });

  it('obeys each order once, repeats a point, and goes on', async () => {
    const scene = new Scene();
    await scene.until(() => scene.barys.kept.size === 2);
    scene.barys.orders = [{ id: 4, name: 'hold' }];
    await scene.until(() => scene.phase === 'held');
    expect(scene.barys.last?.state).toMatchObject({ doneOrder: 4, state: { words: 'Held by hand.' } });
    expect(await scene.stateOf('Controller')).toBe('holding');
    scene.barys.orders.push({ id: 5, name: 'repeat' });
    await scene.until(() => scene.barys.all.length === 3);
    expect(scene.barys.all.at(-1)).toMatchObject({ position: 2, isRepeat: true });
    await scene.until(() => scene.barys.isEnded);
    expect(scene.barys.all.map(({ position }) => position)).toEqual([1, 2, 2, 3, 4, 5]);
  });

  it('repeats what it read itself last, not what somebody typed, and begins its point anew where it read none', async () => {
    const scene = new Scene();
    scene.barys.orders = [{ id: 1, name: 'repeat' }];
    await scene.until(() => scene.barys.kept.size === 1);
    expect(scene.barys.all).toMatchObject([{ position: 1, isRepeat: false }]);
    const typed = { position: 2 } as BeatTaken;
    scene.barys.kept.set(2, typed);
    await scene.turn();
    scene.barys.orders.push({ id: 2, name: 'repeat' });
    await scene.until(() => scene.barys.all.length === 2);
    expect(scene.barys.all.at(-1)).toMatchObject({ position: 1, isRepeat: true });
    await scene.until(() => scene.barys.isEnded);
    expect(scene.barys.kept.get(2)).toBe(typed);
  });

  it('stays held when it is started again, until somebody lets it go on', async () => {
    const scene = new Scene();
    scene.barys.orders = [{ id: 1, name: 'hold' }];
    await scene.until(() => scene.phase === 'held');
    scene.link = scene.started();
    for (let turns = 0; turns < 60; turns += 1) await scene.turn();
    expect(scene.phase).toBe('held');
    expect(scene.barys.all).toEqual([]);
    scene.barys.orders.push({ id: 2, name: 'go on' });
    await scene.until(() => scene.barys.isEnded);
  });

  it('shuts in what is under pressure when nobody hears it, and comes to the point again after', async () => {
    const scene = new Scene();
    await scene.until(() => scene.barys.kept.size === 1);
    scene.barys.isAway = true;
    for (let turns = 0; turns < 30; turns += 1) await scene.turn();
    expect(await scene.stateOf('Controller')).toBe('holding');
    const before = scene.barys.all.length;
    scene.barys.isAway = false;
    await scene.turn();
    await scene.turn();
    // What it had read before it was alone is told now; nothing is read at once.
    expect(scene.barys.all.length - before).toBeLessThanOrEqual(1);
    await scene.until(() => scene.barys.isEnded);
    expect(scene.barys.all.map(({ position }) => position)).toEqual([1, 2, 3, 4, 5]);
  });

  it('vents when nobody hears it where the procedure says so, and leaves alone what a person works', async () => {
    for (const [more, state] of [
      [{ onLoss: 'vent' as const }, 'vented'],
      [{ isByHand: true }, 'controlling'],
    ] as const) {
      const scene = new Scene();
      scene.barys.plan = { ...PLAN, ...more };
      await scene.until(() => scene.phase === ('isByHand' in more ? 'settling' : 'closing in'));
      if ('isByHand' in more) await scene.bench.devices[0]?.port.set?.(1, 'kPa', null);
      scene.barys.isAway = true;
      for (let turns = 0; turns < 30; turns += 1) await scene.turn();
      expect(await scene.stateOf('Controller')).toBe(state);
    }
  });

  it('leaves the pressure shut in when the run is taken over, and vents when it is stopped', async () => {
    const scene = new Scene();
    await scene.until(() => scene.barys.kept.size === 1);
    scene.barys.isEnded = true;
    await scene.turn();
    expect(await scene.stateOf('Controller')).toBe('holding');
    await scene.turn();
    expect(scene.barys.last?.state).toBeNull();
    await scene.link.end();
    expect(await scene.stateOf('Controller')).toBe('vented');
  });

  it('vents all that it can when it is stopped, and says which did not answer', async () => {
    const deaf = broken('Controller', (port) => ({
      ...port,
      vent: () => new Promise<never>(() => undefined),
    }));
    const closed: string[] = [];
    const also = new Link(
      new Bench({
        devices: [
          ...(deaf.end?.(deaf.bench) ?? deaf.bench).devices,
          {
            name: 'Second',
            port: {
              ...(deaf.bench.devices[0]?.port as Port),
              vent: () => (closed.push('vented'), Promise.resolve()),
              close: () => (closed.push('closed'), Promise.resolve()),
            },
          },
        ],
      }),
      deaf.barys,
      () => deaf.s,
      20,
    );
    await expect(also.end()).rejects.toThrow('Controller may be under pressure: It does not answer.');
    expect(closed).toEqual(['vented', 'closed']);
  });

  it('holds where Barys will never keep a reading, and does not send it for ever', async () => {
    const scene = new Scene();
    scene.barys.refuses = true;
    await scene.until(() => scene.phase === 'held');
    expect(scene.barys.last?.state?.state.words).toBe('The stage has passed.');
    for (let turns = 0; turns < 5; turns += 1) await scene.turn();
    expect(scene.barys.last?.taken).toEqual([]);
  });

  it.each([
    [
      'a unit that is not the one asked for',
      (port: Port) => ({ ...port, read: () => port.read('current').then((one) => ({ ...one, unit: 'V' })) }),
    ],
    [
      'no number',
      (port: Port) => ({ ...port, read: () => port.read('current').then((one) => ({ ...one, value: NaN })) }),
    ],
    ['an error', (port: Port) => ({ ...port, read: () => Promise.reject(new Error('garbage')) })],
    ['no answer at all', (port: Port) => ({ ...port, read: () => new Promise<never>(() => undefined) })],
  ])(
    'takes nothing from a meter that gives %s',
    async (_name, change) => {
      const scene = broken('Loop meter', change);
      await scene.until(() => scene.phase === 'held', 60);
      expect(scene.barys.last?.state?.state.words).toBe('The output gives no value.');
      expect(scene.barys.all).toEqual([]);
    },
    120_000,
  );

  it('holds when the controller refuses to be set', async () => {
    const scene = broken('Controller', (port) => ({
      ...port,
      set: () => Promise.reject(new Error('over range')),
    }));
    await scene.until(() => scene.phase === 'held', 20);
    expect(scene.barys.last?.state?.state.words).toBe('Controller: over range');
  });

  it('opens what was entered, closes what is there no more, and says of each what it is once it knows', async () => {
    const opened: string[] = [];
    const closed: string[] = [];
    const portAt = (name: string): Port => ({
      channels: ['pressure'],
      identify: () =>
        name === 'b'
          ? Promise.reject(new Error('deaf'))
          : Promise.resolve({ maker: 'M', model: name, serial: 'S1', firmware: '' }),
      read: () => Promise.resolve({ value: 1, unit: 'kPa', at: 0, isStable: true, raw: '1' }),
      state: () => Promise.resolve('measuring'),
      close: () => (closed.push(name), Promise.resolve()),
    });
    const barys = new FakeBarys();
    barys.isEnded = true;
    const end = (device: string, host: string): End => ({
      device,
      wire: { speaks: 'text', at: { kind: 'tcp', host, port: 1 }, driver: METER_DRIVER },
    });
    const bench = new Bench({ devices: [] }, ({ at }) => {
      const host = at.kind === 'tcp' ? at.host : '';
      opened.push(host);
      return portAt(host);
    });
    const link = new Link(bench, barys, () => 0, 20);
    barys.ends = [end('PC-1', 'a'), end('PC-2', 'b')];
    await link.turn();
    await link.turn();
    expect(barys.last?.values.map(({ device, model, serial }) => [device, model, serial])).toEqual([
      ['PC-1', 'M a', 'S1'],
      ['PC-2', '', ''],
    ]);
    barys.ends = [end('PC-1', 'a'), end('PC-2', 'c')];
    await link.turn();
    expect([opened, closed]).toEqual([['a', 'b', 'c'], ['b']]);
  });

  it('does what somebody asks of an instrument, once, and tells until it was heard', async () => {
    const setup = { tag: 'PT-1', lrv: 0, urv: 250 } as ReadSetup;
    const scene = broken('Loop meter', (port) => ({
      ...port,
      tryOut: () => Promise.resolve([{ what: 'Who', asked: '?', answered: '!', words: 'it', isGood: true }]),
      readSetup: () => Promise.resolve(setup),
    }));
    const trial = { kind: 'trial' } as const;
    const wanted = { kind: 'set-up', configuration: CONFIGURATION } as const;
    scene.barys.requests = [
      { id: 7, device: 'Loop meter', request: trial },
      { id: 8, device: 'Nobody', request: trial },
      { id: 9, device: 'Controller', request: wanted },
      { id: 10, device: 'Loop meter', request: wanted },
    ];
    await scene.turn();
    scene.barys.losesAnswers = true;
    await scene.turn();
    scene.barys.losesAnswers = false;
    for (let turns = 0; turns < 3; turns += 1) await scene.turn();
    expect(scene.barys.answers.map(({ id }) => id).sort((a, b) => a - b)).toEqual([7, 7, 8, 8, 9, 9, 10, 10]);
    const answerOf = (id: number) => scene.barys.answers.find((one) => one.id === id)?.answer;
    expect(answerOf(7)).toMatchObject({ kind: 'trial', tried: [{ words: 'it' }] });
    expect(answerOf(8)).toEqual({ kind: 'trouble', words: 'The link has no such instrument.' });
    expect(answerOf(9)).toEqual({ kind: 'trouble', words: 'It does not tell its settings.' });
    expect(answerOf(10)).toEqual({ kind: 'set-up', setup });
  });

  it('cuts what is too long for Barys, and tells a few answers at a time', async () => {
    const long = 'x'.repeat(5000);
    const scene = broken('Loop meter', (port) => ({
      ...port,
      identify: () => Promise.resolve({ maker: long, model: long, serial: long, firmware: '' }),
      read: () => Promise.resolve({ value: 1, unit: long, at: 0, isStable: true, raw: long }),
      tryOut: () => Promise.reject(new Error(long)),
    }));
    scene.barys.requests = Array.from({ length: 15 }, (_none, id) => ({
      id: id + 1,
      device: 'Loop meter',
      request: { kind: 'trial' as const },
    }));
    for (let turns = 0; turns < 20; turns += 1) await scene.turn();
    expect(scene.barys.answers.length).toBeGreaterThanOrEqual(15);
    const value = scene.barys.last?.values.find(({ device }) => device === 'Loop meter');
    expect([value?.model.length, value?.serial.length, value?.unit.length, value?.raw.length]).toEqual([
      200, 80, 20, 400,
    ]);
    expect(scene.barys.mostAnswers).toBeLessThanOrEqual(10);
    for (const { answer } of scene.barys.answers)
      expect(answer.kind === 'trouble' && answer.words.length).toBe(400);
  });

  it('waits for a late instrument once, so that the others are read as often as ever', async () => {
    let answer: ((value: PortValue) => void) | null = null;
    const scene = broken('Loop meter', (port) => ({
      ...port,
      read: () => new Promise<PortValue>((resolve) => (answer = resolve)),
    }));
    scene.link = new Link(
      new Bench(scene.end?.(scene.bench)),
      { beat: scene.barys.beat },
      () => scene.s,
      400,
    );
    const turn = async () => {
      const begun = performance.now();
      await scene.turn();
      return performance.now() - begun;
    };
    expect(await turn()).toBeGreaterThan(390);
    for (let turns = 0; turns < 3; turns += 1) expect(await turn()).toBeLessThan(200);
    const heard = () => scene.barys.last?.values.find(({ device }) => device === 'Loop meter')?.value;
    expect(heard()).toBeNull();
    // What came at last is taken, as old as its question.
    (answer as ((value: PortValue) => void) | null)?.({
      value: 5,
      unit: 'mA',
      at: 0,
      isStable: null,
      raw: '5',
    });
    await turn();
    expect(heard()).toBe(5);
  });

  it('does not ask an instrument again that has not answered yet', async () => {
    let asked = 0;
    const scene = broken('Loop meter', (port) => ({
      ...port,
      read: () => ((asked += 1), new Promise<never>(() => undefined)),
    }));
    for (let turns = 0; turns < 6; turns += 1) await scene.turn();
    expect(asked).toBe(1);
  });
});

it('writes what it reads without a sign before nothing', () => {
  expect([-0.0001, 0.0004, -0.0006, 12.34567].map((value) => textOf(value, 3))).toEqual([
    '0.000',
    '0.000',
    '-0.001',
    '12.346',
  ]);
});

it('an order has no hold on a run that is finished', () => {
  const state = { phase: 'finished', index: 5 } as Parameters<typeof obey>[1];
  expect(obey(PLAN, state, 'hold', 0, null)).toEqual({ state, act: null });
});
