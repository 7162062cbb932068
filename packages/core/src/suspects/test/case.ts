import { weigh, type Suspected, type SuspectReading, type Suspicion } from '../index';

/** Applied, kPa. */
export const UP = [0, 125, 250, 375, 500];
export const WAY = [
  ...UP.map((x) => [x, 'up'] as const),
  ...[375, 250, 125, 0].map((x) => [x, 'down'] as const),
];
/** What a meter of 1 µA adds to nine readings: kept, so that every run of the test sees the same. */
export const NOISE = [0.0004, -0.0007, 0.0009, -0.0002, 0.0006, -0.0009, 0.0003, 0.0001, -0.0005];

/** 0 to 500 kPa into 4 to 20 mA, read up and down. */
export const CASE: Suspected = {
  range: { lrv: 0, urv: 500, outputLow: 4, outputHigh: 20 },
  readings: [],
  limitPercent: 0.5,
  inputUnit: 'kPa',
  pressureKind: 'gauge',
  saturation: [3.8, 20.5],
};
export const ROOT: Suspected = {
  ...CASE,
  range: { ...CASE.range, transferFunction: { kind: 'square-root' } },
  pressureKind: 'differential',
};

export const read = (output: (x: number, i: number) => number): SuspectReading[] =>
  WAY.map(([applied, direction], i) => ({
    applied,
    direction,
    output: Number((output(applied, i) + (NOISE[i] ?? 0)).toFixed(4)),
  }));
export const line = (x: number): number => 4 + (16 * x) / 500;
export const limited = (milliamp: number): number => Math.min(20.5, Math.max(3.8, milliamp));

/** What one suspicion was weighed as. */
export const suspect = (suspected: Suspected, suspicion: Suspicion) => {
  const found = weigh(suspected).suspects.find((one) => one.suspicion === suspicion);
  if (found === undefined) throw new Error(`${suspicion} was not weighed.`);
  return found;
};
