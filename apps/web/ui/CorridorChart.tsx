'use client';
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
import { corridorReach, type CorridorPoint, type CorridorShape } from './corridor-shape';
import type { Palette } from './palette';
import { useFontsReady } from './useFontsReady';
import { usePalette } from './usePalette';

// A chart keeps the plugins it began with, so what they draw travels with its data.
type Marked = Pick<CorridorPoint, 'x' | 'y'> & Partial<Pick<CorridorPoint, 'reach'>>;
const GUARD = 'guard band';
const PREDICTED = 'predicted';
const FITTED = 'fitted';

/** Whiskers: how far the uncertainty of each error reaches, drawn behind the marks. */
const whiskers = (palette: Palette): Plugin<'line'> => ({
  id: 'whiskers',
  beforeDatasetsDraw({ ctx, data, scales: { x, y } }) {
    if (x === undefined || y === undefined) return;
    ctx.save();
    ctx.strokeStyle = palette.ink;
    ctx.lineWidth = 1.2;
    const measured = data.datasets.filter(
      ({ label }) => label?.startsWith(PREDICTED) !== true && label?.startsWith(FITTED) !== true,
    );
    for (const point of measured.flatMap((set) => set.data as Marked[])) {
      if (point.reach == null) continue;
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

/** The guard band: from the limit inwards to what is still accepted, at each point; its edge is dotted. */
const guardStrip = (palette: Palette): Plugin<'line'> => ({
  id: 'guard',
  beforeDatasetsDraw({ ctx, data, chartArea, scales: { x, y } }) {
    const guard = (data.datasets.find(({ label }) => label === GUARD)?.data ?? []) as Marked[];
    const [first, last] = [guard[0], guard.at(-1)];
    if (x === undefined || y === undefined || first === undefined || last === undefined) return;
    ctx.save();
    for (const side of [1, -1]) {
      const edge = new Path2D();
      edge.moveTo(chartArea.left, y.getPixelForValue(side * first.y));
      for (const point of guard) edge.lineTo(x.getPixelForValue(point.x), y.getPixelForValue(side * point.y));
      edge.lineTo(chartArea.right, y.getPixelForValue(side * last.y));
      const strip = new Path2D(edge);
      strip.lineTo(chartArea.right, y.getPixelForValue(side));
      strip.lineTo(chartArea.left, y.getPixelForValue(side));
      strip.closePath();
      ctx.fillStyle = `${palette.undecided}2b`;
      ctx.fill(strip);
      ctx.strokeStyle = palette.undecided;
      ctx.lineWidth = 1.2;
      ctx.setLineDash([2, 3]);
      ctx.stroke(edge);
    }
    ctx.restore();
  },
});

/** How far what is predicted is uncertain: a pale band about its line. */
const predictedBand = (palette: Palette): Plugin<'line'> => ({
  id: 'predicted',
  beforeDatasetsDraw({ ctx, data, scales: { x, y } }) {
    if (x === undefined || y === undefined) return;
    const points = data.datasets
      .filter(({ label }) => label?.startsWith(PREDICTED) === true)
      .flatMap((set) => set.data as Marked[])
      .sort((a, b) => a.x - b.x);
    if (points.length === 0) return;
    // Rising and falling share the band: at each place from the lowest to the highest of them.
    const places = [...new Set(points.map((point) => point.x))];
    const edge = (side: 1 | -1) =>
      places.map((place) => {
        const there = points.filter((point) => point.x === place);
        return Math.max(...there.map((point) => side * point.y + (point.reach ?? 0))) * side;
      });
    const band = new Path2D();
    edge(1).forEach((value, i) => band.lineTo(x.getPixelForValue(places[i] ?? 0), y.getPixelForValue(value)));
    [...edge(-1)]
      .reverse()
      .forEach((value, i) =>
        band.lineTo(x.getPixelForValue(places[places.length - 1 - i] ?? 0), y.getPixelForValue(value)),
      );
    band.closePath();
    ctx.save();
    ctx.fillStyle = `${palette.now}26`;
    ctx.fill(band);
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
    data: points.filter((point) => point.direction === direction).map(({ x, y, reach }) => ({ x, y, reach })),
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

/** Where the act would bring it: dashed, in the accent, without marks of its own. */
const predictedSets = (points: readonly CorridorPoint[], palette: Palette): ChartDataset<'line'>[] =>
  (['up', 'down'] as const).map((direction) => ({
    label: `${PREDICTED}, ${direction}`,
    data: points.filter((point) => point.direction === direction).map(({ x, y, reach }) => ({ x, y, reach })),
    pointRadius: 0,
    borderColor: palette.now,
    borderWidth: 2,
    borderDash: [6, 4],
  }));

/** What a suspicion would read like: dotted, through the marks, in the way that the run went. */
const fittedSets = (points: readonly CorridorPoint[], palette: Palette): ChartDataset<'line'>[] =>
  (['up', 'down'] as const).map((direction) => ({
    label: `${FITTED}, ${direction}`,
    data: points.filter((point) => point.direction === direction).map(({ x, y }) => ({ x, y })),
    pointRadius: 0,
    borderColor: palette.undecided,
    borderWidth: 3,
    borderCapStyle: 'round' as const,
    borderDash: [1, 6],
  }));

const box = (from: number, to: number, colour: string) => ({
  type: 'box' as const,
  yMin: from,
  yMax: to,
  backgroundColor: colour,
  borderWidth: 0,
  drawTime: 'beforeDatasetsDraw' as const,
});

function options(shape: CorridorShape, palette: Palette, isNight: boolean): ChartOptions<'line'> {
  const { axis, adjustAbove } = shape;
  const reach = corridorReach(shape);
  const room = (axis.to - axis.from) * 0.04;
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
        min: axis.from - room,
        max: axis.to + room,
        grid: { display: false },
        border: { display: false },
        afterBuildTicks: (scale) => (scale.ticks = axis.ticks.map(({ at }) => ({ value: at }))),
        ticks: { color: palette.muted, font, callback: (_value, index) => axis.ticks[index]?.word ?? '' },
      },
      y: {
        min: -reach,
        max: reach,
        grid: { display: false },
        border: { display: false },
        afterBuildTicks: (scale) => (scale.ticks = [-1, 0, 1].map((value) => ({ value }))),
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

/** Error in units of the limit against applied input. The figures behind it stand in a table on the same page. */
export function CorridorChart({ shape }: { shape: CorridorShape }) {
  const { palette, isNight } = usePalette();
  const isReady = useFontsReady();
  const { asFound, asLeft, guard, predicted, fitted } = shape;
  const points = [...asFound, ...asLeft];
  const data: ChartData<'line'> = {
    datasets: [
      ...datasets(asFound, 'found', palette),
      ...datasets(asLeft, 'left', palette),
      ...predictedSets(predicted, palette),
      ...fittedSets(fitted, palette),
      {
        label: GUARD,
        data: guard.map(({ x, accepted }) => ({ x, y: accepted })),
        showLine: false,
        pointRadius: 0,
      },
    ],
  };
  const outside = points.filter((point) => Math.abs(point.y) > 1).length;
  return (
    isReady && (
      <Line
        key={isNight ? 'night' : 'paper'}
        data={data}
        plugins={[guardStrip(palette), predictedBand(palette), whiskers(palette)]}
        options={options(shape, palette, isNight)}
        role="img"
        aria-label={`Corridor of errors: ${points.length} readings, ${outside} outside the limit. The figures are in the table.`}
      />
    )
  );
}
