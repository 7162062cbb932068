/** A set-up as it is typed at the instrument: an empty field is what was not read. */
import type { Setup } from '@barys/core/setup';
import { setupChecksSchema, setupReadSchema, USUAL_CHECKS, type SetupChecks } from '@barys/store/shapes';
import { RANGE_FIELDS, transferOfFields } from '@/ui/range/fields';
import { typedNumber } from '@/ui/readNumber';
import { fieldsOfConfiguration, pointsOfText } from '../fields';
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
    switchingPoints: points === '' ? null : points === NONE ? [] : pointsOfText(points),
  });
}

/** @throws ZodError */
export const checksOfFields = (fields: SetupFields): SetupChecks =>
  setupChecksSchema.parse(Object.fromEntries(CHECK_KEYS.map((key) => [key, typedNumber(fields[key])])));
