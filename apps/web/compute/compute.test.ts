import SwaggerParser from '@apidevtools/swagger-parser';
import { beforeAll, describe, expect, it } from 'vitest';
import { answerCalculation, pathOf } from './answer';
import { CALCULATIONS } from './index';
import { openApiDocument } from './openapi';

const range = { lrv: 0, urv: 100, outputLow: 4, outputHigh: 20 };
const root = { ...range, transferFunction: { kind: 'square-root' } };
const tolerance = { terms: [{ kind: 'percent-of-span', percent: 0.25 }] };
const reading = { direction: 'up', nominalPercent: 0, applied: 0, output: 4.04 };
const limits = { lower: -0.04, upper: 0.04 };
const input = { name: 'a', estimate: 2, unit: 'mA', distribution: { kind: 'standard', uncertainty: 0.1 } };
const budget = { model: '2 * a', unit: 'mA', inputs: [input] };
const decades = { low: 0.001, high: 1000, outputLow: 4, outputHigh: 20 };
const tank = { arrangement: 'open', liquidKgPerM3: 1000, fullM: 3 };
const drum = { tapsM: 0.6, fullM: 0.6 };
const hot = { pressurePa: 4e6, legTemperatureC: 40 };
const flowScale = { flowMax: 500, differentialMax: 25 };
const water = { densityKgPerM3: 998.2, viscosityPaS: 0.001002 };
const loop = { supplyV: 24, liftOffV: 12, senseOhm: 250, wire: { lengthM: 500, areaMm2: 1 } };
const chain = [
  {
    name: 'FT',
    from: null,
    input: { low: 0, high: 25 },
    output: { low: 4, high: 20 },
    transfer: { kind: 'square-root' },
    tolerancePercent: 0.1,
  },
  {
    name: 'R',
    kind: 'resistor',
    from: 0,
    input: { low: 4, high: 20 },
    output: { low: 1, high: 5 },
    tolerancePercent: 0.1,
  },
];
const moistAir = { temperatureC: 20, pressurePa: 101325, relativeHumidityPercent: 50 };

