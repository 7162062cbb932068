import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  afterMoves,
  ARRANGEMENTS,
  faultInWords,
  faultsIn,
  HOOK_UPS,
  inService,
  lackInWords,
  lacksOf,
  moveInWords,
  moveValve,
  valveOf,
  wayTo,
  type Arrangement,
  type HookUpState,
  type ValveId,
  type ValveMove,
} from './index';

const open = (valve: ValveId): ValveMove => ({ valve, to: 'open' });
const close = (valve: ValveId): ValveMove => ({ valve, to: 'closed' });

/** Faults of the last of several moves from service. */
const faultsAfter = (arrangement: Arrangement, ...moves: ValveMove[]) => {
  const last = moves.pop() as ValveMove;
  return moveValve(arrangement, afterMoves(arrangement, inService(arrangement), moves), last).faults;
};
const isolated = (arrangement: Arrangement): HookUpState =>
  afterMoves(arrangement, inService(arrangement), HOOK_UPS[arrangement].isolate);

describe.each(ARRANGEMENTS)('the usual order of %s', (arrangement) => {
  const { isolate, restore } = HOOK_UPS[arrangement];

  it('isolates without a fault and leaves no pressure anywhere behind the blocks', () => {
    let state = inService(arrangement);
    expect(lacksOf(arrangement, state, 'in-service')).toEqual([]);
    expect(lacksOf(arrangement, state, 'isolated').length).toBeGreaterThan(0);
    for (const move of isolate) {
      const moved = moveValve(arrangement, state, move);
      expect([move, moved.faults]).toEqual([move, []]);
      state = moved.state;
    }
    expect(lacksOf(arrangement, state, 'isolated')).toEqual([]);
    expect([...state.pressurised].filter((space) => !space.startsWith('process'))).toEqual([]);
    expect(state.isLegLost).toBe(false);
  });

  it('returns to service without a fault', () => {
    let state = isolated(arrangement);
    for (const move of restore) {
      const moved = moveValve(arrangement, state, move);
      expect([move, moved.faults]).toEqual([move, []]);
      state = moved.state;
    }
    expect(lacksOf(arrangement, state, 'in-service')).toEqual([]);
  });

  it('is the shortest way without a fault, both ways', () => {
    expect(wayTo(arrangement, inService(arrangement), 'isolated')).toEqual(isolate);
    expect(wayTo(arrangement, isolated(arrangement), 'in-service')).toEqual(restore);
    expect(wayTo(arrangement, isolated(arrangement), 'isolated')).toEqual([]);
  });

  it('names every move and every valve that is not yet right', () => {
    for (const move of isolate) expect(moveInWords(arrangement, move)).toMatch(/^(Open|Close) [a-z]/);
    const words = lacksOf(arrangement, inService(arrangement), 'isolated').map((lack) =>
      lackInWords(arrangement, lack),
    );
    expect(words.length).toBeGreaterThan(1);
    for (const one of words) expect(one).toMatch(/is still (open|closed)\.$|^Pressure is trapped/);
  });
});

describe('a wrong move', () => {
  it.each<[string, Arrangement, ValveMove[], string]>([
    ['a bleed opened with the block open', 'block-and-bleed', [open('bleed')], 'process-open'],
    ['air admitted with the vacuum behind it', 'vacuum', [open('bleed')], 'process-open'],
    ['a tank drained through its nozzle', 'tank-nozzle', [open('bleed')], 'process-open'],
    ['the equaliser opened between two open blocks', '3-valve', [open('equaliser')], 'through-flow'],
    ['a vent opened on a side in service', '3-valve', [open('vent-high')], 'process-open'],
    [
      'one side vented while the other stays at line pressure',
      '3-valve',
      [close('high-block'), open('vent-high')],
      'one-sided',
    ],
    [
      'one side vented while the other is trapped',
      '3-valve',
      [close('high-block'), close('low-block'), open('vent-low')],
      'one-sided',
    ],
    [
      'both equalisers open between open blocks',
      '5-valve',
      [open('equaliser-high'), open('equaliser-low')],
      'through-flow',
    ],
    ['the equaliser opened onto a wet leg', 'wet-leg', [close('high-block'), open('equaliser')], 'leg-open'],
    ['a wet leg vented', 'wet-leg', [open('vent-low')], 'leg-open'],
    ['a seal flushed with its valve open', 'remote-seals', [open('vent-high')], 'process-open'],
  ])('%s is told at once', (_what, arrangement, moves, fault) => {
    expect(faultsAfter(arrangement, ...moves)).toContain(fault);
    expect(faultInWords(arrangement, fault as 'one-sided').length).toBeGreaterThan(40);
  });

  it('on the way back loads one side where the equaliser was shut too soon', () => {
    const back = afterMoves('3-valve', isolated('3-valve'), [
      close('vent-high'),
      close('vent-low'),
      close('equaliser'),
    ]);
    expect(moveValve('3-valve', back, open('high-block')).faults).toEqual(['one-sided']);
  });

  it('that was mended is no longer a fault, but a lost leg stays lost', () => {
    const lost = afterMoves('wet-leg', inService('wet-leg'), [close('high-block'), open('equaliser')]);
    expect(faultsIn('wet-leg', lost)).toEqual(['leg-open']);
    const mended = afterMoves('wet-leg', lost, [close('equaliser'), open('high-block')]);
    expect(faultsIn('wet-leg', mended)).toEqual([]);
    expect(mended.isLegLost).toBe(true);
  });

  it('is told once, not again by each later move', () => {
    const state = moveValve('3-valve', inService('3-valve'), open('equaliser')).state;
    expect(moveValve('3-valve', state, open('vent-high')).faults).toEqual(['process-open']);
  });

  it('of a valve that is not there is refused with the valves that are', () => {
    expect(() => moveValve('2-valve', inService('2-valve'), open('equaliser'))).toThrow(/equaliser.*block/s);
    expect(() => valveOf(HOOK_UPS['5-valve'], 'equaliser')).toThrow('equaliser-high');
  });
});

