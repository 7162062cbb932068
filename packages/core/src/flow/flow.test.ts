import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectConsistent, expectEndsIn, expectWorked } from '../../test/working';
import { expectAll, loadCases, type Case } from '../../test/fixtures';
import {
  brokenLimits,
  coefficientUncertainty,
  dampedFlow,
  densityFactor,
  differentialAt,
  dischargeCoefficient,
  expansibilityUncertainty,
  flowAt,
  flowErrorAt,
  flowUncertainty,
  leastReynolds,
  orificeBore,
  orificeDifferential,
  orificeFlow,
  rangeability,
  totaliserFactor,
  totalsOf,
  totalsOfDifferential,
  uncompensatedPercent,
  workDensity,
  workFlow,
  workFlowError,
  workOrifice,
  type Fluid,
  type Plate,
  type Taps,
} from './index';

interface Given {
  readonly [name: string]: never;
}
type FlowCase = Case<Given>;
const cases = (kind: string) =>
  loadCases<FlowCase>('flow.json', new RegExp(`^${kind}$`)).map((one): [string, FlowCase] => [one.id, one]);
/** A figure of a case, and a list of them. */
const num = (given: Given, name: string): number => given[name] as unknown as number;
const list = (given: Given, name: string): readonly number[] => given[name] as unknown as readonly number[];

const word = (given: Given, name: string): string => given[name] as unknown as string;

const KILO = 1000;
const TAPS_OF: Readonly<Record<string, Taps>> = { corner: 'corner', flange: 'flange', 'D-D/2': 'D and D/2' };

describe('the root of a differential (topic K)', () => {
  it.each(cases('sqrt_table'))('%s: flow, differential and currents', (_id, { given, expect: wanted }) => {
    const scale = { flowMax: num(given, 'qmax'), differentialMax: num(given, 'dpmax') };
    const differentials = list(given, 'dp');
    expectAll(wanted, {
      flow: differentials.map((dp) => flowAt(scale, dp)),
      dp_for_flow: list(given, 'flow_for_inverse').map((flow) => differentialAt(scale, flow)),
      mA_sqrt_transmitter: differentials.map((dp) => 4 + (16 * flowAt(scale, dp)) / scale.flowMax),
      mA_linear_dp_transmitter: differentials.map((dp) => 4 + (16 * dp) / scale.differentialMax),
    });
  });

  it.each(cases('cutoff'))(
    '%s: below the cut-off nothing, at it the flow is kept',
    (_id, { given, expect: wanted }) => {
      const scale = { flowMax: num(given, 'qmax'), differentialMax: num(given, 'dpmax') };
      const transfer = {
        kind: 'square-root-cut-off',
        cutOffPercentOfFlow: num(given, 'cutoff_pct_of_qmax'),
      } as const;
      expectAll(wanted, { flow: list(given, 'dp').map((dp) => flowAt(scale, dp, transfer)) });
    },
  );

  it.each(cases('dp_error'))(
    '%s: what an error of the differential makes of the flow',
    (_id, { given, expect: wanted }) => {
      const errors = list(given, 'flow_pct').map((flow) =>
        flowErrorAt(flow, num(given, 'dp_error_pct_of_dp_span')),
      );
      expectAll(wanted, {
        flow_error_pct_of_rate_exact: errors.map((one) => one.percentOfFlow),
        flow_error_pct_of_rate_linearised: errors.map((one) => one.linearPercentOfFlow),
        flow_error_pct_of_max_exact: errors.map((one) => one.percentOfMax),
      });
    },
  );

  it('says what is common practice of small zero errors, once and twice rooted', () => {
    const scale = { flowMax: 100, differentialMax: 172.75 };
    // Common practice: 0.07 of 172.75 shows about 2 on a scale of 0 to 100; 0.2 shows 3.4 with one root and about 18 with two.
    expect(flowAt(scale, 0.07)).toBeCloseTo(2.01, 2);
    const once = flowAt(scale, 0.2);
    const twice = flowAt({ flowMax: 100, differentialMax: 100 }, once);
    expect(once).toBeCloseTo(3.4, 1);
    expect(twice).toBeCloseTo(18.4, 1);
    // And 4.5 and 7 mA.
    expect(4 + 0.16 * once).toBeCloseTo(4.5, 1);
    expect(4 + 0.16 * twice).toBeCloseTo(7, 0);
    expect(flowErrorAt(0, (0.07 / 172.75) * 100).percentOfMax).toBeCloseTo(2.01, 2);
  });

  it('has a rangeability by its cut-off, and none without', () => {
    expect(rangeability(10)).toBe(10);
    // Common practice: 12 % is about 8 : 1.
    expect(rangeability(12)).toBeCloseTo(8.33, 2);
    expect(rangeability(0)).toBeNull();
    expect(() => rangeability(101)).toThrow('The low-flow cut-off must be from 0 to 100 %');
  });

  it('refuses in words what has no root', () => {
    expect(() => flowAt({ flowMax: 0, differentialMax: 25 }, 1)).toThrow('The flow at full scale');
    expect(() => flowAt({ flowMax: 5, differentialMax: -25 }, 1)).toThrow('The differential at full scale');
    expect(() => flowAt({ flowMax: 5, differentialMax: 25 }, NaN)).toThrow('The differential');
    expect(differentialAt({ flowMax: 5, differentialMax: 25 }, -1)).toBe(0);
  });
});