/** One good request for each calculation, and a figure of its answer worked out by hand or in the core's own cases. */
const REQUESTS: Record<string, readonly [request: object, figure: string, value: unknown]> = {
  convert: [{ value: 25, from: 'degC', to: 'degF' }, 'value', 77],
  'convert-to-all': [{ value: 1, from: 'bar' }, 'quantity', 'pressure'],
  'convert-kind': [
    {
      pressure: { value: 40, unit: 'kPa', kind: 'absolute' },
      to: { unit: 'mbar', kind: 'gauge' },
      barometer: { value: 100.2, unit: 'kPa' },
    },
    'value',
    -602,
  ],
  'parse-unit': [{ unit: 'in H2O @ 68F' }, 'unit', 'inH2OAt68F'],
  drift: [
    {
      history: ['2020-02-29', '2021-02-28', '2022-02-28'].map((date, index) => ({
        date,
        found: [0.01, 0.031, 0.05][index],
      })),
      limit: 0.25,
      predictAt: '2023-02-28',
    },
    'insideUntil.oneSided',
    '2030-06-03',
  ],
  anomalies: [
    {
      history: [2019, 2020, 2021, 2022, 2023, 2024].map((year, index) => ({
        date: `${year}-05-04`,
        found: [0, 0.004, -0.004, 0.006, 0.2, 0.204][index],
      })),
      limit: 0.25,
    },
    'anomalies.0.day',
    '2023-05-04',
  ],
  reliability: [{ calibrations: 20, out: 0 }, 'twoSided.high', 1],
  'reliability-model': [
    { rows: [{ interval: 12, calibrations: 25, out: 0 }], target: 0.95 },
    'interval',
    null,
  ],
  'interval-advice': [{ months: 24, cap: 12, target: 0.95 }, 'months', 12],
  'density-from-relative': [{ relativeDensity: 0.85 }, 'value', 850],
  'relative-from-api': [{ apiGravity: 10 }, 'value', 1],
  'expected-output': [{ range: root, applied: 25 }, 'value', 12],
  'applied-for-output': [{ range: root, output: 12 }, 'value', 25],
  'expected-table': [{ range, stepPercent: 25 }, 'rows.length', 5],
  'output-sensitivity': [{ range, applied: 3 }, 'value', 0.16],
  'displayed-value': [{ range, display: { low: 0, high: 8 }, output: 12 }, 'value', 4],
  'signal-region': [{ current: 3.7 }, 'region', 'undefined-low'],
  'test-points': [
    { range, procedure: { points: { in: 'percent-of-input', values: [0, 50, 100] } } },
    'points.length',
    5,
  ],
  'wait-for-damping': [{ dampingS: 1, sharePercent: 100 }, 'value', 0],
  'is-settled': [{ samples: [], rule: { waitS: 1, holdS: 1, band: 0.1 } }, 'isSettled', false],
  'evaluate-run': [{ range, tolerance, readings: [reading] }, 'verdict', 'within'],
  'judge-reading': [{ range, tolerance, reading: { ...reading, output: 4.0401 } }, 'verdict', 'outside'],
  'error-terms': [{ range, applied: 50, output: 12.16 }, 'scaleDivisions', null],
  'accepted-output': [{ range, tolerance, applied: 50 }, 'highest', 12.04],
  'error-uncertainty': [{ range, applied: 50, standardInput: 0.02 }, 'value', expect.closeTo(0.0032, 9)],
  'accuracy-ratio': [{ range, tolerance, standardAccuracyInput: 0.05 }, 'value', 5],
  'standard-uncertainty': [{ input }, 'u', 0.1],
  specification: [{ reading: 50, floor: 0.25 }, 'value', 0.25],
  'pooled-deviation': [{ groups: [[1, 3]] }, 'degreesOfFreedom', 1],
  'coverage-factor': [{ probability: 0.9545, degreesOfFreedom: 1000000 }, 'value', expect.closeTo(2, 4)],
  'round-result': [{ value: 12.34567, expandedUncertainty: 0.0995 }, 'uncertainty', '0.10'],
  'uncertainty-budget': [budget, 'combined', 0.2],
  'monte-carlo': [{ ...budget, trials: 20000 }, 'trials', 20000],
  'test-accuracy-ratio': [{ tolerance: 0.25, standardAccuracy: 0.05 }, 'value', 5],
  'test-uncertainty-ratio': [{ ...limits, expandedUncertainty: 0.01 }, 'value', 4],
  'guard-band': [
    { ...limits, expandedUncertainty: 0.012, measured: [0.028, 0.0281] },
    'decisions',
    ['accept', 'reject'],
  ],
  'method-6': [{ ...limits, expandedUncertainty: 0.005, measured: [0.04] }, 'multiplier', 0],
  statement: [{ ...limits, expandedUncertainty: 0.01, measured: 0.035 }, 'statement', 'conditional pass'],
  'specific-risk': [{ upper: 10, measured: 10, standardUncertainty: 0.15 }, 'value', 0.5],
  posterior: [{ prior: { mean: 0, sd: 1 }, measured: 2, standardUncertainty: 1 }, 'mean', 1],
  'global-risk': [
    { tolerance: limits, acceptance: limits, prior: { mean: 0, sd: 0.02 }, standardUncertainty: 0.005 },
    'inTolerance',
    expect.closeTo(0.9545, 4),
  ],
  'prior-from-reliability': [{ tolerance: 1, inTolerance: 0.95, standardUncertainty: 0.1 }, 'mean', 0],
  'acceptance-for-risk': [
    { tolerance: 1, standardUncertainty: 1 / 3, prior: { mean: 0, sd: 0.6 } },
    'applied',
    expect.closeTo(0.9253, 4),
  ],
  'acceptance-for-specific-risk': [{ upper: 10, standardUncertainty: 0.05, risk: 0.5 }, 'value', 10],
  'liquid-head': [{ pressurePa: 1000, liquidDensityKgPerM3: 1000, heightM: 0 }, 'value', 1000],
  'gas-head': [{ pressurePa: 1e5, molarMassGPerMol: 28, temperatureC: 20, heightM: 0 }, 'value', 1e5],
  'local-gravity': [{ latitudeDegrees: 0, heightM: 0 }, 'value', 9.780327],
  deadweight: [
    {
      massesKg: [5, 5, 5],
      massDensityKgPerM3: 7920,
      airDensityKgPerM3: 0,
      areaM2: 1e-4,
      areaExpansionPerK: 0,
      temperatureC: 20,
    },
    'value',
    expect.closeTo(1470997.5, 6),
  ],
  'marked-deadweight': [{ marked: 100, areaExpansionPerK: 0, temperatureC: 20 }, 'value', 100],
  manometer: [{ liquid: 'mercury', readingM: 0.76, temperatureC: 0 }, 'liquidDensityKgPerM3', 13595.1],
  'mercury-barometer': [{ readingM: 0.76, temperatureC: 0 }, 'correctedM', 0.76],
  'water-density': [{ temperatureC: 20 }, 'value', expect.closeTo(998.2067, 3)],
  'mercury-density': [{ temperatureC: 0 }, 'value', 13595.1],
  'air-density': [moistAir, 'value', expect.closeTo(1.1993145, 6)],
  'air-density-simplified': [moistAir, 'value', expect.closeTo(1.1992943, 7)],
  'vacuum-error': [{ reference: 100, indicated: 112 }, 'percentOfReference', 12],
  'decade-limit': [{ decades: 1 }, 'upperPercent', 900],
  'percent-limit-in-decades': [{ percent: 900 }, 'upperDecades', 1],
  'logarithmic-output': [{ range: decades, pressure: 1 }, 'value', expect.closeTo(12, 12)],
  'logarithmic-pressure': [{ range: decades, output: 12 }, 'value', expect.closeTo(1, 12)],
  // Half a per cent high everywhere, of a limit of a quarter.
  'adjustment-advice': [
    {
      range,
      tolerance,
      readings: [0, 50, 100].map((percent) => ({
        ...reading,
        nominalPercent: percent,
        applied: percent,
        output: 4.08 + 0.16 * percent,
      })),
      body: { technology: 'analog' },
    },
    'lead',
    'zero',
  ],
  'next-setting': [
    { targets: [3, 15], found: [3.1, 15.1], moves: [], noise: 0, tolerance: 0.01 },
    'next.setTo',
    3,
  ],
  'plain-alternation': [{ errors: [0.2, 0.6], pivot: 0.25, tolerance: 0.008 }, 'passes', 3],
  'screw-turns': [
    { zeroPerTurn: 0.5, spanPerTurnAtLow: -0.2, spanPerTurnAtHigh: 0.8, errors: [-0.06, 0.24] },
    'span',
    expect.closeTo(-0.3, 9),
  ],
  'judge-range': [
    { body: { lowerRangeLimit: -10, upperRangeLimit: 40, leastSpan: 4 }, lrv: 0, urv: 50 },
    'breaches.0.limit',
    'upper range limit',
  ],
  'span-overlap': [
    { one: { leastSpan: 20, greatestSpan: 205 }, other: { leastSpan: 200, greatestSpan: 850 } },
    'overlap',
    [200, 205],
  ],
  'least-span-of-stamp': [{ largestSpan: 200, turndown: 4 }, 'leastSpan', 50],
  'compare-setup': [
    {
      wanted: { inputUnit: 'mbar', lrv: 0, urv: 100, tolerancePercentOfSpan: 0.25 },
      read: { inputUnit: 'kPa', lrv: 0, urv: 12.5 },
    },
    'differences.1.percentOfSpan',
    expect.closeTo(-20, 9),
  ],
  'output-at-rest': [{ outputMilliamp: 3.8 }, 'verdict', 'at saturation'],
  'position-head': [
    { fillKgPerM3: 934, distanceMm: 60, tiltDegrees: 15 },
    'headPa',
    expect.closeTo(142.2378, 4),
  ],
  'terminal-voltage': [{ voltage: 18, atMilliamp: 4, loopOhm: 250 }, 'leastV', expect.closeTo(13.5, 12)],
  'liquid-density': [
    {
      points: [
        { temperatureC: 20, densityKgPerM3: 1040 },
        { temperatureC: 60, densityKgPerM3: 1020 },
      ],
      temperatureC: 30,
    },
    'densityKgPerM3',
    1035,
  ],
  'level-range': [tank, 'urvPa', expect.closeTo(29419.95, 9)],
  'level-indication': [
    { measurement: tank, contents: { liquidKgPerM3: 950 }, trueLevelM: 2 },
    'indicatedM',
    expect.closeTo(1.9, 12),
  ],
  'level-from-differential': [
    { measurement: tank, differentialPa: 9806.65 },
    'levelM',
    expect.closeTo(1, 12),
  ],
  'level-of-limit': [{ measurement: tank, limitPa: 98.0665 }, 'levelM', expect.closeTo(0.01, 12)],
  'lost-leg': [
    {
      measurement: {
        ...tank,
        arrangement: 'wet-leg',
        liquidKgPerM3: 800,
        aboveKgPerM3: 0,
        fillKgPerM3: 1000,
        tapsM: 3,
      },
      lostM: 0.1,
    },
    'shiftM',
    expect.closeTo(0.125, 12),
  ],
  'vessel-volume': [
    { vessel: { shape: 'sphere', diameterM: 10 }, levelM: 5 },
    'volumeM3',
    expect.closeTo(261.799388, 6),
  ],
  'vessel-level': [
    { vessel: { shape: 'cone', bottomDiameterM: 2, topDiameterM: 2, heightM: 4 }, volumeM3: Math.PI },
    'levelM',
    expect.closeTo(1, 12),
  ],
  'saturated-water': [{ pressurePa: 4e6 }, 'waterKgPerM3', expect.closeTo(798.358206, 6)],
  'compressed-water-density': [
    { temperatureC: 60, pressurePa: 8e6 },
    'densityKgPerM3',
    expect.closeTo(986.624976, 6),
  ],
  'drum-range': [{ taps: drum, state: hot }, 'urvPa', expect.closeTo(-1150.7, 1)],
  'drum-indication': [
    { taps: drum, ranged: hot, now: { ...hot, pressurePa: 6e6 }, trueLevelM: 0.3 },
    'indicatedM',
    expect.closeTo(0.287908, 6),
  ],
  'drum-level': [{ tapsM: 0.6, state: hot, differentialPa: 2100 }, 'levelM', expect.closeTo(0.47562, 5)],
  'gauge-glass': [
    { glass: { temperatureC: 150 }, state: { ...hot, pressurePa: 6e6 }, trueLevelM: 0.35 },
    'readingM',
    expect.closeTo(0.286195, 6),
  ],
  'hot-check': [
    { taps: drum, ranged: hot, now: hot, glass: { temperatureC: 250 }, glassM: 0.3, shownM: 0.3 },
    'expectedM',
    expect.closeTo(0.3, 2),
  ],
  // K-P01, K-P05, K-P03, K-P07, K-P13, K-P19, K-P21, K-P22 and K-P24 of the core's cases.
  'flow-from-differential': [
    {
      scale: { flowMax: 400, differentialMax: 16 },
      differential: 0.041,
      transferFunction: { kind: 'square-root-cut-off', cutOffPercentOfFlow: 5 },
    },
    'flow',
    expect.closeTo(20.24845673132, 9),
  ],
  'differential-from-flow': [{ scale: flowScale, flow: 125 }, 'differential', 1.5625],
  'flow-error': [{ flowPercent: 10, errorPercent: 0.1 }, 'percentOfFlow', expect.closeTo(4.880884817015, 9)],
  'flow-rangeability': [{ cutOffPercentOfFlow: 10 }, 'rangeability', 10],
  'gas-density-factor': [
    { pressure: 12.5, temperatureC: 60, designPressure: 10, designTemperatureC: 20 },
    'factor',
    expect.closeTo(1.048769495456, 9),
  ],
  'orifice-flow': [
    {
      plate: { pipeM: 0.1, boreM: 0.05, taps: 'corner' },
      fluid: { ...water, pressurePa: 6e5 },
      differentialPa: 25_000,
    },
    'massFlow',
    expect.closeTo(8.691136450457, 5),
  ],
  'orifice-differential': [
    {
      plate: { pipeM: 0.1, boreM: 0.06, taps: 'flange' },
      fluid: { ...water, pressurePa: 7e5 },
      massFlow: 15,
    },
    'differentialPa',
    expect.closeTo(33_093.74257278, 2),
  ],
  'orifice-bore': [
    {
      pipeM: 0.15405,
      taps: 'flange',
      fluid: { ...water, pressurePa: 9e5 },
      massFlow: 30,
      differentialPa: 25_000,
    },
    'boreM',
    expect.closeTo(0.09127857298156, 7),
  ],
  'flow-total': [
    {
      samples: [
        { time: 0, flow: 0 },
        { time: 60, flow: 6 },
        { time: 120, flow: 6 },
        { time: 150, flow: 0 },
      ],
    },
    'trapezoid',
    630,
  ],
  'flow-total-from-differential': [
    {
      scale: flowScale,
      samples: [
        { time: 0, differential: 25 },
        { time: 1, differential: 25 },
      ],
      perUnitTime: 60,
    },
    'trapezoid',
    expect.closeTo(500 / 60, 9),
  ],
  'totaliser-factor': [{ flowMax: 450, countsPerTime: 9000 }, 'factor', 0.05],
  // M-P01, M-P10 and M-P18 of the core's cases.
  'loop-supply': [{ supply: loop }, 'terminalV.atFailure', expect.closeTo(18.38796, 7)],
  'wire-area': [{ gauge: 22 }, 'areaMm2', expect.closeTo(0.3255339412455, 9)],
  'bad-connection': [
    { supply: loop, measuredV: 24 - 0.01 * (267.24 + 700), atMilliamp: 10 },
    'ohm',
    expect.closeTo(700, 6),
  ],
  'receiver-voltage': [
    { milliamp: 4, resistorOhm: 249, tolerancePercent: 1 },
    'leastV',
    expect.closeTo(0.98604, 9),
  ],
  'loop-tap': [{ items: chain, at: 1, applied: 6.25, read: 3.008 }, 'verdict', 'within'],
  'loop-taps': [{ items: chain, applied: 6.25 }, 'taps', [12, 3]],
  'loop-diagnosis': [
    {
      items: chain,
      readings: [
        { item: 0, applied: 6.25, value: 12.001, uncertainty: 0.002 },
        { item: 1, applied: 6.25, value: 3.1, uncertainty: 0.001 },
      ],
    },
    'suspicions.0.item',
    1,
  ],
  suspects: [
    {
      range: { lrv: 0, urv: 100, outputLow: 4, outputHigh: 20 },
      limitPercent: 0.5,
      inputUnit: 'kPa',
      pressureKind: 'gauge',
      saturation: [3.8, 20.5],
      readings: [0, 25, 50, 75, 100].map((applied) => ({
        applied,
        direction: 'up',
        output: 24 - 4 - 0.16 * applied,
      })),
    },
    'told',
    'reversed',
  ],
  'loop-tolerance': [{ items: chain, at: 1, applied: 6.25 }, 'sum', expect.closeTo(0.2, 9)],
  'damped-flow': [
    { flowPercent: 50, noisePercent: 0, noiseTimeS: 1, dampingS: 2 },
    'meanPercent',
    expect.closeTo(50, 9),
  ],
};

