'use client';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Sheet } from '@/ui/Sheet';

export default function ErrorPage({ reset }: { error: Error; reset: () => void }) {
  return (
    <Sheet title="This page could not be shown">
      <Typography sx={{ mb: 2 }}>
        Everything that Barys called saved is kept. Readings that were typed and not saved yet are still in
        this browser and are sent when the page works again.
      </Typography>
      <Button variant="contained" onClick={reset}>
        Try again
      </Button>
    </Sheet>
  );
}
