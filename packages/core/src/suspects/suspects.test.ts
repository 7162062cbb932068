import { describe, expect, it } from 'vitest';
import { suspectWords, weigh, type Suspected, type Suspicion } from './index';
import { CASE, limited, line, NOISE, read, ROOT, suspect, UP, WAY } from './test/case';

/** What was planted by its own formula, what has to lead, and the parameter that has to come back. */
const PLANTED: readonly {
  readonly suspicion: Suspicion;
  readonly of?: Suspected;
  readonly output: (x: number, i: number) => number;
  readonly value?: readonly [number, number];
  readonly figure?: RegExp;
}[] = [
  { suspicion: 'nothing', output: (x) => line(x) + 0.01 },
  // 0.104 mA of 16 mA over 500 kPa is 3.25 kPa.
  {
    suspicion: 'zero',
    // Without it a third of a metre of water would be as likely.
    of: { ...CASE, vented: 4.104 },
    output: (x) => line(x) + 0.104,
    value: [3.25, 0.15],
    figure: /^\+3\.\d+ kPa \(\+0\.6\d* % of span\)$/,
  },
  {
    suspicion: 'gain',
    output: (x) => 4 + (16 * x * 1.012) / 500,
    value: [0.012, 0.001],
    figure: /^\+1\.[12]\d* %$/,
  },
  {
    suspicion: 'zero and gain',
    output: (x) => 4.2 + (16 * x * 0.985) / 500,
    value: [6.25, 0.2],
    figure: /kPa and −1\.[45]\d* %$/,
  },
  // 1 psi is 6.894757 kPa: a range of 0 to 500 in the wrong unit stops at 72.5 of what it should.
  {
    suspicion: 'unit',
    output: (x) => limited(4 + (16 * x) / (500 * 6.894757)),
    figure: /^psi in place of kPa$/,
  },
  { suspicion: 'range', output: (x) => limited(4 + (16 * x) / 400), figure: /^0 to 400 kPa$/ },
  {
    suspicion: 'range',
    output: (x) => limited(4 + (16 * (x - 40)) / 437),
    figure: /^\d+\.?\d* to 47\d\.?\d* kPa$/,
  },
  { suspicion: 'reversed', output: (x) => 24 - line(x), figure: /^$/ },
  {
    suspicion: 'absolute or gauge',
    output: (x) => limited(line(x + 99.2)),
    value: [99.2, 0.5],
    figure: /absolute: 99/,
  },
  { suspicion: 'stuck', output: () => 12.345, value: [12.345, 0.002], figure: /^12\.3[45]\d* mA$/ },
  {
    suspicion: 'saturated',
    output: (x) => Math.min(17.3, line(x)),
    value: [17.3, 0.01],
    figure: /^17\.3 mA$/,
  },
  // 25 kPa is 2.549 m of water.
  {
    suspicion: 'head',
    output: (x) => limited(line(x + 25)),
    value: [25, 0.3],
    figure: /^2\.5\d m of water on the high side$/,
  },
  {
    suspicion: 'friction',
    output: (x, i) => line(x) + (i > 4 ? 0.06 : -0.06),
    value: [1.875, 0.3],
    figure: /kPa \(0\.7\d* % of span\) wide$/,
  },
  {
    suspicion: 'bent',
    output: (x) => line(x) + 16 * 0.012 * 4 * (x / 500) * (1 - x / 500),
    value: [0.012, 0.0015],
  },
  {
    suspicion: 'scatter',
    output: (x, i) => line(x) + ([0.09, -0.2, 0.15, 0.25, -0.18, 0.22, -0.25, 0.02, -0.11][i] ?? 0),
  },
  { suspicion: 'root missing', of: ROOT, output: line },
  { suspicion: 'root doubled', of: ROOT, output: (x) => 4 + 16 * (x / 500) ** 0.25 },
  { suspicion: 'root misplaced', output: (x) => 4 + 16 * Math.sqrt(x / 500), figure: /where none should be/ },
  { suspicion: 'nothing', of: ROOT, output: (x) => 4 + 16 * Math.sqrt(x / 500) },
  { suspicion: 'gain', of: ROOT, output: (x) => 4 + 16 * Math.sqrt((x * 1.02) / 500), value: [0.02, 0.002] },
  {
    suspicion: 'sides exchanged',
    of: { ...CASE, range: { ...CASE.range, lrv: -100 }, pressureKind: 'differential' },
    output: (x) => limited(4 + (16 * (100 - x)) / 600),
  },
];