async function post(name: string, body: unknown) {
  const text = typeof body === 'string' ? body : JSON.stringify(body);
  const response = answerCalculation(CALCULATIONS.get(name), text);
  return {
    status: response.status,
    type: response.headers.get('content-type'),
    body: (await response.json()) as never,
  };
}

const at = (body: unknown, path: string): unknown =>
  path.split('.').reduce<unknown>((value, key) => (value as Record<string, unknown>)[key], body);

describe('every calculation', () => {
  it('has a request here', () => {
    expect(Object.keys(REQUESTS).sort()).toEqual([...CALCULATIONS.keys()].sort());
  });

  it.each(Object.entries(REQUESTS))(
    '%s answers as its schema says',
    async (name, [request, figure, value]) => {
      const answer = await post(name, request);
      expect(answer.body).not.toHaveProperty('errors');
      expect(answer.status).toBe(200);
      expect(at(answer.body, figure)).toEqual(value);
      const parsed = CALCULATIONS.get(name)?.output.safeParse(answer.body);
      expect(parsed?.error?.issues).toBeUndefined();
      // An answer may not hold more than is described either.
      expect(parsed?.data).toEqual(answer.body);
    },
  );
});

describe('the description', () => {
  let document: Awaited<ReturnType<typeof SwaggerParser.validate>>;
  beforeAll(async () => {
    document = await SwaggerParser.validate(JSON.parse(JSON.stringify(openApiDocument())) as never);
  });

  it('is a valid OpenAPI 3.1 document that names every calculation', () => {
    expect(document).toHaveProperty('openapi', '3.1.0');
    expect(Object.keys(document.paths ?? {})).toHaveLength(CALCULATIONS.size);
  });

  it('says of an input which parts are needed', () => {
    const schema = at(
      document,
      'paths./api/v1/compute/convert.post.requestBody.content.application/json.schema',
    );
    expect(schema).toMatchObject({ type: 'object', required: ['value', 'from', 'to'] });
  });
});

