import { isSettled, plannedPoints, workWait } from '@barys/core/procedure';
import {
  expectedTable,
  NAMUR_LIMITS,
  saturatedCurrent,
  signalRegion,
  workApplied,
  workDisplayed,
  workExpected,
  workSensitivity,
} from '@barys/core/signal';
import { z } from 'zod';
import { calculation } from './calculation';
import { number, range, rangeUnits, shownUnit, worked } from './schemas';

const signalLimits = z
  .strictObject({ failureLow: number, saturationLow: number, saturationHigh: number, failureHigh: number })
  .default(NAMUR_LIMITS);

export const SIGNAL_CALCULATIONS = [
  calculation(
    'expected-output',
    'The ideal output for an applied input',
    z.strictObject({ range, applied: number, units: rangeUnits }),
    worked,
    ({ range: of, applied, units }) => workExpected(of, applied, units),
  ),
  calculation(
    'applied-for-output',
    'The input that an output stands for',
    z.strictObject({ range, output: number, units: rangeUnits }),
    worked,
    ({ range: of, output, units }) => workApplied(of, output, units),
  ),
  calculation(
    'expected-table',
    'Expected values at even steps of input or output',
    z.strictObject({
      range,
      stepPercent: number.default(10),
      evenIn: z.enum(['input', 'output']).default('input'),
    }),
    z.strictObject({
      rows: z.array(
        z.strictObject({ inputPercent: number, applied: number, output: number, outputPercent: number }),
      ),
    }),
    ({ range: of, stepPercent, evenIn }) => ({ rows: expectedTable(of, stepPercent, evenIn) }),
  ),
  calculation(
    'output-sensitivity',
    'Output units in one input unit at an input',
    z.strictObject({ range, applied: number, units: rangeUnits }),
    worked,
    ({ range: of, applied, units }) => workSensitivity(of, applied, units),
  ),
  calculation(
    'displayed-value',
    'What a display with a scale of its own shows for an output',
    z.strictObject({
      range,
      display: z.strictObject({ low: number, high: number, unit: shownUnit }),
      output: number,
      units: rangeUnits,
    }),
    worked,
    ({ range: of, display, output, units }) => workDisplayed(of, display, output, display.unit, units.output),
  ),
  calculation(
    'signal-region',
    'Measured value, saturation or failure of a 4-20 mA signal (NAMUR NE 43 limits unless given)',
    z.strictObject({ current: number, limits: signalLimits }),
    z.strictObject({
      region: z.enum([
        'failure-low',
        'undefined-low',
        'under-range',
        'normal',
        'over-range',
        'undefined-high',
        'failure-high',
      ]),
      saturated: number,
    }),
    ({ current, limits }) => ({
      region: signalRegion(current, limits),
      saturated: saturatedCurrent(current, limits),
    }),
  ),
  calculation(
    'test-points',
    'The points of a procedure for a range, in the order they are approached',
    z.strictObject({
      range,
      procedure: z.strictObject({
        points: z.strictObject({
          in: z.enum(['percent-of-input', 'percent-of-output', 'absolute']),
          values: z.array(number).max(1000),
        }),
        direction: z.enum(['up', 'down', 'up-and-down']).default('up-and-down'),
        cycles: number.default(1),
        isTopRepeated: z.boolean().default(false),
        offStopsPercent: number.default(0),
      }),
    }),
    z.strictObject({
      points: z.array(
        z.strictObject({
          position: number,
          cycle: number,
          direction: z.enum(['up', 'down']),
          nominalPercent: number,
          applied: number,
        }),
      ),
    }),
    ({ range: of, procedure }) => ({ points: plannedPoints(procedure, of) }),
  ),
  calculation(
    'wait-for-damping',
    'Seconds until a first-order response is within a share of its step',
    z.strictObject({ dampingS: number, sharePercent: number.default(0.1) }),
    worked,
    ({ dampingS, sharePercent }) => workWait(dampingS, sharePercent),
  ),
  calculation(
    'is-settled',
    'Whether samples have settled by a rule of wait, hold time and band',
    z.strictObject({
      samples: z.array(z.strictObject({ s: number, value: number })).max(10000),
      rule: z.strictObject({ waitS: number, holdS: number, band: number }),
    }),
    z.strictObject({ isSettled: z.boolean() }),
    ({ samples, rule }) => ({ isSettled: isSettled(samples, rule) }),
  ),
];
