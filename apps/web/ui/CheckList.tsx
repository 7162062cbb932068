'use client';
import Checkbox from '@mui/material/Checkbox';
import FormControl from '@mui/material/FormControl';
import FormControlLabel from '@mui/material/FormControlLabel';
import FormGroup from '@mui/material/FormGroup';
import FormLabel from '@mui/material/FormLabel';

/** Several of a list, each ticked or not. */
export function CheckList({
  label,
  options,
  chosen,
  choose,
}: {
  label: string;
  options: readonly (readonly [value: string, words: string])[];
  chosen: readonly string[];
  choose: (values: readonly string[]) => void;
}) {
  return (
    <FormControl component="fieldset">
      <FormLabel component="legend">{label}</FormLabel>
      <FormGroup row>
        {options.map(([value, words]) => (
          <FormControlLabel
            key={value}
            control={
              <Checkbox
                checked={chosen.includes(value)}
                onChange={(_event, isTicked) =>
                  choose(isTicked ? [...chosen, value] : chosen.filter((one) => one !== value))
                }
              />
            }
            label={words}
            sx={{ minWidth: 150, minHeight: 44 }}
          />
        ))}
      </FormGroup>
    </FormControl>
  );
}