describe('the density of a gas (topic K)', () => {
  it.each(cases('density'))('%s', (_id, { given, expect: wanted }) => {
    const barometer = word(given, 'pressure_kind') === 'gauge' ? num(given, 'barometric_bar') : 0;
    const factor = densityFactor(
      { pressure: num(given, 'P') + barometer, temperatureC: num(given, 'T_degC') },
      { pressure: num(given, 'P_ref') + barometer, temperatureC: num(given, 'T_ref_degC') },
    );
    expectAll(wanted, {
      factor,
      compensated_flow: factor * num(given, 'indicated_flow'),
      error_if_not_compensated_pct: uncompensatedPercent(factor),
    });
  });

  it('is of absolute pressures and temperatures', () => {
    const at = { pressure: 1, temperatureC: 20 };
    expect(() => densityFactor({ pressure: 0, temperatureC: 20 }, at)).toThrow('The absolute pressure');
    expect(() => densityFactor({ pressure: 1, temperatureC: -274 }, at)).toThrow('The absolute temperature');
  });
});

/** The plate and the fluid of a case. */
const plateOf = (given: Given): Plate => ({
  pipeM: num(given, 'D_mm') / KILO,
  boreM: num(given, 'd_mm') / KILO,
  taps: TAPS_OF[word(given, 'taps')] ?? 'corner',
});
const fluidOf = (given: Given): Fluid => ({
  pressurePa: num(given, 'p1_kPa_abs') * KILO,
  densityKgPerM3: num(given, 'rho1_kg_m3'),
  viscosityPaS: num(given, 'mu_Pa_s'),
  isentropicExponent: word(given, 'fluid') === 'liquid' ? null : num(given, 'kappa'),
});

