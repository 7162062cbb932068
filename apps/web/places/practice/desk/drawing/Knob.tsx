'use client';
/** Something that is turned: by dragging round it, or with the arrow keys; Shift turns a tenth. */
import { useEffect, useRef, type KeyboardEvent, type PointerEvent } from 'react';

const RADIUS = 24;
/** What an arrow key turns, where nothing else is said. */
const KEY_TURNS = 0.1;

/** A hand that drags round the middle of a place; null where nothing is turned. */
function useHand(turn: ((turns: number) => void) | null) {
  const angle = useRef<number | null>(null);
  const place = useRef<SVGGElement>(null);
  const isStill = turn === null;
  useEffect(() => {
    const { current } = place;
    if (current === null || isStill) return;
    // A finger that turns does not scroll the page; touch-action is not asked of what lies inside a drawing.
    const keepStill = (event: TouchEvent) => event.preventDefault();
    current.addEventListener('touchmove', keepStill, { passive: false });
    return () => current.removeEventListener('touchmove', keepStill);
  }, [isStill]);
  const angleOf = (event: PointerEvent): number => {
    const box = place.current?.getBoundingClientRect();
    return box === undefined
      ? 0
      : Math.atan2(event.clientY - box.top - box.height / 2, event.clientX - box.left - box.width / 2);
  };
  const leave = () => (angle.current = null);
  return {
    place,
    onPointerDown: (event: PointerEvent) => {
      if (isStill) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      angle.current = angleOf(event);
    },
    onPointerMove: (event: PointerEvent) => {
      if (angle.current === null) return;
      const now = angleOf(event);
      // The shorter way round.
      const moved = Math.atan2(Math.sin(now - angle.current), Math.cos(now - angle.current));
      angle.current = now;
      turn?.(moved / (2 * Math.PI));
    },
    onPointerUp: leave,
    onPointerCancel: leave,
  };
}

export function Knob({
  x,
  y,
  name,
  turned,
  shown,
  most,
  perKey = KEY_TURNS,
  isPlain = false,
  onTurn,
}: {
  x: number;
  y: number;
  name: string;
  /** Where it stands, turns. */
  turned: number;
  /** The same in words. */
  shown: string;
  /** Turns either way; null where it goes round and round. */
  most: readonly [number, number] | null;
  /** Turns for an arrow key; with Shift a tenth. */
  perKey?: number;
  /** Whether it turns the same however it stands: what it shows is said and not drawn. */
  isPlain?: boolean;
  /** Null in a replay. */
  onTurn: ((turns: number) => void) | null;
}) {
  const turn = (turns: number) => {
    const to = most === null ? turned + turns : Math.min(most[1], Math.max(most[0], turned + turns));
    if (to !== turned) onTurn?.(to - turned);
  };
  const { place, ...hand } = useHand(onTurn === null ? null : turn);
  const onKeyDown = (event: KeyboardEvent) => {
    const way = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
    if (way === undefined) return;
    event.preventDefault();
    turn(way * perKey * (event.shiftKey && !isPlain ? 0.1 : 1));
  };
  return (
    <g
      role="slider"
      tabIndex={onTurn === null ? undefined : 0}
      aria-label={name}
      aria-valuenow={Number(turned.toFixed(3))}
      aria-valuemin={most?.[0] ?? -1000}
      aria-valuemax={most?.[1] ?? 1000}
      aria-valuetext={shown}
      transform={`translate(${x} ${y})`}
      style={{ cursor: onTurn === null ? 'default' : 'grab' }}
      onKeyDown={onTurn === null ? undefined : onKeyDown}
      {...hand}
    >
      <g ref={place}>
        <circle r={RADIUS} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={2.5} />
        <line
          x1={0}
          x2={0}
          y1={RADIUS - 6}
          y2={-RADIUS + 6}
          stroke="var(--ink)"
          strokeWidth={5}
          transform={`rotate(${turned * 360})`}
        />
      </g>
      <Words name={name} shown={isPlain ? null : shown} />
    </g>
  );
}

/** The name of the control, and where it stands in words; null where that is said and not drawn. */
function Words({ name, shown }: { name: string; shown: string | null }) {
  return (
    <>
      <text
        y={RADIUS + 18}
        textAnchor="middle"
        style={{ fontSize: 'calc(14px * var(--word, 1))' }}
        fontWeight={600}
        fill="var(--ink)"
      >
        {name}
      </text>
      {shown !== null && (
        <text
          y={RADIUS + 35}
          textAnchor="middle"
          style={{ fontSize: 'calc(13px * var(--word, 1))' }}
          fill="var(--muted)"
          fontFamily="Atkinson Hyperlegible Mono Variable, monospace"
        >
          {shown}
        </text>
      )}
    </>
  );
}
