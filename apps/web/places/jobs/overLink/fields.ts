/** What is changed at an instrument over a link, as it is typed. */
import { digitalWords, outputWords, unitWords, type InstrumentAct, type ReadSetup } from '@barys/core/port';
import { unitLabel, unitsOf } from '@barys/core/units';
import type { FieldSpec } from '@/ui/FieldGrid';
import { typedNumber } from '@/ui/readNumber';

export const ACTS = [
  ['zero trim', 'Zero trim'],
  ['fix 4', 'Fix the loop at 4 mA'],
  ['trim 4', 'Output trim at 4 mA'],
  ['fix 20', 'Fix the loop at 20 mA'],
  ['trim 20', 'Output trim at 20 mA'],
  ['let go', 'Let the loop go'],
  ['damping', 'Damping'],
  ['range', 'Range'],
  ['unit', 'Unit'],
  ['transfer function', 'Transfer function'],
] as const;

export const WRITE_FIELDS = {
  act: 'zero trim',
  applied: '',
  measured: '',
  seconds: '',
  lrv: '',
  urv: '',
  unit: '',
  transfer: 'linear',
};
export type WriteFields = Readonly<typeof WRITE_FIELDS>;
type Spec = FieldSpec<keyof WriteFields>;

const UNITS: Spec = {
  name: 'unit',
  label: 'Unit',
  options: unitsOf('pressure').map((unit) => [unit, unitLabel(unit)] as const),
  width: 4,
  path: 'act.unit',
};
const MORE: Readonly<Record<string, readonly Spec[]>> = {
  'trim 4': [{ name: 'measured', label: 'Measured, mA', kind: 'number', width: 4, path: 'act.measured' }],
  'trim 20': [{ name: 'measured', label: 'Measured, mA', kind: 'number', width: 4, path: 'act.measured' }],
  damping: [{ name: 'seconds', label: 'Damping, s', kind: 'number', width: 4, path: 'act.seconds' }],
  range: [
    { name: 'lrv', label: 'From', kind: 'number', width: 2, path: 'act.lrv' },
    { name: 'urv', label: 'to', kind: 'number', width: 2, path: 'act.urv' },
    { ...UNITS, help: 'The register keeps its range until another one is set there, below' },
  ],
  unit: [UNITS],
  'transfer function': [
    {
      name: 'transfer',
      label: 'Transfer function',
      options: [
        ['linear', 'linear'],
        ['square-root', 'square root'],
      ],
      width: 4,
    },
  ],
};

export const writeSpecs = (act: string, inputUnit: string): readonly Spec[] => [
  { name: 'act', label: 'What is changed', options: ACTS, width: 4 },
  { name: 'applied', label: `Applied now, ${inputUnit}`, kind: 'number', width: 4, path: 'atAppliedText' },
  ...(MORE[act] ?? []),
];

/** What the schema of an act reads. */
export function actOfFields(fields: WriteFields): Record<string, unknown> {
  switch (fields.act) {
    case 'fix 4':
    case 'fix 20':
      return { kind: 'fixed current', milliamp: Number(fields.act.slice(4)) };
    case 'let go':
      return { kind: 'fixed current', milliamp: null };
    case 'trim 4':
    case 'trim 20':
      return { kind: 'output trim', at: Number(fields.act.slice(5)), measured: typedNumber(fields.measured) };
    case 'damping':
      return { kind: 'damping', seconds: typedNumber(fields.seconds) };
    case 'range':
      return { kind: 'range', lrv: typedNumber(fields.lrv), urv: typedNumber(fields.urv), unit: fields.unit };
    case 'unit':
      return { kind: 'unit', unit: fields.unit };
    case 'transfer function':
      return { kind: 'transfer function', transfer: fields.transfer };
    default:
      return { kind: 'zero trim' };
  }
}

/** How it is before, and how it is to be after, in words; null as long as something is missing. */
export function beforeAndAfter(
  act: Record<string, unknown>,
  setup: ReadSetup,
): readonly [string, string] | null {
  const wanted = act as unknown as InstrumentAct;
  const range = (lrv: number, urv: number, unit: string) => `${lrv} to ${urv} ${unitWords(unit)}`;
  const output = setup.isFixed
    ? `fixed at ${outputWords(setup)}`
    : `following the pressure, ${outputWords(setup)}`;
  switch (wanted.kind) {
    case 'zero trim':
      return [digitalWords(setup), `0 ${unitWords(setup.unit)}`];
    case 'output trim':
      return Number.isFinite(wanted.measured)
        ? [`${wanted.measured} mA at the meter`, `${wanted.at} mA`]
        : null;
    case 'fixed current':
      return [output, wanted.milliamp === null ? 'following the pressure' : `fixed at ${wanted.milliamp} mA`];
    case 'damping':
      return Number.isFinite(wanted.seconds) ? [`${setup.dampingS} s`, `${wanted.seconds} s`] : null;
    case 'range':
      return Number.isFinite(wanted.lrv) && Number.isFinite(wanted.urv)
        ? [range(setup.lrv, setup.urv, setup.unit), range(wanted.lrv, wanted.urv, wanted.unit)]
        : null;
    case 'unit':
      return [unitWords(setup.unit), unitWords(wanted.unit)];
    case 'transfer function':
      return [setup.transfer ?? 'a curve of its own', wanted.transfer];
  }
}
