'use client';
import { isUnit, QUANTITIES, quantityOf, unitLabel, unitsOf, type Quantity } from '@barys/core/units';
import Autocomplete from '@mui/material/Autocomplete';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';

const labelOf = (unit: string): string => (isUnit(unit) ? unitLabel(unit) : unit);

/** What a scale of its own is marked in: per cent first, then every unit there is. */
const ALL = [
  '%',
  ...(Object.keys(QUANTITIES) as Quantity[]).flatMap((one): readonly string[] => unitsOf(one)),
];

const groupOf = (unit: string): string => (isUnit(unit) ? QUANTITIES[quantityOf(unit)].name : 'scale');

/**
 * The unit of an output or a display, chosen from those that it can be in.
 * @param units null where it may be any, also one that no list has
 */
export function ScaleUnitField({
  label,
  unit,
  onUnit,
  units,
  name,
}: {
  label: string;
  unit: string;
  onUnit: (unit: string) => void;
  units: readonly string[] | null;
  /** Of the field, in a form that is sent. */
  name?: string;
}) {
  if (units !== null)
    return (
      <TextField
        select
        name={name}
        label={label}
        value={unit}
        onChange={(event) => onUnit(event.target.value)}
      >
        {[...new Set([...units, unit])].map((one) => (
          <MenuItem key={one} value={one} sx={{ minHeight: 44 }}>
            {labelOf(one)}
          </MenuItem>
        ))}
      </TextField>
    );
  return (
    <Autocomplete<string, false, true, true>
      freeSolo
      disableClearable
      options={ALL}
      groupBy={groupOf}
      getOptionLabel={labelOf}
      // What was chosen is a key of the list; what was typed stays as it was typed.
      inputValue={labelOf(unit)}
      value={unit}
      onInputChange={(_event, text, reason) => {
        if (reason === 'input') onUnit(text);
      }}
      onChange={(_event, chosen) => onUnit(chosen)}
      renderInput={(props) => <TextField {...props} name={name} label={label} />}
    />
  );
}
