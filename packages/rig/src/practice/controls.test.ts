import { HOOK_UPS, type ValveMove } from '@barys/core/hookup';
import { describe, expect, it } from 'vitest';
import { FAULTS } from '../world';
import { Hands } from './hands';
import {
  findLesson,
  FREE_KINDS,
  freeId,
  HIDDEN,
  lessonOf,
  menuLines,
  PracticeBench,
  scoreOf,
  type Act,
  type Score,
} from './index';

const why = ({ deductions }: Score): string[] => deductions.map((one) => one.why);
const unsafe = ({ deductions }: Score): string[] =>
  deductions.filter((one) => one.why.startsWith('unsafe')).map((one) => one.why);

describe('the local menu', () => {
  const hands = () => new Hands(lessonOf('set-up rehearsal'), 2);
  const lines = ({ bench }: Hands) => (bench.menued === null ? [] : menuLines(bench.menu, bench.menued));

  it('is shut until it is taken, and goes back page by page', () => {
    const some = hands();
    expect(lines(some)).toEqual([]);
    some.do({ do: 'wheel', clicks: 3 });
    some.do({ do: 'key', key: 'back' });
    expect(lines(some)).toEqual([]);
    some.do({ do: 'key', key: 'take' });
    expect(lines(some).map(({ word }) => word)).toEqual(['Range', 'Output', 'Display', 'Zero', 'Loop test']);
    some.take('Output');
    expect(lines(some)[0]?.word).toBe('Goes');
    some.back();
    expect(lines(some).find(({ isInHand }) => isInHand)?.word).toBe('Output');
    some.back();
    expect(lines(some)).toEqual([]);
  });

  it('takes a number digit by digit, carries over, and leaves it by the key back', () => {
    const some = hands();
    some.do({ do: 'key', key: 'take' });
    some.take('Range');
    some.take('Ends at');
    expect(lines(some)[1]).toEqual({ word: 'Ends at', value: '[0]30.000', isInHand: true });
    some.do({ do: 'wheel', clicks: 2 });
    some.do({ do: 'key', key: 'take' });
    some.do({ do: 'wheel', clicks: -4 });
    expect(lines(some)[1]?.value).toBe('1[9]0.000');
    some.back();
    expect(some.bench.menued?.settings.urv).toBe(30);
    some.enter('Begins at', -12.345);
    expect(some.bench.menued?.settings.lrv).toBe(-12.345);
    expect(lines(some)[0]).toEqual({ word: 'Begins at', value: '-12.345', isInHand: true });
  });

  it('says what it is answered: a range beyond the body, a span of nothing', () => {
    const some = hands();
    some.do({ do: 'key', key: 'take' });
    some.take('Range');
    some.enter('Ends at', 900);
    expect(some.bench.menu.said).toBe('beyond the limits of the body');
    some.enter('Ends at', 0);
    expect(some.bench.menu.said).toBe('no span');
    expect(some.bench.menued?.settings.urv).toBe(30);
    some.enter('Ends at', 25);
    expect(some.bench.menu.said).toBe('done');
  });

  it('holds the loop, lets it go, and takes a zero', () => {
    const some = new Hands(lessonOf('position zero'), 1);
    some.do({ do: 'key', key: 'take' });
    some.take('Loop test');
    some.take('Hold 20 mA');
    some.wait(3);
    expect(some.output).toBeCloseTo(20, 2);
    some.take('Let go');
    some.back();
    some.take('Zero');
    some.take('Take this for zero');
    some.wait(8);
    expect(some.output).toBeCloseTo(4, 2);
  });

  it('is not there where nothing is smart', () => {
    const bench = new PracticeBench(lessonOf('zero and span'), 1);
    expect(() => bench.act({ do: 'key', key: 'take' })).toThrow('no such control');
    expect(bench.menued).toBeNull();
  });
});

