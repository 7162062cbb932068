/** An instrument's register entry as it is typed, and back. Numbers stay text until the server reads them. */
import { readSwitchingPoints, switchingPointsText } from '@barys/core/setup';
import { formatPlain } from '@barys/core/text';
import type { Configuration, Instrument, NewConfiguration } from '@barys/store/registers';
import {
  ALL_INSTRUMENT_FIELDS,
  entryOf,
  entryOfFlat,
  flatEntry,
  type InstrumentField,
  type RegisterField,
} from '@barys/store/shapes';
import { displayOfFields, kneeOf, needed, RANGE_FIELDS, rangeOfFields } from '@/ui/range/fields';
import { typedNumber } from '@/ui/readNumber';

export type InstrumentFields = Readonly<Record<InstrumentField, string>>;

const FIELDS: readonly (readonly [InstrumentField, RegisterField])[] = Object.entries(
  ALL_INSTRUMENT_FIELDS,
) as never;

const each = <T>(of: (key: InstrumentField, field: RegisterField) => T): Record<InstrumentField, T> =>
  Object.fromEntries(FIELDS.map(([key, field]) => [key, of(key, field)])) as Record<InstrumentField, T>;

/** A new form. */
export const NEW_INSTRUMENT: InstrumentFields = each((_, { usual }) =>
  usual === undefined ? '' : String(usual),
);

function typedText(value: unknown): string {
  if (typeof value === 'number') return String(value);
  if (Array.isArray(value)) return value.join('; ');
  return typeof value === 'string' ? value : '';
}

export function fieldsOfInstrument(instrument: Instrument): InstrumentFields {
  const flat = flatEntry(entryOf(instrument));
  return each((key) => typedText(flat[key]));
}

function readTyped(text: string, { read }: RegisterField): unknown {
  if (read === 'number') return typedNumber(text);
  if (read !== 'list') return text;
  return text
    .split(';')
    .map((part) => part.trim())
    .filter((part) => part !== '');
}

/** What the schema of an instrument reads. */
export const entryOfFields = (fields: InstrumentFields): Record<string, unknown> =>
  entryOfFlat(each((key, field) => readTyped(fields[key], field)));

export const CONFIGURATION_FIELDS = {
  ...RANGE_FIELDS,
  displayUnit: '',
  dampingS: '2',
  scaleDivision: '',
  displayDampingS: '',
  application: '',
  startView: '',
  drivenBy: '',
  switchingPoints: '',
  reason: '',
};
export type ConfigurationFields = Readonly<typeof CONFIGURATION_FIELDS>;

const orEmpty = (value: number | null): string => (value === null ? '' : plain(value));

const plain = (value: number): string => formatPlain(value).replace('\u2212', '-');

export function fieldsOfConfiguration(configuration: Configuration): ConfigurationFields {
  const { transferFunction: transfer } = configuration;
  const knee = kneeOf(transfer);
  return {
    lrv: plain(configuration.lrv),
    urv: plain(configuration.urv),
    inputUnit: configuration.inputUnit,
    signal: configuration.signal,
    outputLow: plain(configuration.outputLow),
    outputHigh: plain(configuration.outputHigh),
    outputUnit: configuration.outputUnit,
    transfer: transfer.kind,
    knee: knee === null ? RANGE_FIELDS.knee : plain(knee),
    table:
      transfer.kind === 'table'
        ? transfer.points
            .map(({ inputPercent, outputPercent }) => `${plain(inputPercent)} ${plain(outputPercent)}`)
            .join('; ')
        : RANGE_FIELDS.table,
    displayLow: plain(configuration.displayLow),
    displayHigh: plain(configuration.displayHigh),
    displayUnit: configuration.displayUnit,
    dampingS: plain(configuration.dampingS),
    scaleDivision: orEmpty(configuration.scaleDivision),
    displayDampingS: orEmpty(configuration.displayDampingS),
    application: configuration.application ?? '',
    startView: configuration.startView ?? '',
    drivenBy: configuration.drivenBy ?? '',
    switchingPoints: switchingPointsText(configuration.switchingPoints),
    reason: '',
  };
}

/**
 * What the schema of a configuration reads.
 * @throws CoreError naming what is missing or is no number
 */
export function configurationOfFields(
  fields: ConfigurationFields,
): Partial<Record<keyof NewConfiguration, unknown>> {
  const display = displayOfFields(fields);
  return {
    ...rangeOfFields(fields),
    inputUnit: fields.inputUnit,
    signal: fields.signal,
    outputUnit: fields.outputUnit,
    dampingS: needed(fields.dampingS, 'The damping'),
    scaleDivision: typedNumber(fields.scaleDivision),
    displayDampingS: typedNumber(fields.displayDampingS),
    application: fields.application || null,
    startView: fields.startView || null,
    drivenBy: fields.drivenBy || null,
    switchingPoints: readSwitchingPoints(fields.switchingPoints),
    displayUnit: fields.displayUnit,
    displayLow: display.low,
    displayHigh: display.high,
    reason: fields.reason,
  };
}
