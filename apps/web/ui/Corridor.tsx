'use client';
import Box from '@mui/material/Box';
import {
  Chart,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  type ChartData,
  type ChartDataset,
  type ChartOptions,
  type Plugin,
} from 'chart.js';
import annotation from 'chartjs-plugin-annotation';
import { Line } from 'react-chartjs-2';
import { corridorReach, type CorridorPoint } from './corridor';
import type { Palette } from './palette';
import { useFontsReady } from './useFontsReady';
import { usePalette } from './usePalette';

/** Whiskers: how far the uncertainty of each error reaches, drawn behind the marks. */
const whiskers = (points: readonly CorridorPoint[], palette: Palette): Plugin<'line'> => ({
  id: 'whiskers',
  beforeDatasetsDraw({ ctx, scales: { x, y } }) {
    if (x === undefined || y === undefined) return;
    ctx.save();
    ctx.strokeStyle = palette.ink;
    ctx.lineWidth = 1.2;
    for (const point of points) {
      if (point.reach === null) continue;
      const [at, top, bottom] = [
        x.getPixelForValue(point.x),
        y.getPixelForValue(point.y + point.reach),
        y.getPixelForValue(point.y - point.reach),
      ];
      ctx.beginPath();
      ctx.moveTo(at, top);
      ctx.lineTo(at, bottom);
      for (const end of [top, bottom]) {
        ctx.moveTo(at - 3, end);
        ctx.lineTo(at + 3, end);
      }
      ctx.stroke();
    }
    ctx.restore();
  },
});

Chart.register(LinearScale, LineController, LineElement, PointElement, annotation);

type Series = 'found' | 'left';

/** Rising points up, falling points down; as found hollow, as left solid. */
function datasets(
  points: readonly CorridorPoint[],
  series: Series,
  palette: Palette,
): ChartDataset<'line'>[] {
  return (['up', 'down'] as const).map((direction) => ({
    label: `${series === 'found' ? 'as found' : 'as left'}, ${direction === 'up' ? 'rising' : 'falling'}`,
    data: points.filter((point) => point.direction === direction).map(({ x, y }) => ({ x, y })),
    pointStyle: 'triangle',
    pointRotation: direction === 'up' ? 0 : 180,
    pointRadius: 7,
    pointBorderWidth: 1.8,
    pointBorderColor: palette.ink,
    pointBackgroundColor: series === 'left' ? palette.ink : palette.sheet,
    borderColor: palette.ink,
    borderWidth: 1.3,
    borderDash: direction === 'down' ? [4, 4] : [],
  }));
}

const box = (from: number, to: number, colour: string) => ({
  type: 'box' as const,
  yMin: from,
  yMax: to,
  backgroundColor: colour,
  borderWidth: 0,
  drawTime: 'beforeDatasetsDraw' as const,
});

function options(
  reach: number,
  adjustAbove: number,
  palette: Palette,
  isNight: boolean,
): ChartOptions<'line'> {
  const tint = (alpha: string) => `${palette.within}${alpha}`;
  const wall = (at: number) => ({
    type: 'line' as const,
    yMin: at,
    yMax: at,
    borderColor: palette.ink,
    borderWidth: at === 0 ? 0.7 : 1.6,
    drawTime: 'beforeDatasetsDraw' as const,
  });
  const font = { family: '"Atkinson Hyperlegible Mono Variable"', size: 13 };
  return {
    animation: false,
    responsive: true,
    maintainAspectRatio: false,
    events: [],
    scales: {
      x: {
        type: 'linear',
        min: -4,
        max: 104,
        grid: { display: false },
        border: { display: false },
        afterBuildTicks: (axis) => (axis.ticks = [0, 25, 50, 75, 100].map((value) => ({ value }))),
        ticks: { color: palette.muted, font, callback: (value) => `${value} %` },
      },
      y: {
        min: -reach,
        max: reach,
        grid: { display: false },
        border: { display: false },
        afterBuildTicks: (axis) => (axis.ticks = [-1, 0, 1].map((value) => ({ value }))),
        ticks: {
          color: palette.muted,
          font,
          callback: (value) => (value === 0 ? '0' : value === 1 ? '+limit' : '−limit'),
        },
      },
    },
    plugins: {
      annotation: {
        annotations: {
          inside: box(-adjustAbove, adjustAbove, tint(isNight ? '1f' : '12')),
          upper: box(adjustAbove, 1, tint(isNight ? '40' : '2b')),
          lower: box(-1, -adjustAbove, tint(isNight ? '40' : '2b')),
          top: wall(1),
          middle: wall(0),
          bottom: wall(-1),
        },
      },
    },
  };
}

/**
 * Error in units of the limit against applied input. The figures behind it stand in a table on the same page.
 * @param adjustAbovePercent where the paler strip begins, per cent of the limit
 */
export function Corridor({
  asFound,
  asLeft = [],
  adjustAbovePercent,
  height,
}: {
  asFound: readonly CorridorPoint[];
  asLeft?: readonly CorridorPoint[];
  adjustAbovePercent: number;
  height: number;
}) {
  const { palette, isNight } = usePalette();
  const isReady = useFontsReady();
  const points = [...asFound, ...asLeft];
  const data: ChartData<'line'> = {
    datasets: [...datasets(asFound, 'found', palette), ...datasets(asLeft, 'left', palette)],
  };
  const outside = points.filter((point) => Math.abs(point.y) > 1).length;
  return (
    <Box sx={{ height, position: 'relative', overflow: 'hidden' }}>
      {isReady && (
        <Line
          key={isNight ? 'night' : 'paper'}
          data={data}
          plugins={[whiskers(points, palette)]}
          options={options(corridorReach(points), adjustAbovePercent / 100, palette, isNight)}
          role="img"
          aria-label={`Corridor of errors: ${points.length} readings, ${outside} outside the limit. The figures are in the table.`}
        />
      )}
    </Box>
  );
}

/** What the marks of the corridor mean. */
export function CorridorKey({ hasAsLeft }: { hasAsLeft: boolean }) {
  return <span>△ rising, ▽ falling{hasAsLeft ? '; solid as left' : ''}; bars: U, k = 2</span>;
}
