'use client';
/**
 * Parallel rails, one for each thing the same signal is called; thin lines join the same point on every rail, so that
 * a shifted zero leans, a square root fans out and a reversed range crosses. Drawn with boxes and lines in per cent, so
 * that its words keep their size on any screen. The ends of a range can be dragged, or moved with the arrow keys.
 */
import { formatPlain, formatSignificant } from '@barys/core/text';
import Box from '@mui/material/Box';
import { visuallyHidden } from '@mui/utils';
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { Figure } from './Figure';

export interface Rail {
  readonly name: string;
  readonly unit: string;
  /** Values at the rail's two ends. */
  readonly ends: readonly [left: number, right: number];
  /** Whether the ends are only where the drawing stops, and mean nothing. */
  readonly isOpen?: boolean;
  /** Values at 0 and 100 % of the range. */
  readonly range: readonly [low: number, high: number];
  /** Takes a new value for one end of the range; without it the ends stand still. */
  readonly onMove?: (end: 'low' | 'high', value: number) => void;
}

/** One point of the signal: its value on each rail, in the order of the rails. */
export interface Join {
  readonly name: string;
  readonly values: readonly number[];
}

const place = ({ ends: [left, right] }: Rail, value: number): number =>
  ((value - left) / (right - left)) * 100;

export function StaveDrawing({
  rails,
  joins,
  marker,
  summary,
  spacing,
}: {
  rails: readonly Rail[];
  joins: readonly Join[];
  /** A point to stand out. */
  marker?: Join | null;
  summary: string;
  spacing: number;
}) {
  const height = spacing * (rails.length - 1) + 50;
  const railTop = (index: number) => 26 + index * spacing;
  const lines = [
    ...joins.map((join) => ({ join, isMarker: false })),
    ...(marker == null ? [] : [{ join: marker, isMarker: true }]),
  ];
  const canMove = rails.some(({ onMove }) => onMove !== undefined);
  return (
    <Box>
      <Box
        role={canMove ? 'group' : 'img'}
        aria-label={`Signal stave. ${summary}`}
        sx={{ position: 'relative', height, mr: 1, ml: '84px' }}
      >
        <svg
          width="100%"
          height={height}
          viewBox={`0 0 100 ${height}`}
          preserveAspectRatio="none"
          style={{ position: 'absolute', inset: 0 }}
          aria-hidden
        >
          {rails.slice(1).map((rail, index) => {
            const above = rails[index] ?? rail;
            return lines.map(({ join, isMarker }) => (
              <line
                key={`${rail.name} ${join.name} ${isMarker}`}
                x1={place(above, join.values[index] ?? 0)}
                y1={railTop(index)}
                x2={place(rail, join.values[index + 1] ?? 0)}
                y2={railTop(index + 1)}
                stroke={isMarker ? 'var(--now)' : 'var(--muted)'}
                strokeWidth={isMarker ? 3 : 1}
                opacity={isMarker ? 1 : 0.6}
                vectorEffect="non-scaling-stroke"
              />
            ));
          })}
        </svg>
        {rails.map((rail, index) => (
          <RailDrawing key={rail.name} rail={rail} top={railTop(index)} isBody={index === 0} />
        ))}
      </Box>
      <JoinTable rails={rails} joins={joins} />
    </Box>
  );
}

