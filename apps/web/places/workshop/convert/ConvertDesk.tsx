'use client';
import { formatSignificant } from '@barys/core/text';
import {
  convert,
  isPressureUnit,
  isUnit,
  QUANTITIES,
  quantityOf,
  unitLabel,
  unitsOf,
  workConversion,
  type Unit,
} from '@barys/core/units';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
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
import { Kinds } from './Kinds';
import { ReferenceTable } from './ReferenceTable';

const LIQUIDS = [
  { liquid: 'Water', references: WATER_REFERENCES, rows: WATER_ROWS },
  { liquid: 'Mercury', references: MERCURY_REFERENCES, rows: MERCURY_ROWS },
] as const;

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
            {LIQUIDS.map((liquid) => (
              <ReferenceTable
                key={liquid.liquid}
                {...liquid}
                value={value}
                unit={from}
                digits={digits}
                chosen={to}
                onChoose={(unit) => change({ to: unit })}
              />
            ))}
          </Sheet>
        )}
      </Stack>
      <EveryUnit value={value} from={from} to={to} shown={shown} onChoose={(unit) => change({ to: unit })} />
    </Columns>
  );
}

/** The value in each unit that no column beside it has. */
function EveryUnit({
  value,
  from,
  to,
  shown,
  onChoose,
}: {
  value: number | null;
  from: Unit;
  to: Unit;
  shown: (amount: number) => string;
  onChoose: (unit: Unit) => void;
}) {
  const quantity = quantityOf(from);
  return (
    <Sheet title={`${isPressureUnit(from) ? 'Other' : 'All'} units of ${QUANTITIES[quantity].name}`}>
      {value === null && (
        <Typography sx={{ color: 'text.secondary' }}>Type a value to see it in every unit.</Typography>
      )}
      {value !== null &&
        unitsOf(quantity)
          .filter((unit) => !COLUMN_UNITS.has(unit))
          .map((unit) => (
            <Button
              key={unit}
              onClick={() => onChoose(unit)}
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
    </Sheet>
  );
}
