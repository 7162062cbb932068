import { StoreError } from '@barys/store/db';
import { findInstrument } from '@barys/store/registers';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { redirect } from 'next/navigation';
import { database } from '@/server/database';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'Set-up walk' };

const isThere = (tag: string): Promise<boolean> =>
  findInstrument(database(), { tag }).then(
    () => true,
    (error: unknown) => {
      if (error instanceof StoreError) return false;
      throw error;
    },
  );

/** The walk is made at an instrument: here it is asked for which. */
export default async function SetupToolPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const given = (await searchParams)['tag'];
  const tag = typeof given === 'string' ? given.trim().toUpperCase() : '';
  if (tag !== '' && (await isThere(tag))) redirect(`/instruments/${encodeURIComponent(tag)}/set-up`);
  return (
    <Sheet title="Set-up walk">
      {tag !== '' && (
        <Alert severity="warning" variant="outlined" sx={{ mb: 1.5 }}>
          {`There is no instrument ${tag}.`}
        </Alert>
      )}
      <Stack
        component="form"
        method="get"
        direction="row"
        sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'flex-start' }}
      >
        <TextField name="tag" label="Tag of the instrument" defaultValue={tag} autoComplete="off" />
        <Button type="submit" variant="contained" sx={{ minHeight: 40 }}>
          Walk its set-up
        </Button>
      </Stack>
      <Typography variant="body2" sx={{ color: 'text.secondary', mt: 1 }}>
        The list is made from its configuration. In a job it stands at Connect, as set, and at Return, as it
        must be.
      </Typography>
    </Sheet>
  );
}
