import { HOOK_UPS } from '@barys/core/hookup';
import { describe, expect, it } from 'vitest';
import { Hands } from './hands';
import { lessonOf, LESSONS, LONGEST_S, PracticeBench, replayed, scoreOf, type Score } from './index';

const SEEDS = [1, 2, 4711];
const why = ({ deductions }: Score): string[] => deductions.map((one) => one.why);

/** What an expert does in each lesson. */
const EXPERT: Readonly<Record<string, (hands: Hands) => void>> = {
  'five-point check': (hands) => {
    hands.run('as found');
    hands.name('nothing');
  },
  'zero and span': (hands) => {
    hands.run('as found');
    hands.name('zero off', 'span off');
    hands.adjustScrews();
    hands.go(0, 'down');
    hands.run('as left');
  },
  '10 to 50 mA': (hands) => {
    hands.run('as found');
    hands.name('zero off');
    hands.go(0, 'down');
    hands.set('zero', 10);
    hands.run('as left');
  },
  'pneumatic balance': (hands) => {
    hands.run('as found');
    hands.name('zero off', 'span off');
    hands.adjustScrews();
    hands.go(0, 'down');
    hands.run('as left');
  },
  'digital gauge': (hands) => {
    hands.run('as found');
    hands.name('field values wrong');
    hands.do({ do: 'restore', set: 'factory' });
    hands.run('as left');
  },
  'sensor or output': (hands) => {
    hands.run('as found');
    hands.name('output off');
    for (const at of [4, 20] as const) {
      hands.do({ do: 'tell', command: { kind: 'hold', milliamp: at } });
      hands.wait(5);
      hands.do({ do: 'tell', command: { kind: 'output trim', at, measured: hands.output } });
    }
    hands.do({ do: 'tell', command: { kind: 'hold', milliamp: null } });
    hands.run('as left');
  },
  're-range or trim': (hands) => {
    hands.run('as found');
    hands.name('range wrong');
    hands.do({ do: 'tell', command: { kind: 'set', settings: { lrv: 0, urv: 100 } } });
    hands.run('as left');
  },
  'position zero': (hands) => {
    hands.run('as found');
    hands.name('body tilted');
    hands.go(0, 'down');
    hands.do({ do: 'tell', command: { kind: 'zero trim' } });
    hands.run('as left');
  },
  'root twice': (hands) => {
    hands.run('as found');
    hands.name('root twice');
    hands.do({
      do: 'tell',
      command: {
        kind: 'set',
        settings: {
          drivenBy: 'pressure',
          scaledTransfer: { kind: 'linear' },
          transfer: { kind: 'square-root-cut-off', cutOffPercentOfFlow: 12 },
        },
      },
    });
    hands.run('as left');
  },
  receiver: (hands) => {
    hands.do({ do: 'lead', to: 'across the test terminals' });
    hands.run('as found');
    hands.name('receiver wrong');
  },
  'null meter': (hands) => {
    hands.run('as found');
    hands.name('zero off', 'span off');
    hands.adjustScrews();
    hands.go(0, 'down');
    hands.run('as left');
  },
  'set-up rehearsal': (hands) => {
    hands.do({ do: 'key', key: 'take' });
    hands.take('Range');
    hands.enter('Begins at', 0);
    hands.enter('Ends at', 25);
    hands.back();
    hands.take('Output');
    hands.choose('Goes', 'by the root, nothing below a start');
    hands.enter('Starts at, % of flow', 8);
    hands.choose('Is driven by', 'pressure');
    hands.enter('Damping, s', 2);
    hands.back();
    hands.take('Display');
    hands.enter('At 100 %', 450);
    hands.choose('Unit', 'm³/h');
    hands.choose('Shows first', 'display scale');
    hands.enter('Damping, s', 1);
    hands.name('range wrong');
  },
  'other density': (hands) => {
    const set = {
      lrv: 1.706,
      urv: 27.302,
      dampingS: 4,
      displayDampingS: 1,
      displayLow: 0.2,
      displayHigh: 3.2,
    };
    hands.do({ do: 'tell', command: { kind: 'set', settings: set } });
    hands.do({
      do: 'tell',
      command: { kind: 'face', face: { displayUnit: 'm', startView: 'display scale' } },
    });
    hands.name('density wrong');
  },
  'body exchange': (hands) => {
    hands.name('body too small');
    hands.go(0, 'down');
    hands.do({ do: 'pick body', body: 1 });
    for (let step = 0; step < 8; step += 1) hands.do({ do: 'swap', step });
    hands.do({ do: 'tell', command: { kind: 'set', settings: { lrv: 0, urv: 400 } } });
    hands.go(0, 'down');
    hands.do({ do: 'tell', command: { kind: 'zero trim' } });
    hands.run('as left');
  },
  'wet leg': (hands) => {
    hands.name('leg lost');
    const { isolate, restore } = HOOK_UPS['wet-leg'];
    for (const move of isolate) hands.do({ do: 'valve', move });
    hands.do({ do: 'fill leg' });
    hands.wait(150);
    for (const move of restore) hands.do({ do: 'valve', move });
  },
  'vacuum gauge': (hands) => {
    hands.run('as found');
    hands.name('zero off', 'span off');
    hands.pumpDown(0.05);
    hands.do({ do: 'gauge zero' });
    hands.go(100, 'up');
    hands.do({ do: 'gauge span', said: hands.bench.fine ?? 0 });
    hands.pumpDown(0.5);
    hands.run('as left');
  },
};

