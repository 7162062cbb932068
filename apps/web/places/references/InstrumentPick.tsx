'use client';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';

/** The instrument that a reference is looked at for, by its tag. */
export function InstrumentPick({ typed, isFound }: { typed: string; isFound: boolean }) {
  return (
    <Stack component="form" direction="row" sx={{ gap: 1, alignItems: 'flex-start' }}>
      <TextField
        name="instrument"
        label="Tag of an instrument"
        defaultValue={typed}
        error={typed !== '' && !isFound}
        helperText={typed !== '' && !isFound ? `There is no instrument ${typed}.` : undefined}
      />
      <Button type="submit" variant="outlined">
        Show
      </Button>
    </Stack>
  );
}
