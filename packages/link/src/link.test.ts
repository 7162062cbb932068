import { type BeatTaken, type Port } from '@barys/core/port';
import { makeChance } from '@barys/rig/chance';
import { describe, expect, it } from 'vitest';
import { PLAN, Scene, broken } from '../test/scene';
import { Bench } from './bench';
import { Link } from './link';

describe('a run of a link', () => {
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
});
