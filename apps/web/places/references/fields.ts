/** References, modules, certificates and findings as they are typed. */
import { PRESSURE_KINDS, PRESSURE_UNITS } from '@barys/core/units';
import type { CertificateResult, NewCertificate, NewModule, Standard } from '@barys/store/registers';
import { certificateResultSchema, REFERENCE_QUANTITIES, REFERENCE_STATES } from '@barys/store/shapes';
import type { FieldSpec } from '@/ui/FieldGrid';
import { typedNumber } from '@/ui/readNumber';
import { z } from 'zod';

export const STANDARD_FIELDS = { tag: '', description: '', serial: '', state: 'in use', location: '' };
export type StandardFields = Readonly<typeof STANDARD_FIELDS>;

export const STANDARD_SPECS: readonly FieldSpec<keyof StandardFields>[] = [
  { name: 'tag', label: 'Tag', width: 3 },
  { name: 'description', label: 'What it is', width: 6 },
  { name: 'serial', label: 'Serial number', width: 3 },
  { name: 'state', label: 'State', options: REFERENCE_STATES, width: 3 },
  { name: 'location', label: 'Where it is', width: 6 },
];

export const fieldsOfStandard = ({
  tag,
  description,
  serial,
  state,
  location,
}: Standard): StandardFields => ({
  tag,
  description,
  serial,
  state,
  location,
});

export const MODULE_FIELDS = {
  name: '',
  quantity: 'pressure',
  kind: 'gauge',
  unit: 'bar',
  rangeLow: '0',
  rangeHigh: '',
  resolution: '',
  percentOfReading: '0',
  percentOfRange: '0',
  floor: '0',
  driftPercentOfReadingPerYear: '0',
  percentOfReadingPerK: '0',
  state: 'in use',
};
export type ModuleFields = Readonly<typeof MODULE_FIELDS>;

export const MODULE_SPECS: readonly FieldSpec<keyof ModuleFields>[] = [
  { name: 'name', label: 'Module', width: 4, help: 'Empty where there is one range' },
  { name: 'quantity', label: 'Measures', options: REFERENCE_QUANTITIES, width: 2 },
  { name: 'kind', label: 'Kind of pressure', options: PRESSURE_KINDS, width: 2 },
  {
    name: 'unit',
    label: 'Unit',
    width: 2,
    options: [
      ...Object.entries(PRESSURE_UNITS).map(([unit, { label }]) => [unit, label] as const),
      ['mA', 'mA'],
      ['V', 'V'],
    ],
  },
  { name: 'state', label: 'State', options: ['in use', 'not used'], width: 2, path: 'isActive' },
  { name: 'rangeLow', label: 'Range from', kind: 'number', width: 4 },
  { name: 'rangeHigh', label: 'to', kind: 'number', width: 4 },
  { name: 'resolution', label: 'Resolution', kind: 'number', width: 4 },
  { name: 'percentOfReading', label: '% of reading', kind: 'number', width: 2 },
  { name: 'percentOfRange', label: '% of range', kind: 'number', width: 2 },
  { name: 'floor', label: 'Floor, in the unit', kind: 'number', width: 2 },
  {
    name: 'driftPercentOfReadingPerYear',
    label: 'Drift, % of reading a year',
    kind: 'number',
    width: 3,
  },
  { name: 'percentOfReadingPerK', label: '% of reading per K', kind: 'number', width: 3 },
];

const NUMBERS = [
  'rangeLow',
  'rangeHigh',
  'resolution',
  'percentOfReading',
  'percentOfRange',
  'floor',
  'driftPercentOfReadingPerYear',
  'percentOfReadingPerK',
] as const;

export const fieldsOfModule = (module: NewModule): ModuleFields => ({
  name: module.name,
  quantity: module.quantity,
  kind: module.kind,
  unit: module.unit,
  state: module.isActive ? 'in use' : 'not used',
  ...(Object.fromEntries(NUMBERS.map((name) => [name, String(module[name])])) as Record<
    (typeof NUMBERS)[number],
    string
  >),
});

/** What the schema of a module reads. An empty term is none. */
export const moduleOfFields = ({ state, ...fields }: ModuleFields): Record<string, unknown> => ({
  ...fields,
  isActive: state === 'in use',
  ...Object.fromEntries(NUMBERS.map((name) => [name, typedNumber(fields[name]) ?? 0])),
});

