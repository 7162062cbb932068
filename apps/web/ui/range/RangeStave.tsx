'use client';
import {
  appliedAtPercent,
  displayedValue,
  expectedOutput,
  type DisplayScale,
  type SignalRange,
} from '@barys/core/signal';
import { formatPlain } from '@barys/core/text';
import { useState } from 'react';
import { StaveDrawing, type Join } from '@/ui/StaveDrawing';

const JOINS = [0, 10, 25, 50, 75, 90, 100];

/** The rail of the input reaches from zero, or below it, to a good part above the range. */
function reachOf({ lrv, urv }: SignalRange): readonly [number, number] {
  const [low, high] = [Math.min(lrv, urv, 0), Math.max(lrv, urv, 0)];
  const room = (high - low) * 0.25;
  return [low < 0 ? low - room : 0, high > 0 ? high + room : 0];
}

const isInside = ([left, right]: readonly [number, number], value: number) => value >= left && value <= right;

const ordered = (a: number, b: number): readonly [number, number] => [Math.min(a, b), Math.max(a, b)];

/** The stave of a range being worked out; its ends can be dragged. */
export function RangeStave({
  range,
  display,
  units,
  marker,
  onMove,
  limits,
}: {
  range: SignalRange;
  display: DisplayScale;
  units: { input: string; output: string; display: string };
  marker: number | null;
  /** Without it the ends stand still. */
  onMove?: ((end: 'low' | 'high', value: number) => void) | undefined;
  /** The body's limits in the input unit, where the rail ends; else it reaches a little beyond the range. */
  limits?: readonly [number, number] | undefined;
}) {
  // The rail stands still while an end is dragged along it, and reaches out anew when a typed end leaves it.
  const [kept, setKept] = useState(() => reachOf(range));
  const fits = isInside(kept, range.lrv) && isInside(kept, range.urv);
  const isTooWide = Math.abs(range.urv - range.lrv) < (kept[1] - kept[0]) / 40;
  const ends = limits ?? (fits && !isTooWide ? kept : reachOf(range));
  if (limits === undefined && (ends[0] !== kept[0] || ends[1] !== kept[1])) setKept(ends);
  const joinAt = (applied: number, name: string): Join => {
    const output = expectedOutput(range, applied);
    return { name, values: [applied, output, displayedValue(range, display, output)] };
  };
  return (
    <StaveDrawing
      rails={[
        {
          name: 'Input',
          unit: units.input,
          ends,
          isOpen: limits === undefined,
          range: [range.lrv, range.urv],
          ...(onMove === undefined ? {} : { onMove }),
        },
        {
          name: 'Output',
          unit: units.output,
          ends: ordered(range.outputLow, range.outputHigh),
          range: [range.outputLow, range.outputHigh],
        },
        {
          name: 'Display',
          unit: units.display,
          ends: ordered(display.low, display.high),
          range: [display.low, display.high],
        },
      ]}
      joins={JOINS.map((percent) => joinAt(appliedAtPercent(range, percent), `${percent} %`))}
      marker={marker === null ? null : joinAt(marker, 'reading')}
      summary={`${formatPlain(range.lrv)} to ${formatPlain(range.urv)} ${units.input} gives ${formatPlain(range.outputLow)} to ${formatPlain(range.outputHigh)} ${units.output}.`}
      spacing={62}
    />
  );
}
