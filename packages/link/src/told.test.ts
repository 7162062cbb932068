import { obey } from '@barys/core/automatic';
import { METER_DRIVER, type End, type Port, type PortValue, type ReadSetup } from '@barys/core/port';
import { describe, expect, it } from 'vitest';
import { type benchOf, broken, CONFIGURATION, FakeBarys, PLAN, Scene } from '../test/scene';
import { Bench } from './bench';
import { Link, textOf } from './link';

describe('what a link reads and is asked', () => {
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
      1500,
    );
    const turn = async () => {
      const begun = performance.now();
      await scene.turn();
      return performance.now() - begun;
    };
    // Far apart, since a busy machine is late as well.
    expect(await turn()).toBeGreaterThan(1490);
    for (let turns = 0; turns < 3; turns += 1) expect(await turn()).toBeLessThan(1000);
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