/** The drawing for those who do not see it. */
function JoinTable({ rails, joins }: { rails: readonly Rail[]; joins: readonly Join[] }) {
  return (
    <Box sx={visuallyHidden}>
      <table>
        <caption>The same points on every rail</caption>
        <thead>
          <tr>
            <th>Point</th>
            {rails.map((rail) => (
              <th key={rail.name}>
                {rail.name}, {rail.unit}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {joins.map((join) => (
            <tr key={join.name}>
              <td>{join.name}</td>
              {join.values.map((value, index) => (
                <td key={rails[index]?.name ?? index}>{formatSignificant(value, 6)}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </Box>
  );
}

/** Ends of a range that are closer than this, in per cent of the rail, share one label. */
const LABEL_PERCENT = 18;
/** Room that an end of the body needs beside a label of the range. */
const END_PERCENT = 12;

function RailDrawing({ rail, top, isBody }: { rail: Rail; top: number; isBody: boolean }) {
  const [low, high] = rail.range;
  const [from, to] = rail.range.map((value) => place(rail, value)) as [number, number];
  const [left, right] = [Math.min(from, to), Math.max(from, to)];
  // No line leaves the first rail upwards, so its figures stand there.
  const side = isBody ? 'above' : 'below';
  const endSide = (room: number) => (room < END_PERCENT ? 'below' : 'above');
  const label = (words: string, at: number, where: 'above' | 'below', isEnd = false) => (
    <Box
      sx={{
        position: 'absolute',
        left: `${at}%`,
        top: where === 'above' ? top - 26 : top + 7,
        transform: `translateX(${at > 90 ? '-100%' : at < 10 ? '0' : '-50%'})`,
        fontSize: 13,
        color: isEnd ? 'text.secondary' : 'text.primary',
        whiteSpace: 'nowrap',
        pointerEvents: 'none',
        // Lines pass behind figures, never through them.
        bgcolor: 'var(--sheet)',
        px: '2px',
        lineHeight: 1.15,
      }}
    >
      <Figure>{words}</Figure>
    </Box>
  );
  const isWhole = left <= 0 && right >= 100;
  return (
    <>
      <Box
        sx={{ position: 'absolute', left: 0, right: 0, top: top - 4, height: 8, bgcolor: 'var(--rule)' }}
      />
      <Box
        sx={{
          position: 'absolute',
          left: `${left}%`,
          width: `${right - left}%`,
          top: top - 4,
          height: 8,
          bgcolor: 'var(--ink)',
        }}
      />
      {isBody && !isWhole && rail.isOpen !== true && (
        <>
          {left > 0 && label(formatPlain(rail.ends[0]), 0, endSide(left), true)}
          {right < 100 && label(formatPlain(rail.ends[1]), 100, endSide(100 - right), true)}
        </>
      )}
      {right - left < LABEL_PERCENT ? (
        label(`${formatPlain(low)} … ${formatPlain(high)}`, (left + right) / 2, side)
      ) : (
        <>
          {label(formatPlain(low), from, side)}
          {label(formatPlain(high), to, side)}
        </>
      )}
      {rail.onMove !== undefined && (
        <>
          <Handle rail={rail} end="low" top={top} onMove={rail.onMove} />
          <Handle rail={rail} end="high" top={top} onMove={rail.onMove} />
        </>
      )}
      <Box
        sx={{ position: 'absolute', left: '-84px', width: 78, top: top - 17, fontSize: 14, lineHeight: 1.2 }}
      >
        {rail.name}
        <Box sx={{ color: 'text.secondary', fontSize: 13 }}>{rail.unit}</Box>
      </Box>
    </>
  );
}

/** A dragged end moves in steps of a two-hundredth of the rail, which is about what a finger can set. */
const STEPS = 200;

function Handle({
  rail,
  end,
  top,
  onMove,
}: {
  rail: Rail;
  end: 'low' | 'high';
  top: number;
  onMove: (end: 'low' | 'high', value: number) => void;
}) {
  const isHeld = useRef(false);
  const [left, right] = rail.ends;
  const value = end === 'low' ? rail.range[0] : rail.range[1];
  const step = (right - left) / STEPS;
  const settle = (wanted: number) => {
    const nearest = Math.min(right, Math.max(left, left + Math.round((wanted - left) / step) * step));
    onMove(end, Number(nearest.toPrecision(6)));
  };
  const drag = (event: PointerEvent<HTMLElement>) => {
    if (!isHeld.current) return;
    const track = event.currentTarget.parentElement?.getBoundingClientRect();
    if (track !== undefined) settle(left + ((event.clientX - track.left) / track.width) * (right - left));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const by = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1, PageDown: -10, PageUp: 10 }[
      event.key
    ];
    if (by === undefined) return;
    event.preventDefault();
    settle(value + by * step);
  };
  return (
    <Box
      role="slider"
      tabIndex={0}
      aria-label={`${rail.name} at ${end === 'low' ? '0' : '100'} %, ${rail.unit}`}
      aria-valuenow={value}
      aria-valuemin={left}
      aria-valuemax={right}
      onPointerDown={(event) => {
        isHeld.current = true;
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={drag}
      onPointerUp={() => (isHeld.current = false)}
      onKeyDown={onKeyDown}
      sx={{
        position: 'absolute',
        left: `calc(${place(rail, value)}% - 22px)`,
        top: top - 22,
        width: 44,
        height: 44,
        cursor: 'ew-resize',
        touchAction: 'none',
        '&::after': {
          content: '""',
          position: 'absolute',
          left: 18,
          top: 11,
          width: 8,
          height: 22,
          bgcolor: 'var(--now)',
          border: '1px solid var(--sheet)',
        },
        '@media print': { display: 'none' },
      }}
    />
  );
}
