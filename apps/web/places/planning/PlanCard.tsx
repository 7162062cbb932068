'use client';
import { useDraggable } from '@dnd-kit/core';
import CheckOutlined from '@mui/icons-material/CheckOutlined';
import PushPinOutlined from '@mui/icons-material/PushPinOutlined';
import Box from '@mui/material/Box';
import type { KeyboardEvent } from 'react';
import { FIGURES } from '@/ui/theme';
import type { Card } from './shape';

const WAY_OF_KEY: Readonly<Record<string, readonly [days: number, people: number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

const nameOf = ({ clock, tag, area, minutes, isFixed, isDone, clashes }: Card): string =>
  [
    clock ?? 'done',
    tag,
    area,
    `${minutes} min`,
    ...(isFixed && !isDone ? ['fixed'] : []),
    ...(clashes.length > 0 ? ['clashes'] : []),
  ].join(', ');

const edge = ({ clashes }: Card, isChosen: boolean): string => {
  if (clashes.length > 0) return '2px solid var(--outside)';
  return isChosen ? '2px solid var(--now)' : '2px solid transparent';
};

/** One instrument in somebody's day. */
export function PlanCard({
  card,
  isChosen,
  mayChange,
  onChoose,
  onStep,
}: {
  card: Card;
  isChosen: boolean;
  mayChange: boolean;
  onChoose: () => void;
  /** Moved by so many days and people. */
  onStep: (days: number, people: number) => void;
}) {
  const canMove = mayChange && !card.isDone;
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({
    id: card.instrumentId,
    disabled: !canMove,
  });
  const onKeyDown = (event: KeyboardEvent) => {
    const way = event.altKey && canMove ? WAY_OF_KEY[event.key] : undefined;
    if (way === undefined) return;
    event.preventDefault();
    onStep(...way);
  };
  return (
    <Box
      component="button"
      type="button"
      ref={setNodeRef}
      data-card={card.instrumentId}
      aria-label={nameOf(card)}
      aria-pressed={isChosen}
      onClick={onChoose}
      onKeyDown={onKeyDown}
      {...listeners}
      sx={{
        font: 'inherit',
        color: card.isDone ? 'text.secondary' : 'inherit',
        textAlign: 'left',
        display: 'block',
        width: 1,
        minHeight: 44,
        py: 0.25,
        lineHeight: 1.3,
        px: 0.5,
        border: edge(card, isChosen),
        background: isChosen ? 'var(--wash)' : 'var(--sheet)',
        cursor: canMove ? 'grab' : 'pointer',
        position: 'relative',
        zIndex: isDragging ? 2 : 'auto',
        ...(transform === null ? {} : { transform: `translate(${transform.x}px, ${transform.y}px)` }),
        touchAction: 'manipulation',
        WebkitTouchCallout: 'none',
        userSelect: 'none',
        fontSize: 13,
      }}
    >
      <Box component="span" sx={{ display: 'flex', gap: 0.75, alignItems: 'center' }}>
        <Box component="span" sx={{ fontFamily: FIGURES, flex: 'none' }}>
          {card.clock ?? <CheckOutlined sx={{ fontSize: 16, verticalAlign: 'middle' }} />}
        </Box>
        <strong>{card.tag}</strong>
        {card.clashes.length > 0 && (
          <Box component="span" aria-hidden sx={{ color: 'var(--outside)' }}>
            ◆
          </Box>
        )}
        {card.isFixed && !card.isDone && <PushPinOutlined aria-hidden sx={{ fontSize: 14, ml: 'auto' }} />}
      </Box>
      <Box component="span" sx={{ display: 'block', color: 'text.secondary', fontSize: 12 }}>
        {card.area}
      </Box>
    </Box>
  );
}
