import { describe, expect, it } from 'vitest';
import { expectConsistent, expectEndsIn, expectWorked } from '../../test/working';
import { share } from '../signal';
import {
  compareSetups,
  leastTerminalVoltage,
  NOTHING_READ,
  outputAtRest,
  positionHead,
  settingWords,
  workDifference,
  workLeastTerminalVoltage,
  workPositionHead,
  type Setup,
  type WantedSetup,
} from './index';

const SETUP: Setup = {
  inputUnit: 'inH2OAt4C',
  lrv: 0,
  urv: 100,
  dampingS: 0.5,
  displayDampingS: 2,
  application: 'flow',
  transferFunction: { kind: 'square-root' },
  displayUnit: 'm³/h',
  displayLow: 0,
  displayHigh: 400,
  startView: 'display scale',
  drivenBy: 'pressure',
  switchingPoints: [{ name: 'low', on: 10, off: 12 }],
};
const WANTED = {
  ...SETUP,
  outputLow: 4,
  outputHigh: 20,
  outputUnit: 'mA',
  tolerancePercentOfSpan: 0.25,
} as WantedSetup;
const LINEAR_WANTED: WantedSetup = { ...WANTED, transferFunction: { kind: 'linear' } };

const only = (wanted: WantedSetup, read: Partial<Setup>) => {
  const { differences } = compareSetups(wanted, { ...wanted, ...read });
  expect(differences).toHaveLength(1);
  const [difference] = differences;
  if (difference === undefined) throw new Error('no difference');
  return difference;
};

