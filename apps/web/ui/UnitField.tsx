'use client';
import { CoreError } from '@barys/core/errors';
import {
  isUnit,
  parseUnit,
  QUANTITIES,
  unitLabel,
  unitsOf,
  quantityOf,
  type Quantity,
  type Unit,
} from '@barys/core/units';
import Autocomplete from '@mui/material/Autocomplete';
import TextField from '@mui/material/TextField';
import { useState } from 'react';

/** A unit chosen from the list, or typed as people write it; one that can mean several is asked about. */
export function UnitField({
  label,
  unit,
  onUnit,
  quantities = Object.keys(QUANTITIES) as Quantity[],
}: {
  label: string;
  unit: Unit;
  onUnit: (unit: Unit) => void;
  quantities?: readonly Quantity[];
}) {
  const [wrong, setWrong] = useState<string | null>(null);
  const choose = (typed: string | null) => {
    if (typed === null || typed.trim() === '') return;
    try {
      const chosen = isUnit(typed) ? typed : parseUnit(typed).unit;
      const quantity = quantityOf(chosen);
      if (!quantities.includes(quantity)) {
        setWrong(
          `${unitLabel(chosen)} is a unit of ${QUANTITIES[quantity].name}, which does not belong here.`,
        );
        return;
      }
      setWrong(null);
      onUnit(chosen);
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      setWrong(error.message);
    }
  };
  return (
    <Autocomplete<string, false, true, true>
      freeSolo
      disableClearable
      autoSelect
      // The option in force is not held fast while another is typed: "bar" would turn back into "mbar".
      isOptionEqualToValue={() => false}
      size="small"
      options={quantities.flatMap((quantity): readonly string[] => unitsOf(quantity))}
      groupBy={(option) => QUANTITIES[quantityOf(option)].name}
      getOptionLabel={(option) => (isUnit(option) ? unitLabel(option) : option)}
      value={unit}
      onChange={(_event, value) => choose(value)}
      onInputChange={() => setWrong(null)}
      renderInput={(props) => (
        <TextField {...props} label={label} error={wrong !== null} helperText={wrong} />
      )}
    />
  );
}
