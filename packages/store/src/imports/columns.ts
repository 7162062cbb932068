/** Which columns a file of each kind can have, and the headings that people give them. */
import type { RegisterField } from '../registers/fields';
import { FILE_FIELDS, INSTRUMENT_FIELDS } from '../registers/instrument';

export const IMPORT_KINDS = ['instruments', 'references', 'configurations', 'results'] as const;
export type ImportKind = (typeof IMPORT_KINDS)[number];

export interface Column {
  readonly field: string;
  readonly label: string;
  readonly isRequired?: boolean;
  /** Other headings for it, in small letters and digits alone. */
  readonly known?: readonly string[];
}

const RANGE: readonly Column[] = [
  {
    field: 'lrv',
    label: 'LRV',
    isRequired: true,
    known: ['lowerrangevalue', 'rangelow', 'rangefrom', 'low', 'from', 'min'],
  },
  {
    field: 'urv',
    label: 'URV',
    isRequired: true,
    known: ['upperrangevalue', 'rangehigh', 'rangeto', 'high', 'to', 'max'],
  },
  {
    field: 'inputUnit',
    label: 'Unit',
    isRequired: true,
    known: ['inputunit', 'rangeunit', 'units', 'eu', 'uom', 'einheit'],
  },
  { field: 'signal', label: 'Signal', known: ['output', 'outputsignal'] },
  { field: 'outputLow', label: 'Output at 0 %', known: ['outputlow', 'outputmin'] },
  { field: 'outputHigh', label: 'Output at 100 %', known: ['outputhigh', 'outputmax'] },
  { field: 'outputUnit', label: 'Output unit' },
  { field: 'transfer', label: 'Transfer function', known: ['transfer', 'characteristic', 'function'] },
  { field: 'cutOff', label: 'Low-flow cut-off, % of flow', known: ['cutoff', 'lowflowcutoff'] },
  { field: 'linearTo', label: 'Linear start to, %', known: ['linearto', 'linearstart'] },
  { field: 'displayLow', label: 'Display at 0 %', known: ['displaylow', 'scalelow'] },
  { field: 'displayHigh', label: 'Display at 100 %', known: ['displayhigh', 'scalehigh'] },
  { field: 'displayUnit', label: 'Display unit', known: ['scaleunit'] },
  { field: 'damping', label: 'Damping, s', known: ['damping', 'timeconstant'] },
  { field: 'division', label: 'Scale division', known: ['division', 'graduation'] },
  { field: 'displayDamping', label: 'Damping of the display, s' },
  { field: 'applicationSet', label: 'Application set' },
  { field: 'startView', label: 'Start view' },
  { field: 'drivenBy', label: 'Output driven by' },
  { field: 'switchingPoints', label: 'Switching points' },
];

/** A field of a register as a column of a file. */
const columnOf = (key: string, { heading, inFile, isRequired, known }: RegisterField): Column => ({
  field: inFile ?? key,
  label: heading,
  ...(isRequired === undefined ? {} : { isRequired }),
  ...(known === undefined ? {} : { known }),
});

const TAG = columnOf('tag', INSTRUMENT_FIELDS.tag);

export const COLUMNS: Readonly<Record<ImportKind, readonly Column[]>> = {
  instruments: FILE_FIELDS.flatMap(([key, field]) => [
    columnOf(key, field),
    ...(key === 'bodyId' ? RANGE : []),
  ]),
  references: [
    { ...TAG, known: ['tagno', 'id', 'reference', 'asset'] },
    {
      field: 'description',
      label: 'What it is',
      isRequired: true,
      known: ['description', 'name', 'type', 'model'],
    },
    { field: 'unit', label: 'Unit', isRequired: true, known: ['units', 'rangeunit'] },
    { field: 'rangeLow', label: 'Range from', isRequired: true, known: ['low', 'min', 'from', 'rangelow'] },
    { field: 'rangeHigh', label: 'Range to', isRequired: true, known: ['high', 'max', 'to', 'rangehigh'] },
    { field: 'resolution', label: 'Resolution', isRequired: true },
    { field: 'serial', label: 'Serial number', known: ['serial', 'serialno', 'sn'] },
    { field: 'location', label: 'Where it is', known: ['location', 'place'] },
    { field: 'state', label: 'State', known: ['status'] },
    { field: 'module', label: 'Module' },
    { field: 'quantity', label: 'Measures', known: ['quantity'] },
    { field: 'kind', label: 'Kind of pressure' },
    { field: 'percentOfReading', label: '% of reading', known: ['ofreading', 'accuracyofreading'] },
    { field: 'percentOfRange', label: '% of range', known: ['ofrange', 'accuracyofrange', 'fs', 'offs'] },
    { field: 'floor', label: 'Floor' },
    { field: 'certificate', label: 'Certificate', known: ['certificateno', 'certificatenumber'] },
    { field: 'laboratory', label: 'Laboratory', known: ['lab'] },
    {
      field: 'calibrated',
      label: 'Calibrated on',
      known: ['calibrated', 'calibrationdate', 'lastcalibration'],
    },
    { field: 'due', label: 'Due', known: ['duedate', 'nextdue'] },
    { field: 'uncertainty', label: 'Expanded uncertainty, % of range', known: ['uncertainty'] },
  ],
  configurations: [TAG, ...RANGE, { field: 'reason', label: 'Why', known: ['reason', 'remark'] }],
  results: [
    TAG,
    { field: 'date', label: 'Date', isRequired: true, known: ['doneon', 'calibrated', 'calibrationdate'] },
    { field: 'applied', label: 'Applied', isRequired: true, known: ['input', 'appliedvalue', 'pressure'] },
    { field: 'output', label: 'Reading', isRequired: true, known: ['output', 'measured', 'measuredvalue'] },
    { field: 'kind', label: 'As found or as left', known: ['kind', 'run', 'type'] },
    { field: 'direction', label: 'Direction', known: ['updown'] },
    { field: 'nominal', label: 'Point, %', known: ['point', 'nominal', 'percent'] },
    { field: 'doneBy', label: 'Who', known: ['by', 'technician', 'person'] },
    { field: 'certificate', label: 'Certificate', known: ['certificateno', 'record'] },
    { field: 'standard', label: 'Reference', known: ['standard', 'calibrator', 'referencestandard'] },
  ],
};

const plain = (heading: string): string => heading.toLowerCase().replace(/[^a-z0-9]/g, '');

/** Column of the file, by its place, for each field; null where none is read. */
export type Mapping = Readonly<Record<string, number | null>>;

/** Which column is which, as far as the headings say; a column is taken once, the likeliest first. */
export function guessMapping(kind: ImportKind, header: readonly string[]): Mapping {
  const headings = header.map(plain);
  const taken = new Set<number>();
  const mapping: Record<string, number | null> = {};
  const take = (column: Column, fits: (heading: string, names: readonly string[]) => boolean) => {
    if (mapping[column.field] != null) return;
    const names = [plain(column.field), plain(column.label), ...(column.known ?? [])];
    const place = headings.findIndex(
      (heading, index) => heading !== '' && !taken.has(index) && fits(heading, names),
    );
    mapping[column.field] = place === -1 ? null : place;
    if (place !== -1) taken.add(place);
  };
  for (const column of COLUMNS[kind]) take(column, (heading, names) => names.slice(0, 2).includes(heading));
  for (const column of COLUMNS[kind]) take(column, (heading, names) => names.includes(heading));
  for (const column of COLUMNS[kind])
    take(column, (heading, names) => names.some((name) => name.length > 4 && heading.includes(name)));
  return mapping;
}
