/** The core beside bare loops: judging a fleet of runs, and Monte Carlo trials. */
import { evaluateRun, spanTolerance, verdictOfRun, type RunReading } from '@barys/core/run';
import { monteCarlo, runToEnd, type BudgetModel } from '@barys/core/uncertainty';
import { evaluateStoredRun, type StoredRun } from '@barys/store/evaluation';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { compare } from './compare';

const RUNS = 20000;
const TRIALS = 1_000_000;
const BLOCK = 2000;

const range = { lrv: 0, urv: 600, outputLow: 4, outputHigh: 20 };
const tolerance = spanTolerance(0.25, 70);

/** Ten readings up and down, with errors of a few microamperes from a seed. */
function fleet(): RunReading[][] {
  const random = xoroshiro128plus(1);
  const percents = [0, 25, 50, 75, 100, 100, 75, 50, 25, 0];
  return Array.from({ length: RUNS }, () =>
    percents.map((nominalPercent, index) => ({
      cycle: 1,
      direction: index < 5 ? 'up' : 'down',
      nominalPercent,
      applied: nominalPercent * 6,
      output: (4000 + nominalPercent * 160 + (random.next() % 60)) / 1000,
    })),
  );
}

/** A standard of a plant, with all that its uncertainty is made of. */
const standard = (unit: string, rangeHigh: number): StoredRun['madeWith']['pressureReference'] => ({
  tag: 'P-1',
  name: '',
  description: 'a standard',
  serial: '1',
  unit,
  rangeLow: 0,
  rangeHigh,
  resolution: 0.001,
  percentOfReading: 0.02,
  percentOfRange: 0.005,
  floor: 0,
  driftPercentOfReadingPerYear: 0.01,
  percentOfReadingPerK: 0,
  calibratedOn: '2025-05-01',
  dueOn: '2026-05-01',
  certificate: '1',
  uncertaintyPercentOfRange: 0.01,
  results: [],
});

/** A run as the application keeps it: a pressure standard in another unit, a meter, a head between the two. */
const asStored = (readings: readonly RunReading[]): StoredRun => ({
  madeWith: {
    configuration: {
      ...range,
      version: 1,
      inputUnit: 'mbar',
      outputUnit: 'mA',
      signal: 'mA-4-20',
      transferFunction: { kind: 'linear' },
      dampingS: 1,
      displayUnit: 'mbar',
      displayLow: range.lrv,
      displayHigh: range.urv,
      scaleDivision: null,
      displayDampingS: null,
      application: null,
      startView: null,
      drivenBy: null,
      switchingPoints: [],
    },
    tolerance: {
      percentOfSpan: 0.25,
      middlePercentOfSpan: null,
      percentOfReading: 0,
      adjustAbovePercentOfLimit: 70,
    },
    decisionRule: { kind: 'simple' },
    judgesBeyondUncertainty: false,
    pressureReference: standard('kPa', 100),
    secondReference: null,
    meter: standard('mA', 24),
    head: 0.12,
    takenOn: '2026-01-10',
    points: readings.map(({ cycle, direction, nominalPercent, applied }, index) => ({
      position: index + 1,
      cycle,
      direction,
      nominalPercent,
      nominalApplied: applied,
      standard: 'first',
    })),
  },
  readings: readings.map(({ applied, output }, index) => ({
    position: index + 1,
    applied,
    output,
    day: '2026-01-10',
  })),
});

const budget: BudgetModel = {
  model: '100 * ((I + dI + dR) - (4 + 16 * (p + dp + dh) / 100)) / 16',
  unit: '%',
  inputs: [
    { name: 'I', unit: 'mA', estimate: 12.012, distribution: { kind: 'standard', uncertainty: 0.001 } },
    { name: 'dI', unit: 'mA', estimate: 0, distribution: { kind: 'rectangular', halfWidth: 0.003 } },
    { name: 'dR', unit: 'mA', estimate: 0, distribution: { kind: 'resolution', step: 0.001 } },
    { name: 'p', unit: 'kPa', estimate: 50, distribution: { kind: 'normal', expanded: 0.025, k: 2 } },
    { name: 'dp', unit: 'kPa', estimate: 0, distribution: { kind: 'standard', uncertainty: 0.006 } },
    { name: 'dh', unit: 'kPa', estimate: 0, distribution: { kind: 'rectangular', halfWidth: 0.005 } },
  ],
};

