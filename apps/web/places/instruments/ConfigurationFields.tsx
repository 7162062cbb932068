'use client';
import { CoreError } from '@barys/core/errors';
import { APPLICATIONS, DRIVING_VARIABLES, START_VIEWS } from '@barys/core/setup';
import { checkRange, type DisplayScale, type SignalRange } from '@barys/core/signal';
import { convertPressure, isPressureUnit, unitLabel } from '@barys/core/units';
import type { Body } from '@barys/store/registers';
import Box from '@mui/material/Box';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { displayOfFields, rangeOfFields } from '@/ui/range/fields';
import { RangeForm } from '@/ui/range/RangeForm';
import { RangeStave } from '@/ui/range/RangeStave';
import { Columns } from '@/ui/Columns';
import { NumberField } from '@/ui/NumberField';
import { Sheet } from '@/ui/Sheet';
import type { ConfigurationFields as Fields } from './fields';

/** A range being entered beside its stave, whose first rail ends where the body does. */
export function ConfigurationFields({
  fields,
  change,
  body,
}: {
  fields: Fields;
  change: (patch: Partial<Fields>) => void;
  body: Body | undefined;
}) {
  const choice = (
    name: 'application' | 'drivenBy' | 'startView',
    label: string,
    options: readonly string[],
  ) => (
    <TextField
      select
      label={label}
      value={fields[name]}
      onChange={({ target }) => change({ [name]: target.value })}
    >
      {['', ...options].map((option) => (
        <MenuItem key={option} value={option} sx={{ minHeight: 44 }}>
          {option === '' ? 'not entered' : option}
        </MenuItem>
      ))}
    </TextField>
  );
  return (
    <Columns columns="minmax(320px, 0.75fr) 1.4fr">
      <Sheet title="Range, signal and display">
        <RangeForm
          fields={fields}
          change={change}
          quantities={['pressure']}
          {...(body === undefined ? {} : { signals: body.outputs })}
        />
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1, mt: 1.25 }}>
          <NumberField
            label="Damping of the output, s"
            text={fields.dampingS}
            onText={(dampingS) => change({ dampingS })}
          />
          <NumberField
            label="Damping of the display, s"
            text={fields.displayDampingS}
            onText={(displayDampingS) => change({ displayDampingS })}
          />
          {choice('application', 'Application', APPLICATIONS)}
          {choice('drivenBy', 'Output driven by', DRIVING_VARIABLES)}
          {choice('startView', 'Start view', START_VIEWS)}
          <NumberField
            label="Scale division, where read by eye"
            text={fields.scaleDivision}
            onText={(scaleDivision) => change({ scaleDivision })}
          />
          <TextField
            sx={{ gridColumn: '1 / -1' }}
            label="Switching points"
            value={fields.switchingPoints}
            onChange={(event) => change({ switchingPoints: event.target.value })}
            helperText="name: switches at / goes back at, in the input unit; parted by ;"
          />
          <TextField
            sx={{ gridColumn: '1 / -1' }}
            label="Why"
            value={fields.reason}
            onChange={(event) => change({ reason: event.target.value })}
            helperText="Stays with this version"
          />
        </Box>
      </Sheet>
      <Sheet title="Stave" aside={body === undefined ? 'no body chosen' : `body: ${body.model}`}>
        <Preview fields={fields} change={change} body={body} />
      </Sheet>
    </Columns>
  );
}

function Preview({
  fields,
  change,
  body,
}: {
  fields: Fields;
  change: (patch: Partial<Fields>) => void;
  body: Body | undefined;
}) {
  const { inputUnit } = fields;
  if (!isPressureUnit(inputUnit)) return <Typography>The input needs a pressure unit.</Typography>;
  const read = readRange(fields);
  if (typeof read === 'string') return <Typography sx={{ color: 'text.secondary' }}>{read}</Typography>;
  return (
    <RangeStave
      range={read.range}
      display={read.display}
      units={{ input: unitLabel(inputUnit), output: fields.outputUnit, display: fields.displayUnit }}
      marker={null}
      onMove={(end, value) => change(end === 'low' ? { lrv: String(value) } : { urv: String(value) })}
      limits={
        body && [
          convertPressure(body.lowerRangeLimit, body.unit, inputUnit),
          convertPressure(body.upperRangeLimit, body.unit, inputUnit),
        ]
      }
    />
  );
}

/** The range as far as it is typed, or what is wrong with it in words. */
function readRange(fields: Fields): { range: SignalRange; display: DisplayScale } | string {
  try {
    const range = rangeOfFields(fields);
    checkRange(range);
    return { range, display: displayOfFields(fields) };
  } catch (error) {
    if (error instanceof CoreError) return error.message;
    throw error;
  }
}
