import { describe, expect, it } from 'vitest';
import { expectAll, loadCases, type Case } from '../../test/fixtures';
import { expectWorked } from '../../test/working';
import { signalRegion } from '../signal';
import {
  addUp,
  areaOfGauge,
  badConnectionOhm,
  receiverVoltage,
  resistorItem,
  rootsTo,
  supplyBudget,
  tapsOf,
  toleranceAt,
  wayTo,
  wireOhm,
  workSupply,
  type LoopItem,
  type LoopSupply,
} from './index';

interface Given {
  readonly [name: string]: never;
}
const cases = (kind: string) =>
  loadCases<Case<Given>>('loops.json', new RegExp(`^${kind}$`)).map((one): [string, Case<Given>] => [
    one.id,
    one,
  ]);
const num = (given: Given, name: string): number => given[name] as unknown as number;
const list = (given: Given, name: string): readonly number[] => given[name] as unknown as readonly number[];

const supplyOf = (given: Given): LoopSupply => ({
  supplyV: num(given, 'supply_V'),
  liftOffV: num(given, 'lift_off_V'),
  senseOhm: num(given, 'sense_resistor_ohm'),
  barrierOhm: num(given, 'barrier_ohm'),
  barrierDropV: num(given, 'barrier_voltage_drop_V'),
  otherOhm: num(given, 'other_ohm'),
  wire: {
    lengthM: num(given, 'wire_one_way_length_m'),
    temperatureC: num(given, 'wire_temperature_degC'),
    areaMm2: 'wire_awg' in given ? areaOfGauge(num(given, 'wire_awg')) : num(given, 'wire_area_mm2'),
  },
});

const SOUND: LoopSupply = {
  supplyV: 24,
  liftOffV: 12,
  senseOhm: 250,
  barrierOhm: 0,
  barrierDropV: 0,
  otherOhm: 0,
  wire: { lengthM: 500, areaMm2: 1, temperatureC: 20 },
};

describe('the supply of a loop (topic M)', () => {
  it.each(cases('loop'))('%s', (_id, { given, expect: wanted }) => {
    const supply = supplyOf(given);
    const budget = supplyBudget(supply);
    expectAll(wanted, {
      wire_area: supply.wire.areaMm2,
      wire_resistance: budget.wireOhm,
      total_resistance: budget.totalOhm,
      terminal_voltage_4mA: budget.terminalV.at4,
      terminal_voltage_20mA: budget.terminalV.at20,
      terminal_voltage_21mA: budget.terminalV.atFailure,
      max_loop_resistance_20mA: budget.mostOhm.at20,
      max_loop_resistance_21mA: budget.mostOhm.atFailure,
      resistance_margin_21mA: budget.marginOhm,
      voltage_margin_21mA: budget.marginV,
      verdict_21mA: budget.isEnough ? 'ok' : 'not ok',
      max_current_before_lift_off: budget.mostMilliamp,
      max_one_way_length_21mA: budget.longestM,
    });
    for (const milliamp of [4, 20, 21]) expectWorked(workSupply(supply, milliamp));
  });

  it('is just enough at its least supply and at its longest cable, and no more beyond', () => {
    const { leastSupplyV, longestM } = supplyBudget(SOUND);
    expect(supplyBudget({ ...SOUND, supplyV: leastSupplyV }).isEnough).toBe(true);
    expect(supplyBudget({ ...SOUND, supplyV: leastSupplyV - 0.001 }).isEnough).toBe(false);
    const long = (lengthM: number) => supplyBudget({ ...SOUND, wire: { ...SOUND.wire, lengthM } });
    expect(long(longestM).isEnough).toBe(true);
    expect(long(longestM + 0.1).isEnough).toBe(false);
    expect(long(longestM).marginV).toBeCloseTo(0, 9);
  });

  it('says whether there is resistance enough to communicate over it', () => {
    // The wire is not counted: it may be short another day.
    expect(supplyBudget({ ...SOUND, senseOhm: 230 }).canCommunicate).toBe(true);
    expect(supplyBudget({ ...SOUND, senseOhm: 229 }).canCommunicate).toBe(false);
    expect(supplyBudget({ ...SOUND, senseOhm: 100, barrierOhm: 200 }).canCommunicate).toBe(true);
  });

  it('finds a bad connection from the voltage at the terminals', () => {
    // By hand: 700 ohms more at 10 mA take 7 V.
    const { totalOhm } = supplyBudget(SOUND);
    const measured = 24 - 0.01 * (totalOhm + 700);
    expect(badConnectionOhm(SOUND, measured, 10)).toBeCloseTo(700, 9);
    expect(badConnectionOhm(SOUND, 24 - 0.01 * totalOhm, 10)).toBeCloseTo(0, 9);
    expect(badConnectionOhm(SOUND, 24 - 0.01 * (totalOhm - 50), 10)).toBeCloseTo(-50, 9);
  });

  it('knows American wire gauges', () => {
    // AWG 36 is 0.127 mm by definition, AWG 18 about 0.823 mm² (handbook value, from memory).
    expect(areaOfGauge(36)).toBeCloseTo((Math.PI / 4) * 0.127 ** 2, 12);
    expect(areaOfGauge(18)).toBeCloseTo(0.823, 3);
    expect(() => areaOfGauge(60)).toThrow('The wire gauge must be from -3 to 40 AWG');
  });

  it('refuses in words what no loop is', () => {
    expect(() => supplyBudget({ ...SOUND, supplyV: 0 })).toThrow('The supply');
    expect(() => supplyBudget({ ...SOUND, senseOhm: -1 })).toThrow('The resistor');
    expect(() => wireOhm({ lengthM: -1, areaMm2: 1, temperatureC: 20 })).toThrow('The length of the cable');
    expect(() => wireOhm({ lengthM: 1, areaMm2: 0, temperatureC: 20 })).toThrow('The area of a conductor');
    expect(() => wireOhm({ lengthM: 1, areaMm2: 1, temperatureC: -300 })).toThrow(
      'The temperature of the cable',
    );
    expect(() => badConnectionOhm(SOUND, 18, 0)).toThrow('The current');
    expect(
      supplyBudget({ ...SOUND, senseOhm: 0, wire: { ...SOUND.wire, lengthM: 0 } }).mostMilliamp,
    ).toBeNull();
  });
});

