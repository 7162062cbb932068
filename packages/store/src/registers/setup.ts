/** A set-up as it is read and judged. Free of PostgreSQL, so that a form says at once what the server will keep. */
import {
  leastTerminalVoltage,
  outputAtRest,
  positionHead,
  workLeastTerminalVoltage,
  workPositionHead,
} from '@barys/core/setup';
import { NAMUR_LIMITS } from '@barys/core/signal';
import { formatSignificant } from '@barys/core/text';
import { convertPressure, PRESSURE_UNITS } from '@barys/core/units';
import type { Step } from '@barys/core/working';
import { z } from 'zod';
import type { Configuration } from './configuration';
import { toleranceOf, type Instrument } from './instrument';

/** When in a job the set-up is read; outside of one it is a walk. */
export const SETUP_MOMENTS = ['as set', 'as it must be'] as const;
export type SetupMoment = (typeof SETUP_MOMENTS)[number];

const figure = (name: string) => z.number({ error: `${name} is a number.` });

/** What the checks are made of; null is what was not looked at. */
export const setupChecksSchema = z.object({
  /** mA, with nothing applied. */
  restMilliamp: figure('The output at rest').nullable(),
  saturationMilliamp: figure('The low saturation')
    .min(3, 'The low saturation lies between 3 and 4 mA.')
    .max(4, 'The low saturation lies between 3 and 4 mA.'),
  tiltDegrees: figure('The tilt')
    .min(-180, 'A tilt is at most 180° either way.')
    .max(180, 'A tilt is at most 180° either way.')
    .nullable(),
  fillDensity: figure('The density of the fill').positive(
    'The density of the fill must be greater than zero.',
  ),
  distanceMm: figure('The distance of the diaphragms').nonnegative(
    'The distance of the diaphragms must not be negative.',
  ),
  /** V, at the current beside it. */
  terminalV: figure('The terminal voltage')
    .positive('The terminal voltage must be greater than zero.')
    .nullable(),
  terminalMilliamp: figure('The current').positive('The current must be greater than zero.'),
  loopOhm: figure('The resistance of the loop').nonnegative(
    'The resistance of the loop must not be negative.',
  ),
  leastTerminalV: figure('The least terminal voltage').positive(
    'The least terminal voltage must be greater than zero.',
  ),
  /** °C. */
  sensorC: figure('The temperature of the sensor').nullable(),
  electronicsC: figure('The temperature of the electronics').nullable(),
  coldestC: figure('The lowest temperature'),
  hottestC: figure('The highest temperature'),
});
export type SetupChecks = z.infer<typeof setupChecksSchema>;

/** What is usual where the instrument's own data sheet is not at hand: NAMUR NE 43 (from memory), silicone oil, 12 V. */
export const USUAL_CHECKS: SetupChecks = {
  restMilliamp: null,
  saturationMilliamp: NAMUR_LIMITS.saturationLow,
  tiltDegrees: null,
  fillDensity: 934,
  distanceMm: 60,
  terminalV: null,
  terminalMilliamp: 4,
  loopOhm: 250,
  leastTerminalV: 12,
  sensorC: null,
  electronicsC: null,
  coldestC: -40,
  hottestC: 85,
};

export interface CheckResult {
  readonly name: string;
  readonly isGood: boolean;
  readonly words: string;
}

/** 0.01 mA is what a hand-held meter shows: nearer than that to the saturation cannot be told from it. */
const METER_MA = 0.01;
/** What a transmitter puts out at most, to say failure. */
const HIGHEST_MA = 22;

const figures = (value: number, digits = 4): string => formatSignificant(value, digits);