describe('an orifice plate after ISO 5167-2 (topic K)', () => {
  it.each(cases('discharge_coefficient'))(
    '%s: coefficients by taps, ratio and Reynolds number',
    (_id, { given, expect: wanted }) => {
      const rows = given['rows'] as unknown as readonly { readonly beta: number; readonly Re_D: number }[];
      const pipeM = num(given, 'D_mm') / KILO;
      const taps = TAPS_OF[word(given, 'taps')] ?? 'corner';
      expectAll(wanted, {
        C: rows.map(({ beta, Re_D }) => dischargeCoefficient({ pipeM, boreM: beta * pipeM, taps }, Re_D)),
      });
    },
  );

  it.each(cases('orifice'))('%s: flow from the differential', (_id, { given, expect: wanted }) => {
    const [plate, fluid] = [plateOf(given), fluidOf(given)];
    const flow = orificeFlow(plate, fluid, num(given, 'dp_kPa') * KILO);
    expectAll(wanted, {
      beta: flow.beta,
      expansibility: flow.expansibility,
      C: flow.coefficient,
      Re_D: flow.reynolds,
      mass_flow: flow.massFlow,
      volume_flow_at_line_conditions: flow.volumeFlow * 3600,
      permanent_pressure_loss: flow.lossPa / KILO,
      within_limits_of_use: brokenLimits(plate, fluid, flow).length === 0,
    });
    expectWorked(workOrificeAsWorked(plate, fluid, num(given, 'dp_kPa') * KILO));
  });

  it.each(cases('orifice_dp'))('%s: differential from the flow', (_id, { given, expect: wanted }) => {
    const flow = orificeDifferential(plateOf(given), fluidOf(given), num(given, 'mass_flow_kg_s'));
    expectAll(wanted, { Re_D: flow.reynolds, C: flow.coefficient, dp: flow.differentialPa / KILO });
  });

  it.each(cases('orifice_sizing'))('%s: bore from both', (_id, { given, expect: wanted }) => {
    const found = orificeBore(
      { pipeM: num(given, 'D_mm') / KILO, taps: TAPS_OF[word(given, 'taps')] ?? 'corner' },
      fluidOf(given),
      num(given, 'mass_flow_kg_s'),
      num(given, 'dp_kPa') * KILO,
    );
    expectAll(wanted, {
      beta: found.beta,
      d: found.boreM * KILO,
      C: found.coefficient,
      expansibility: found.expansibility,
    });
  });

  it('goes round: differential and bore of a flow give the flow again', () => {
    fc.assert(
      fc.property(
        fc.record({
          pipeM: fc.double({ min: 0.05, max: 1, noNaN: true }),
          beta: fc.double({ min: 0.1, max: 0.75, noNaN: true }),
          taps: fc.constantFrom<Taps>('corner', 'flange', 'D and D/2'),
          share: fc.double({ min: 0.001, max: 0.2, noNaN: true }),
          isGas: fc.boolean(),
        }),
        ({ pipeM, beta, taps, share, isGas }) => {
          const fluid: Fluid = isGas
            ? { pressurePa: 8e5, densityKgPerM3: 9.5, viscosityPaS: 1.8e-5, isentropicExponent: 1.4 }
            : { pressurePa: 8e5, densityKgPerM3: 998, viscosityPaS: 1e-3, isentropicExponent: null };
          const plate = { pipeM, boreM: beta * pipeM, taps };
          const differentialPa = share * fluid.pressurePa;
          const flow = orificeFlow(plate, fluid, differentialPa);
          expect(
            orificeDifferential(plate, fluid, flow.massFlow).differentialPa / differentialPa,
          ).toBeCloseTo(1, 9);
          expect(orificeBore({ pipeM, taps }, fluid, flow.massFlow, differentialPa).beta).toBeCloseTo(
            beta,
            9,
          );
        },
      ),
      { numRuns: 200, seed: 5 },
    );
  });

  it('tells each limit of use that is not kept, and none at the limits themselves', () => {
    const water: Fluid = {
      pressurePa: 6e5,
      densityKgPerM3: 998.2,
      viscosityPaS: 0.001002,
      isentropicExponent: null,
    };
    const names = (plate: Plate, fluid: Fluid, differentialPa: number) =>
      brokenLimits(plate, fluid, orificeFlow(plate, fluid, differentialPa)).map(({ name }) => name);
    const plate = (pipeMm: number, boreMm: number, taps: Taps = 'corner'): Plate => ({
      pipeM: pipeMm / KILO,
      boreM: boreMm / KILO,
      taps,
    });
    expect(names(plate(50, 37.5), water, 25_000)).toEqual([]);
    expect(names(plate(1000, 750), water, 25_000)).toEqual([]);
    expect(names(plate(125, 12.5), water, 25_000)).toEqual([]);
    expect(names(plate(49, 30), water, 25_000)).toEqual(['pipe']);
    expect(names(plate(1001, 500), water, 25_000)).toEqual(['pipe']);
    expect(names(plate(100, 76), water, 25_000)).toEqual(['beta']);
    expect(names(plate(100, 9), water, 25_000)).toEqual(['bore', 'beta', 'reynolds']);
    const thick = { ...water, viscosityPaS: 0.05 };
    expect(names(plate(100, 50), thick, 10_000)).toEqual(['reynolds']);
    const air: Fluid = {
      pressurePa: 4e5,
      densityKgPerM3: 4.7,
      viscosityPaS: 1.8e-5,
      isentropicExponent: 1.4,
    };
    expect(names(plate(100, 50), air, 1e5)).toEqual([]);
    expect(names(plate(100, 50), air, 1.01e5)).toEqual(['expansion']);
    // Flange taps ask for more in a large pipe: 170 beta² D, D in mm.
    expect(leastReynolds(plate(500, 300, 'flange'))).toBeCloseTo(170 * 0.36 * 500, 6);
    expect(leastReynolds(plate(100, 50))).toBe(5000);
    expect(leastReynolds(plate(100, 60))).toBeCloseTo(5760, 9);
  });

  it('has the uncertainties of the standard, and adds them up', () => {
    // ISO 5167-2:2003, 5.3.3.1 and ISO 5167-1:2003, 8.2.2.2, from memory.
    const plate = (beta: number, pipeM = 0.1): Plate => ({ pipeM, boreM: beta * pipeM, taps: 'corner' });
    expect(coefficientUncertainty(plate(0.15), 1e5)).toBeCloseTo(0.55, 12);
    expect(coefficientUncertainty(plate(0.5), 1e5)).toBe(0.5);
    expect(coefficientUncertainty(plate(0.75), 1e5)).toBeCloseTo(0.75, 3);
    expect(coefficientUncertainty(plate(0.6), 9000)).toBe(1);
    // A pipe of 1.4 inches, half of 2.8: 0.9 (0.75 - 0.5) 1.4 more.
    expect(coefficientUncertainty(plate(0.5, 1.4 * 0.0254), 1e5)).toBeCloseTo(0.5 + 0.315, 9);
    const air: Fluid = {
      pressurePa: 4e5,
      densityKgPerM3: 4.7,
      viscosityPaS: 1.8e-5,
      isentropicExponent: 1.4,
    };
    expect(expansibilityUncertainty(air, 4e4)).toBeCloseTo(0.25, 12);
    // By hand, beta 0.5: 2 beta⁴/(1 - beta⁴) = 0.13333, 2/(1 - beta⁴) = 2.13333.
    const parts = {
      coefficient: 0.5,
      expansibility: 0.25,
      pipe: 0.4,
      bore: 0.07,
      differential: 1,
      density: 0.2,
    };
    const squares =
      0.25 + 0.0625 + (0.4 * 0.1333333333333) ** 2 + (0.07 * 2.1333333333333) ** 2 + 0.25 + 0.01;
    expect(flowUncertainty(0.5, parts)).toBeCloseTo(Math.sqrt(squares), 9);
  });

  it('refuses what no plate does, in words', () => {
    const water: Fluid = {
      pressurePa: 6e5,
      densityKgPerM3: 998.2,
      viscosityPaS: 0.001002,
      isentropicExponent: null,
    };
    const air: Fluid = {
      pressurePa: 4e5,
      densityKgPerM3: 4.7,
      viscosityPaS: 1.8e-5,
      isentropicExponent: 1.4,
    };
    const plate: Plate = { pipeM: 0.1, boreM: 0.05, taps: 'corner' };
    expect(() => orificeFlow({ ...plate, boreM: 0.1 }, water, 1000)).toThrow(
      'the bore is as wide as the pipe',
    );
    expect(() => orificeFlow(plate, water, 0)).toThrow('The differential');
    expect(() => orificeFlow(plate, air, 4e5)).toThrow('as large as the absolute pressure upstream');
    expect(() => orificeFlow(plate, { ...air, isentropicExponent: 0.5 }, 1000)).toThrow(
      'The isentropic exponent',
    );
    expect(() => orificeDifferential(plate, air, 50)).toThrow('so much gas does not pass this bore');
    expect(() => orificeBore({ pipeM: 0.1, taps: 'corner' }, water, 1e6, 1000)).toThrow(
      'no bore of 0.02 to 0.95',
    );
  });
});

