'use client';
import Autocomplete from '@mui/material/Autocomplete';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { Kept } from '@/ui/Kept';
import { Refused } from '@/ui/Refused';
import { asItStands, useSubmit } from '@/ui/useSubmit';
import { useIsMounted } from '@/ui/useIsMounted';
import { setTimeZoneAction } from './actions';

/** @param zones the names that the server knows */
export function ZoneSetting({ zone, zones }: { zone: string; zones: readonly string[] }) {
  const { answer, isKept, isPending, form } = useSubmit(setTimeZoneAction);
  const isMounted = useIsMounted();
  return (
    <form {...form(asItStands)}>
      <Stack direction="row" sx={{ gap: 1, alignItems: 'flex-start', flexWrap: 'wrap' }}>
        <Autocomplete
          options={zones}
          defaultValue={zone}
          disableClearable
          sx={{ width: 300 }}
          renderInput={(field) => <TextField {...field} name="zone" label="Time zone of the site" />}
        />
        <Button type="submit" variant="contained" disabled={isPending || !isMounted}>
          Keep the time zone
        </Button>
      </Stack>
      <Kept isKept={isKept} />
      <Refused answer={answer} />
    </form>
  );
}