describe('a suspicion comes back from what was planted', () => {
  it.each(PLANTED)('$suspicion', ({ suspicion, of = CASE, output, value, figure }) => {
    const suspected = { ...of, readings: read(output) };
    const { suspects, told } = weigh(suspected);
    const [first] = suspects;
    expect([told, first?.suspicion]).toEqual([suspicion, suspicion]);
    if (first === undefined) return;
    if (value !== undefined)
      expect(Math.abs((first.fit.values[0] ?? NaN) - value[0])).toBeLessThanOrEqual(value[1]);
    if (figure !== undefined)
      expect(suspectWords(first, suspected, { input: 'kPa', output: 'mA' }).figure).toMatch(figure);
  });

  it('draws the line that it fits', () => {
    const suspected = { ...CASE, readings: read((x) => 4 + (16 * x * 1.012) / 500) };
    const { errorsPercentSpan } = suspect(suspected, 'gain');
    UP.forEach((x, i) => expect(errorsPercentSpan[i]).toBeCloseTo((1.2 * x) / 500, 1));
  });

  it('reads a run that falls first', () => {
    const falling = read((x) => line(x) + 0.104).reverse();
    expect(weigh({ ...CASE, vented: 4.104, readings: falling }).told).toBe('zero');
  });

  it('reads a range and an output that go backwards', () => {
    const backwards: Suspected = {
      ...CASE,
      range: { lrv: 500, urv: 0, outputLow: 4, outputHigh: 20 },
      vented: 20.104,
      saturation: null,
      readings: read((x) => 20 - (16 * x) / 500 + 0.104),
    };
    const { told } = weigh(backwards);
    expect(told).toBe('zero');
    // More output is less pressure.
    expect(suspect(backwards, 'zero').fit.values[0]).toBeCloseTo(-3.25, 1);
    const out: Suspected = {
      ...CASE,
      range: { lrv: 0, urv: 500, outputLow: 20, outputHigh: 4 },
      readings: read((x) => 20 - (16 * x * 1.02) / 500),
    };
    expect(weigh(out).told).toBe('gain');
  });

  it('reads one reading, and cannot tell much of it', () => {
    const { told, suspects } = weigh({
      ...CASE,
      readings: [{ applied: 250, output: 12.2, direction: 'up' }],
    });
    expect(told).toBeNull();
    expect(suspects.reduce((sum, { probability }) => sum + probability, 0)).toBeCloseTo(1, 9);
  });
});