const workOrificeAsWorked = (plate: Plate, fluid: Fluid, differentialPa: number) => {
  const { value, working } = workOrifice(plate, fluid, differentialPa);
  // The volume flow stands behind the mass flow.
  return { value, working: working.slice(0, -1) };
};

describe('totals (topic K)', () => {
  it.each(cases('totalise'))('%s', (_id, { given, expect: wanted }) => {
    const samples = (given['samples'] as unknown as readonly { t: number; flow: number }[]).map(
      ({ t, flow }) => ({ time: t, flow }),
    );
    const per = word(given, 'time_unit') === word(given, 'flow_per') ? 1 : 60;
    const totals = totalsOf(samples, per);
    expectAll(wanted, {
      total_trapezoid: totals.trapezoid,
      total_hold_previous: totals.holdPrevious,
      total_hold_next: totals.holdNext,
      mean_flow_trapezoid: totals.mean,
    });
  });

  it.each(cases('totalise_dp'))('%s: the root is taken before the sum', (_id, { given, expect: wanted }) => {
    const samples = (given['samples'] as unknown as readonly { t: number; dp: number }[]).map(
      ({ t, dp }) => ({ time: t, differential: dp }),
    );
    const scale = { flowMax: num(given, 'qmax'), differentialMax: num(given, 'dpmax') };
    const transfer = {
      kind: 'square-root-cut-off',
      cutOffPercentOfFlow: num(given, 'cutoff_pct_of_qmax'),
    } as const;
    const totals = totalsOfDifferential(scale, samples, 60, transfer);
    expectAll(wanted, {
      total_trapezoid: totals.trapezoid,
      mean_flow: totals.mean,
      flow_from_mean_dp: totals.flowOfMeanDifferential,
    });
  });

  it('has a factor, and refuses a time that does not rise', () => {
    expect(totaliserFactor({ flowMax: 450 }, 9000)).toBeCloseTo(0.05, 12);
    expect(() => totaliserFactor({ flowMax: 450 }, 0)).toThrow('Counts at full scale');
    expect(() => totalsOf([{ time: 0, flow: 1 }], 60)).toThrow('At least 2');
    expect(() =>
      totalsOf(
        [
          { time: 1, flow: 1 },
          { time: 1, flow: 2 },
        ],
        60,
      ),
    ).toThrow('The time must rise');
  });
});

