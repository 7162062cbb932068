'use client';
/** What is read by eye: a needle over a scale, mercury against one, a needle that stands at nothing. */
import { formatFixed, formatSigned } from '@barys/core/text';
import { Text } from './parts';

const polar = (degrees: number, radius: number): readonly [number, number] => [
  Math.sin((degrees * Math.PI) / 180) * radius,
  -Math.cos((degrees * Math.PI) / 180) * radius,
];

/** A gauge of 270 degrees, its needle where it stands. */
export function DialFace({
  x,
  y,
  low,
  high,
  value,
  unit,
}: {
  x: number;
  y: number;
  low: number;
  high: number;
  value: number;
  unit: string;
}) {
  const radius = 84;
  const degrees = (at: number) => -135 + (270 * (at - low)) / (high - low);
  const marks = Array.from({ length: 101 }, (_, i) => i);
  // A pointer lies at its stop before it goes round again.
  const [needleX, needleY] = polar(Math.min(142, Math.max(-138, degrees(value))), radius - 14);
  return (
    <g transform={`translate(${x} ${y})`}>
      <circle r={radius + 8} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={2.5} />
      {marks.map((mark) => {
        const at = low + ((high - low) * mark) / 100;
        const isLong = mark % 10 === 0;
        const [x1, y1] = polar(degrees(at), radius);
        const [x2, y2] = polar(degrees(at), radius - (isLong ? 12 : mark % 5 === 0 ? 9 : 6));
        const [wordX, wordY] = polar(degrees(at), radius - 25);
        return (
          <g key={mark}>
            <line x1={x1} y1={y1} x2={x2} y2={y2} stroke="var(--ink)" strokeWidth={isLong ? 2 : 0.9} />
            {mark % 20 === 0 && (
              <Text x={wordX} y={wordY + 4} size={13} isFigure>
                {formatFixed(at, 0)}
              </Text>
            )}
          </g>
        );
      })}
      <Text x={0} y={44} colour="var(--muted)">
        {unit}
      </Text>
      <line
        x1={-needleX * 0.16}
        y1={-needleY * 0.16}
        x2={needleX}
        y2={needleY}
        stroke="var(--ink)"
        strokeWidth={2.2}
      />
      <circle r={5} fill="var(--ink)" />
    </g>
  );
}

/** Height of a column of mercury for the window that is seen, and how much of the scale that is. */
const WINDOW = 190;
const SEEN = 0.5;

/** One limb of a mercury column, seen close to its meniscus, against a scale in the unit that it stands for. */
export function Meniscus({ x, y, value, unit }: { x: number; y: number; value: number; unit: string }) {
  // The eye goes along the scale with the meniscus, a fifth at a time.
  const from = Math.floor((value - SEEN * 0.3) * 5) / 5;
  const heightOf = (at: number) => WINDOW - ((at - from) / SEEN) * WINDOW;
  const marks = Array.from({ length: Math.round(SEEN / 0.02) + 1 }, (_, i) =>
    Number((from + i * 0.02).toFixed(2)),
  );
  const top = Math.min(WINDOW, Math.max(0, heightOf(value)));
  return (
    <g transform={`translate(${x} ${y})`}>
      <Text x={64} y={-12} colour="var(--muted)">
        mercury, {unit}
      </Text>
      <rect x={0} y={0} width={44} height={WINDOW} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={2} />
      {/* Mercury stands higher in the middle than at the glass: it is read at its top. */}
      <path
        d={`M 1.5 ${WINDOW - 1} V ${Math.min(WINDOW - 1, top + 7)} Q 22 ${top - 7} 42.5 ${Math.min(WINDOW - 1, top + 7)} V ${WINDOW - 1} Z`}
        fill="var(--muted)"
      />
      {marks.map((at) => {
        const tenth = Math.round(at * 100) % 10 === 0;
        return (
          <g key={at}>
            <line
              x1={44}
              x2={tenth ? 66 : 56}
              y1={heightOf(at)}
              y2={heightOf(at)}
              stroke="var(--ink)"
              strokeWidth={tenth ? 2 : 1}
            />
            {tenth && (
              <Text x={70} y={heightOf(at) + 5} size={14} isFigure anchor="start">
                {formatFixed(at, 1)}
              </Text>
            )}
          </g>
        );
      })}
    </g>
  );
}

/** Per cent of span at the stops of a null meter. */
const FULL = 2;

/** A needle that stands upright where the output is what the meter is set to. */
export function NullFace({ x, y, deviation }: { x: number; y: number; deviation: number | null }) {
  const radius = 96;
  const degrees = (percent: number) => (percent / FULL) * 62;
  const marks = Array.from({ length: 41 }, (_, i) => (i - 20) / 10);
  const stop = FULL * 1.06;
  const [needleX, needleY] = polar(degrees(Math.min(stop, Math.max(-stop, deviation ?? -stop))), radius - 4);
  return (
    <g transform={`translate(${x} ${y})`}>
      {marks.map((mark) => {
        const isLong = Math.round(mark * 10) % 5 === 0;
        const [x1, y1] = polar(degrees(mark), radius);
        const [x2, y2] = polar(degrees(mark), radius - (isLong ? 12 : 7));
        const [wordX, wordY] = polar(degrees(mark), radius + 12);
        return (
          <g key={mark}>
            <line x1={x1} y1={y1} x2={x2} y2={y2} stroke="var(--ink)" strokeWidth={isLong ? 2 : 1} />
            {Math.round(mark * 10) % 10 === 0 && (
              <Text x={wordX} y={wordY + 4} size={13} isFigure>
                {mark === 0 ? '0' : formatSigned(mark, 0)}
              </Text>
            )}
          </g>
        );
      })}
      <line x1={0} y1={0} x2={needleX} y2={needleY} stroke="var(--ink)" strokeWidth={2} />
      <circle r={4} fill="var(--ink)" />
    </g>
  );
}