/** The same request with each number in turn made negative, zero, huge, with each field left out, and with one too many. */
function* brokenVersions(request: object): Generator<object> {
  const clone = () => structuredClone(request) as Record<string, unknown>;
  const walk = function* (value: unknown, path: readonly string[]): Generator<readonly string[]> {
    if (path.length > 0) yield path;
    if (value !== null && typeof value === 'object')
      for (const [key, inner] of Object.entries(value)) yield* walk(inner, [...path, key]);
  };
  for (const path of walk(request, [])) {
    const key = path.at(-1) ?? '';
    const parentOf = (root: unknown) => path.slice(0, -1).reduce((value, part) => at(value, part), root);
    const isNumber = typeof at(parentOf(request), key) === 'number';
    for (const other of isNumber ? [-1, 0, 1e308, -1e308, null] : [undefined]) {
      const copy = clone();
      (parentOf(copy) as Record<string, unknown>)[key] = other;
      yield copy;
    }
    const inner = at(parentOf(request), key);
    if (inner !== null && typeof inner === 'object') {
      const copy = clone();
      (at(parentOf(copy), key) as Record<string, unknown>)['range0'] = { urv: 1 };
      yield copy;
    }
  }
}

/** Whether a pointer leads to something in a request, or to a field that is missing right where it should stand. */
function canHold(request: unknown, pointer: string): boolean {
  const parts = pointer.split('/').slice(1);
  const parent = parts
    .slice(0, -1)
    .reduce((value: unknown, part) => (value as Record<string, unknown> | null)?.[part], request);
  return parts.length === 0 || (parent !== null && typeof parent === 'object');
}