describe('a receiver across its resistor (topic M)', () => {
  it.each(cases('receiver'))('%s', (_id, { given, expect: wanted }) => {
    const input = given['input_resistance_ohm'] as unknown as number | null;
    const currents = list(given, 'current_mA');
    const volts = currents.map((milliamp) =>
      receiverVoltage(milliamp, num(given, 'resistor_ohm'), num(given, 'resistor_tolerance_pct'), input),
    );
    const error = (value: number, i: number) =>
      ((value - ((currents[i] ?? 0) * num(given, 'ideal_resistor_ohm')) / 1000) /
        num(given, 'voltage_span_V')) *
      100;
    expectAll(wanted, {
      voltage_nominal: volts.map(({ nominalV }) => nominalV),
      voltage_min: volts.map(({ leastV }) => leastV),
      voltage_max: volts.map(({ mostV }) => mostV),
      error_nominal_pct_span: volts.map(({ nominalV }, i) => error(nominalV, i)),
      error_min_pct_span: volts.map(({ leastV }, i) => error(leastV, i)),
      error_max_pct_span: volts.map(({ mostV }, i) => error(mostV, i)),
    });
  });

  it('refuses a resistor that is none', () => {
    expect(() => receiverVoltage(12, 0, 1, null)).toThrow('The resistor');
    expect(() => receiverVoltage(12, 250, 100, null)).toThrow('The tolerance of the resistor');
    expect(() => receiverVoltage(12, 250, 1, 0)).toThrow('The input resistance');
  });
});

/** A loop as the cases describe it: transmitter, resistor, display, with the root in one of them or in none. */
function loopOf(given: Given): LoopItem[] {
  const [input, display] = ['input', 'display'].map(
    (name) => given[name] as unknown as { lrv: number; urv: number; low: number; high: number },
  );
  if (input === undefined || display === undefined) throw new Error('the case has no loop');
  const ohm = num(given, 'resistor_ohm');
  const rootIn = given['square_root_in'] as unknown as string | null;
  const isReverse = given['transmitter_reverse'] as unknown as boolean;
  const transfer = (place: string) => ({ kind: rootIn === place ? 'square-root' : 'linear' }) as const;
  const resistor = resistorItem('resistor', 0, ohm, 0.1);
  const volts = isReverse ? { low: resistor.output.high, high: resistor.output.low } : resistor.output;
  return [
    {
      name: 'transmitter',
      kind: 'transmitter',
      from: null,
      input: { low: input.lrv, high: input.urv },
      output: isReverse ? { low: 20, high: 4 } : { low: 4, high: 20 },
      transfer: transfer('transmitter'),
      tolerancePercent: 0.1,
    },
    resistor,
    {
      name: 'display',
      kind: 'indicator',
      from: 1,
      // An ideal display is scaled for what its resistor gives.
      input: volts,
      output: { low: display.low, high: display.high },
      transfer: transfer('display'),
      tolerancePercent: 1,
    },
  ];
}