describe('what was read against what has to be set', () => {
  it('finds no difference in the same, and says what was not read and what is in no register', () => {
    expect(compareSetups(WANTED, SETUP)).toMatchObject({ differences: [], unread: [], unregistered: [] });
    const none = compareSetups(WANTED, NOTHING_READ);
    expect(none.differences).toEqual([]);
    expect(none.unread).toHaveLength(13);
    expect(compareSetups({ ...WANTED, startView: null }, SETUP).unregistered).toEqual(['startView']);
  });

  it('names an upper range value with its error in the output: 100 % at 98 is 16/98 of the span too high', () => {
    // By hand: at 100 the output is 4 + 16 x 100/98 = 20.3265 mA, 2.0408 % of span too high.
    const found = only(LINEAR_WANTED, { urv: 98 });
    expect(found.percentOfSpan).toBeCloseTo((100 / 98) * 100 - 100, 10);
    expect(found.effect).toBe(
      'At 100 inH2O at 4 °C the output is 20.327 mA instead of 20 mA: +2.04 % of span.',
    );
    expect(found.matters).toBe('yes');
  });

  it('judges against the tolerance, on the limit within it', () => {
    // 0.25 % of span at 0 %: a lower range value of -0.25 over a span of 100.25 reads 0.2494 % at zero.
    expect(only(LINEAR_WANTED, { lrv: -0.25 }).matters).toBe('little');
    expect(only(LINEAR_WANTED, { lrv: -0.26 }).matters).toBe('yes');
    // Exactly the tolerance: 100/x - 100 = 0.25.
    expect(only(LINEAR_WANTED, { urv: 10000 / 100.25 }).matters).toBe('little');
  });

  it('compares range values as pressures, whatever unit they were read in', () => {
    const { differences, same } = compareSetups(
      { ...LINEAR_WANTED, inputUnit: 'mbar' },
      {
        ...LINEAR_WANTED,
        inputUnit: 'kPa',
        lrv: 0,
        urv: 10,
        switchingPoints: [{ name: 'Low', on: 1, off: 1.2 }],
      },
    );
    expect(differences.map(({ key, matters }) => [key, matters])).toEqual([['inputUnit', 'little']]);
    expect(differences[0]?.effect).toContain('1 kPa is 10 mbar');
    expect(same).toContain('urv');
  });

  it('says what another water reference does: 0.18 % between 4 and 20 °C', () => {
    // Density of water 999.972 and 998.203 kg/m3 (common tables): 0.177 %.
    const { differences } = compareSetups(
      { ...LINEAR_WANTED, switchingPoints: [], tolerancePercentOfSpan: 0.1 },
      { ...LINEAR_WANTED, switchingPoints: [], inputUnit: 'inH2OAt68F' },
    );
    expect(differences.map(({ key }) => key)).toEqual(['inputUnit', 'urv']);
    expect(differences[1]?.percentOfSpan).toBeCloseTo(0.177, 2);
    expect(differences[1]?.matters).toBe('yes');
  });

  it('finds where a root for a straight line hurts most: at a quarter, by a quarter of the span', () => {
    // max of sqrt(x) - x is 1/4 at x = 1/4.
    const found = only(WANTED, { transferFunction: { kind: 'linear' } });
    expect(found.percentOfSpan).toBeCloseTo(-25, 10);
    expect(found.effect).toContain('At 25 inH2O at 4 °C the output is 8 mA instead of 12 mA');
  });

  it('finds what a root taken twice does: most at 1/16, by a quarter of the span', () => {
    const found = only(WANTED, { drivenBy: 'scaled variable' });
    expect(found.percentOfSpan).toBeCloseTo(25, 2);
    expect(found.effect).toContain('taken twice');
    expect(
      only({ ...WANTED, drivenBy: 'scaled variable' }, { drivenBy: 'pressure' }).percentOfSpan,
    ).toBeCloseTo(-25, 10);
    expect(only(LINEAR_WANTED, { drivenBy: 'scaled variable' })).toMatchObject({
      percentOfSpan: null,
      matters: 'yes',
    });
    // Common practice: 0.2 of 172.75 shows 3.4 with one root and about 18 with two.
    const once = share({ kind: 'square-root' }, 0.2 / 172.75);
    expect(once * 100).toBeCloseTo(3.4, 1);
    expect(share({ kind: 'square-root' }, once) * 100).toBeCloseTo(18.4, 1);
  });

  it('judges the low-flow start by what it does below its end', () => {
    const found = only(WANTED, { transferFunction: { kind: 'square-root-cut-off', cutOffPercentOfFlow: 8 } });
    // Just below 8 % of flow the output is at 0 %.
    expect(found.percentOfSpan).toBeLessThan(-7.9);
    expect(found.percentOfSpan).toBeGreaterThan(-8);
  });

  it('tells the error of a range and not the jump where low flow is cut', () => {
    const cut = { kind: 'square-root-cut-off', cutOffPercentOfFlow: 12 } as const;
    // By hand: 100 into 0 to 96 is 104.17 % of differential, 102.06 % of flow.
    const found = only({ ...WANTED, transferFunction: cut }, { urv: 96 });
    expect(found.percentOfSpan).toBeCloseTo(2.062, 3);
    expect(found.effect).toContain('At 100 inH2O at 4 °C the output is 20.33 mA');
    const one = { kind: 'square-root-slope-one', linearToPercentOfInput: 0.9 } as const;
    expect(only({ ...WANTED, transferFunction: one }, { urv: 96 }).percentOfSpan).toBeCloseTo(2.062, 3);
    // What stands at zero counts, also where it is cut there: nothing flows and 20 % are shown.
    expect(only({ ...WANTED, transferFunction: cut }, { lrv: -4.1667 }).percentOfSpan).toBeCloseTo(20, 2);
  });

  it('says the lag of both dampings, and that the loop was tuned with one of them', () => {
    const output = only(WANTED, { dampingS: 4 });
    expect(output.effect).toContain(
      '63 % after 4 s instead of 0.5 s, to 0.1 % after 27.6 s instead of 3.45 s',
    );
    expect(output.matters).toBe('yes');
    expect(only(WANTED, { displayDampingS: 0 }).matters).toBe('no');
  });

  it('says what the display shows with the wrong scale', () => {
    const found = only(WANTED, { displayHigh: 500 });
    expect(found.effect).toContain(
      '250 m³/h instead of 200 m³/h: +12.5 % of its scale. The output is the same.',
    );
    expect(found.matters).toBe('yes');
    expect(only(WANTED, { displayHigh: 400.5 }).matters).toBe('little');
    expect(only(WANTED, { displayLow: 10 }).effect).toContain('205 m³/h instead of 200 m³/h');
  });

  it('falls over nothing that was registered without a span, or typed beyond all reason', () => {
    const flat = { ...WANTED, displayLow: 5, displayHigh: 5 };
    expect(only(flat, { displayHigh: 6 })).toMatchObject({ percentOfSpan: null, matters: 'yes' });
    expect(() => compareSetups(WANTED, { ...SETUP, inputUnit: 'bar', lrv: 1e308 })).toThrow('finite');
  });

  it('says where a switching point went', () => {
    const found = only(WANTED, {
      switchingPoints: [
        { name: 'LOW', on: 11, off: 12 },
        { name: 'top', on: 1, off: 2 },
      ],
    });
    expect(found.effect).toBe(
      'low switches at 11 inH2O at 4 °C instead of 10 inH2O at 4 °C. top is set and stands in no register.',
    );
    expect(only(WANTED, { switchingPoints: [] }).effect).toBe('low is not set.');
  });

  it('names what changes no figure', () => {
    expect(only(WANTED, { startView: 'output' }).matters).toBe('no');
    expect(only(WANTED, { application: 'level' }).matters).toBe('yes');
    expect(only(WANTED, { displayUnit: 't/h' }).matters).toBe('yes');
    expect(only(LINEAR_WANTED, { urv: 0 }).effect).toContain('no span');
  });

  it('refuses a tolerance below zero', () => {
    expect(() => compareSetups({ ...WANTED, tolerancePercentOfSpan: -1 }, SETUP)).toThrow('negative');
  });
});

