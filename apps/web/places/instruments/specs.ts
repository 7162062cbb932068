/** The fields of an instrument's register entry. */
import { ARRANGEMENTS, HOOK_UPS } from '@barys/core/hookup';
import { PRESSURE_KINDS } from '@barys/core/units';
import type { FieldSpec } from '@/ui/FieldGrid';
import type { InstrumentFields } from './fields';
import { CRITICALITIES, ISOLATION_TIMES, MEASURES, STATES } from './words';

export const instrumentSpecs = (
  bodies: readonly { readonly id: number; readonly model: string }[],
  procedures: readonly { readonly id: number; readonly name: string }[],
): FieldSpec<keyof InstrumentFields>[] => [
  { name: 'tag', label: 'Tag', width: 3 },
  { name: 'service', label: 'Service', width: 6 },
  { name: 'serial', label: 'Serial number', width: 3 },
  { name: 'description', label: 'Description', width: 12 },
  { name: 'site', label: 'Site', width: 4 },
  { name: 'area', label: 'Area', width: 5 },
  { name: 'walk', label: 'Place in the walk', kind: 'number', width: 3 },
  { name: 'loop', label: 'Loop', width: 3 },
  { name: 'owner', label: 'Owner', width: 4 },
  { name: 'criticality', label: 'Criticality', options: CRITICALITIES, width: 5 },
  {
    name: 'hazards',
    label: 'Hazards',
    width: 12,
    help: 'Parted by ;   such as toxic; hot; oxygen; hazardous area',
  },
  { name: 'measures', label: 'Measures', options: MEASURES, width: 4 },
  { name: 'kind', label: 'Kind of pressure', options: PRESSURE_KINDS, width: 3 },
  {
    name: 'hookUp',
    label: 'Hook-up',
    options: ARRANGEMENTS.map((one) => [one, HOOK_UPS[one].name] as const),
    width: 5,
  },
  { name: 'canBeIsolated', label: 'Can be isolated', options: ISOLATION_TIMES, width: 3 },
  {
    name: 'isolatedWith',
    label: 'Isolated with',
    help: 'One name for all that is isolated as one',
    width: 4,
  },
  {
    name: 'bodyId',
    label: 'Body',
    options: bodies.map(({ id, model }) => [String(id), model] as const),
    width: 5,
  },
  {
    name: 'percentOfSpan',
    path: 'tolerance.percentOfSpan',
    label: 'Tolerance, ±% of span',
    kind: 'number',
    width: 4,
  },
  {
    name: 'middlePercentOfSpan',
    path: 'tolerance.middlePercentOfSpan',
    label: 'In the middle half of the scale, ±%',
    kind: 'number',
    width: 4,
    help: 'Empty where it is the same all over',
  },
  {
    name: 'percentOfReading',
    path: 'tolerance.percentOfReading',
    label: 'And of the reading, ±%',
    kind: 'number',
    width: 4,
  },
  {
    name: 'adjustAbovePercentOfLimit',
    path: 'tolerance.adjustAbovePercentOfLimit',
    label: 'Adjust above, % of the tolerance',
    kind: 'number',
    width: 4,
  },
  { name: 'intervalMonths', label: 'Interval, months', kind: 'number', width: 4 },
  { name: 'dueOn', label: 'Next due', kind: 'date', width: 4 },
  { name: 'state', label: 'State', options: STATES, width: 4 },
  {
    name: 'procedureId',
    label: 'Procedure',
    options: procedures.map(({ id, name }) => [String(id), name] as const),
    width: 4,
  },
];