describe('a bad request', () => {
  const big = (count: number) => ({ range, tolerance, readings: new Array<object>(count).fill(reading) });
  it.each([
    [
      'an empty number',
      'convert',
      { value: null, from: 'bar', to: 'kPa' },
      422,
      'value',
      'A number is needed here.',
    ],
    [
      'a bare column of water',
      'convert',
      { value: 1, from: 'inH2O', to: 'kPa' },
      422,
      'from',
      'parse-unit finds it',
    ],
    [
      'a unit of the wrong kind',
      'convert',
      { value: 1, from: 'bar', to: 'm3PerH' },
      422,
      'to',
      'm³/h is a unit of volume flow',
    ],
    ['an ambiguous unit', 'parse-unit', { unit: 'inWC' }, 422, 'unit', 'inH2O at 4 °C, inH2O at 60 °F'],
    [
      'a missing barometer',
      'convert-kind',
      { pressure: { value: 1, unit: 'bar', kind: 'gauge' }, to: { unit: 'bar', kind: 'absolute' } },
      422,
      'barometer',
      'barometric pressure is needed',
    ],
    [
      'a range without span',
      'expected-output',
      { range: { ...range, urv: 0 }, applied: 1 },
      422,
      'range.urv',
      'has no span',
    ],
    ['text for a number', 'expected-output', { range, applied: '1' }, 422, 'applied', 'A number is needed'],
    [
      'an infinity',
      'expected-output',
      '{"range":{"lrv":0,"urv":1e999,"outputLow":4,"outputHigh":20},"applied":1}',
      422,
      'range.urv',
      'number',
    ],
    [
      'too fine a table',
      'expected-table',
      { range, stepPercent: 0.0001 },
      422,
      'stepPercent',
      'at most 1001',
    ],
    [
      'reversed limits',
      'specific-risk',
      { lower: 1, upper: -1, measured: 0, standardUncertainty: 1 },
      422,
      'upper',
      'must be below',
    ],
    [
      'a negative uncertainty',
      'standard-uncertainty',
      { input: { ...input, distribution: { kind: 'standard', uncertainty: -1 } } },
      422,
      'input.distribution.uncertainty',
      'must not be negative',
    ],
    [
      'a negative figure of the second input',
      'uncertainty-budget',
      {
        ...budget,
        inputs: [input, { ...input, name: 'b', distribution: { kind: 'rectangular', halfWidth: -1 } }],
      },
      422,
      'inputs.1.distribution.halfWidth',
      'must not be negative',
    ],
    [
      'correlations that contradict',
      'uncertainty-budget',
      {
        ...budget,
        inputs: ['a', 'b', 'c'].map((name) => ({ ...input, name })),
        correlations: [
          { a: 'a', b: 'b', r: 0.9 },
          { a: 'b', b: 'c', r: 0.9 },
          { a: 'a', b: 'c', r: -0.9 },
        ],
      },
      422,
      'correlations',
      'cannot all hold',
    ],
    [
      'code for a model',
      'uncertainty-budget',
      { ...budget, model: 'process.exit()' },
      422,
      'model',
      'not a formula',
    ],
    ['ten thousand readings and one', 'evaluate-run', big(10001), 422, 'readings', '10000'],
    [
      'a guard band without uncertainty',
      'evaluate-run',
      { ...big(1), rule: { kind: 'method-6' } },
      422,
      'readings.0.uncertainty',
      'is needed',
    ],
    [
      'an unknown field deep inside',
      'evaluate-run',
      { ...big(1), tolerance: { terms: [{ kind: 'percent-of-span', percent: 1, of: 'span' }] } },
      422,
      'tolerance.terms.0.of',
      'There is no field "of" here',
    ],
    ['an unknown field', 'convert', { value: 1, from: 'bar', to: 'Pa', mode: 'x' }, 422, 'mode', 'no field'],
    [
      'a table of one huge step',
      'expected-table',
      { range, stepPercent: 1e300 },
      422,
      'stepPercent',
      'from 0 to 100 %',
    ],
    [
      'colder than cold',
      'convert',
      { value: -300, from: 'degC', to: 'K' },
      422,
      'value',
      'at least -273.15 °C',
    ],
    [
      'a value beyond all numbers',
      'convert-to-all',
      { value: 1e308, from: 'bar' },
      422,
      'value',
      'larger than',
    ],
    [
      'less than nothing, absolute',
      'convert-kind',
      {
        pressure: { value: -1, unit: 'bar', kind: 'absolute' },
        to: { unit: 'Pa', kind: 'absolute' },
      },
      422,
      'pressure',
      'below zero',
    ],
    [
      'a specification in per cent of no range',
      'specification',
      { reading: 50, percentOfRange: 0.1 },
      422,
      'range',
      'The range is needed',
    ],
    [
      'surface tension around nothing',
      'deadweight',
      { ...(REQUESTS['deadweight']?.[0] ?? {}), surfaceTensionNPerM: 0.03 },
      422,
      'pistonDiameterM',
      'diameter of the piston is needed',
    ],
    [
      'an input that is called pi',
      'uncertainty-budget',
      { ...budget, model: '2 * pi', inputs: [{ ...input, name: 'pi' }] },
      422,
      'inputs.0.name',
      'already has a meaning',
    ],
    [
      'air denser than the liquid',
      'liquid-head',
      { pressurePa: 0, liquidDensityKgPerM3: 1, airDensityKgPerM3: 1.2, heightM: 1 },
      422,
      'airDensityKgPerM3',
      'must be below',
    ],
    [
      'reversed acceptance limits',
      'global-risk',
      {
        tolerance: limits,
        acceptance: { lower: 0.01, upper: -0.01 },
        prior: { mean: 0, sd: 1 },
        standardUncertainty: 0.1,
      },
      422,
      'acceptance.upper',
      'must be below',
    ],
    [
      'a spread that is none',
      'posterior',
      { prior: { mean: 0, sd: 0 }, measured: 1, standardUncertainty: 1 },
      422,
      'prior.sd',
      'greater than zero',
    ],
    [
      'half a degree of freedom',
      'coverage-factor',
      { probability: 0.95, degreesOfFreedom: 1e-300 },
      422,
      'degreesOfFreedom',
      'at least 1',
    ],
    [
      'an upper range limit of nothing',
      'accepted-output',
      {
        range,
        tolerance: { terms: [{ kind: 'percent-of-upper-range-limit', percent: 1, upperRangeLimit: 0 }] },
        applied: 1,
      },
      422,
      'tolerance',
      'upper range limit',
    ],
    ['too many trials', 'monte-carlo', { ...budget, trials: 1e9 }, 422, 'trials', ''],
  ])('%s is answered at its field', async (_what, name, request, status, field, detail) => {
    const answer = await post(name, request);
    expect(answer.type).toBe('application/problem+json');
    expect(answer.status).toBe(status);
    expect(answer.body).toMatchObject({ status, field });
    expect(at(answer.body, 'detail')).toContain(detail);
    expect(at(answer.body, 'errors.0.pointer')).toBe(`#/${field.replaceAll('.', '/')}`);
  });

  it.each(Object.entries(REQUESTS))(
    'to %s is answered at a field of the request',
    async (name, [request]) => {
      for (const broken of brokenVersions(request)) {
        const answer = await post(name, broken);
        expect([200, 422]).toContain(answer.status);
        if (answer.status === 200) continue;
        for (const { pointer } of at(answer.body, 'errors') as { pointer: string }[])
          expect(canHold(broken, pointer), `${pointer} of ${JSON.stringify(broken)}`).toBe(true);
      }
    },
  );

  it('is never decided by what its working is too long for', async () => {
    const answer = await post('evaluate-run', big(5000));
    expect(answer.status).toBe(200);
    expect(at(answer.body, 'maximumOfMeansPercentSpan')).toBeCloseTo(0.25, 9);
    const inputs = Array.from({ length: 100 }, (_, i) => ({ ...input, name: `a${i}`, degreesOfFreedom: 5 }));
    const long = { ...budget, model: inputs.map(({ name }) => name).join('+'), inputs };
    expect(at((await post('uncertainty-budget', long)).body, 'effectiveDegreesOfFreedom')).toBe(500);
  });

  it('that asks for much is answered soon', async () => {
    const wide = { ...budget, model: Array.from({ length: 12 }, (_, i) => `(a+${i})`).join('*') };
    const since = performance.now();
    expect((await post('uncertainty-budget', wide)).status).toBe(200);
    expect((await post('uncertainty-budget', { ...budget, model: `${'-'.repeat(1999)}a` })).status).toBe(422);
    const points = Array.from({ length: 10000 }, (_, i) => ({ ...reading, nominalPercent: i / 100 }));
    expect((await post('evaluate-run', { range, tolerance, readings: points })).status).toBe(422);
    // A bound for a hang of minutes, not a figure of speed.
    expect(performance.now() - since).toBeLessThan(20_000);
  });

  it('that is not JSON is said to be none, and one that is nested without end is refused', async () => {
    expect((await post('convert', `${'['.repeat(100_000)}${']'.repeat(100_000)}`)).status).toBe(422);
    expect(await post('convert', 'value=1')).toMatchObject({ status: 400 });
    expect(await post('no-such', {})).toMatchObject({ status: 404 });
  });
});

it('a field of the core is found where the request wraps it', () => {
  expect(pathOf({ range: { urv: 1 } }, 'urv')).toEqual(['range', 'urv']);
  expect(pathOf({ range: { transferFunction: { kind: 'x' } } }, 'transferFunction.points')).toEqual([
    'range',
    'transferFunction',
    'points',
  ]);
  expect(pathOf({}, 'barometer')).toEqual(['barometer']);
  expect(pathOf(null, 'barometer')).toEqual(['barometer']);
});
