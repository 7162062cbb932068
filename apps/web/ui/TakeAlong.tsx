'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { saveCsv } from './saveCsv';

/** What is worked out, as a file and on paper. */
export function TakeAlong({ file, csv }: { file: string; csv: () => string }) {
  return (
    <Box sx={{ my: -1, displayPrint: 'none' }}>
      <Button size="small" onClick={() => saveCsv(file, csv())}>
        CSV
      </Button>
      <Button size="small" onClick={() => window.print()}>
        Print
      </Button>
    </Box>
  );
}