describe('the leads of the meter', () => {
  const at = (...acts: Act[]) => {
    const hands = new Hands(lessonOf('sensor or output'), 1);
    for (const act of acts) hands.do(act);
    hands.wait(2);
    return hands;
  };

  it('show the current in series and across the test terminals, and nothing while they are off', () => {
    expect(at().output).toBeCloseTo(4, 0);
    expect(at({ do: 'lead', to: 'across the test terminals' }).output).toBeCloseTo(at().output, 2);
    expect(at({ do: 'lead', to: 'off' }).bench.output).toBeNull();
  });

  it('open the loop where the lead is in the voltage jack', () => {
    const hands = at({ do: 'jack', to: 'voltage' });
    expect(hands.bench.output).toBeNull();
    expect(hands.bench.world.truth.milliamp).toBe(0);
    expect(unsafe(scoreOf(hands.lesson, 1, hands.bench.done))).toEqual([]);
  });

  it('blow the fuse across the supply, and show its volts in the right jack', () => {
    const blown = at({ do: 'lead', to: 'across the supply' });
    expect(blown.bench.leads.in).toBe('blown');
    expect(unsafe(scoreOf(blown.lesson, 1, blown.bench.done))).toEqual([
      'unsafe: the meter stood across the supply with its lead in the current jack: its fuse blew',
    ]);
    blown.do({ do: 'lead', to: 'in series' });
    blown.wait(2);
    expect(blown.bench.output).toBeNull();
    blown.do({ do: 'jack', to: 'current' });
    blown.wait(2);
    expect(blown.output).toBeCloseTo(4, 0);
    const volts = at({ do: 'jack', to: 'voltage' }, { do: 'lead', to: 'across the supply' });
    expect(volts.bench.leads.shown).toEqual({ value: 24, unit: 'V' });
    expect(volts.bench.output).toBeNull();
  });

  it('must not open a loop that is in service', () => {
    const lesson = lessonOf('receiver');
    const moved = (...acts: Act[]) => {
      const hands = new Hands(lesson, 1);
      for (const act of acts) hands.do(act);
      return unsafe(scoreOf(lesson, 1, hands.bench.done)).length;
    };
    expect(moved({ do: 'lead', to: 'across the test terminals' }, { do: 'lead', to: 'off' })).toBe(0);
    expect(moved({ do: 'lead', to: 'in series' })).toBe(1);
    expect(moved({ do: 'lead', to: 'in series' }, { do: 'lead', to: 'off' })).toBe(2);
  });
});

describe('the valves of a wet leg', () => {
  const lesson = lessonOf('wet leg');
  const move = (valve: ValveMove['valve'], to: ValveMove['to']): Act => ({
    do: 'valve',
    move: { valve, to },
  });
  const level = ({ bench }: Hands) => bench.shown.own ?? 0;

  it('read too high with an empty leg, and right once it is full', () => {
    const hands = new Hands(lesson, 1);
    hands.wait(5);
    const head = hands.bench.field?.process.head ?? 0;
    expect(level(hands)).toBeGreaterThan((head / 20) * 100 + 50);
    for (const valveMove of HOOK_UPS['wet-leg'].isolate) hands.do({ do: 'valve', move: valveMove });
    hands.wait(5);
    // Both sides vented: no differential pressure.
    expect(hands.bench.world.truth.applied).toBe(0);
    expect(hands.do({ do: 'fill leg' })).toBeNull();
    hands.wait(130);
    for (const valveMove of HOOK_UPS['wet-leg'].restore) hands.do({ do: 'valve', move: valveMove });
    hands.wait(10);
    expect(level(hands)).toBeCloseTo((head / 20) * 100, 0);
    expect(hands.bench.field?.lacks).toBe(0);
  });

  it('let the pressure follow each valve, also where two are moved in one moment', () => {
    const hands = new Hands(lesson, 1);
    for (const valveMove of HOOK_UPS['wet-leg'].isolate) hands.do({ do: 'valve', move: valveMove });
    hands.wait(1);
    for (const valveMove of HOOK_UPS['wet-leg'].restore.slice(0, 4))
      hands.do({ do: 'valve', move: valveMove });
    hands.wait(1);
    // Equalised when the equaliser was shut: the low side keeps what the high side had.
    expect(hands.bench.world.truth.applied).toBe(0);
    expect(hands.bench.mostApplied).toBeLessThan(50);
  });

  it('lose the leg by a wrong valve, and a leg that is open is not filled', () => {
    const hands = new Hands(lesson, 1);
    expect(hands.do(move('equaliser', 'open'))).toContain('The wet leg is open');
    expect(hands.do({ do: 'fill leg' })).toBe('it runs out as fast as it is filled');
    hands.wait(120);
    expect(hands.bench.field?.filled).toBeLessThan(0.01);
    expect(unsafe(scoreOf(lesson, 1, hands.bench.done)).length).toBeGreaterThan(0);
    expect(why(scoreOf(lesson, 1, hands.bench.done))).toContain(
      'it is not back in service: its valves do not stand so',
    );
  });

  it('load the body on one side where a vent is opened first', () => {
    const hands = new Hands(lesson, 1);
    hands.do(move('low-block', 'closed'));
    hands.do(move('vent-low', 'open'));
    hands.wait(1);
    expect(hands.bench.world.truth.applied).toBeGreaterThan(500);
    expect(unsafe(scoreOf(lesson, 1, hands.bench.done)).join()).toContain('loaded on one side');
  });

  it('fill by steam within hours where nobody fills them by hand', () => {
    const hands = new Hands(lesson, 1);
    const before = hands.bench.field?.filled ?? 0;
    hands.wait(3600);
    expect(hands.bench.field?.filled).toBeGreaterThan(before + 0.3);
  });
});

