'use client';
/** The last two minutes of pressure and output, both in per cent of their ranges, so that one follows the other. */
import {
  Chart,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  type ChartData,
  type ChartOptions,
} from 'chart.js';
import { Line } from 'react-chartjs-2';
import { useFontsReady } from '@/ui/useFontsReady';
import { usePalette } from '@/ui/usePalette';
import { HISTORY_S } from './useSeen';

Chart.register(LinearScale, LineController, LineElement, PointElement);

const FIGURES = { family: '"Atkinson Hyperlegible Mono Variable", monospace', size: 12 };

export interface Trace {
  /** s. */
  readonly at: number;
  readonly reference: number | null;
  readonly output: number | null;
}

export function LiveStrip({ traces, target }: { traces: readonly Trace[]; target: number | null }) {
  const { palette } = usePalette();
  useFontsReady();
  const now = traces.at(-1)?.at ?? 0;
  const line = (of: 'reference' | 'output', colour: string, dash: number[]) => ({
    label: of,
    data: traces.map((trace) => ({ x: trace.at - now, y: trace[of] })),
    borderColor: colour,
    borderWidth: 1.6,
    borderDash: dash,
    pointRadius: 0,
  });
  const data: ChartData<'line', { x: number; y: number | null }[]> = {
    datasets: [
      line('reference', palette.ink, []),
      line('output', palette.now, [5, 3]),
      {
        label: 'point',
        data:
          target === null
            ? []
            : [
                { x: -HISTORY_S, y: target },
                { x: 0, y: target },
              ],
        borderColor: palette.rule,
        borderWidth: 1,
        pointRadius: 0,
      },
    ],
  };
  const options: ChartOptions<'line'> = {
    animation: false,
    maintainAspectRatio: false,
    scales: {
      x: {
        type: 'linear',
        min: -HISTORY_S,
        max: 0,
        grid: { color: palette.rule },
        ticks: {
          color: palette.ink,
          font: FIGURES,
          stepSize: 30,
          callback: (value) => (value === 0 ? 'now' : `\u2212${Math.abs(Number(value))} s`),
        },
      },
      y: {
        min: -10,
        max: 110,
        grid: { color: palette.rule },
        ticks: { color: palette.ink, font: FIGURES, callback: (value) => `${value} %` },
        afterBuildTicks: (axis) => {
          axis.ticks = [0, 50, 100].map((value) => ({ value }));
        },
      },
    },
    plugins: { legend: { display: false }, tooltip: { enabled: false } },
  };
  return (
    <div style={{ height: 130, minWidth: 0 }}>
      <Line
        data={data}
        options={options}
        role="img"
        aria-label="Pressure and output over the last two minutes, per cent of their ranges"
      />
    </div>
  );
}