describe('the working of a difference', () => {
  const CUT = { kind: 'square-root-cut-off', cutOffPercentOfFlow: 12 } as const;
  const worked = (wanted: WantedSetup, more: Partial<Setup>) => {
    const read = { ...wanted, ...more };
    return compareSetups(wanted, read).differences.map(
      (difference) => [difference, workDifference(wanted, read, difference.key)] as const,
    );
  };

  it('ends in the error that the difference names, whatever the setting and the transfer function', () => {
    const cases: (readonly [WantedSetup, Partial<Setup>])[] = [
      [LINEAR_WANTED, { urv: 98 }],
      [LINEAR_WANTED, { lrv: -0.26 }],
      [LINEAR_WANTED, { inputUnit: 'inH2OAt68F', switchingPoints: [] }],
      [WANTED, { transferFunction: { kind: 'linear' } }],
      [WANTED, { transferFunction: CUT }],
      [{ ...WANTED, transferFunction: CUT }, { urv: 96 }],
      [{ ...WANTED, transferFunction: CUT }, { lrv: -4.1667 }],
      [WANTED, { drivenBy: 'scaled variable' }],
      [{ ...WANTED, drivenBy: 'scaled variable' }, { drivenBy: 'pressure' }],
      [{ ...WANTED, outputLow: 50, outputHigh: 10 }, { urv: 90 }],
    ];
    for (const [wanted, more] of cases) {
      const found = worked(wanted, more).filter(([{ percentOfSpan }]) => percentOfSpan !== null);
      expect(found.length).toBeGreaterThan(0);
      for (const [{ percentOfSpan }, steps] of found) {
        expectConsistent(steps);
        expectEndsIn(steps, 'e', percentOfSpan ?? NaN);
      }
    }
  });

  it('takes the root once more where it is taken twice', () => {
    const [[, steps] = []] = worked(WANTED, { drivenBy: 'scaled variable' });
    expect(steps?.filter(({ formula }) => formula.startsWith('sqrt')).map(({ symbol }) => symbol)).toEqual([
      's_must',
      's_read1',
      's_read2',
    ]);
  });

  it('shows the lag, the unit and the display, and nothing where there is no figure', () => {
    const of = (more: Partial<Setup>) => worked(WANTED, more).at(0)?.[1] ?? [];
    // 4 s x ln 1000 = 27.63 s.
    expect(of({ dampingS: 4 }).at(-1)?.value).toBeCloseTo(27.631, 3);
    expect(of({ inputUnit: 'mbar' }).at(-1)?.value).toBeCloseTo(100 / (999.972 * 9.80665 * 0.0254), 6);
    expectEndsIn(of({ displayHigh: 500 }), 'e', 12.5);
    expectEndsIn(of({ displayLow: 10 }), 'd_read', 205);
    for (const steps of [of({ dampingS: 4 }), of({ displayHigh: 500 })]) expectConsistent(steps);
    expect(of({ startView: 'output' })).toEqual([]);
    expect(of({ urv: 0 })).toEqual([]);
    expect(worked(LINEAR_WANTED, { drivenBy: 'scaled variable' }).at(0)?.[1]).toEqual([]);
  });

  it('ends in what a check finds', () => {
    const tilt = workPositionHead([934, 0.06, 15], { inputUnit: 'mbar', lrv: 100, urv: 0 });
    expectConsistent(tilt.working);
    // By hand: 142.24 Pa of 10 kPa.
    expect(tilt.value).toBeCloseTo(1.422378, 6);
    expectWorked(workLeastTerminalVoltage(18, 4, 250, 22));
  });
});