function restWords(checks: SetupChecks, output: number): CheckResult {
  const found = outputAtRest(output, METER_MA, { ...NAMUR_LIMITS, saturationLow: checks.saturationMilliamp });
  const percent = ((output - 4) / 16) * 100;
  return {
    name: 'Output at rest',
    isGood: found === 'shows',
    words:
      found === 'failure'
        ? `${figures(output)} mA says failure: look for the cause before anything else.`
        : found === 'at saturation'
          ? `${figures(output)} mA is the saturation: everything beyond reads the same. Zero cannot be judged here; apply a little pressure, or look at the digital value.`
          : `${figures(output)} mA is ${figures(percent, 3)} % of the output: it stands clear of the saturation at ${figures(checks.saturationMilliamp)} mA.`,
  };
}

function tiltWords(
  checks: SetupChecks,
  tiltDegrees: number,
  { inputUnit, lrv, urv }: Configuration,
  tolerance: number,
): CheckResult {
  const head = convertPressure(
    positionHead(checks.fillDensity, checks.distanceMm / 1000, tiltDegrees),
    'Pa',
    inputUnit,
  );
  const percent = (head / Math.abs(urv - lrv)) * 100;
  return {
    name: 'Position',
    isGood: Math.abs(percent) <= tolerance * (1 + 1e-9),
    words: `Tilted by ${figures(tiltDegrees)}° the fill alone reads as ${figures(head, 3)} ${PRESSURE_UNITS[inputUnit].label}, ${figures(percent, 3)} % of span. Zero is trimmed in the position that the body keeps.`,
  };
}

function voltageWords(checks: SetupChecks, voltage: number): CheckResult {
  const least = leastTerminalVoltage(voltage, checks.terminalMilliamp, checks.loopOhm, HIGHEST_MA);
  return {
    name: 'Terminal voltage',
    isGood: least >= checks.leastTerminalV - 1e-9,
    words: `${figures(voltage)} V at ${figures(checks.terminalMilliamp)} mA leaves ${figures(least)} V at ${HIGHEST_MA} mA over ${figures(checks.loopOhm)} Ω; at least ${figures(checks.leastTerminalV)} V are needed.`,
  };
}

function temperatureWords(checks: SetupChecks, name: string, value: number): CheckResult {
  return {
    name,
    isGood: value >= checks.coldestC && value <= checks.hottestC,
    words: `${figures(value)} °C, where ${figures(checks.coldestC)} to ${figures(checks.hottestC)} °C are allowed.`,
  };
}

/** The checks whose figure was read, judged. */
export function judgeChecks(
  checks: SetupChecks,
  configuration: Configuration,
  tolerancePercentOfSpan: number,
): CheckResult[] {
  const { restMilliamp, tiltDegrees, terminalV, sensorC, electronicsC } = checks;
  const results: (CheckResult | null)[] = [
    restMilliamp === null ? null : restWords(checks, restMilliamp),
    tiltDegrees === null ? null : tiltWords(checks, tiltDegrees, configuration, tolerancePercentOfSpan),
    terminalV === null ? null : voltageWords(checks, terminalV),
    sensorC === null ? null : temperatureWords(checks, 'Sensor temperature', sensorC),
    electronicsC === null ? null : temperatureWords(checks, 'Electronics temperature', electronicsC),
  ];
  return results.filter((one) => one !== null);
}

/** The steps to the figure of a check; none of one that is compared as it was read. */
export function workCheck(
  name: CheckResult['name'],
  { tiltDegrees, fillDensity, distanceMm, terminalV, terminalMilliamp, loopOhm }: SetupChecks,
  configuration: Configuration,
): readonly Step[] {
  if (name === 'Position' && tiltDegrees !== null)
    return workPositionHead([fillDensity, distanceMm / 1000, tiltDegrees], configuration).working;
  if (name === 'Terminal voltage' && terminalV !== null)
    return workLeastTerminalVoltage(terminalV, terminalMilliamp, loopOhm, HIGHEST_MA).working;
  return [];
}

/** The largest error that counts, per cent of span. */
export const setupTolerance = (instrument: Instrument): number => toleranceOf(instrument).percentOfSpan;
