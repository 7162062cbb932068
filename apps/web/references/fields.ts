/** References, modules, certificates and findings as they are typed. */
import { PRESSURE_KINDS } from '@barys/core';
import type { NewModule, Standard } from '@barys/store';
import { REFERENCE_QUANTITIES, REFERENCE_STATES } from '@barys/store/shapes';
import type { FieldSpec } from '@/ui/FieldGrid';
import { typedNumber } from '@/ui/readNumber';

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
  { name: 'unit', label: 'Unit', width: 2, help: 'As the list of units writes it' },
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
    label: 'Expanded uncertainty, % of range',
    kind: 'number',
    width: 4,
    help: 'k = 2; empty where it does not say',
  },
];

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
