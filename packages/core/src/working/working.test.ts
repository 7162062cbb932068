/**
 * A working may not part from its result: its last step is the result, and each step, computed again from the numbers
 * that it shows, gives the value that it shows.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectConsistent, expectEndsIn, expectWorked } from '../../test/working';
import {
  airDensity,
  airDensitySimplified,
  deadweightPressure,
  gasHead,
  liquidHead,
  localGravity,
  manometerPressure,
  markedDeadweight,
  mercuryBarometer,
} from '../corrections';
import { workWait } from '../procedure';
import {
  workApplied,
  workDisplayed,
  workExpected,
  workSensitivity,
  type SignalRange,
  type Transfer,
} from '../signal';
import {
  pooledStandardDeviation,
  standardUncertainty,
  uncertaintyBudget,
  workBudget,
  workPooled,
  workSpecification,
  workStandardUncertainty,
  type BudgetModel,
  type UncertainInput,
} from '../uncertainty';
import {
  PRESSURE_KINDS,
  QUANTITIES,
  unitsOf,
  workApi,
  workConversion,
  workDensity,
  workKind,
  type Quantity,
} from '../units';
import { stepTex, Working } from './index';

const UNITS = { input: 'kPa', output: 'mA' };
const TRANSFERS: Transfer[] = [
  { kind: 'linear' },
  { kind: 'square-root' },
  { kind: 'square-root-cut-off', cutOffPercentOfFlow: 12 },
  { kind: 'square-root-linear-start', linearToPercentOfFlow: 10 },
  { kind: 'square-root-slope-one', linearToPercentOfInput: 0.8 },
  {
    kind: 'table',
    points: [
      { inputPercent: 0, outputPercent: 0 },
      { inputPercent: 30, outputPercent: 55 },
      { inputPercent: 100, outputPercent: 100 },
    ],
  },
];

describe('the working of', () => {
  it('every conversion ends in the value that the conversion gives', () => {
    const quantities = Object.keys(QUANTITIES) as Quantity[];
    for (const quantity of quantities)
      for (const from of unitsOf(quantity))
        for (const to of unitsOf(quantity)) expectWorked(workConversion(37.4, from, to));
    const barometer = { value: 985, unit: 'hPa' } as const;
    for (const from of PRESSURE_KINDS)
      for (const to of PRESSURE_KINDS) {
        if (from !== to && (from === 'differential' || to === 'differential')) continue;
        expectWorked(
          workKind({ value: 0.25, unit: 'bar', kind: from }, { unit: 'kPa', kind: to }, barometer),
        );
      }
  });

  it('an expected output and its inverse, through every transfer function', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...TRANSFERS),
        fc.integer({ min: -300, max: 12000 }),
        (transferFunction, n) => {
          const range: SignalRange = { lrv: 20, urv: 220, outputLow: 4, outputHigh: 20, transferFunction };
          expectWorked(workExpected(range, 20 + n / 50, UNITS));
          expectWorked(workApplied(range, 4 + (n / 10000) * 16, UNITS));
        },
      ),
    );
  });

  it('a budget, whose sensitivities here come from symbolic derivation and there from the tape', () => {
    const budgets: BudgetModel[] = [
      {
        model: '100 * (I + dI - (4 + 16 * sqrt((p + dp) / span))) / 16',
        unit: '% of span',
        inputs: [
          { name: 'I', unit: 'mA', distribution: { kind: 'type-a', readings: [12.012, 12.014, 12.011] } },
          { name: 'dI', unit: 'mA', estimate: 0, distribution: { kind: 'resolution', step: 0.001 } },
          { name: 'p', unit: 'kPa', estimate: 25, distribution: { kind: 'normal', expanded: 0.025, k: 2 } },
          { name: 'dp', unit: 'kPa', estimate: 0, distribution: { kind: 'u-shaped', halfWidth: 0.01 } },
          { name: 'span', unit: 'kPa', estimate: 100, distribution: { kind: 'standard', uncertainty: 0 } },
        ],
      },
      {
        model: 'ln(a) * exp(-b) + max(c, 0)^2',
        unit: '',
        inputs: [
          { name: 'a', unit: '', estimate: 2, distribution: { kind: 'normal-95', expanded: 0.1 } },
          { name: 'b', unit: '', estimate: 0.5, distribution: { kind: 'triangular', halfWidth: 0.1 } },
          {
            name: 'c',
            unit: '',
            estimate: 3,
            distribution: { kind: 'specification', specification: { reading: 3, percentOfReading: 1 } },
          },
        ],
        correlations: [{ a: 'a', b: 'b', r: -0.4 }],
      },
      {
        model: 'a - b',
        unit: 'kPa',
        inputs: [
          {
            name: 'a',
            unit: 'kPa',
            estimate: 2,
            distribution: { kind: 'pooled', sd: 0.1, count: 3, degreesOfFreedom: 12 },
          },
          { name: 'b', unit: 'kPa', estimate: 1, distribution: { kind: 'rectangular', halfWidth: 0.1 } },
        ],
      },
    ];
    for (const model of budgets) {
      const budget = uncertaintyBudget(model);
      const steps = workBudget(model, budget);
      expectConsistent(steps);
      expectEndsIn(steps, 'Y', budget.value);
      expectEndsIn(steps, 'u_c', budget.combined);
      expectEndsIn(steps, 'U', budget.expanded);
      budget.components.forEach(({ sensitivity, standardUncertainty }, i) => {
        expectEndsIn(steps, `c_${i + 1}`, sensitivity);
        expectEndsIn(steps, `u_${i + 1}`, standardUncertainty);
      });
      if (typeof budget.effectiveDegreesOfFreedom === 'number')
        expectEndsIn(steps, 'nu_eff', budget.effectiveDegreesOfFreedom);
    }
  });

  it('one input, a specification and a pooled spread', () => {
    const kinds: UncertainInput['distribution'][] = [
      { kind: 'type-a', readings: [12.01, 12.02, 12.04] },
      { kind: 'u-shaped', halfWidth: 0.2 },
      { kind: 'normal-95', expanded: 0.2 },
    ];
    for (const distribution of kinds) {
      const input: UncertainInput = { name: 'a', unit: 'mA', estimate: 1, distribution };
      const steps = workStandardUncertainty(input);
      expectConsistent(steps);
      expectEndsIn(steps, 'u', standardUncertainty(input).u);
    }
    expectWorked(
      workSpecification(
        {
          reading: -50,
          percentOfReading: 0.02,
          percentOfRange: 0.01,
          range: 200,
          floor: 0.003,
          driftPercentOfReadingPerYear: 0.01,
          years: 0.5,
          percentOfReadingPerK: 0.002,
          temperatureDifferenceK: -7,
        },
        'kPa',
      ),
    );
    expectWorked(workSpecification({ reading: 50, floor: 0.25 }, 'kPa'));
    expectWorked(workSpecification({ reading: 50 }, 'kPa'));
    const groups = [[1, 3], [2], [5, 5.5, 6.5]];
    const steps = workPooled(groups, 'kPa');
    expectConsistent(steps);
    expectEndsIn(steps, 'nu', pooledStandardDeviation(groups).degreesOfFreedom);
    expectEndsIn(steps, 's_p', pooledStandardDeviation(groups).sd);
  });

  it('densities, a display, a sensitivity and a wait', () => {
    expectWorked(workDensity(0.85, 999.972));
    expectWorked(workApi(35));
    expectWorked(workWait(2, 0.1));
    for (const transferFunction of TRANSFERS) {
      const range: SignalRange = { lrv: 20, urv: 220, outputLow: 4, outputHigh: 20, transferFunction };
      expectWorked(workDisplayed(range, { low: 0, high: 8 }, 11.3, 't/h', 'mA'));
      for (const applied of [-3, 20.5, 21, 40, 130, 215])
        expectWorked(workSensitivity(range, applied, UNITS));
    }
  });

  it('every correction, which is computed by its own steps', () => {
    const site = { heightM: 0.5, gravityMPerS2: 9.8118 };
    const liquid = { pressurePa: 1e6, liquidDensityKgPerM3: 860, airDensityKgPerM3: 1.2, ...site };
    const gas = {
      pressurePa: 2e6,
      molarMassGPerMol: 28.0134,
      temperatureC: 20,
      barometerPa: 101325,
      ...site,
    };
    const air = { temperatureC: 20, pressurePa: 101325, relativeHumidityPercent: 50 };
    const column = { readingM: 0.5, temperatureC: 21, gravityMPerS2: 9.8, densityAboveKgPerM3: 1.2 };
    [
      liquidHead(liquid),
      gasHead(gas),
      localGravity(53, 20),
      deadweightPressure({
        massesKg: [1, 10],
        massDensityKgPerM3: 7920,
        airDensityKgPerM3: 1.2,
        areaM2: 4.032e-5,
        areaExpansionPerK: 1.66e-5,
        temperatureC: 21,
        distortionPerPa: 1e-12,
        gravityMPerS2: 9.81,
      }),
      markedDeadweight({
        marked: 100,
        unit: 'bar',
        markingGravityMPerS2: 9.80665,
        gravityMPerS2: 9.812,
        areaExpansionPerK: 2.2e-5,
        temperatureC: 22,
      }),
      manometerPressure({ ...column, liquid: 'water', shape: { kind: 'inclined', angleDegrees: 30 } }),
      manometerPressure({
        ...column,
        liquid: 'mercury',
        shape: { kind: 'well', tubeDiameterM: 0.006, wellDiameterM: 0.08 },
      }),
      mercuryBarometer({ readingM: 0.7624, temperatureC: 21, gravityMPerS2: 9.8035 }),
      airDensity(air),
      airDensitySimplified(air),
    ].forEach(expectWorked);
  });
});

describe('a step', () => {
  it('shows symbols, the same with numbers and units, and the result', () => {
    const work = new Working();
    work.step({
      what: 'Head',
      symbol: 'dp',
      formula: '-rho_w * g * h',
      given: {
        rho_w: { value: 998.2, unit: 'kg/m³' },
        g: { value: 9.80665, unit: 'm/s²' },
        h: { value: -0.254, unit: 'm' },
      },
      unit: 'Pa',
      source: 'hydrostatics',
    });
    const [step] = work.steps;
    if (step === undefined) throw new Error('no step');
    expect(stepTex(step)).toEqual({
      symbols: '\\mathrm{dp} = - \\rho_{w}\\cdot g\\cdot h',
      numbers:
        '\\mathrm{dp} = - 998.2\\,\\mathrm{kg/m^3}\\cdot 9.80665\\,\\mathrm{m/s^2}\\cdot \\left(-0.254\\,\\mathrm{m}\\right)',
      result: '\\mathrm{dp} = 2486.4055\\,\\mathrm{Pa}',
    });
  });

  it('keeps only what its formula uses, and knows the steps before it', () => {
    const work = new Working();
    work.step({
      what: 'one',
      symbol: 'a',
      formula: '2 * x',
      given: { x: { value: 3, unit: '' } },
      unit: '',
      source: 's',
    });
    work.step({
      what: 'two',
      symbol: 'b',
      formula: 'a + 1',
      given: { x: { value: 9, unit: '' } },
      unit: '',
      source: 's',
    });
    expect(work.steps[1]?.value).toBe(7);
    expect(Object.keys(work.steps[1]?.given ?? {})).toEqual(['a']);
    expect(() => work.step({ what: 'three', symbol: 'c', formula: 'q', unit: '', source: 's' })).toThrow(
      'uses "q"',
    );
  });
});
