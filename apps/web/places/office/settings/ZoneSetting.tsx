'use client';
import Autocomplete from '@mui/material/Autocomplete';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { Kept } from '@/ui/Kept';
import { Refused } from '@/ui/Refused';
import { useAct } from '@/ui/useAct';
import { useIsMounted } from '@/ui/useIsMounted';
import { setTimeZoneAction } from './actions';

/** @param zones the names that the server knows */
export function ZoneSetting({ zone, zones }: { zone: string; zones: readonly string[] }) {
  const { answer, isKept, isPending, onSubmit } = useAct(setTimeZoneAction);
  const isMounted = useIsMounted();
  return (
    <form method="post" onSubmit={onSubmit}>
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
