'use client';
import { unitLabel, unitsOf } from '@barys/core/units';
import type { Liquid } from '@barys/store/registers';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import { Draft } from '@/ui/Draft';
import { FieldGrid, unplaced, type FieldSpec } from '@/ui/FieldGrid';
import { FileText } from '@/ui/FileText';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { useSubmit } from '@/ui/useSubmit';
import { useTyped } from '@/ui/useTyped';
import { keepLiquidAction } from './actions';
import { fieldsOfLiquid, LIQUID_FIELDS } from './fields';

const SPECS: readonly FieldSpec<keyof typeof LIQUID_FIELDS>[] = [
  { name: 'name', label: 'Name', width: 5 },
  { name: 'source', label: 'Where the figures come from', width: 7 },
  {
    name: 'unit',
    label: 'Densities in',
    options: unitsOf('density').map((unit) => [unit, unitLabel(unit)] as const),
    width: 5,
    help: 'A relative density names its reference',
  },
  {
    name: 'points',
    label: 'Temperature in °C and density, a line each',
    kind: 'lines',
    width: 12,
    help: 'Rising in temperature, such as 20; 1042.5. Linear between them.',
  },
];

/** A liquid to enter, or to change; its table typed or from a CSV. */
export function LiquidForm({ liquid }: { liquid: Liquid | null }) {
  const [fields, change, draft] = useTyped(
    liquid === null ? LIQUID_FIELDS : fieldsOfLiquid(liquid),
    liquid === null ? 'liquid' : `liquid ${liquid.id} ${liquid.revision}`,
  );
  const { answer, isPending, form } = useSubmit(keepLiquidAction);
  const edited = liquid === null ? null : { id: liquid.id, revision: liquid.revision };
  return (
    <form {...form(() => ({ edited, fields }), draft.forget)}>
      <Sheet title={liquid === null ? 'A new liquid' : 'Change this liquid'}>
        <Draft draft={draft} />
        <FieldGrid specs={SPECS} fields={fields} change={change} answer={answer} />
        <Stack direction="row" sx={{ gap: 1, mt: 1.5, flexWrap: 'wrap', alignItems: 'center' }}>
          <FileText label="Table from a CSV" onText={(points) => change({ points })} />
          <Button type="submit" variant="contained" aria-busy={isPending}>
            {liquid === null ? 'Add the liquid' : 'Keep the changes'}
          </Button>
        </Stack>
        <Refused answer={unplaced(SPECS, answer)} />
      </Sheet>
    </form>
  );
}
