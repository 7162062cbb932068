'use client';
import { SIGNALS, unitsOfSignal, type SignalName, type Transfer } from '@barys/core/signal';
import { isUnit, type Quantity } from '@barys/core/units';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { NumberField } from '@/ui/NumberField';
import { ScaleUnitField } from '@/ui/ScaleUnitField';
import { UnitField } from '@/ui/UnitField';
import { isSignal, KNEE_LABEL, TRANSFER_WORD, transferKind, type RangeFields } from './fields';

const pair = { display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 };
const triple = { display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', gap: 1 };

interface RangeProps {
  fields: RangeFields;
  change: (patch: Partial<RangeFields>) => void;
}

/** Range, signal, transfer function and display scale, each with its unit. */
export function RangeForm({
  fields,
  change,
  signals = Object.keys(SIGNALS) as SignalName[],
  quantities,
}: RangeProps & {
  /** Those that can be chosen. */
  signals?: readonly SignalName[];
  quantities?: readonly Quantity[];
}) {
  const number = (name: keyof RangeFields, label: string) => (
    <NumberField label={label} text={fields[name]} onText={(text) => change({ [name]: text })} />
  );
  return (
    <Stack sx={{ gap: 1.25 }}>
      <Box sx={pair}>
        {number('lrv', 'LRV')}
        {number('urv', 'URV')}
      </Box>
      <UnitField
        label="Input in"
        unit={isUnit(fields.inputUnit) ? fields.inputUnit : 'mbar'}
        onUnit={(inputUnit) => change({ inputUnit })}
        {...(quantities === undefined ? {} : { quantities })}
      />
      <Box sx={pair}>
        <SignalField fields={fields} change={change} signals={signals} />
        <Button
          variant="outlined"
          onClick={() => change({ outputLow: fields.outputHigh, outputHigh: fields.outputLow })}
          sx={{ minHeight: 40 }}
        >
          Reverse action
        </Button>
      </Box>
      <Box sx={triple}>
        {number('outputLow', 'Output at 0 %')}
        {number('outputHigh', 'At 100 %')}
        <ScaleUnitField
          label="Output in"
          unit={fields.outputUnit}
          onUnit={(outputUnit) => change({ outputUnit })}
          units={isSignal(fields.signal) ? unitsOfSignal(fields.signal) : null}
        />
      </Box>
      <TransferFields fields={fields} change={change} />
      <Box sx={triple}>
        {number('displayLow', 'Display at 0 %')}
        {number('displayHigh', 'At 100 %')}
        <ScaleUnitField
          label="Display in"
          unit={fields.displayUnit}
          onUnit={(displayUnit) => change({ displayUnit })}
          units={null}
        />
      </Box>
    </Stack>
  );
}

/** The signal, which brings its ends with it. */
function SignalField({
  fields,
  change,
  signals,
}: RangeProps & {
  signals: readonly SignalName[];
}) {
  const chooseSignal = (name: string) => {
    if (!isSignal(name)) return;
    const { low, high, unit } = SIGNALS[name];
    change({ signal: name, outputLow: String(low), outputHigh: String(high), outputUnit: unit });
  };
  return (
    <TextField
      select
      label="Signal"
      value={isSignal(fields.signal) && signals.includes(fields.signal) ? fields.signal : ''}
      onChange={(event) => chooseSignal(event.target.value)}
    >
      {signals.map((name) => (
        <MenuItem key={name} value={name}>
          {SIGNALS[name].label}
        </MenuItem>
      ))}
    </TextField>
  );
}

/** The transfer function, and what it asks for more. */
function TransferFields({ fields, change }: RangeProps) {
  const kind = transferKind(fields.transfer);
  const kneeLabel = KNEE_LABEL[kind];
  return (
    <>
      <TextField
        select
        label="Transfer function"
        value={kind}
        onChange={(event) => change({ transfer: event.target.value })}
      >
        {(Object.keys(TRANSFER_WORD) as Transfer['kind'][]).map((one) => (
          <MenuItem key={one} value={one}>
            {TRANSFER_WORD[one]}
          </MenuItem>
        ))}
      </TextField>
      {kneeLabel !== null && (
        <NumberField label={kneeLabel} text={fields.knee} onText={(knee) => change({ knee })} />
      )}
      {fields.transfer === 'table' && (
        <TextField
          label="Points: input % and output %"
          value={fields.table}
          onChange={(event) => change({ table: event.target.value })}
          helperText="Two figures a point, points parted by ;"
        />
      )}
    </>
  );
}
