import { upAndDown } from '@barys/core/procedure';
import { evaluateRun, spanTolerance } from '@barys/core/run';
import { expectedOutput, type SignalRange } from '@barys/core/signal';
import { expect, it } from 'vitest';
import { makeTransmitter } from './index';

const range: SignalRange = { lrv: 0, urv: 6, outputLow: 4, outputHigh: 20 };
const faults = { zeroErrorPercent: 0.3, spanErrorPercent: -0.2, hysteresisPercent: 0.1, noisePercent: 0 };

it('a transmitter without faults reads the ideal output', () => {
  const sound = makeTransmitter(
    range,
    { zeroErrorPercent: 0, spanErrorPercent: 0, hysteresisPercent: 0, noisePercent: 0 },
    1,
  );
  expect(sound.read(1.5, 'up')).toBe(expectedOutput(range, 1.5));
});

it('the faults put in are the faults that a run finds', () => {
  const transmitter = makeTransmitter(range, faults, 1);
  const readings = upAndDown([0, 25, 50, 75, 100]).map(({ direction, nominalPercent }) => {
    const applied = (nominalPercent / 100) * 6;
    return { cycle: 1, direction, nominalPercent, applied, output: transmitter.read(applied, direction) };
  });
  const found = evaluateRun(range, spanTolerance(0.5, 70), readings);
  expect(found.zeroErrorPercentSpan).toBeCloseTo(0.3, 9);
  expect(found.spanErrorPercentSpan).toBeCloseTo(-0.2, 9);
  expect(found.hysteresisPercentSpan).toBeCloseTo(0.1, 9);
});

it('noise is repeatable by its seed and has the width asked for', () => {
  const noisy = { ...faults, noisePercent: 0.05 };
  const draw = (seed: number) => {
    const transmitter = makeTransmitter(range, noisy, seed);
    return Array.from({ length: 4000 }, () => transmitter.read(0, 'up'));
  };
  const readings = draw(7);
  expect(draw(7)).toEqual(readings);
  expect(draw(8)).not.toEqual(readings);
  const mean = readings.reduce((sum, value) => sum + value, 0) / readings.length;
  const deviation = Math.sqrt(
    readings.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (readings.length - 1),
  );
  // 0.05 % of 16 mA is 0.008 mA; five standard errors of a standard deviation from 4000 draws are 5.6 %.
  expect(Math.abs(deviation / 0.008 - 1)).toBeLessThan(0.056);
});