/** The classic mistake of each lesson, and how it is named. */
const MISTAKE: Readonly<Record<string, readonly [work: (hands: Hands) => void, why: string]>> = {
  'five-point check': [
    (hands) => {
      hands.run('as found');
      hands.name('zero off');
      hands.go(0, 'down');
      hands.set('zero', 4.002);
      hands.run('as left');
    },
    'adjusted without need',
  ],
  'zero and span': [
    (hands) => {
      hands.go(0, 'up');
      hands.set('zero', 4);
      hands.go(100, 'up');
      hands.set('span', 20);
      hands.name('zero off', 'span off');
    },
    'adjusted before it was read as found at every point',
  ],
  '10 to 50 mA': [
    (hands) => {
      hands.run('as found');
      hands.name('zero off', 'span off');
      // The top is brought right with the span, since it was read there.
      hands.go(100, 'up');
      hands.set('span', 50);
      hands.go(0, 'down');
      hands.run('as left');
    },
    'what is left is outside the limit',
  ],
  'pneumatic balance': [
    (hands) => {
      hands.run('as found');
      hands.name('zero off', 'span off');
      // Zero, then span, and away: the wheel has taken the zero along.
      hands.go(0, 'down');
      hands.set('zero', 3);
      hands.go(100, 'up');
      hands.set('span', 15);
    },
    'what was adjusted was not read as left at every point',
  ],
  'digital gauge': [
    (hands) => {
      hands.run('as found');
      hands.name('zero off');
      hands.go(0, 'down');
      hands.wait(10);
      hands.do({ do: 'take', point: 'zero', said: 0 });
      hands.run('as left');
    },
    'something was named that was not wrong',
  ],
  'sensor or output': [
    (hands) => {
      hands.run('as found');
      hands.name('sensor off');
      hands.go(0, 'down');
      hands.do({
        do: 'tell',
        command: { kind: 'sensor trim', end: 'lower', applied: 0 - (hands.output - 4) * 6.25 },
      });
      hands.go(100, 'up');
      hands.do({
        do: 'tell',
        command: { kind: 'sensor trim', end: 'upper', applied: 100 - (hands.output - 20) * 6.25 },
      });
      hands.run('as left');
    },
    'something was named that was not wrong',
  ],
  're-range or trim': [
    (hands) => {
      hands.run('as found');
      hands.name('sensor off');
    },
    'what was wrong was not named',
  ],
  'position zero': [
    (hands) => {
      hands.run('as found');
      hands.name('body tilted');
      // Taken for nothing under pressure.
      hands.go(25, 'up');
      hands.do({ do: 'tell', command: { kind: 'zero trim' } });
      hands.run('as left');
    },
    'what is left is outside the limit',
  ],
  'root twice': [
    (hands) => {
      hands.run('as found');
      hands.name('span off');
    },
    'something was named that was not wrong',
  ],
  'null meter': [
    (hands) => {
      // More than the end is taken for less.
      for (const percent of [0, 100]) {
        hands.go(percent, 'up');
        const end = percent === 0 ? 4 : 20;
        const wrote = { applied: hands.pressure, output: 2 * end - hands.output };
        hands.do({ do: 'read', percent, way: 'up', pass: 'as found', wrote });
      }
      hands.go(0, 'down');
      hands.do({ do: 'read', percent: 0, way: 'down', pass: 'as found' });
      hands.name('zero off', 'span off');
    },
    'was written down as something else than was shown',
  ],
  'set-up rehearsal': [
    (hands) => {
      const transfer = { kind: 'square-root-cut-off', cutOffPercentOfFlow: 8 } as const;
      const settings = { urv: 25, transfer, dampingS: 2, displayDampingS: 1, displayHigh: 450 };
      hands.do({ do: 'tell', command: { kind: 'set', settings } });
      hands.name('range wrong');
    },
    'Display unit is % and should be m³/h',
  ],
  'other density': [
    (hands) => {
      // The level is trimmed right at what stands in the tank.
      hands.do({ do: 'pressure', to: 15 });
      hands.wait(30);
      hands.do({ do: 'tell', command: { kind: 'zero trim' } });
      hands.name('sensor off');
    },
    'what is left is outside the limit',
  ],
  'body exchange': [
    (hands) => {
      hands.name('body too small');
      hands.do({ do: 'pressure', to: 100 });
      hands.wait(30);
      hands.do({ do: 'pick body', body: 2 });
      for (const step of [3, 5]) hands.do({ do: 'swap', step });
      hands.do({ do: 'tell', command: { kind: 'set', settings: { lrv: 0, urv: 400 } } });
      hands.run('as left');
    },
    'unsafe: the body was taken off under pressure',
  ],
  'wet leg': [
    (hands) => {
      hands.name('leg lost');
      hands.do({ do: 'valve', move: { valve: 'equaliser', to: 'open' } });
      hands.do({ do: 'fill leg' });
      hands.wait(150);
      hands.do({ do: 'valve', move: { valve: 'equaliser', to: 'closed' } });
    },
    'unsafe: The wet leg is open to the other side',
  ],
  'vacuum gauge': [
    (hands) => {
      hands.run('as found');
      hands.name('zero off', 'span off');
      hands.do({ do: 'manifold', bleed: 1, valve: 0 });
      hands.wait(600);
      hands.do({ do: 'gauge span', said: hands.pressure });
      hands.pumpDown(1);
      hands.run('as left');
    },
    'what is left is outside the limit',
  ],
  receiver: [
    (hands) => {
      hands.do({ do: 'lead', to: 'in series' });
      hands.run('as found');
      hands.name('output off');
      for (const at of [4, 20] as const) {
        hands.do({ do: 'tell', command: { kind: 'hold', milliamp: at } });
        hands.wait(5);
        // As if the panel were the standard.
        const measured = 4 + 0.16 * (hands.bench.shown.receivers[0] ?? 0);
        hands.do({ do: 'tell', command: { kind: 'output trim', at, measured } });
      }
      hands.do({ do: 'tell', command: { kind: 'hold', milliamp: null } });
      hands.run('as left');
    },
    'adjusted without need',
  ],
};

