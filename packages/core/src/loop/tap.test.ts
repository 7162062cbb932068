import { describe, expect, it } from 'vitest';
import type { RunReading } from '../run';
import { expectedOutput } from '../signal';
import {
  judgeTap,
  limitOfTap,
  rangeOfTap,
  resistorItem,
  segmentOf,
  tapsOf,
  trimEffectOn,
  type LoopItem,
} from './index';

const linear = { kind: 'linear' } as const;
const item = (patch: Partial<LoopItem> & Pick<LoopItem, 'name' | 'from'>): LoopItem => ({
  kind: 'transmitter',
  input: { low: 4, high: 20 },
  output: { low: 4, high: 20 },
  transfer: linear,
  tolerancePercent: 0.1,
  ...patch,
});

/** Root in the transmitter; a card behind the resistor, a coarse indicator on the current. */
const FLOW: readonly LoopItem[] = [
  item({
    name: 'FT',
    from: null,
    input: { low: 0, high: 250 },
    transfer: { kind: 'square-root' },
    tolerancePercent: 0.25,
  }),
  item({ name: 'IS', kind: 'barrier', from: 0 }),
  resistorItem('R', 1, 250, 0.1),
  item({
    name: 'AI',
    kind: 'input card',
    from: 2,
    input: { low: 1, high: 5 },
    output: { low: 0, high: 320 },
  }),
  item({ name: 'FI', kind: 'indicator', from: 1, output: { low: 0, high: 320 }, tolerancePercent: 2 }),
];
const at = (applied: number, output: number): RunReading => ({
  cycle: 1,
  direction: 'up',
  nominalPercent: 0,
  applied,
  output,
});

describe('the range to a tap', () => {
  it('is one root between straight lines, and gives what the chain gives', () => {
    expect(rangeOfTap(FLOW, 3)).toEqual({
      lrv: 0,
      urv: 250,
      outputLow: 0,
      outputHigh: 320,
      transferFunction: { kind: 'square-root' },
    });
    for (const x of [0, 10, 62.5, 140.625, 250])
      for (const place of FLOW.keys())
        expect(expectedOutput(rangeOfTap(FLOW, place), x)).toBeCloseTo(tapsOf(FLOW, x)[place] ?? NaN, 9);
  });

  it('is a straight line where all are, also where a range is a part of the one before', () => {
    const half = [
      item({ name: 'PT', from: null, input: { low: 0, high: 10 } }),
      item({
        name: 'FI',
        kind: 'indicator',
        from: 0,
        input: { low: 12, high: 20 },
        output: { low: 0, high: 50 },
      }),
    ];
    // 12 mA is half the input: what is below shows less than nothing.
    expect(rangeOfTap(half, 1)).toEqual({
      lrv: 0,
      urv: 10,
      outputLow: -50,
      outputHigh: 50,
      transferFunction: linear,
    });
  });

  it('has none behind two roots, and judges nothing there', () => {
    const twice = FLOW.map((one, i) =>
      i === 3 ? { ...one, transfer: { kind: 'square-root' as const } } : one,
    );
    expect(() => rangeOfTap(twice, 3)).toThrow(/more than once/);
    expect(judgeTap(twice, 3, at(62.5, 160))).toBeNull();
  });
});

describe('a reading at a tap', () => {
  it('is inside on the limit, to the last decimal', () => {
    // 0.25 + 0.1 + 0.1 + 0.1 = 0.55 % of 320 is 1.76: the card may show 161.76 at half flow.
    expect(limitOfTap(FLOW, 3, 62.5)).toBe(0.55);
    expect(judgeTap(FLOW, 3, at(62.5, 161.76))?.verdict).toBe('within');
    expect(judgeTap(FLOW, 3, at(62.5, 161.7600001))?.verdict).toBe('outside');
    expect(judgeTap(FLOW, 3, at(62.5, 158.24))?.verdict).toBe('within');
    expect(judgeTap(FLOW, 3, at(62.5, 158.2399999))?.verdict).toBe('outside');
  });

  it('is judged by the root of the sum of squares where that is asked', () => {
    // sqrt(0.0625 + 3 x 0.01) = 0.30414 % of 320 is 0.97325.
    const by = 'root of the sum of squares';
    expect(judgeTap(FLOW, 3, at(62.5, 160.973), by)?.verdict).toBe('within');
    expect(judgeTap(FLOW, 3, at(62.5, 160.974), by)?.verdict).toBe('outside');
  });

  it('has no limit at no flow where something stands before the root', () => {
    const behind = [
      item({ name: 'PT', from: null, input: { low: 0, high: 10 } }),
      item({ name: 'SQ', kind: 'computing block', from: 0, transfer: { kind: 'square-root' } }),
    ];
    expect(limitOfTap(behind, 1, 0)).toBeNull();
    expect(judgeTap(behind, 1, at(0, 4))).toBeNull();
  });
});

describe('a part of a loop by itself', () => {
  it('reads what stands at the tap before it', () => {
    const part = segmentOf(FLOW, 0, 4);
    expect(part.map(({ name, from }) => [name, from])).toEqual([
      ['IS', null],
      ['FI', 0],
    ]);
    expect(rangeOfTap(part, 1)).toMatchObject({ lrv: 4, urv: 20, outputLow: 0, outputHigh: 320 });
    expect(limitOfTap(part, 1, 12)).toBe(2.1);
    expect(() => segmentOf(FLOW, 4, 3)).toThrow(/does not lie on it/);
    expect(() => segmentOf(FLOW, 3, 3)).toThrow();
  });
});

describe('a transmitter trimmed to a receiver', () => {
  it('puts every other end off by as much', () => {
    // The indicator shows 3 % too much: the transmitter would be set 3 % low, and the card with it.
    expect(trimEffectOn(FLOW, 4, 3, 62.5)).toEqual({ percent: -3, others: [{ place: 3, percent: -3 }] });
  });

  it('is not asked for what is no end, or is the transmitter itself', () => {
    expect(trimEffectOn(FLOW, 2, 3, 62.5)).toBeNull();
    expect(trimEffectOn(FLOW, 0, 3, 62.5)).toBeNull();
  });
});