describe('any sequence of moves', () => {
  const sequence = fc.constantFrom(...ARRANGEMENTS).chain((arrangement) =>
    fc.tuple(
      fc.constant(arrangement),
      fc.array(
        fc.record({
          valve: fc.constantFrom(...HOOK_UPS[arrangement].valves.map(({ id }) => id)),
          to: fc.constantFrom('open' as const, 'closed' as const),
        }),
        { maxLength: 14 },
      ),
    ),
  );

  it('leaves each process line pressurised and the atmosphere never', () => {
    fc.assert(
      fc.property(sequence, ([arrangement, moves]) => {
        const { pressurised } = afterMoves(arrangement, inService(arrangement), moves);
        expect(pressurised.has('atmosphere')).toBe(false);
        expect(pressurised.has('process-high')).toBe(true);
      }),
    );
  });

  it('tells the same faults as the state has, whatever way led there', () => {
    fc.assert(
      fc.property(sequence, ([arrangement, moves]) => {
        let state = inService(arrangement);
        let known: readonly string[] = [];
        for (const move of moves) {
          const moved = moveValve(arrangement, state, move);
          const all = faultsIn(arrangement, moved.state);
          expect(moved.faults).toEqual(all.filter((fault) => !known.includes(fault)));
          [state, known] = [moved.state, all];
        }
      }),
    );
  });
});

/** Every state that any moves can lead to, right or wrong ones. */
function reachable(arrangement: Arrangement): HookUpState[] {
  const key = (state: HookUpState) =>
    JSON.stringify([
      HOOK_UPS[arrangement].valves.map(({ id }) => state.valves[id]),
      [...state.pressurised].sort(),
      state.isLegLost,
    ]);
  const found = new Map([[key(inService(arrangement)), inService(arrangement)]]);
  for (const state of found.values())
    for (const { id } of HOOK_UPS[arrangement].valves)
      for (const to of ['open', 'closed'] as const) {
        const next = moveValve(arrangement, state, { valve: id, to }).state;
        if (!found.has(key(next))) found.set(key(next), next);
      }
  return [...found.values()];
}

describe.each(ARRANGEMENTS)('from every reachable state of %s', (arrangement) => {
  const states = reachable(arrangement);

  it('nothing behind the blocks has pressure where the valves stand as isolated', () => {
    const wanted = isolated(arrangement).valves;
    const alike = states.filter(({ valves }) =>
      HOOK_UPS[arrangement].valves.every(({ id }) => valves[id] === wanted[id]),
    );
    expect(alike.length).toBeGreaterThan(0);
    for (const state of alike) {
      for (const space of ['high', 'low', 'middle'] as const)
        expect(state.pressurised.has(space)).toBe(false);
      expect(faultsIn(arrangement, state)).toEqual([]);
      expect(lacksOf(arrangement, state, 'isolated')).toEqual([]);
    }
  });

  it.each(['isolated', 'in-service'] as const)('no move to be %s is one that is called wrong', (goal) => {
    let [ways, none] = [0, 0];
    for (const start of states) {
      const way = wayTo(arrangement, start, goal);
      if (way === null) {
        none += 1;
        continue;
      }
      ways += 1;
      let state = start;
      for (const move of way) {
        const moved = moveValve(arrangement, state, move);
        expect([start, move, moved.faults]).toEqual([start, move, []]);
        state = moved.state;
      }
      expect(lacksOf(arrangement, state, goal)).toEqual([]);
      expect(faultsIn(arrangement, state)).toEqual([]);
    }
    expect(ways + none).toBe(states.length);
    expect(ways).toBeGreaterThan(0);
  });

  it.each(['isolated', 'in-service'] as const)('where no way to be %s is named there is none', (goal) => {
    // Backwards from the goal, over all moves that bring no new fault: another route than the search forwards.
    const text = (state: HookUpState) =>
      JSON.stringify([Object.entries(state.valves).sort(), [...state.pressurised].sort(), state.isLegLost]);
    const good = new Set(
      states
        .filter((one) => lacksOf(arrangement, one, goal).length === 0)
        .filter((one) => faultsIn(arrangement, one).length === 0)
        .map(text),
    );
    for (let size = -1; size !== good.size;) {
      size = good.size;
      for (const state of states)
        for (const { id } of HOOK_UPS[arrangement].valves)
          for (const to of ['open', 'closed'] as const) {
            const moved = moveValve(arrangement, state, { valve: id, to });
            if (moved.faults.length === 0 && good.has(text(moved.state))) good.add(text(state));
          }
    }
    for (const state of states)
      expect([state, wayTo(arrangement, state, goal) !== null]).toEqual([state, good.has(text(state))]);
  });
});
