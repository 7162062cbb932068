'use client';
import { CoreError } from '@barys/core/errors';
import {
  displayedValue,
  workApplied,
  workExpected,
  type DisplayScale,
  type SignalRange,
} from '@barys/core/signal';
import { formatPlain } from '@barys/core/text';
import { isUnit, unitLabel } from '@barys/core/units';
import type { Worked } from '@barys/core/working';
import Box from '@mui/material/Box';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { Columns } from '@/ui/Columns';
import { Figure } from '@/ui/Figure';
import { NumberField } from '@/ui/NumberField';
import { readNumber } from '@/ui/readNumber';
import { Sheet } from '@/ui/Sheet';
import { TakeAlong } from '@/ui/TakeAlong';
import { useAddress } from '@/ui/useAddress';
import { Working } from '@/ui/Working';
import { displayOfFields, needed, rangeOfFields, TRANSFER_WORD, transferKind } from '@/ui/range/fields';
import { RangeForm } from '@/ui/range/RangeForm';
import { RangeStave } from '@/ui/range/RangeStave';
import type { ExpectedFields } from './fields';
import { Unworkable } from '../deskFields';
import { csvOf, finenessOf, shownRows, type ShownRow } from './rows';

interface Computed {
  readonly range: SignalRange;
  readonly display: DisplayScale;
  readonly rows: readonly ShownRow[];
}

function compute(fields: ExpectedFields): Computed | { readonly error: string } {
  try {
    const [range, display] = [rangeOfFields(fields), displayOfFields(fields)];
    const evenIn = fields.evenIn === 'output' ? 'output' : 'input';
    return { range, display, rows: shownRows(range, display, needed(fields.step, 'The step'), evenIn) };
  } catch (error) {
    if (error instanceof CoreError) return { error: error.message };
    throw error;
  }
}

export function ExpectedDesk({ initial }: { initial: ExpectedFields }) {
  const [fields, change] = useAddress(initial);
  const units = {
    input: isUnit(fields.inputUnit) ? unitLabel(fields.inputUnit) : fields.inputUnit,
    output: fields.outputUnit,
    display: fields.displayUnit,
  };
  const got = compute(fields);
  return (
    <Columns columns="minmax(320px, 0.75fr) 1.6fr">
      <Box sx={{ '@media print': { display: 'none' } }}>
        <Sheet title="Range and signal">
          <Stack sx={{ gap: 1.25 }}>
            <RangeForm fields={fields} change={change} />
            <StepFields fields={fields} change={change} />
          </Stack>
        </Sheet>
      </Box>
      {'error' in got ? (
        <Unworkable title="Expected values" message={got.error} />
      ) : (
        <Results fields={fields} change={change} units={units} {...got} />
      )}
    </Columns>
  );
}

function StepFields({
  fields,
  change,
}: {
  fields: ExpectedFields;
  change: (patch: Partial<ExpectedFields>) => void;
}) {
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
      <NumberField label="Step, %" text={fields.step} onText={(text) => change({ step: text })} />
      <TextField
        select
        label="Even in"
        value={fields.evenIn === 'output' ? 'output' : 'input'}
        onChange={(event) => change({ evenIn: event.target.value })}
      >
        <MenuItem value="input">input</MenuItem>
        <MenuItem value="output">output (flow)</MenuItem>
      </TextField>
    </Box>
  );
}

function Results({
  fields,
  change,
  units,
  range,
  display,
  rows,
}: Computed & {
  fields: ExpectedFields;
  change: (patch: Partial<ExpectedFields>) => void;
  units: { input: string; output: string; display: string };
}) {
  const show = finenessOf(range, display);
  const reading = readNumber(fields.reading).value;
  const applied = readNumber(fields.applied).value;
  const found = reading === null ? null : workApplied(range, reading, units);
  const expected = applied === null ? null : workExpected(range, applied, units);
  const sentence = `${formatPlain(range.lrv)} to ${formatPlain(range.urv)} ${units.input} gives ${formatPlain(range.outputLow)} to ${formatPlain(range.outputHigh)} ${units.output}, ${TRANSFER_WORD[transferKind(fields.transfer)]}`;
  return (
    <Stack sx={{ gap: 1.5 }}>
      <Sheet title={sentence}>
        <RangeStave
          range={range}
          display={display}
          units={units}
          marker={found?.value ?? applied}
          onMove={(end, value) => change({ [end === 'low' ? 'lrv' : 'urv']: String(value) })}
        />
      </Sheet>
      <Columns columns="2fr 1fr">
        <Sheet
          title="Expected values"
          aside={<TakeAlong file="expected-values.csv" csv={() => csvOf(rows, units)} />}
        >
          <ValueTable rows={rows} units={units} />
        </Sheet>
        <Stack sx={{ gap: 1.5, '@media print': { display: 'none' } }}>
          <Sheet title="The other way round">
            <NumberField
              label={`Reading, ${units.output}`}
              text={fields.reading}
              onText={(text) => change({ reading: text })}
              fullWidth
            />
            {reading !== null && found !== null && (
              <Answer of="the reading" result={found}>
                <Figure>{show.input(found.value)}</Figure> {units.input}; the display shows{' '}
                <Figure>{show.display(displayedValue(range, display, reading))}</Figure> {units.display}
              </Answer>
            )}
          </Sheet>
          <Sheet title="One value">
            <NumberField
              label={`Applied, ${units.input}`}
              text={fields.applied}
              onText={(text) => change({ applied: text })}
              fullWidth
            />
            {expected !== null && (
              <Answer of="the expected output" result={expected}>
                <Figure>{show.output(expected.value)}</Figure> {units.output}
              </Answer>
            )}
          </Sheet>
        </Stack>
      </Columns>
    </Stack>
  );
}

function Answer({ of, result, children }: { of: string; result: Worked; children: ReactNode }) {
  return (
    <Box sx={{ mt: 1 }}>
      <Typography sx={{ fontWeight: 700 }}>{children}</Typography>
      <Working of={of} steps={() => result.working} />
    </Box>
  );
}

function ValueTable({
  rows,
  units,
}: {
  rows: readonly ShownRow[];
  units: { input: string; output: string; display: string };
}) {
  const columns: readonly (readonly [keyof ShownRow, string])[] = [
    ['inputPercent', 'Input, %'],
    ['applied', `Applied, ${units.input}`],
    ['output', `Output, ${units.output}`],
    ['outputPercent', 'Output, %'],
    ['display', `Display, ${units.display}`],
  ];
  return (
    <Box
      sx={{ maxHeight: 440, overflow: 'auto', '@media print': { maxHeight: 'none' } }}
      tabIndex={0}
      role="region"
      aria-label="Expected values"
    >
      <Table size="small" stickyHeader>
        <TableHead>
          <TableRow>
            {columns.map(([name, label]) => (
              <TableCell key={name} align="right" sx={{ bgcolor: 'var(--sheet)', whiteSpace: 'nowrap' }}>
                {label}
              </TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody>
          {rows.map((row, place) => (
            <TableRow key={place}>
              {columns.map(([name]) => (
                <TableCell key={name} align="right">
                  <Figure>{row[name]}</Figure>
                </TableCell>
              ))}
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </Box>
  );
}
