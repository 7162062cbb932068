'use client';
/** What the drawings of the bench are made of: boxes, words, figures, and buttons that are drawn. */
import type { KeyboardEvent, ReactNode } from 'react';
import type { Act } from '@barys/rig/practice';

/** Null in a replay, which shows and lets nothing be turned. */
export type Do = ((act: Act) => void) | null;

export const LINE = { stroke: 'var(--ink)', fill: 'none' } as const;

export function Box({
  x,
  y,
  width,
  height,
  children,
}: {
  x: number;
  y: number;
  width: number;
  height: number;
  children?: ReactNode;
}) {
  return (
    <g transform={`translate(${x} ${y})`}>
      <rect width={width} height={height} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={2.5} />
      {children}
    </g>
  );
}

export function Text({
  x,
  y,
  size = 14,
  weight = 400,
  isFigure = false,
  colour = 'var(--ink)',
  anchor = 'middle',
  children,
}: {
  x: number;
  y: number;
  size?: number;
  weight?: number;
  isFigure?: boolean;
  colour?: string;
  anchor?: 'start' | 'middle' | 'end';
  children: ReactNode;
}) {
  return (
    <text
      x={x}
      y={y}
      textAnchor={anchor}
      // Figures are large enough; words are drawn larger where the drawing is small.
      style={{ fontSize: isFigure && size > 20 ? size : `calc(${size}px * var(--word, 1))` }}
      fontWeight={weight}
      fill={colour}
      fontFamily={isFigure ? 'Atkinson Hyperlegible Mono Variable, monospace' : undefined}
    >
      {children}
    </text>
  );
}

/** A box with a word above its figure. */
export function Reader({
  x,
  y,
  width,
  word,
  children,
  size = 30,
}: {
  x: number;
  y: number;
  width: number;
  word: string;
  children: ReactNode;
  size?: number;
}) {
  return (
    <Box x={x} y={y} width={width} height={84}>
      <Text x={width / 2} y={26} colour="var(--muted)">
        {word}
      </Text>
      <Text x={width / 2} y={64} size={size} weight={700} isFigure>
        {children}
      </Text>
    </Box>
  );
}

/** Something that is pressed: by a tap, by Enter or by the space bar. */
export function Press({
  x,
  y,
  width,
  height,
  name,
  isOn,
  radio = false,
  onPress,
  children,
}: {
  x: number;
  y: number;
  width: number;
  height: number;
  name: string;
  /** Whether it is pressed in, or chosen of several. */
  isOn?: boolean;
  /** Whether it is one of several. */
  radio?: boolean;
  onPress: (() => void) | null;
  children: ReactNode;
}) {
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== 'Enter' && event.key !== ' ') return;
    event.preventDefault();
    onPress?.();
  };
  const pressed = radio
    ? { 'aria-checked': isOn === true }
    : isOn === undefined
      ? {}
      : { 'aria-pressed': isOn };
  return (
    <g
      role={radio ? 'radio' : 'button'}
      tabIndex={onPress === null ? undefined : 0}
      aria-label={name}
      {...pressed}
      transform={`translate(${x} ${y})`}
      style={{ cursor: onPress === null ? 'default' : 'pointer' }}
      onClick={() => onPress?.()}
      onKeyDown={onKeyDown}
    >
      {/* As large as a finger, whatever is drawn of it. */}
      <rect x={-2} y={-2} width={width + 4} height={height + 4} fill="transparent" />
      {children}
    </g>
  );
}

/** A key with its word on it. */
export function Key({
  x,
  y,
  width = 66,
  name,
  word,
  isOn,
  radio,
  onPress,
}: {
  x: number;
  y: number;
  width?: number;
  name: string;
  word: string;
  isOn?: boolean;
  radio?: boolean;
  onPress: (() => void) | null;
}) {
  return (
    <Press
      x={x}
      y={y}
      width={width}
      height={40}
      name={name}
      {...(isOn === undefined ? {} : { isOn })}
      {...(radio === undefined ? {} : { radio })}
      onPress={onPress}
    >
      <rect
        width={width}
        height={40}
        rx={4}
        fill={isOn === true ? 'var(--ink)' : 'var(--sheet)'}
        stroke="var(--ink)"
        strokeWidth={2}
      />
      <Text x={width / 2} y={25} weight={600} colour={isOn === true ? 'var(--sheet)' : 'var(--ink)'}>
        {word}
      </Text>
    </Press>
  );
}
