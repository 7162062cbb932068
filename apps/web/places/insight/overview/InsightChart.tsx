'use client';
/** Bars with their bounds. The figures behind them stand in a table on the same sheet. */
import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  LinearScale,
  type ChartOptions,
  type Plugin,
} from 'chart.js';
import { useRouter } from 'next/navigation';
import type { RefObject } from 'react';
import { Bar } from 'react-chartjs-2';
import type { Palette } from '@/ui/palette';
import { useFontsReady } from '@/ui/useFontsReady';
import { usePalette } from '@/ui/usePalette';
import type { ChartShape } from './chartShape';

Chart.register(BarController, BarElement, CategoryScale, LinearScale);

/** The sheet behind, so that a picture of the chart can be read anywhere. */
const ground = (palette: Palette): Plugin<'bar'> => ({
  id: 'ground',
  beforeDraw({ ctx, width, height }) {
    ctx.save();
    ctx.globalCompositeOperation = 'destination-over';
    ctx.fillStyle = palette.sheet;
    ctx.fillRect(0, 0, width, height);
    ctx.restore();
  },
});

const whiskers = ({ kind, bounds = [] }: ChartShape, palette: Palette): Plugin<'bar'> => ({
  id: 'bounds',
  afterDatasetsDraw({ ctx, scales: { x, y } }) {
    if (x === undefined || y === undefined) return;
    const [across, along] = kind === 'months' ? [x, y] : [y, x];
    ctx.save();
    ctx.strokeStyle = palette.ink;
    ctx.lineWidth = 1.3;
    ctx.beginPath();
    bounds.forEach((bound, index) => {
      if (bound === null) return;
      const at = across.getPixelForValue(index);
      const [low, high] = bound.map((value) => along.getPixelForValue(value)) as [number, number];
      const to = (a: number, b: number) => (kind === 'months' ? ctx.lineTo(a, b) : ctx.lineTo(b, a));
      const from = (a: number, b: number) => (kind === 'months' ? ctx.moveTo(a, b) : ctx.moveTo(b, a));
      from(at, low);
      to(at, high);
      for (const end of [low, high]) {
        from(at - 4, end);
        to(at + 4, end);
      }
    });
    ctx.stroke();
    ctx.restore();
  },
});

function options(
  { kind, unit, most, links = [] }: ChartShape,
  palette: Palette,
  go: (href: string) => void,
): ChartOptions<'bar'> {
  const font = { family: '"Atkinson Hyperlegible Mono Variable"', size: 12 };
  const value = {
    min: 0,
    ...(most === undefined ? {} : { max: most }),
    grid: { color: palette.rule },
    border: { display: false },
    ticks: {
      color: palette.muted,
      font,
      maxTicksLimit: 5,
      // Of instruments and jobs there are no halves.
      ...(unit === '' ? { precision: 0 } : {}),
      callback: (at: string | number) => `${at} ${unit}`.trim(),
    },
  };
  const name = {
    grid: { display: false },
    border: { display: false },
    ticks: { color: palette.ink, font, autoSkip: kind === 'months', autoSkipPadding: 16, maxRotation: 0 },
  };
  return {
    animation: false,
    responsive: true,
    maintainAspectRatio: false,
    indexAxis: kind === 'months' ? 'x' : 'y',
    onClick: (_event, [hit]) => {
      const href = hit === undefined ? null : (links[hit.index] ?? null);
      if (href !== null) go(href);
    },
    scales: kind === 'months' ? { x: name, y: value } : { x: value, y: name },
    plugins: {},
  };
}

export type ChartRef = RefObject<Chart<'bar'> | null>;

export function InsightChart({ shape, title, chart }: { shape: ChartShape; title: string; chart: ChartRef }) {
  const { palette, isNight } = usePalette();
  const router = useRouter();
  const isReady = useFontsReady();
  return (
    isReady && (
      <Bar
        ref={chart as never}
        key={isNight ? 'night' : 'paper'}
        data={{
          labels: [...shape.labels],
          datasets: [
            {
              data: shape.values.map((one) => one ?? NaN),
              backgroundColor: palette.liquid,
              borderColor: palette.ink,
              borderWidth: 1.2,
              maxBarThickness: 34,
            },
          ],
        }}
        plugins={[ground(palette), whiskers(shape, palette)]}
        options={options(shape, palette, (href) => router.push(href))}
        role="img"
        aria-label={`${title}: ${shape.values.filter((one) => one !== null).length} bars. The figures are in the table.`}
      />
    )
  );
}
