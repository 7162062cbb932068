import {
  compareSetups,
  leastTerminalVoltage,
  outputAtRest,
  positionHead,
  SETTINGS,
  workDifference,
  type SettingKey,
} from '@barys/core/setup';
import { setupReadSchema } from '@barys/store/shapes';
import { z } from 'zod';
import { calculation } from './calculation';
import { number, pressureUnit, transfer, working } from './schemas';

const setting = z.enum(SETTINGS.map(([key]) => key) as [SettingKey, ...SettingKey[]]);
const read = z.strictObject(setupReadSchema.shape).partial().meta({
  id: 'SetupRead',
  description: 'What was read at an instrument; what is left out or null was not.',
});
const wanted = z
  .strictObject({
    ...read.shape,
    inputUnit: pressureUnit,
    lrv: number,
    urv: number,
    transferFunction: transfer.default({ kind: 'linear' }),
    outputLow: number.default(4),
    outputHigh: number.default(20),
    outputUnit: z.string().max(20).default('mA'),
    tolerancePercentOfSpan: number,
  })
  .refine(({ lrv, urv }) => lrv !== urv, { path: ['urv'], message: 'The range has no span.' })
  .refine(({ outputLow, outputHigh }) => outputLow !== outputHigh, {
    path: ['outputHigh'],
    message: 'The output has no span.',
  })
  .meta({ id: 'SetupWanted' });

/** All settings, those that are left out as null. */
const whole = <T extends object>(given: T) =>
  ({ ...Object.fromEntries(SETTINGS.map(([key]) => [key, null])), ...given }) as T & Record<SettingKey, null>;

const millimetre = 0.001;

export const SETUP_CALCULATIONS = [
  calculation(
    'compare-setup',
    'Differences between what was read at an instrument and what has to be set, with what each does',
    z.strictObject({ wanted, read }),
    z.object({
      differences: z
        .array(
          z.object({
            key: setting,
            name: z.string(),
            wanted: z.string(),
            read: z.string(),
            effect: z.string(),
            percentOfSpan: number.nullable(),
            matters: z.enum(['yes', 'little', 'no']),
            working,
          }),
        )
        .readonly(),
      same: z.array(setting).readonly(),
      unread: z.array(setting).readonly(),
      unregistered: z.array(setting).readonly(),
    }),
    (given) => {
      const [must, is] = [whole(given.wanted), whole(given.read)];
      const compared = compareSetups(must, is);
      return {
        ...compared,
        differences: compared.differences.map((one) => ({
          ...one,
          working: workDifference(must, is, one.key),
        })),
      };
    },
  ),
  calculation(
    'output-at-rest',
    'Whether an output at rest says anything, or stands at its saturation',
    z.strictObject({ outputMilliamp: number, resolutionMilliamp: number.default(0.01) }),
    z.object({ verdict: z.enum(['shows', 'at saturation', 'failure']) }),
    ({ outputMilliamp, resolutionMilliamp }) => ({
      verdict: outputAtRest(outputMilliamp, resolutionMilliamp),
    }),
  ),
  calculation(
    'position-head',
    'What a tilted body reads with nothing applied',
    z.strictObject({ fillKgPerM3: number, distanceMm: number, tiltDegrees: number }),
    z.object({ headPa: number }),
    ({ fillKgPerM3, distanceMm, tiltDegrees }) => ({
      headPa: positionHead(fillKgPerM3, distanceMm * millimetre, tiltDegrees),
    }),
  ),
  calculation(
    'terminal-voltage',
    'Terminal voltage at the highest current, from one that was measured',
    z.strictObject({
      voltage: number,
      atMilliamp: number,
      loopOhm: number,
      highestMilliamp: number.default(22),
    }),
    z.object({ leastV: number }),
    ({ voltage, atMilliamp, loopOhm, highestMilliamp }) => ({
      leastV: leastTerminalVoltage(voltage, atMilliamp, loopOhm, highestMilliamp),
    }),
  ),
];
