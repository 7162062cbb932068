'use client';
import { CoreError } from '@barys/core/errors';
import { formatSignificant } from '@barys/core/text';
import {
  convert,
  convertKind,
  isPressureUnit,
  isUnit,
  PRESSURE_KINDS,
  QUANTITIES,
  quantityOf,
  unitLabel,
  unitsOf,
  workConversion,
  workKind,
  type PressureKind,
  type PressureUnit,
  type Unit,
} from '@barys/core/units';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { Columns } from '@/ui/Columns';
import { Figure } from '@/ui/Figure';
import { NumberField } from '@/ui/NumberField';
import { readNumber } from '@/ui/readNumber';
import { Sheet } from '@/ui/Sheet';
import { UnitField } from '@/ui/UnitField';
import { useAddress } from '@/ui/useAddress';
import { Working } from '@/ui/Working';
import type { ConvertFields } from './fields';
import { COLUMN_UNITS, MERCURY_REFERENCES, MERCURY_ROWS, WATER_REFERENCES, WATER_ROWS } from './columns';
import { ReferenceTable } from './ReferenceTable';

const KIND_WORD: Record<PressureKind, string> = {
  gauge: 'gauge',
  absolute: 'absolute',
  differential: 'differential',
  compound: 'compound',
  vacuum: 'vacuum (below the air)',
};
const kindOf = (text: string): PressureKind => PRESSURE_KINDS.find((kind) => kind === text) ?? 'gauge';

/** As many digits as were typed and three more, so that nothing typed is lost and nothing is made up for long. */
const digitsOf = (text: string): number =>
  Math.min(12, Math.max(6, text.replace(/\D/g, '').replace(/^0+/, '').length + 3));

export function ConvertDesk({ initial }: { initial: ConvertFields }) {
  const [fields, change] = useAddress(initial);
  const from: Unit = isUnit(fields.unit) ? fields.unit : 'kPa';
  const quantity = quantityOf(from);
  const { value } = readNumber(fields.value);
  const digits = digitsOf(fields.value);
  const shown = (amount: number) => formatSignificant(amount, digits);
  const to: Unit = isUnit(fields.to) && quantityOf(fields.to) === quantity ? fields.to : from;
  return (
    <Columns columns="minmax(300px, 0.8fr) 1.3fr 0.9fr">
      <Stack sx={{ gap: 1.5 }}>
        <Sheet title="Convert">
          <Stack sx={{ gap: 1.5 }}>
            <NumberField
              label="Value"
              text={fields.value}
              onText={(text) => change({ value: text })}
              autoFocus
            />
            <UnitField label="Unit" unit={from} onUnit={(unit) => change({ unit })} />
            <Typography variant="body2" sx={{ color: 'text.secondary' }}>
              A unit can be typed as people write it, such as in H2O @ 68F. One that can mean several is asked
              about.
            </Typography>
          </Stack>
        </Sheet>
        {isPressureUnit(from) && (
          <Kinds from={from} value={value} fields={fields} change={change} shown={shown} />
        )}
      </Stack>
      <Stack sx={{ gap: 1.5 }}>
        {value !== null && (
          <Sheet title={`${fields.value.trim()} ${unitLabel(from)} in ${unitLabel(to)}`}>
            <Typography sx={{ fontSize: 26, fontWeight: 700, lineHeight: 1.2 }}>
              <Figure>{shown(convert(value, from, to))}</Figure> {unitLabel(to)}
            </Typography>
            <Typography variant="body2" sx={{ color: 'text.secondary' }}>
              Choose another unit in the list or the table.
            </Typography>
            <Working of="the conversion" steps={() => workConversion(value, from, to).working} />
          </Sheet>
        )}
        {value !== null && isPressureUnit(from) && (
          <Sheet title="What the reference alone changes">
            <ReferenceTable
              liquid="Water"
              references={WATER_REFERENCES}
              rows={WATER_ROWS}
              value={value}
              unit={from}
              digits={digits}
              chosen={to}
              onChoose={(unit) => change({ to: unit })}
            />
            <ReferenceTable
              liquid="Mercury"
              references={MERCURY_REFERENCES}
              rows={MERCURY_ROWS}
              value={value}
              unit={from}
              digits={digits}
              chosen={to}
              onChoose={(unit) => change({ to: unit })}
            />
          </Sheet>
        )}
      </Stack>
      <Sheet title={`${isPressureUnit(from) ? 'Other' : 'All'} units of ${QUANTITIES[quantity].name}`}>
        {value === null ? (
          <Typography sx={{ color: 'text.secondary' }}>Type a value to see it in every unit.</Typography>
        ) : (
          <>
            {unitsOf(quantity)
              .filter((unit) => !COLUMN_UNITS.has(unit))
              .map((unit) => (
                <Button
                  key={unit}
                  onClick={() => change({ to: unit })}
                  aria-pressed={unit === to}
                  sx={{
                    width: '100%',
                    py: 0.25,
                    px: 0.75,
                    minHeight: { xs: 44, md: 34 },
                    display: 'flex',
                    justifyContent: 'space-between',
                    fontWeight: 400,
                    color: 'text.primary',
                    bgcolor: unit === to ? 'var(--wash)' : 'transparent',
                    borderTop: '1px solid var(--rule)',
                    borderRadius: 0,
                  }}
                >
                  <span>{unitLabel(unit)}</span>
                  <Figure>{shown(convert(value, from, unit))}</Figure>
                </Button>
              ))}
          </>
        )}
      </Sheet>
    </Columns>
  );
}

/** Gauge, absolute and the others, with the barometer that lies between them. */
function Kinds({
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
  const answer = (): { result: number } | { error: string } => {
    try {
      return { result: convertKind(...request) };
    } catch (error) {
      if (error instanceof CoreError) return { error: error.message };
      throw error;
    }
  };
  const got = value === null ? null : answer();
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
