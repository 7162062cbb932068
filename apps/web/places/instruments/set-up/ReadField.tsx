import { APPLICATIONS, DRIVING_VARIABLES, START_VIEWS, type SettingKey } from '@barys/core/setup';
import { PRESSURE_UNITS, type PressureUnit } from '@barys/core/units';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { KNEE_LABEL, TRANSFER_WORD, transferKind } from '@/ui/range/fields';
import { NumberField } from '@/ui/NumberField';
import type { SetupFields } from './fields';

interface Props {
  setting: SettingKey;
  name: string;
  fields: SetupFields;
  change: (patch: Partial<SetupFields>) => void;
  wrong: string | null;
}

type Options = readonly (readonly [value: string, words: string])[];
const plain = (values: readonly string[]): Options => values.map((value) => [value, value]);

const CHOICES: Partial<Record<SettingKey, Options>> = {
  inputUnit: (Object.keys(PRESSURE_UNITS) as PressureUnit[]).map((unit) => [
    unit,
    PRESSURE_UNITS[unit].label,
  ]),
  application: plain(APPLICATIONS),
  startView: plain(START_VIEWS),
  drivenBy: plain(DRIVING_VARIABLES),
};

function Choice({
  label,
  value,
  onValue,
  options,
}: {
  label: string;
  value: string;
  onValue: (value: string) => void;
  options: Options;
}) {
  return (
    <TextField
      select
      fullWidth
      value={value}
      onChange={({ target }) => onValue(target.value)}
      slotProps={{ select: { displayEmpty: true, SelectDisplayProps: { 'aria-label': label } } }}
    >
      {[['', 'not read'] as const, ...options].map(([option, words]) => (
        <MenuItem key={option} value={option} sx={{ minHeight: 44 }}>
          {words}
        </MenuItem>
      ))}
    </TextField>
  );
}

/** Where one setting is typed as it was read; the name of the setting stands before it in its row. */
export function ReadField({ setting, name, fields, change, wrong }: Props) {
  const label = `${name}, as read`;
  if (setting === 'transferFunction') return <TransferRead label={label} fields={fields} change={change} />;
  const options = CHOICES[setting];
  if (options !== undefined)
    return (
      <Choice
        label={label}
        value={fields[setting]}
        onValue={(value) => change({ [setting]: value })}
        options={options}
      />
    );
  if (setting === 'displayUnit' || setting === 'switchingPoints')
    return (
      <TextField
        fullWidth
        value={fields[setting]}
        onChange={({ target }) => change({ [setting]: target.value })}
        error={wrong !== null}
        helperText={wrong ?? (setting === 'switchingPoints' ? 'name: on / off; or none' : undefined)}
        autoComplete="off"
        slotProps={{ htmlInput: { 'aria-label': label } }}
      />
    );
  return (
    <NumberField
      fullWidth
      text={fields[setting]}
      onText={(text) => change({ [setting]: text })}
      error={wrong}
      spokenName={label}
    />
  );
}

function TransferRead({ label, fields, change }: Pick<Props, 'fields' | 'change'> & { label: string }) {
  const knee = fields.transfer === '' ? null : KNEE_LABEL[transferKind(fields.transfer)];
  return (
    <Stack sx={{ gap: 1 }}>
      <Choice
        label={label}
        value={fields.transfer}
        onValue={(transfer) => change({ transfer })}
        options={Object.entries(TRANSFER_WORD)}
      />
      {knee !== null && (
        <NumberField label={knee} text={fields.knee} onText={(text) => change({ knee: text })} />
      )}
      {fields.transfer === 'table' && (
        <TextField
          label="Points: input % and output %"
          value={fields.table}
          onChange={({ target }) => change({ table: target.value })}
        />
      )}
    </Stack>
  );
}
