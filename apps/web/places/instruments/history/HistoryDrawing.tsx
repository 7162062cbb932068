'use client';
import Box from '@mui/material/Box';
import { useLater } from '@/ui/useLater';
import type { HistoryShape } from './shape';

const loadChart = () => import('./HistoryChart');

/** All calibrations over time, in units of the limit. */
export function HistoryDrawing({ shape, height }: { shape: HistoryShape; height: number }) {
  const part = useLater(loadChart);
  return (
    <Box sx={{ height, position: 'relative', overflow: 'hidden' }}>
      {part === 'away' &&
        'The drawing cannot be shown while the server is away. The figures are in the table.'}
      {part !== null && part !== 'away' && <part.HistoryChart shape={shape} />}
    </Box>
  );
}
