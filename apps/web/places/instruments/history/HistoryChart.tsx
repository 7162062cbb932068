'use client';
/** The errors of an instrument over the years, in units of the limit. The figures behind it stand in a table on the same page. */
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
import type { Palette } from '@/ui/palette';
import { useFontsReady } from '@/ui/useFontsReady';
import { usePalette } from '@/ui/usePalette';
import type { HistoryColumn, HistoryShape } from './shape';

Chart.register(LinearScale, LineController, LineElement, PointElement, annotation);

const MONO = '"Atkinson Hyperlegible Mono Variable"';
const WORDS = '"Atkinson Hyperlegible Next Variable"';
/** Room that a column of words needs. */
const COLUMN_PX = 66;
const ROW_PX = 19;
const ROWS: readonly (readonly [head: string, word: (column: HistoryColumn) => string])[] = [
  ['', ({ date }) => date],
  ['reference', ({ standard }) => standard],
  ['hysteresis, %', ({ hysteresis }) => hysteresis],
  ['version', ({ version }) => version],
];
const LEFT_PX = 96;
/** What is free beyond the drawing at its right. */
const EDGE_PX = 8;

/** The words below each calibration; where they would touch, the newer ones stand. */
const columnWords = (columns: readonly HistoryColumn[], palette: Palette): Plugin<'line'> => ({
  id: 'columns',
  afterDraw({ ctx, chartArea, scales: { x } }) {
    if (x === undefined) return;
    const shown: { at: number; column: HistoryColumn }[] = [];
    for (const column of [...columns].reverse()) {
      const at = x.getPixelForValue(column.day);
      if (shown.every((one) => Math.abs(one.at - at) >= COLUMN_PX)) shown.push({ at, column });
    }
    ctx.save();
    ctx.textBaseline = 'middle';
    for (const [row, [head, word]] of ROWS.entries()) {
      const y = chartArea.bottom + 14 + row * ROW_PX;
      ctx.fillStyle = palette.ink;
      ctx.font = `12px ${WORDS}`;
      ctx.textAlign = 'right';
      ctx.fillText(head, chartArea.left - 26, y);
      ctx.font = `12px ${MONO}`;
      ctx.textAlign = 'center';
      // The newest stands near the edge, which would cut its words.
      for (const { at, column } of shown)
        ctx.fillText(word(column), Math.min(at, chartArea.right - COLUMN_PX / 2 + EDGE_PX), y);
    }
    ctx.restore();
  },
});

/** How far the prediction is uncertain, and the way that each adjustment went. */
const underlay = ({ prediction, adjustments }: HistoryShape, palette: Palette): Plugin<'line'> => ({
  id: 'underlay',
  beforeDatasetsDraw({ ctx, chartArea, scales: { x, y } }) {
    if (x === undefined || y === undefined) return;
    ctx.save();
    ctx.beginPath();
    ctx.rect(
      chartArea.left,
      chartArea.top,
      chartArea.right - chartArea.left,
      chartArea.bottom - chartArea.top,
    );
    ctx.clip();
    if (prediction !== null) {
      const band = new Path2D();
      for (const { day, high } of prediction.points)
        band.lineTo(x.getPixelForValue(day), y.getPixelForValue(high));
      for (const { day, low } of [...prediction.points].reverse())
        band.lineTo(x.getPixelForValue(day), y.getPixelForValue(low));
      band.closePath();
      ctx.fillStyle = `${palette.now}26`;
      ctx.fill(band);
    }
    ctx.strokeStyle = palette.now;
    ctx.lineWidth = 2;
    ctx.setLineDash([2, 3]);
    for (const { day, from, to } of adjustments) {
      ctx.beginPath();
      ctx.moveTo(x.getPixelForValue(day), y.getPixelForValue(from));
      ctx.lineTo(x.getPixelForValue(day), y.getPixelForValue(to));
      ctx.stroke();
    }
    ctx.restore();
  },
});

const lineSet = (
  label: string,
  points: readonly { readonly day: number; readonly y: number }[],
  more: Partial<ChartDataset<'line'>>,
): ChartDataset<'line'> => ({
  label,
  data: points.map(({ day, y }) => ({ x: day, y })),
  pointRadius: 0,
  ...more,
});

