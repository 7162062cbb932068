/** A set-up as it is typed at the instrument: an empty field is what was not read. */
import { readSwitchingPoints, type Setup } from '@barys/core/setup';
import { convertPressure } from '@barys/core/units';
import { setupChecksSchema, setupReadSchema, USUAL_CHECKS, type SetupChecks } from '@barys/store/shapes';
import { RANGE_FIELDS, transferOfFields } from '@/ui/range/fields';
import { typedNumber } from '@/ui/readNumber';
import { fieldsOfConfiguration } from '../fields';
import type { Configuration } from '@barys/store/registers';

const SETTING_FIELDS = {
  inputUnit: '',
  lrv: '',
  urv: '',
  dampingS: '',
  displayDampingS: '',
  application: '',
  transfer: '',
  knee: RANGE_FIELDS.knee,
  table: RANGE_FIELDS.table,
  displayUnit: '',
  displayLow: '',
  displayHigh: '',
  startView: '',
  drivenBy: '',
  switchingPoints: '',
};

const CHECK_KEYS = Object.keys(USUAL_CHECKS) as (keyof SetupChecks)[];
const CHECK_FIELDS = Object.fromEntries(
  CHECK_KEYS.map((key) => [key, USUAL_CHECKS[key] === null ? '' : String(USUAL_CHECKS[key])]),
) as Record<keyof SetupChecks, string>;

export const SETUP_FIELDS = { ...SETTING_FIELDS, ...CHECK_FIELDS, remark: '' };
export type SetupFields = Readonly<typeof SETUP_FIELDS>;
export type SettingField = keyof typeof SETTING_FIELDS;

/** What is typed where no switching point is set. */
const NONE = 'none';

/** The texts of a setting that is as it has to be. */
export function asItMustBe(configuration: Configuration): Readonly<Record<SettingField, string>> {
  const { transfer, switchingPoints, ...texts } = fieldsOfConfiguration(configuration);
  return { ...texts, transfer, switchingPoints: switchingPoints === '' ? NONE : switchingPoints };
}

/**
 * The fields of a configuration that is set as the instrument was read: what was not read stays as it has to be, in the unit
 * that was read.
 */
export function configurationAsRead(
  configuration: Configuration,
  read: Setup,
): Readonly<Record<string, string>> {
  const inputUnit = read.inputUnit ?? configuration.inputUnit;
  // A figure that only changes its unit keeps the digits that somebody would set.
  const inUnit = (value: number) =>
    Number(convertPressure(value, configuration.inputUnit, inputUnit).toPrecision(10));
  const wasRead = Object.fromEntries(Object.entries(read).filter(([, value]) => value !== null));
  const asRead = fieldsOfConfiguration({
    ...configuration,
    lrv: inUnit(configuration.lrv),
    urv: inUnit(configuration.urv),
    switchingPoints: configuration.switchingPoints.map(({ name, on, off }) => ({
      name,
      on: inUnit(on),
      off: inUnit(off),
    })),
    ...wasRead,
    inputUnit,
  });
  return { ...asRead, reason: 'As it was read on a set-up walk' };
}

/**
 * What was read, as the schema has it.
 * @throws CoreError, ZodError naming what is no number
 */
export function setupOfFields(fields: SetupFields): Setup {
  const points = fields.switchingPoints.trim();
  return setupReadSchema.parse({
    inputUnit: fields.inputUnit || null,
    lrv: typedNumber(fields.lrv),
    urv: typedNumber(fields.urv),
    dampingS: typedNumber(fields.dampingS),
    displayDampingS: typedNumber(fields.displayDampingS),
    application: fields.application || null,
    transferFunction: fields.transfer === '' ? null : transferOfFields(fields),
    displayUnit: fields.displayUnit.trim() || null,
    displayLow: typedNumber(fields.displayLow),
    displayHigh: typedNumber(fields.displayHigh),
    startView: fields.startView || null,
    drivenBy: fields.drivenBy || null,
    switchingPoints: points === '' ? null : points === NONE ? [] : readSwitchingPoints(points),
  });
}

/** @throws ZodError */
export const checksOfFields = (fields: SetupFields): SetupChecks =>
  setupChecksSchema.parse(Object.fromEntries(CHECK_KEYS.map((key) => [key, typedNumber(fields[key])])));
