import { CoreError } from '@barys/core/errors';
import {
  convertKind,
  isPressureUnit,
  PRESSURE_KINDS,
  unitLabel,
  workKind,
  type PressureKind,
  type PressureUnit,
} from '@barys/core/units';
import Box from '@mui/material/Box';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { Figure } from '@/ui/Figure';
import { NumberField } from '@/ui/NumberField';
import { readNumber } from '@/ui/readNumber';
import { Sheet } from '@/ui/Sheet';
import { UnitField } from '@/ui/UnitField';
import { Working } from '@/ui/Working';
import type { ConvertFields } from './fields';

const KIND_WORD: Record<PressureKind, string> = {
  gauge: 'gauge',
  absolute: 'absolute',
  differential: 'differential',
  compound: 'compound',
  vacuum: 'vacuum (below the air)',
};
const kindOf = (text: string): PressureKind => PRESSURE_KINDS.find((kind) => kind === text) ?? 'gauge';

function convertedKind(
  ...request: Parameters<typeof convertKind>
): { readonly result: number } | { readonly error: string } {
  try {
    return { result: convertKind(...request) };
  } catch (error) {
    if (error instanceof CoreError) return { error: error.message };
    throw error;
  }
}

/** Gauge, absolute and the others, with the barometer that lies between them. */
export function Kinds({
  from,
  value,
  fields,
  change,
  shown,
}: {
  from: PressureUnit;
  value: number | null;
  fields: ConvertFields;
  change: (patch: Partial<ConvertFields>) => void;
  shown: (amount: number) => string;
}) {
  const [kind, toKind] = [kindOf(fields.kind), kindOf(fields.toKind)];
  const unit: PressureUnit = isPressureUnit(fields.to) ? fields.to : from;
  const barometerUnit: PressureUnit = isPressureUnit(fields.barometerUnit) ? fields.barometerUnit : 'hPa';
  const { value: ambient } = readNumber(fields.barometer);
  const barometer = ambient === null ? undefined : { value: ambient, unit: barometerUnit };
  const request = [{ value: value ?? 0, unit: from, kind }, { unit, kind: toKind }, barometer] as const;
  const got = value === null ? null : convertedKind(...request);
  const choice = (label: string, chosen: PressureKind, name: 'kind' | 'toKind') => (
    <TextField
      select
      label={label}
      value={chosen}
      onChange={(event) => change({ [name]: event.target.value })}
    >
      {PRESSURE_KINDS.map((one) => (
        <MenuItem key={one} value={one}>
          {KIND_WORD[one]}
        </MenuItem>
      ))}
    </TextField>
  );
  return (
    <Sheet title="Gauge, absolute, vacuum">
      <Stack sx={{ gap: 1.5 }}>
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
          {choice('The value is', kind, 'kind')}
          {choice('Give it as', toKind, 'toKind')}
          <NumberField
            label="Barometer"
            text={fields.barometer}
            onText={(barometerText) => change({ barometer: barometerText })}
          />
          <UnitField
            label="Barometer in"
            unit={barometerUnit}
            quantities={['pressure']}
            onUnit={(chosen) => change({ barometerUnit: chosen })}
          />
        </Box>
        {got !== null && 'error' in got && (
          <Typography role="alert" variant="body2" sx={{ color: 'var(--outside)', fontWeight: 600 }}>
            {got.error}
          </Typography>
        )}
        {got !== null && 'result' in got && (
          <div>
            <Typography sx={{ fontWeight: 700 }}>
              <Figure>{shown(got.result)}</Figure> {unitLabel(unit)} {toKind}
            </Typography>
            <Working of="the change of kind" steps={() => workKind(...request).working} />
          </div>
        )}
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          Use the pressure here and now, not the value reduced to sea level that a weather service gives.
        </Typography>
      </Stack>
    </Sheet>
  );
}
