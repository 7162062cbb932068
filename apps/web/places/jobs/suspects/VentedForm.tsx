/** What it read with both sides drained and open: the reading that tells a zero from what stands before it. */
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';

export interface VentedEntry {
  /** As typed; empty where it was not read. */
  readonly text: string;
  readonly error: string | null;
  readonly unit: string;
}

export function VentedForm({ text, error, unit }: VentedEntry) {
  return (
    <form method="get">
      <Stack direction="row" sx={{ gap: 1, mt: 1.5, flexWrap: 'wrap', alignItems: 'flex-start' }}>
        <TextField
          name="vented"
          label={`Output when drained and open, ${unit}`}
          defaultValue={text}
          error={error !== null}
          helperText={
            error ?? 'Blow down and drain by the site’s rules first; it decides between zero and liquid.'
          }
          slotProps={{ htmlInput: { inputMode: 'decimal', maxLength: 20 } }}
          sx={{ flex: '1 1 220px' }}
        />
        <Button type="submit" variant="outlined" sx={{ mt: 1 }}>
          Weigh again
        </Button>
      </Stack>
    </form>
  );
}