describe('noise against damping', () => {
  const at = (patch: Partial<Parameters<typeof dampedFlow>[0]> = {}) =>
    dampedFlow({
      flowPercent: 50,
      noisePercent: 2,
      noiseTimeS: 0.5,
      dampingS: 0,
      transfer: { kind: 'square-root' },
      seed: 1,
      ...patch,
    });

  it('is as loud as the slope of the root says, and less so behind a damping', () => {
    // At 50 % of flow the slope is 1 / (2 * 0.5): 2 % of differential is 2 % of flow.
    expect(at().deviationPercent).toBeCloseTo(2, 0);
    // A first-order noise behind a first-order lag keeps sqrt(t / (t + damping)) of its deviation.
    expect(at({ dampingS: 4 }).deviationPercent / at().deviationPercent).toBeCloseTo(Math.sqrt(0.5 / 4.5), 1);
    expect(at({ noisePercent: 0 }).deviationPercent).toBeLessThan(1e-6);
  });

  it('shows more than there is near no flow, and comes late', () => {
    const none = at({ flowPercent: 0 });
    // The mean of the root of half a normal: 0.411 sqrt(sigma), here 5.8 % of full scale.
    expect(none.biasPercent).toBeCloseTo(0.411 * Math.sqrt(0.02) * 100, 0);
    expect(at({ dampingS: 2 }).to63S).toBe(2);
    expect(at({ dampingS: 2 }).to99S).toBeCloseTo(9.21, 2);
    const cut = at({ flowPercent: 0, transfer: { kind: 'square-root-cut-off', cutOffPercentOfFlow: 25 } });
    expect(cut.meanPercent).toBeLessThan(none.meanPercent);
  });

  it('is the same for a seed, and refuses in words', () => {
    expect(at()).toEqual(at());
    expect(at({ seed: 2 }).meanPercent).not.toBe(at().meanPercent);
    expect(() => at({ noisePercent: -1 })).toThrow('The noise');
    expect(() => at({ noiseTimeS: 0 })).toThrow('The time of the noise');
    expect(() => at({ flowPercent: 200 })).toThrow('The flow must be from 0 to 150');
  });
});

describe('the working of flow', () => {
  const units = { flow: 'm³/h', differential: 'mbar' };
  it('ends at the figures', () => {
    const scale = { flowMax: 450, differentialMax: 25 };
    for (const transfer of [
      { kind: 'square-root' },
      { kind: 'square-root-cut-off', cutOffPercentOfFlow: 10 },
      { kind: 'square-root-linear-start', linearToPercentOfFlow: 10 },
    ] as const)
      for (const differential of [-1, 0, 0.1, 0.25, 6.25, 25, 30]) {
        const worked = workFlow(scale, differential, transfer, units);
        expectWorked(worked);
        expect(worked.value).toBeCloseTo(flowAt(scale, differential, transfer), 10);
      }
    for (const [flow, error] of [
      [0, 0.04],
      [4, -0.25],
      [50, 0.1],
    ] as const) {
      const worked = workFlowError(flow, error);
      expectWorked(worked);
      expect(worked.value).toBeCloseTo(flowErrorAt(flow, error).percentOfMax, 10);
    }
    const now = { pressure: 12.5, temperatureC: 60 };
    expectWorked(workDensity(now, { pressure: 10, temperatureC: 20 }));
    const gas: Fluid = {
      pressurePa: 8e5,
      densityKgPerM3: 9.5,
      viscosityPaS: 1.82e-5,
      isentropicExponent: 1.4,
    };
    const { working } = workOrifice({ pipeM: 0.154, boreM: 0.09, taps: 'flange' }, gas, 25_000);
    expectConsistent(working);
    expectEndsIn(
      working,
      'q_V',
      orificeFlow({ pipeM: 0.154, boreM: 0.09, taps: 'flange' }, gas, 25_000).volumeFlow,
    );
  });
});