/** The same draws in the same blocks, the model written out, and nothing kept but the results. */
function bareTrials(): number {
  const random = xoroshiro128plus(1);
  const uniform = () => ((random.next() >>> 0) + 0.5) * 2 ** -32;
  const columns = budget.inputs.map(() => new Float64Array(BLOCK));
  const [I, dI, dR, p, dp, dh] = columns as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  const normal = (column: Float64Array, mean: number, sd: number) => {
    for (let i = 0; i < BLOCK; i += 2) {
      const radius = Math.sqrt(-2 * Math.log(uniform()));
      const angle = 2 * Math.PI * uniform();
      column[i] = mean + sd * radius * Math.cos(angle);
      column[i + 1] = mean + sd * radius * Math.sin(angle);
    }
  };
  const flat = (column: Float64Array, half: number) => {
    for (let i = 0; i < BLOCK; i += 1) column[i] = half * (2 * uniform() - 1);
  };
  const results = new Float64Array(TRIALS);
  for (let start = 0; start < TRIALS; start += BLOCK) {
    normal(I, 12.012, 0.001);
    flat(dI, 0.003);
    flat(dR, 0.0005);
    normal(p, 50, 0.0125);
    normal(dp, 0, 0.006);
    flat(dh, 0.005);
    for (let i = 0; i < BLOCK; i += 1) {
      const current = (I[i] as number) + (dI[i] as number) + (dR[i] as number);
      const pressure = (p[i] as number) + (dp[i] as number) + (dh[i] as number);
      results[start + i] = (100 * (current - (4 + (16 * pressure) / 100))) / 16;
    }
  }
  return results[TRIALS - 1] as number;
}

export async function benchCore(): Promise<void> {
  const runs = fleet();
  const stored = runs.map(asStored);
  const slope = (range.outputHigh - range.outputLow) / (range.urv - range.lrv);
  await compare(
    `Evaluating ${RUNS} runs of 10 readings`,
    [
      {
        name: 'bare loop that only computes the errors',
        act: () => {
          const errors = new Float64Array(RUNS * 10);
          let place = 0;
          for (const readings of runs)
            for (const { applied, output } of readings)
              errors[place++] = output - (range.outputLow + (applied - range.lrv) * slope);
          return errors;
        },
      },
      {
        name: 'their verdicts',
        act: () => {
          let outside = 0;
          for (const readings of runs)
            if (verdictOfRun(range, tolerance, readings) === 'outside') outside += 1;
          return outside;
        },
      },
      {
        name: 'stored runs with the uncertainty of each reading, and all figures',
        act: () => {
          let outside = 0;
          for (const run of stored) if (evaluateStoredRun(run).verdict === 'outside') outside += 1;
          return outside;
        },
      },
      {
        name: 'verdicts, means, hysteresis, linearity, fits',
        act: () => {
          let outside = 0;
          for (const readings of runs)
            if (evaluateRun(range, tolerance, readings).verdict === 'outside') outside += 1;
          return outside;
        },
      },
    ],
    { rounds: 20, warmUp: 5 },
  );
  await compare(
    `${TRIALS} Monte Carlo trials of a budget of ${budget.inputs.length} components`,
    [
      { name: 'bare loop drawing the same numbers', act: bareTrials },
      {
        name: 'with moments, intervals and histogram',
        act: () => runToEnd(monteCarlo(budget, { seed: 1, trials: TRIALS })),
      },
    ],
    { rounds: 15, warmUp: 3 },
  );
}
