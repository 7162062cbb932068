/** An instrument's register entry as it is typed, and back. Numbers stay text until the server reads them. */
import { formatPlain } from '@barys/core/text';
import type { Configuration, Instrument, NewConfiguration, NewInstrument } from '@barys/store/registers';
import { displayOfFields, kneeOf, needed, RANGE_FIELDS, rangeOfFields } from '@/ui/range/fields';
import { typedNumber } from '@/ui/readNumber';

export const INSTRUMENT_FIELDS = {
  tag: '',
  serial: '',
  service: '',
  description: '',
  site: '',
  area: '',
  walk: '',
  hazards: '',
  loop: '',
  criticality: 'general',
  measures: 'pressure',
  kind: 'gauge',
  hookUp: 'block-and-bleed',
  bodyId: '',
  procedureId: '1',
  tolerancePercentOfSpan: '0.25',
  toleranceMiddlePercentOfSpan: '',
  tolerancePercentOfReading: '0',
  adjustAbovePercentOfLimit: '70',
  intervalMonths: '12',
  dueOn: '',
  owner: '',
  state: 'in service',
};
export type InstrumentFields = Readonly<typeof INSTRUMENT_FIELDS>;

export function fieldsOfInstrument(instrument: Instrument): InstrumentFields {
  const { tolerance } = instrument;
  return {
    tag: instrument.tag,
    serial: instrument.serial,
    service: instrument.service,
    description: instrument.description,
    site: instrument.site,
    area: instrument.area,
    walk: instrument.walk === null ? '' : String(instrument.walk),
    hazards: instrument.hazards.join('; '),
    loop: instrument.loop,
    criticality: instrument.criticality,
    measures: instrument.measures,
    kind: instrument.kind,
    hookUp: instrument.hookUp,
    bodyId: String(instrument.body.id),
    procedureId: String(instrument.procedure.id),
    tolerancePercentOfSpan: String(tolerance.percentOfSpan),
    toleranceMiddlePercentOfSpan:
      tolerance.middlePercentOfSpan === null ? '' : String(tolerance.middlePercentOfSpan),
    tolerancePercentOfReading: String(tolerance.percentOfReading),
    adjustAbovePercentOfLimit: String(tolerance.adjustAbovePercentOfLimit),
    intervalMonths: String(instrument.intervalMonths),
    dueOn: instrument.dueOn,
    owner: instrument.owner,
    state: instrument.state,
  };
}

/** What the schema of an instrument reads. */
export function entryOfFields({
  tolerancePercentOfSpan,
  toleranceMiddlePercentOfSpan,
  tolerancePercentOfReading,
  adjustAbovePercentOfLimit,
  ...fields
}: InstrumentFields): Record<keyof NewInstrument, unknown> {
  return {
    ...fields,
    walk: typedNumber(fields.walk),
    hazards: fields.hazards
      .split(';')
      .map((hazard) => hazard.trim())
      .filter((hazard) => hazard !== ''),
    bodyId: Number(fields.bodyId),
    procedureId: Number(fields.procedureId),
    tolerance: {
      percentOfSpan: typedNumber(tolerancePercentOfSpan),
      middlePercentOfSpan: typedNumber(toleranceMiddlePercentOfSpan),
      percentOfReading: typedNumber(tolerancePercentOfReading),
      adjustAbovePercentOfLimit: typedNumber(adjustAbovePercentOfLimit),
    },
    intervalMonths: typedNumber(fields.intervalMonths),
  };
}

export const CONFIGURATION_FIELDS = {
  ...RANGE_FIELDS,
  displayUnit: '',
  dampingS: '2',
  scaleDivision: '',
  reason: '',
};
export type ConfigurationFields = Readonly<typeof CONFIGURATION_FIELDS>;

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
    scaleDivision: configuration.scaleDivision === null ? '' : plain(configuration.scaleDivision),
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
    displayUnit: fields.displayUnit,
    displayLow: display.low,
    displayHigh: display.high,
    reason: fields.reason,
  };
}