export const CERTIFICATE_FIELDS = {
  number: '',
  laboratory: '',
  calibratedOn: '',
  dueOn: '',
  uncertaintyPercentOfRange: '',
};
export type CertificateFields = Readonly<typeof CERTIFICATE_FIELDS>;

export const CERTIFICATE_SPECS: readonly FieldSpec<keyof CertificateFields>[] = [
  { name: 'number', label: 'Number of the certificate', width: 6 },
  { name: 'laboratory', label: 'Laboratory', width: 6 },
  { name: 'calibratedOn', label: 'Calibrated on', kind: 'date', width: 4 },
  { name: 'dueOn', label: 'Due', kind: 'date', width: 4 },
  {
    name: 'uncertaintyPercentOfRange',
    label: 'U, % of range',
    kind: 'number',
    width: 4,
    help: 'Expanded, k = 2; empty where it does not say',
  },
];

/** A range that a certificate can say something of, point by point, in the unit that the form shows. */
export interface CertifiedRange {
  readonly id: number;
  readonly unit: string;
  readonly words: string;
}

const RESULTS = 'results-';

/** The field for what a certificate says of a range; its name tells the range and the unit. */
export const resultsField = ({ id, unit }: Pick<CertifiedRange, 'id' | 'unit'>): string =>
  `${RESULTS}${id}-${unit}`;

/** What certificates say in a form, range by range. @throws ZodError with the line that is wrong */
export const resultsOfForm = (form: Iterable<[string, unknown]>): NewCertificate['results'] =>
  [...form]
    .filter(([name]) => name.startsWith(RESULTS))
    .map(([name, text], place) => {
      const [, id = '', unit = ''] = /^(\d+)-(.*)$/.exec(name.slice(RESULTS.length)) ?? [];
      return {
        moduleId: Number(id),
        unit,
        points: resultsOfText(z.string().max(20000).parse(text), place),
      };
    });

export const resultsSpec = (range: CertifiedRange, place: number): FieldSpec => ({
  name: resultsField(range),
  path: `results.${place}`,
  label: `Points of ${range.words}: reading; correction; uncertainty`,
  kind: 'lines',
  width: 12,
  help: 'Where the certificate says it point by point. One a line, in the unit of the range; correction = true value minus reading; expanded uncertainty, k = 2; such as  10.000; 0.002; 0.004',
});

/**
 * The points of a range as they were typed or pasted, in rising order.
 * @param place of the range among those of the form
 * @throws ZodError with the line that is wrong, at the field of the range
 */
export function resultsOfText(text: string, place: number): CertificateResult[] {
  return text
    .split('\n')
    .map((line, index) => {
      const [at = '', correction = '', uncertainty = '', ...more] = line.split(/[;\t]/);
      const read = certificateResultSchema.safeParse({
        at: typedNumber(at),
        correction: typedNumber(correction),
        uncertainty: typedNumber(uncertainty),
      });
      if (line.trim() === '') return null;
      if (read.success && more.join('').trim() === '') return read.data;
      const why = read.success ? 'three figures are meant.' : (read.error.issues[0]?.message ?? '');
      throw new z.ZodError([
        { code: 'custom', path: ['results', place], message: `Line ${index + 1}: ${why}`, input: line },
      ]);
    })
    .filter((one) => one !== null)
    .sort((a, b) => a.at - b.at);
}

export const FINDING_FIELDS = { foundOn: '', goodUntil: '', errors: '', note: '' };
export type FindingFields = Readonly<typeof FINDING_FIELDS>;

export const FINDING_SPECS: readonly FieldSpec<keyof FindingFields>[] = [
  { name: 'foundOn', label: 'Found on', kind: 'date', width: 6 },
  { name: 'goodUntil', label: 'Last good calibration', kind: 'date', width: 6 },
  {
    name: 'errors',
    label: 'Points: what it read; its error',
    kind: 'lines',
    width: 12,
    help: 'One a line, in the unit of the module; error = reading minus true value, such as  2.0000; 0.0012',
  },
  { name: 'note', label: 'How it was found', width: 12 },
];

/** What the schema of a finding reads: the points in rising order. */
export function findingOfFields(fields: FindingFields): Record<string, unknown> {
  const errors = fields.errors
    .split('\n')
    .filter((line) => line.trim() !== '')
    .map((line) => {
      const [at = '', error = ''] = line.split(/[;\t]/);
      return { at: typedNumber(at), error: typedNumber(error) };
    })
    .sort((a, b) => (a.at ?? 0) - (b.at ?? 0));
  return { ...fields, errors };
}
