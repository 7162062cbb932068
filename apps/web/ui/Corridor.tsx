'use client';
import Box from '@mui/material/Box';
import type { CorridorShape } from './corridor-shape';
import { useLater } from './useLater';

const loadChart = () => import('./CorridorChart');

/** Error in units of the limit against applied input. The figures behind it stand in a table on the same page. */
export function Corridor({ shape, height }: { shape: CorridorShape; height: number }) {
  const part = useLater(loadChart);
  return (
    <Box sx={{ height, position: 'relative', overflow: 'hidden' }}>
      {part === 'away' &&
        'The drawing cannot be shown while the server is away. The figures are in the table.'}
      {part !== null && part !== 'away' && <part.CorridorChart shape={shape} />}
    </Box>
  );
}

/** What the marks of the corridor mean. */
export function CorridorKey({ shape: { asLeft, guard, predicted, fitted } }: { shape: CorridorShape }) {
  return (
    <span>
      △ rising, ▽ falling{asLeft.length > 0 ? '; solid as left' : ''}; bars: U, k = 2
      {guard.length > 0 ? '; dotted: guard band' : ''}
      {predicted.length > 0 ? '; dashed: after the act' : ''}
      {fitted.length > 0 ? '; dotted line: the suspicion' : ''}
    </span>
  );
}