describe('what else is known', () => {
  const shifted = read((x) => line(x) + 0.14);

  it('cannot tell a drifted zero from a little liquid, and can once it was vented', () => {
    const blind = { ...CASE, limitPercent: 0.25, readings: read((x) => line(x) + 0.3) };
    expect(weigh(blind).likely).toEqual(expect.arrayContaining(['zero', 'head']));
    expect(weigh({ ...blind, vented: 4.0002 }).told).toBe('head');
    expect(weigh({ ...blind, vented: 4.2996 }).told).toBe('zero');
  });

  it('puts what the digital value does not show into the output stage', () => {
    const readings = shifted.map((one) => ({ ...one, digital: one.applied + 0.02 }));
    expect(weigh({ ...CASE, readings }).told).toBe('output zero');
    const before = shifted.map((one) => ({ ...one, digital: one.applied + (0.14 * 500) / 16 }));
    expect(weigh({ ...CASE, readings: before }).suspects[0]?.suspicion).toBe('zero');
  });

  it('suspects the reference where others were off with it as well', () => {
    const readings = read((x) => 4 + (16 * x * 0.99) / 500);
    const alone = suspect({ ...CASE, readings }, 'reference').probability;
    const others = [-1.05, -0.9, -1.1].map((gainPercent, i) => ({
      name: `PT-${i}`,
      gainPercent,
      usualPercent: 0.2,
    }));
    expect(alone).toBeLessThan(0.3);
    expect(weigh({ ...CASE, readings, others }).told).toBe('reference');
    const sound = others.map((one) => ({ ...one, gainPercent: 0.02 }));
    expect(suspect({ ...CASE, readings, others: sound }, 'reference').probability).toBeLessThan(0.01);
  });

  it('frees friction by a tap', () => {
    const readings = read(line).map((one) => ({
      ...one,
      untapped: one.output + (one.direction === 'up' ? -0.09 : 0.09),
    }));
    expect(weigh({ ...CASE, readings }).told).toBe('friction');
  });

  it('knows a leak by the time that it had, and an instrument that was not waited for', () => {
    const at = [0, 30, 150, 175, 300, 320, 500, 530, 560];
    const dwell = at.map((one, i) => (i === 0 ? 560 / 8 : one - (at[i - 1] ?? 0)));
    const leaking = read((x, i) => line(x * (1 - 0.0004 * (dwell[i] ?? 0)))).map((one, i) => ({
      ...one,
      at: at[i] ?? 0,
    }));
    expect(weigh({ ...CASE, readings: leaking }).told).toBe('leak');
    let output = 4;
    const slow = WAY.map(([applied, direction], i) => {
      output = line(applied) - (line(applied) - output) * Math.exp(-(dwell[i] ?? 0) / 20);
      return { applied, direction, output, at: at[i] ?? 0 };
    });
    const { told } = weigh({ ...CASE, readings: slow });
    expect(told).toBe('not settled');
    const lag = suspect({ ...CASE, readings: slow }, 'not settled').fit.values[0] ?? NaN;
    expect(Math.abs(lag - 20)).toBeLessThan(3);
  });

  it('knows the range of a configuration beside it', () => {
    const neighbours = [{ name: 'version 2', range: { ...CASE.range, urv: 437 } }];
    const readings = read((x) => limited(4 + (16 * x) / 437));
    const suspected = { ...CASE, readings, neighbours };
    expect(weigh(suspected).told).toBe('neighbouring range');
    const words = suspectWords(suspect(suspected, 'neighbouring range'), suspected, {
      input: 'kPa',
      output: 'mA',
    });
    expect(words.figure).toBe('0 to 437 kPa: version 2');
  });

  it('sizes a resistor in ohms', () => {
    const suspected: Suspected = {
      ...CASE,
      range: { ...CASE.range, outputLow: 1, outputHigh: 5 },
      saturation: [0.95, 5.125],
      resistorOhm: 250,
      readings: read((x) => (line(x) / 1000) * 243),
    };
    expect(weigh(suspected).told).toBe('resistor');
    expect(
      suspectWords(suspect(suspected, 'resistor'), suspected, { input: 'kPa', output: 'V' }).figure,
    ).toMatch(/^24[23]\.?\d* Ω in place of 250 Ω$/);
  });

  it('tells the resistor of a loop from a gain: it has no live zero of its own', () => {
    const suspected: Suspected = {
      range: { lrv: 4, urv: 20, outputLow: 1, outputHigh: 5 },
      readings: [4, 8, 12, 16, 20].map((applied) => ({ applied, output: applied * 0.245, direction: 'up' })),
      limitPercent: 0.2,
      inputUnit: null,
      pressureKind: null,
      resistorOhm: 250,
    };
    const { told, suspects } = weigh(suspected);
    expect(told).toBe('resistor');
    expect(suspects.map(({ suspicion }) => suspicion)).not.toContain('reference');
    const card = {
      ...suspected,
      readings: suspected.readings.map((one) => ({ ...one, output: 1 + (one.applied - 4) * 0.245 })),
    };
    expect(weigh(card).told).toBe('gain');
  });

  it('knows a display of another scale', () => {
    const readings = read(line).map((one) => ({
      ...one,
      shown: Number(((one.applied / 500) * 100).toFixed(1)),
    }));
    const suspected = { ...CASE, readings, display: { low: 0, high: 500 } };
    expect(weigh(suspected).told).toBe('display scale');
  });

  it('knows water of another temperature, 0.096 % between 4 °C and 60 °F (SP 811: 249.082 and 248.84 Pa)', () => {
    const urv = 100;
    const by = 248.84 / 249.082;
    const readings = WAY.map(([x, direction], i) => ({
      applied: x / 5,
      direction,
      output: 4 + (16 * x) / 5 / (urv * by) + (NOISE[i] ?? 0) / 10,
    }));
    const suspected: Suspected = {
      ...CASE,
      range: { ...CASE.range, urv },
      inputUnit: 'inH2OAt4C',
      limitPercent: 0.05,
      readings,
    };
    const found = suspect(suspected, 'water reference');
    expect(found.fit.variant.name).toBe('inH2OAt60F');
    expect(weigh(suspected).likely).toContain('water reference');
  });

  it('takes a zero that never drifted by much for what it is', () => {
    const readings = read((x) => line(x) + 0.35);
    const drifts = Array.from({ length: 5 }, () => ({ zeroPercent: 0.05, gainPercent: 0.02 }));
    const without = suspect({ ...CASE, readings }, 'zero').probability;
    expect(suspect({ ...CASE, readings, drifts }, 'zero').probability).toBeLessThan(without / 2);
  });
});