describe('an exchange of the body', () => {
  const lesson = lessonOf('body exchange');

  it('wants a body, takes each step once, and is dead while its supply is off', () => {
    const bench = new PracticeBench(lesson, 1);
    expect(bench.act({ do: 'swap', step: 5 })).toBe('choose a body first');
    expect(bench.act({ do: 'pick body', body: 9 })).toBe('the store has no such body');
    bench.act({ do: 'swap', step: 0 });
    expect(bench.act({ do: 'swap', step: 0 })).toBe('that is done');
    bench.act({ do: 'swap', step: 1 });
    expect(bench.output).toBeNull();
    expect(bench.act({ do: 'tell', command: { kind: 'zero trim' } })).toBe('it does not answer');
    expect(bench.unsafe).toEqual([]);
  });

  it('leaves a large body outside the limit however it is zeroed', () => {
    const hands = new Hands(lesson, 1);
    hands.do({ do: 'pick body', body: 2 });
    for (let step = 0; step < 8; step += 1) hands.do({ do: 'swap', step });
    hands.do({ do: 'tell', command: { kind: 'set', settings: { lrv: 0, urv: 400 } } });
    hands.wait(10);
    hands.do({ do: 'tell', command: { kind: 'zero trim' } });
    const said = why(scoreOf(lesson, 1, hands.bench.done)).join('; ');
    expect(said).toContain('Body C, to 7000 kPa is not the one for this range');
    expect(said).toContain('what is left is outside the limit');
  });

  it('refuses the range to the body that was there', () => {
    const bench = new PracticeBench(lesson, 1);
    expect(bench.act({ do: 'tell', command: { kind: 'set', settings: { urv: 400 } } })).toBe(
      'beyond the limits of the body',
    );
    expect(why(scoreOf(lesson, 1, bench.done))).toContain('no other body was mounted');
  });
});

describe('what is written down', () => {
  const lesson = lessonOf('sensor or output');
  const read = (applied: number, output: number, at = 25) => {
    const hands = new Hands(lesson, 1);
    hands.go(at, 'up');
    const shown = hands.output;
    hands.do({
      do: 'read',
      percent: 25,
      way: 'up',
      pass: 'as found',
      wrote: { applied: hands.pressure + applied, output: shown + output },
    });
    return why(scoreOf(lesson, 1, hands.bench.done)).filter((one) => one.startsWith('25 %'));
  };

  it('is held against what was shown, the pressure as well', () => {
    expect(read(0, 0.005)).toEqual([]);
    expect(read(0, 0.05)).toEqual(['25 % was written down as something else than was shown']);
    expect(read(2, 0)).toEqual(['25 %: another pressure was written down than was applied']);
    expect(read(0, 0, 40)).toEqual(
      ['25 % was overshot', '25 % was read far from its point'].map((one) =>
        one.replace('25 % was overshot', '25 % rising was overshot'),
      ),
    );
  });

  it('does not count as read where the point was not made', () => {
    const hands = new Hands(lesson, 1);
    for (const percent of [0, 25, 50, 75, 100, 75, 50, 25, 0])
      hands.do({ do: 'read', percent, way: 'up', pass: 'as found' });
    expect(why(scoreOf(lesson, 1, hands.bench.done))).toContain('it was not read as found at every point');
  });
});

