'use client';
import Box from '@mui/material/Box';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { memo } from 'react';
import type { Answer } from '@/server/answer';
import { NumberField } from './NumberField';

/** One field of a form whose entries are kept as texts. */
export interface FieldSpec<Name extends string = string> {
  readonly name: Name;
  readonly label: string;
  readonly kind?: 'number' | 'date' | 'password' | 'lines';
  /** Values to choose from, with their words where they differ. */
  readonly options?: readonly (string | readonly [value: string, words: string])[];
  readonly help?: string;
  /** Columns of twelve. */
  readonly width?: number;
  /** What the server calls it, where that is another name. */
  readonly path?: string;
  readonly autoComplete?: string;
}

/** The specs that an answer speaks of, so that it is shown there and not below. */
const isAbout = (spec: FieldSpec, answer: Answer): boolean =>
  answer.error !== null &&
  answer.field !== undefined &&
  (answer.field === (spec.path ?? spec.name) || answer.field.startsWith(`${spec.path ?? spec.name}.`));

/** What is left of an answer when the fields have shown their own. */
export const unplaced = (specs: readonly FieldSpec[], answer: Answer): Answer =>
  specs.some((spec) => isAbout(spec, answer)) ? { error: null } : answer;

const wordsOf = (option: string | readonly [string, string]): readonly [string, string] =>
  typeof option === 'string' ? [option, option] : option;

type Change<Name extends string> = (patch: Partial<Record<Name, string>>) => void;

/** By itself, so that a key typed in one field draws none of the others. */
const GridField = memo(function GridField({
  spec: { name, label, kind, options, help, width = 6, autoComplete = 'off' },
  text,
  change,
  wrong,
}: {
  spec: FieldSpec;
  text: string;
  change: Change<string>;
  wrong: string | null;
}) {
  const common = {
    name,
    label,
    error: wrong !== null,
    helperText: wrong ?? help,
    sx: { gridColumn: { xs: 'span 12', sm: `span ${width}` } },
  };
  const set = (typed: string) => change({ [name]: typed });
  if (kind === 'number')
    return <NumberField {...common} text={text} onText={set} error={wrong} helperText={help} />;
  return (
    <TextField
      {...common}
      select={options !== undefined}
      type={kind === 'date' || kind === 'password' ? kind : 'text'}
      multiline={kind === 'lines'}
      {...(kind === 'lines' ? { minRows: 2 } : {})}
      value={text}
      onChange={(event) => set(event.target.value)}
      autoComplete={autoComplete}
      slotProps={kind === 'date' ? { inputLabel: { shrink: true } } : {}}
    >
      {options?.map((option) => {
        const [value, words] = wordsOf(option);
        return (
          <MenuItem key={value} value={value} sx={{ minHeight: 44 }}>
            {words === '' ? '—' : words}
          </MenuItem>
        );
      })}
    </TextField>
  );
});

/** Fields in a grid of twelve columns; what the server refused is said at its field, and the text stays. */
export function FieldGrid<Name extends string>({
  specs,
  fields,
  change,
  answer,
}: {
  specs: readonly FieldSpec<Name>[];
  fields: Readonly<Record<Name, string>>;
  change: Change<Name>;
  answer: Answer;
}) {
  return (
    <Box
      sx={{ display: 'grid', gridTemplateColumns: 'repeat(12, minmax(0, 1fr))', columnGap: 1, rowGap: 1.5 }}
    >
      {specs.map((spec) => (
        <GridField
          key={spec.name}
          spec={spec}
          text={fields[spec.name]}
          change={change}
          wrong={isAbout(spec, answer) ? answer.error : null}
        />
      ))}
    </Box>
  );
}