describe('a chain and its taps (topic M)', () => {
  it.each(cases('taps'))('%s', (_id, { given, expect: wanted }) => {
    const items = loopOf(given);
    const taps = list(given, 'values').map((applied) => tapsOf(items, applied));
    expectAll(wanted, {
      transmitter_mA: taps.map(([milliamp]) => milliamp),
      resistor_V: taps.map(([, volt]) => volt),
      display: taps.map(([, , shown]) => shown),
    });
  });

  it.each(cases('chain'))('%s: sum and root of the sum of squares', (_id, { given, expect: wanted }) => {
    const items = given['items'] as unknown as readonly { tolerance_pct: number; sensitivity: number }[];
    const { percents, sum, rootSumSquare } = addUp(
      items.map(({ tolerance_pct, sensitivity }) => ({ tolerancePercent: tolerance_pct, sensitivity })),
    );
    expectAll(wanted, { contribution: percents, worst_case_sum: sum, root_sum_square: rootSumSquare });
  });

  const flow = (rootIn: number | null): LoopItem[] => {
    const transfer = (place: number) => ({ kind: rootIn === place ? 'square-root' : 'linear' }) as const;
    return [
      {
        name: 'FT',
        kind: 'transmitter',
        from: null,
        input: { low: 0, high: 25 },
        output: { low: 4, high: 20 },
        transfer: transfer(0),
        tolerancePercent: 0.1,
      },
      resistorItem('R', 0, 250, 0.1),
      {
        name: 'AI',
        kind: 'input card',
        from: 1,
        input: { low: 1, high: 5 },
        output: { low: 0, high: 100 },
        transfer: transfer(2),
        tolerancePercent: 0.1,
      },
      {
        name: 'FI',
        kind: 'indicator',
        from: 0,
        input: { low: 4, high: 20 },
        output: { low: 0, high: 500 },
        transfer: transfer(3),
        tolerancePercent: 2,
      },
    ];
  };

  it('lets receivers branch, and counts the root on the way to each', () => {
    expect(tapsOf(flow(0), 6.25)).toEqual([12, 3, 50, 250]);
    expect(wayTo(flow(0), 3)).toEqual([0, 3]);
    expect([0, 1, 2, 3].map((at) => rootsTo(flow(0), at))).toEqual([1, 1, 1, 1]);
    expect([2, 3].map((at) => rootsTo(flow(2), at))).toEqual([1, 0]);
    expect(rootsTo(flow(null), 3)).toBe(0);
    const twice = flow(0).map((item) =>
      item.name === 'AI' ? { ...item, transfer: { kind: 'square-root' as const } } : item,
    );
    expect(rootsTo(twice, 2)).toBe(2);
  });

  it('sees a tolerance through the slope of what stands behind it', () => {
    // By hand, M-P13: at 25 % of flow a root behind counts what comes before it twice.
    const behind = toleranceAt(flow(2), 2, 25 * 0.0625);
    expect(behind.contributions.map(({ sensitivity }) => Number(sensitivity.toFixed(9)))).toEqual([2, 2, 1]);
    expect(behind.sum).toBeCloseTo(0.5, 9);
    expect(behind.rootSumSquare).toBeCloseTo(Math.hypot(0.2, 0.2, 0.1), 9);
    const before = toleranceAt(flow(0), 2, 25 * 0.0625);
    expect(before.contributions.map(({ percent }) => Number(percent.toFixed(9)))).toEqual([0.1, 0.1, 0.1]);
    // A resistor of 500 ohms into a card of 1 to 5 V: one per cent of its span is two of the card's.
    const wide = flow(0).map((item) => (item.name === 'R' ? resistorItem('R', 0, 500, 0.1) : item));
    expect(toleranceAt(wide, 2, 6.25).contributions.map(({ sensitivity }) => sensitivity)).toEqual([2, 2, 1]);
    expect(() => toleranceAt(flow(2), 2, 0)).toThrow('a square root rises without bound at zero flow');
  });

  it('refuses in words what is no chain', () => {
    const [first, second] = flow(0) as [LoopItem, LoopItem];
    expect(() => tapsOf([first, { ...second, from: 1 }], 1)).toThrow('What R reads');
    expect(() => tapsOf([first, { ...second, from: 5 }], 1)).toThrow('What R reads');
    expect(() => tapsOf([{ ...first, input: { low: 1, high: 1 } }], 1)).toThrow('The input of FT');
    expect(() => tapsOf([{ ...first, tolerancePercent: -1 }], 1)).toThrow('The tolerance of FT');
    expect(() => tapsOf([first], NaN)).toThrow('What is applied');
    expect(tapsOf([], 1)).toEqual([]);
  });
});

describe('regions of a current (topic M)', () => {
  it.each(cases('namur_ne43'))('%s', (_id, { given, expect: wanted }) => {
    expectAll(wanted, {
      region: list(given, 'current_mA').map((milliamp) => signalRegion(milliamp).replace('-', ' ')),
    });
  });
});