describe.each(LESSONS.map((lesson) => [lesson.id, lesson] as const))('the lesson %s', (id, lesson) => {
  it.each(SEEDS)('is solved by an expert, seed %i', (seed) => {
    const hands = new Hands(lesson, seed);
    EXPERT[id]?.(hands);
    const score = scoreOf(lesson, seed, hands.bench.done);
    expect(score.points, why(score).join('; ')).toBeGreaterThanOrEqual(95);
    for (const { error } of score.left)
      expect(Math.abs(error)).toBeLessThanOrEqual(lesson.limitPercent * 0.7);
  });

  it('names the classic mistake, and takes points for it', () => {
    const hands = new Hands(lesson, 1);
    const [work, named] = MISTAKE[id] ?? [() => undefined, 'no mistake'];
    work(hands);
    const score = scoreOf(lesson, 1, hands.bench.done);
    expect(why(score).join('; ')).toContain(named);
    expect(score.points).toBeLessThan(90);
  });

  it('hides something of its own in every seed', () => {
    const shown = SEEDS.map((seed) => {
      const bench = new PracticeBench(lesson, seed);
      return JSON.stringify([bench.errorAt(50), bench.shown]);
    });
    expect(new Set(shown).size).toBe(SEEDS.length);
  });
});

describe('an attempt', () => {
  const lesson = lessonOf('zero and span');

  it('is the same again from its acts, at its end and at any moment', () => {
    const hands = new Hands(lesson, 5);
    hands.run('as found');
    const { done, taken, timeS } = hands.bench;
    const again = replayed(lesson, 5, done);
    expect(again.taken).toEqual(taken);
    expect(again.timeS).toBeCloseTo(timeS, 6);
    const [third] = taken.slice(2);
    const then = replayed(lesson, 5, done, third?.atS);
    expect(then.taken).toEqual(taken.slice(0, 3));
  });

  it('loses points for what went past a point, for a reading that moved, for a hint, and for an over-ranged reference', () => {
    const hands = new Hands(lesson, 5);
    for (let count = 0; count < 60; count += 1) hands.do({ do: 'stroke' });
    hands.do({ do: 'hint' });
    hands.do({ do: 'read', percent: 25, way: 'up', pass: 'as found' });
    const said = why(scoreOf(lesson, 5, hands.bench.done));
    expect(said).toContain('a hint');
    hands.wait(1);
    hands.do({ do: 'read', percent: 50, way: 'up', pass: 'as found' });
    const score = scoreOf(lesson, 5, hands.bench.done);
    expect(why(score)).toContain('50 % was read while it moved');
    expect(why(score)).toContain('50 % rising was overshot');
    expect(why(score)).toContain('the reference was over-ranged');
    expect(score.points).toBe(
      0 + Math.max(0, 100 - score.deductions.reduce((sum, { points }) => sum + points, 0)),
    );
  });

  it('stands still after two hours of the bench', () => {
    const bench = new PracticeBench(lesson, 1);
    expect(bench.isOver).toBe(false);
    bench.advance(9000);
    bench.advance(60);
    expect(bench.timeS).toBeCloseTo(LONGEST_S, 3);
    expect(bench.isOver).toBe(true);
  });

  it('is refused what its bench does not have', () => {
    const bench = new PracticeBench(lesson, 1);
    expect(() => bench.act({ do: 'pressure', to: 50 })).toThrow('this bench has no such control');
    expect(() => bench.act({ do: 'tell', command: { kind: 'zero trim' } })).toThrow('no such control');
    expect(bench.done).toEqual([]);
  });
});
