'use client';
import Box from '@mui/material/Box';
import {
  BarController,
  BarElement,
  Chart,
  Filler,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  type ChartData,
  type ChartOptions,
} from 'chart.js';
import annotation from 'chartjs-plugin-annotation';
import { Chart as Drawing } from 'react-chartjs-2';
import { formatSignificant } from '@barys/core/text';
import type { Palette } from '@/ui/palette';
import { useFontsReady } from '@/ui/useFontsReady';
import { usePalette } from '@/ui/usePalette';

Chart.register(
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  BarController,
  BarElement,
  Filler,
  annotation,
);

/** An upright line at a value, with its word. */
export interface Mark {
  readonly at: number;
  readonly word: string;
  readonly isStrong?: boolean;
}

function options(marks: readonly Mark[], palette: Palette, reach: readonly [number, number]): ChartOptions {
  const font = { family: '"Atkinson Hyperlegible Mono Variable"', size: 12 };
  return {
    animation: false,
    responsive: true,
    maintainAspectRatio: false,
    events: [],
    scales: {
      x: {
        type: 'linear',
        min: reach[0],
        max: reach[1],
        grid: { display: false },
        border: { color: palette.ink },
        ticks: {
          color: palette.muted,
          font,
          maxTicksLimit: 7,
          includeBounds: false,
          callback: (value) => formatSignificant(Number(value), 4),
        },
      },
      y: { display: false, min: 0 },
    },
    plugins: {
      annotation: {
        annotations: Object.fromEntries(
          // In the order of their places, so that the words of neighbours stand in different rows.
          [...marks]
            .sort((a, b) => a.at - b.at)
            .map(({ at, word, isStrong }, index) => [
              `${word} ${at}`,
              {
                type: 'line' as const,
                xMin: at,
                xMax: at,
                borderColor: isStrong === true ? palette.ink : palette.muted,
                borderWidth: isStrong === true ? 2 : 1,
                borderDash: isStrong === true ? [] : [5, 4],
                label: {
                  display: true,
                  content: word,
                  position: 'end' as const,
                  yAdjust: (index % 2) * 18,
                  backgroundColor: palette.sheet,
                  color: palette.ink,
                  font,
                  padding: 2,
                },
              },
            ]),
        ),
      },
    },
  };
}

/** A curve with upright marks; the figures behind it stand beside it in words. */
export function Curve({
  data,
  marks,
  reach,
  label,
  height = 190,
}: {
  data: (palette: Palette) => ChartData;
  marks: readonly Mark[];
  reach: readonly [number, number];
  label: string;
  height?: number;
}) {
  const { palette, isNight } = usePalette();
  const isReady = useFontsReady();
  return (
    <Box sx={{ height, position: 'relative', overflow: 'hidden' }}>
      {isReady && (
        <Drawing
          key={isNight ? 'night' : 'paper'}
          type="line"
          data={data(palette) as ChartData<'line'>}
          options={options(marks, palette, reach) as ChartOptions<'line'>}
          role="img"
          aria-label={label}
        />
      )}
    </Box>
  );
}
