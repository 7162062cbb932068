'use client';
/** The fields of one item: what it reads, its ranges, its transfer function and its tolerance. */
import { ITEM_KINDS, type ItemKind } from '@barys/core/loop';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { NumberField } from '@/ui/NumberField';
import { DRIVEN_BY, fieldOf, TRANSFERS, type ItemFields, type ItemName, type LoopFault } from './fields';

const TRANSFER_WORD = { linear: 'linear', root: 'root', 'root, cut': 'root, zero below a start' } as const;

export function ItemForm({
  items,
  place,
  fault,
  onChange,
  onRemove,
}: {
  items: readonly ItemFields[];
  place: number;
  fault: LoopFault | null;
  onChange: (patch: Partial<ItemFields>) => void;
  onRemove: () => void;
}) {
  const item = items[place];
  if (item === undefined) return null;
  const number = (name: ItemName, label: string) => (
    <NumberField
      label={label}
      text={item[name]}
      onText={(text) => onChange({ [name]: text })}
      error={fault?.field === fieldOf(place, name) ? fault.message : null}
    />
  );
  const text = (name: 'name' | 'inUnit' | 'outUnit', label: string) => (
    <TextField
      label={label}
      value={item[name]}
      onChange={({ target }) => onChange({ [name]: target.value.slice(0, 40) })}
      autoComplete="off"
    />
  );
  const fromFault = fault?.field === fieldOf(place, 'from') ? fault.message : null;
  return (
    <Box
      role="group"
      aria-label={`Fields of ${item.name}`}
      sx={{ display: 'grid', gap: 1, gridTemplateColumns: { xs: '1fr 1fr', md: 'repeat(6, 1fr)' }, py: 1 }}
    >
      {text('name', 'Name')}
      <Choices items={items} item={item} fromFault={fromFault} onChange={onChange} />
      {number('tolerance', 'Tolerance, ± %')}
      {item.transfer === 'root, cut' ? (
        number('cutOff', 'Start, % of flow')
      ) : (
        <Box sx={{ display: { xs: 'none', md: 'block' } }} />
      )}
      {item.kind === 'transmitter' && <Driven item={item} onChange={onChange} />}
      {number('inLow', 'Input at 0 %')}
      {number('inHigh', 'Input at 100 %')}
      {text('inUnit', 'Input unit')}
      {number('outLow', 'Output at 0 %')}
      {number('outHigh', 'Output at 100 %')}
      {text('outUnit', 'Output unit')}
      <Button onClick={onRemove} disabled={items.length === 1} sx={{ justifySelf: 'start', minHeight: 44 }}>
        Take {item.name} out
      </Button>
    </Box>
  );
}

/** Which variable drives the output: a root that was taken in it is not to be taken again. */
function Driven({ item, onChange }: { item: ItemFields; onChange: (patch: Partial<ItemFields>) => void }) {
  return (
    <TextField
      select
      label="Output driven by"
      value={item.drivenBy}
      onChange={({ target }) =>
        onChange({ drivenBy: DRIVEN_BY.find((one) => one === target.value) ?? 'pressure' })
      }
    >
      {DRIVEN_BY.map((one) => (
        <MenuItem key={one} value={one}>
          {one === 'pressure' ? 'the pressure' : 'the scaled variable, by its root'}
        </MenuItem>
      ))}
    </TextField>
  );
}

/** Its kind, what it reads, and how its output follows. */
function Choices({
  items,
  item,
  fromFault,
  onChange,
}: {
  items: readonly ItemFields[];
  item: ItemFields;
  fromFault: string | null;
  onChange: (patch: Partial<ItemFields>) => void;
}) {
  return (
    <>
      <TextField
        select
        label="Kind"
        value={item.kind}
        onChange={({ target }) => onChange({ kind: target.value as ItemKind })}
      >
        {ITEM_KINDS.map((kind) => (
          <MenuItem key={kind} value={kind}>
            {kind}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        select
        label="Reads"
        value={items.some(({ id }) => id === item.from) ? item.from : ''}
        onChange={({ target }) => onChange({ from: target.value })}
        error={fromFault !== null}
        helperText={fromFault}
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      >
        <MenuItem value="">what is applied</MenuItem>
        {items
          .filter(({ id }) => id !== item.id)
          .map(({ id, name }) => (
            <MenuItem key={id} value={id}>
              {name}
            </MenuItem>
          ))}
      </TextField>
      <TextField
        select
        label="Transfer"
        value={item.transfer}
        onChange={({ target }) =>
          onChange({ transfer: TRANSFERS.find((one) => one === target.value) ?? 'linear' })
        }
      >
        {TRANSFERS.map((one) => (
          <MenuItem key={one} value={one}>
            {TRANSFER_WORD[one]}
          </MenuItem>
        ))}
      </TextField>
    </>
  );
}