it('says every setting in words', () => {
  expect(settingWords(SETUP, 'urv')).toBe('100 inH2O at 4 °C');
  expect(settingWords(SETUP, 'switchingPoints')).toBe('low: at 10 inH2O at 4 °C, back at 12 inH2O at 4 °C');
  expect(settingWords({ ...SETUP, switchingPoints: [] }, 'switchingPoints')).toBe('none');
  expect(settingWords(NOTHING_READ, 'drivenBy')).toBe('');
});

describe('checks of the set-up', () => {
  it('an output at rest says nothing at the low saturation', () => {
    expect(['4', '3.9', '3.802'].map((mA) => outputAtRest(Number(mA), 0.001))).toEqual([
      'shows',
      'shows',
      'shows',
    ]);
    expect(['3.801', '3.8', '3.7', '20.5', '20.9'].map((mA) => outputAtRest(Number(mA), 0.001))).toEqual(
      Array<string>(5).fill('at saturation'),
    );
    expect(['3.6', '3.5', '21', '21.5'].map((mA) => outputAtRest(Number(mA), 0.001))).toEqual(
      Array<string>(4).fill('failure'),
    );
    expect(() => outputAtRest(NaN, 0.001)).toThrow('finite');
  });

  it('a tilt reads as a head', () => {
    // By hand: 934 x 9.80665 x 0.060 x sin 15 degrees = 142.24 Pa.
    expect(positionHead(934, 0.06, 15)).toBeCloseTo(142.2378, 4);
    expect(positionHead(934, 0.06, -15)).toBeCloseTo(-142.2378, 4);
    expect(positionHead(934, 0.06, 90)).toBeCloseTo(549.56, 2);
    expect(() => positionHead(-1, 0.06, 15)).toThrow('greater than zero');
    expect(() => positionHead(934, 0.06, 200)).toThrow('-180');
  });

  it('the terminal voltage is least at the highest current', () => {
    expect(leastTerminalVoltage(18, 4, 250, 22)).toBeCloseTo(13.5, 12);
    expect(leastTerminalVoltage(18, 4, 0, 22)).toBe(18);
    expect(() => leastTerminalVoltage(18, 4, -1, 22)).toThrow('negative');
  });
});