function datasets(shape: HistoryShape, palette: Palette): ChartDataset<'line'>[] {
  const ink = { borderColor: palette.ink, borderWidth: 1.6 };
  return [
    ...shape.zero.map((line) => lineSet('zero', line, ink)),
    ...shape.full.map((line) => lineSet('full span', line, { ...ink, borderWidth: 1, borderDash: [5, 4] })),
    lineSet('going', shape.prediction?.points ?? [], {
      borderColor: palette.now,
      borderWidth: 2,
      borderDash: [6, 4],
    }),
    ...[false, true].map((isDown) =>
      lineSet(
        isDown ? 'as found, falling' : 'as found, rising',
        shape.found.filter((dot) => dot.isDown === isDown),
        {
          showLine: false,
          pointRadius: 4,
          pointStyle: 'triangle',
          pointRotation: isDown ? 180 : 0,
          pointBorderWidth: 1.3,
          pointBorderColor: palette.ink,
          pointBackgroundColor: palette.sheet,
        },
      ),
    ),
    lineSet('as left', shape.left, {
      showLine: false,
      pointRadius: 6,
      pointStyle: 'triangle',
      pointBackgroundColor: palette.ink,
      pointBorderColor: palette.ink,
    }),
  ];
}

const box = (from: number, to: number, colour: string) => ({
  type: 'box' as const,
  yMin: from,
  yMax: to,
  backgroundColor: colour,
  borderWidth: 0,
  drawTime: 'beforeDatasetsDraw' as const,
});

/** How far the error axis reaches: a little outside the limit, or as far as what was found needs. */
const reachOf = ({ found, left }: HistoryShape): number =>
  Math.max(1.45, ...[...found, ...left].map(({ y }) => Math.abs(y) * 1.12));

function annotations(shape: HistoryShape, palette: Palette, isNight: boolean) {
  const { adjustAbove, ranges, reach } = shape;
  const tint = (alpha: string) => `${palette.within}${alpha}`;
  const wall = (at: number) => ({
    type: 'line' as const,
    yMin: at,
    yMax: at,
    borderColor: palette.ink,
    borderWidth: at === 0 ? 0.7 : 1.6,
    drawTime: 'beforeDatasetsDraw' as const,
  });
  const label = (content: string, color: string, position: 'start' | 'end') => ({
    display: true,
    content,
    color,
    position,
    backgroundColor: palette.sheet,
    padding: 3,
    font: { family: WORDS, size: 12, weight: 600 as const },
  });
  return {
    inside: box(-adjustAbove, adjustAbove, tint(isNight ? '1f' : '12')),
    upper: box(adjustAbove, 1, tint(isNight ? '40' : '2b')),
    lower: box(-1, -adjustAbove, tint(isNight ? '40' : '2b')),
    top: wall(1),
    middle: wall(0),
    bottom: wall(-1),
    ...Object.fromEntries(
      ranges.map(({ day, words }, index) => [
        `range ${index}`,
        {
          type: 'line' as const,
          xMin: day,
          xMax: day,
          borderColor: palette.muted,
          borderWidth: 1.2,
          borderDash: [2, 4],
          label: label(words, palette.muted, index % 2 === 0 ? 'end' : 'start'),
        },
      ]),
    ),
    ...(reach === null
      ? {}
      : {
          reach: {
            type: 'line' as const,
            xMin: reach.day,
            xMax: reach.day,
            borderColor: palette.outside,
            borderWidth: 1.6,
            label: label(reach.words, palette.outside, 'start'),
          },
        }),
  };
}

function options(shape: HistoryShape, palette: Palette, isNight: boolean): ChartOptions<'line'> {
  const reach = reachOf(shape);
  const room = Math.max(30, (shape.to - shape.from) * 0.04);
  const font = { family: MONO, size: 13 };
  return {
    animation: false,
    responsive: true,
    maintainAspectRatio: false,
    events: [],
    layout: { padding: { bottom: ROWS.length * ROW_PX + 8, right: EDGE_PX } },
    scales: {
      x: {
        type: 'linear',
        min: shape.from - room,
        max: shape.to + room,
        grid: { display: false },
        border: { display: false },
        ticks: { display: false },
      },
      y: {
        min: -reach,
        max: reach,
        grid: { display: false },
        border: { display: false },
        afterBuildTicks: (scale) => (scale.ticks = [-1, 0, 1].map((value) => ({ value }))),
        afterFit: (scale) => (scale.width = LEFT_PX),
        ticks: {
          color: palette.muted,
          font,
          callback: (value) => (value === 0 ? '0' : value === 1 ? '+limit' : '−limit'),
        },
      },
    },
    plugins: { annotation: { annotations: annotations(shape, palette, isNight) } },
  };
}

export function HistoryChart({ shape }: { shape: HistoryShape }) {
  const { palette, isNight } = usePalette();
  const isReady = useFontsReady();
  const data: ChartData<'line'> = { datasets: datasets(shape, palette) };
  const outside = shape.found.filter(({ y }) => Math.abs(y) > 1).length;
  return (
    isReady && (
      <Line
        key={isNight ? 'night' : 'paper'}
        data={data}
        plugins={[underlay(shape, palette), columnWords(shape.columns, palette)]}
        options={options(shape, palette, isNight)}
        role="img"
        aria-label={`History of ${shape.columns.length} calibrations: ${shape.found.length} readings as found, ${outside} outside the limit. The figures are in the table.`}
      />
    )
  );
}
