'use client';
/** The week: a row for each person, a column for each day. On a phone the days stand one under the other. */
import {
  DndContext,
  MouseSensor,
  pointerWithin,
  TouchSensor,
  useDroppable,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { PlanCard } from './PlanCard';
import type { Board, BoardDay, BoardPerson, Card } from './shape';
import { dayWord, hoursWord } from './words';

/** Width of the first column, px. */
export const HEAD_PX = 132;
export const gridOf = (days: number): string => `${HEAD_PX}px repeat(${days}, minmax(0, 1fr))`;

const cellKey = (personId: number, day: string): string => `${personId} ${day}`;

function Cell({
  person,
  day,
  place,
  isWorking,
  children,
}: {
  person: BoardPerson;
  day: BoardDay;
  place: { readonly row: number; readonly column: number };
  isWorking: boolean;
  children: ReactNode;
}) {
  const { setNodeRef, isOver } = useDroppable({ id: cellKey(person.id, day.day), disabled: day.isPast });
  const isEmpty = Array.isArray(children) && children.length === 0;
  return (
    <Box
      ref={setNodeRef}
      role="group"
      aria-label={`${person.name}, ${dayWord(day.day)}`}
      sx={{
        gridRow: { md: place.row },
        gridColumn: { md: place.column },
        borderLeft: { md: '1px solid var(--rule)' },
        borderTop: { md: '1px solid var(--rule)' },
        p: { xs: 0, md: '4px 3px' },
        minHeight: { md: 52 },
        minWidth: 0,
        background: isOver ? 'var(--wash)' : day.isPast ? 'var(--paper)' : 'transparent',
        display: { xs: isEmpty && isWorking ? 'none' : 'block', md: 'block' },
      }}
    >
      <Typography variant="body2" sx={{ display: { md: 'none' }, color: 'text.secondary', mt: 0.5 }}>
        {person.name}
      </Typography>
      {children}
      {!isWorking && (
        <Typography variant="body2" sx={{ color: 'text.secondary', fontSize: 13, px: 0.5 }}>
          not at work
        </Typography>
      )}
    </Box>
  );
}

function PersonHead({ person, row }: { person: BoardPerson; row: number }) {
  const total = (minutes: readonly number[]) => minutes.reduce((sum, of) => sum + of, 0);
  return (
    <Box
      sx={{
        gridRow: row,
        gridColumn: 1,
        borderTop: '1px solid var(--rule)',
        pt: 0.75,
        pr: 1,
        display: { xs: 'none', md: 'block' },
      }}
    >
      <Typography sx={{ fontWeight: 700, lineHeight: 1.2, overflowWrap: 'anywhere' }}>
        {person.name}
      </Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {hoursWord(total(person.used))} of {hoursWord(total(person.minutes))}
      </Typography>
    </Box>
  );
}

/** Areas that stand still on a day. */
function Still({ shutdowns, day }: { shutdowns: Board['shutdowns']; day: string }) {
  return shutdowns
    .filter((one) => one.firstDay <= day && day <= one.lastDay)
    .map((one) => (
      <Typography
        key={one.id}
        variant="body2"
        sx={{ background: 'var(--rule)', color: 'var(--ink)', px: 0.5, mb: 0.25, fontSize: 13 }}
      >
        {one.area} shut down{one.what === '' ? '' : `, ${one.what}`}
      </Typography>
    ));
}

interface Hands {
  readonly mayChange: boolean;
  readonly onChoose: (card: Card) => void;
  readonly onMove: (card: Card, personId: number, day: string) => void;
}

/** Where a card goes that is dragged to a cell, or stepped by keys. */
function useMoving({ days, people }: Board, cards: readonly Card[], onMove: Hands['onMove']) {
  const put = (card: Card, person: BoardPerson | undefined, day: BoardDay | undefined) => {
    if (person === undefined || day === undefined || day.isPast) return;
    if (person.id !== card.personId || day.day !== card.day) onMove(card, person.id, day.day);
  };
  return {
    sensors: useSensors(
      useSensor(MouseSensor, { activationConstraint: { distance: 6 } }),
      // A finger that stays takes hold of a card; one that goes on scrolls.
      useSensor(TouchSensor, { activationConstraint: { delay: 250, tolerance: 6 } }),
    ),
    onDragEnd: ({ active, over }: DragEndEvent) => {
      const card = cards.find(({ instrumentId }) => instrumentId === active.id);
      if (card === undefined || over === null) return;
      for (const person of people)
        for (const day of days) if (cellKey(person.id, day.day) === over.id) put(card, person, day);
    },
    step: (card: Card, byDays: number, byPeople: number) =>
      put(
        card,
        people[people.findIndex(({ id }) => id === card.personId) + byPeople],
        days[days.findIndex(({ day }) => day === card.day) + byDays],
      ),
  };
}

function DayHead({ day, column }: { day: BoardDay; column: number }) {
  return (
    <Typography
      variant="h3"
      sx={{
        gridRow: { md: 1 },
        gridColumn: { md: column },
        borderLeft: { md: '1px solid var(--rule)' },
        px: { md: 0.5 },
        pb: 0.5,
        pt: { xs: 1.5, md: 0 },
        color: day.isPast ? 'text.secondary' : 'inherit',
        boxShadow: day.isToday ? 'inset 0 -3px 0 var(--now)' : 'none',
      }}
    >
      {dayWord(day.day)}
      {day.isToday && ', today'}
    </Typography>
  );
}

/** The last row: what the plant itself does. */
function PlantHead({ row }: { row: number }) {
  return (
    <Box
      sx={{
        gridRow: row,
        gridColumn: 1,
        display: { xs: 'none', md: 'block' },
        borderTop: '1px solid var(--rule)',
        pt: 0.5,
      }}
    >
      Plant
    </Box>
  );
}

function PlantDay({ row, column, children }: { row: number; column: number; children: ReactNode }) {
  return (
    <Box
      sx={{
        gridRow: { md: row },
        gridColumn: { md: column },
        borderLeft: { md: '1px solid var(--rule)' },
        borderTop: { md: '1px solid var(--rule)' },
        p: { md: '4px 3px' },
        minHeight: { md: 30 },
        minWidth: 0,
      }}
    >
      {children}
    </Box>
  );
}

/** The cards of one person on one day, in the order of their clock. */
const cardsOf = (cards: readonly Card[], personId: number, day: string): readonly Card[] =>
  cards
    .filter((card) => card.personId === personId && card.day === day)
    .sort((a, b) => (a.clock ?? '').localeCompare(b.clock ?? '') || a.tag.localeCompare(b.tag));

export function WeekBoard({
  board,
  cards,
  chosen,
  mayChange,
  onChoose,
  onMove,
}: Hands & {
  board: Board;
  /** As they stand, also what is not kept yet. */
  cards: readonly Card[];
  chosen: number | null;
}) {
  const { days, people, shutdowns } = board;
  const { sensors, onDragEnd, step } = useMoving(board, cards, onMove);
  const plantRow = people.length + 2;
  return (
    <DndContext id="week" sensors={sensors} collisionDetection={pointerWithin} onDragEnd={onDragEnd}>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: gridOf(days.length) },
        }}
      >
        {people.map((person, index) => (
          <PersonHead key={person.id} person={person} row={index + 2} />
        ))}
        <PlantHead row={plantRow} />
        {days.map((day, column) => [
          <DayHead key={day.day} day={day} column={column + 2} />,
          ...people.map((person, row) => (
            <Cell
              key={cellKey(person.id, day.day)}
              person={person}
              day={day}
              place={{ row: row + 2, column: column + 2 }}
              isWorking={(person.minutes[column] ?? 0) > 0}
            >
              {cardsOf(cards, person.id, day.day).map((card) => (
                <PlanCard
                  key={card.instrumentId}
                  card={card}
                  isChosen={card.instrumentId === chosen}
                  mayChange={mayChange}
                  onChoose={() => onChoose(card)}
                  onStep={(byDays, byPeople) => step(card, byDays, byPeople)}
                />
              ))}
            </Cell>
          )),
          <PlantDay key={`plant ${day.day}`} row={plantRow} column={column + 2}>
            <Still shutdowns={shutdowns} day={day.day} />
          </PlantDay>,
        ])}
      </Box>
    </DndContext>
  );
}