const FREE = Object.entries(FREE_KINDS).flatMap(([kind, { faults }]) =>
  Object.keys(faults).map((fault) => [kind, fault] as const),
);

describe('the free bench', () => {
  it.each(FREE)('makes a %s with %s, read at every point and named', (kind, fault) => {
    const lesson = lessonOf(freeId(kind, fault));
    const hands = new Hands(lesson, 3);
    // What stays on its process is not run through points.
    const isRun = lesson.task === 'run';
    if (isRun) hands.run('as found');
    hands.do({ do: 'name', causes: lesson.causes });
    const { output, taken } = hands.bench;
    expect(taken).toHaveLength(isRun ? 9 : 0);
    expect(output).not.toBeNaN();
    const score = scoreOf(lesson, 3, hands.bench.done);
    expect(why(score).join()).not.toContain('named');
    for (const { error } of score.left) expect(error).not.toBeNaN();
    // What is sound, or cannot be cured here, costs nothing once it is named.
    if (fault === 'nothing') expect(score.points, why(score).join('; ')).toBeGreaterThanOrEqual(95);
    if (fault !== 'nothing') {
      const wrong = scoreOf(lesson, 3, [
        ...hands.bench.done,
        { atS: hands.bench.timeS, act: { do: 'name', causes: ['nothing'] } },
      ]);
      expect(why(wrong)).toContain('what was wrong was not named');
    }
  });

  it('shows each fault in the readings, or in the time they take', () => {
    for (const fault of ['offset', 'gain', 'output offset', 'wrong range', 'tilt']) {
      const bench = new PracticeBench(lessonOf(freeId('smart transmitter', fault)), 3);
      expect(
        Math.max(...[0, 25, 50, 75, 100].map((percent) => Math.abs(bench.errorAt(percent)))),
        fault,
      ).toBeGreaterThan(0.3);
    }
  });

  it('is solved where it can be: a sensor that is off is trimmed', () => {
    const lesson = lessonOf(freeId('smart transmitter', 'gain'));
    const hands = new Hands(lesson, 3);
    hands.run('as found');
    hands.do({ do: 'name', causes: ['sensor off'] });
    for (const [end, applied] of [
      ['lower', 0],
      ['upper', 100],
    ] as const) {
      hands.go(applied, 'up');
      hands.do({ do: 'tell', command: { kind: 'sensor trim', end, applied: hands.pressure } });
    }
    hands.go(0, 'down');
    hands.run('as left');
    expect(scoreOf(lesson, 3, hands.bench.done).points).toBeGreaterThanOrEqual(95);
  });

  it('hides one of its faults by the seed, and scores against that one', () => {
    const lesson = lessonOf(freeId('smart transmitter', HIDDEN));
    const causes = new Set(
      Array.from({ length: 40 }, (_, seed) => scoreOf(lesson, seed + 1, []).causes.join()),
    );
    expect(causes.size).toBeGreaterThan(6);
    expect(lesson.causes).toEqual([]);
  });

  it('has every fault that a world can have', () => {
    const made = new Set(Object.values(FREE_KINDS).flatMap(({ faults }) => Object.keys(faults)));
    for (const fault of Object.keys(FAULTS)) expect(made, fault).toContain(fault);
  });

  it('has nothing of another name', () => {
    for (const id of [
      'free bench: smart transmitter',
      'free bench: kettle, offset',
      'free bench: constructor, hidden',
      'free bench: dial gauge, constructor',
      'free',
    ])
      expect(findLesson(id), id).toBeUndefined();
  });
});
