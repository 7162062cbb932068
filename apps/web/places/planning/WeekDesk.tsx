'use client';
import Alert from '@mui/material/Alert';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import { useEffect, useRef, useState } from 'react';
import type { Answer } from '@/server/answer';
import { DONE } from '@/server/answer';
import { Columns } from '@/ui/Columns';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { CardSheet } from './CardSheet';
import { NotPlaced } from './NotPlaced';
import { ReferenceBars } from './ReferenceBars';
import type { Board, Card } from './shape';
import { useMoves } from './useMoves';
import { WalkLine } from './WalkLine';
import { WeekBoard } from './WeekBoard';
import { dayWord } from './words';

/** The day whose walk is shown: that of the chosen card, else the first that has one from today on. */
function walkOf(board: Board, cards: readonly Card[], chosen: Card | undefined) {
  const open = cards.filter(({ isDone }) => !isDone);
  const one =
    chosen?.day === null || chosen === undefined || chosen.isDone
      ? board.days
          .filter(({ isPast }) => !isPast)
          .flatMap(({ day }) => open.filter((card) => card.day === day))[0]
      : chosen;
  if (one === undefined) return null;
  const name = board.people.find(({ id }) => id === one.personId)?.name ?? '';
  return {
    title: `Walk, ${dayWord(one.day ?? '')}, ${name}`,
    cards: open.filter(({ personId, day }) => personId === one.personId && day === one.day),
  };
}

/** So many are named; the hand-over has all. */
const MOST_NAMED = 4;

/** What stands isolated, bypassed, in manual or under pressure, whatever the plan says. */
function RightNow({ standing }: { standing: readonly { readonly id: number; readonly tag: string }[] }) {
  const named = standing.slice(0, MOST_NAMED).map(({ tag }) => tag);
  const more = standing.length - named.length;
  return (
    <Sheet title="Right now">
      <Typography variant="body2">
        {standing.length === 0
          ? 'Nothing stands otherwise than in service, as far as it was kept.'
          : `Not as in service: ${named.join(', ')}${more > 0 ? ` and ${more} more` : ''}.`}
      </Typography>
      <Typography variant="body2" sx={{ mt: 0.5 }}>
        <Link prefetch={false} href="/jobs/hand-over">
          Hand over the shift
        </Link>
      </Typography>
    </Sheet>
  );
}

/** How long after an act a card that comes to stand elsewhere still gets the focus, ms. */
const FOCUS_MS = 1500;

/** A card that was moved is another element of the page at its new place: the focus goes with it, now and when the server has answered. */
function useFocusOf(cards: readonly Card[]): (instrumentId: number) => void {
  const held = useRef<{ readonly id: number; readonly until: number } | null>(null);
  useEffect(() => {
    if (held.current === null) return;
    if (Date.now() < held.current.until) focusCard(held.current.id);
    else held.current = null;
  }, [cards]);
  return (id) => {
    held.current = { id, until: Date.now() + FOCUS_MS };
    focusCard(id);
  };
}

/** Only where what had the focus is gone; whoever went on is left alone. */
function focusCard(id: number): void {
  if (document.activeElement === null || document.activeElement === document.body)
    document.querySelector<HTMLElement>(`[data-card="${id}"]`)?.focus();
}

const EMPTY_WEEK = (
  <Alert severity="info" variant="outlined" sx={{ mt: 1.5 }}>
    Nothing stands in this week yet. A planner has a plan made of what comes due, or puts in one by one what
    is not placed.
  </Alert>
);

const HOW_TO_MOVE = (
  <Typography variant="body2" sx={{ color: 'text.secondary', mt: 1, displayPrint: 'none' }}>
    Drag a card to another day or person (with a finger: hold it first), or press an arrow key with Alt held
    down. What is moved by hand is fixed: planning anew leaves it there.
  </Typography>
);

interface WeekProps {
  board: Board;
  /** Monday of the week. */
  from: string;
  mayChange: boolean;
  /** An instrument that the address asks for. */
  asked: number | null;
  unknown: string | null;
  walkMinutes: number;
  /** Jobs whose instruments stand otherwise than in service right now. */
  standing: readonly { readonly id: number; readonly tag: string }[];
}

/** The week at work: what is chosen, what is moved, what that breaks. */
export function WeekDesk({ board, from, mayChange, asked, unknown, walkMinutes, standing }: WeekProps) {
  const { cards, answer: moveAnswer, move } = useMoves(board.cards);
  const [chosen, setChosen] = useState<number | null>(asked);
  const [answer, setAnswer] = useState<Answer>(DONE);
  const all = [...cards, ...board.notPlaced];
  const card = all.find(({ instrumentId }) => instrumentId === chosen);

  const focus = useFocusOf(cards);

  const sheet = useRef<HTMLDivElement>(null);
  const choose = ({ instrumentId }: Card) => {
    setChosen(instrumentId === chosen ? null : instrumentId);
    // Below the board, where there is no room beside it.
    if (instrumentId !== chosen) setTimeout(() => sheet.current?.scrollIntoView({ block: 'nearest' }));
  };
  const onMove = (moved: Card, personId: number, day: string) => {
    focus(moved.instrumentId);
    setChosen(moved.instrumentId);
    move(moved, personId, day);
  };
  const walk = walkOf(board, cards, card);
  return (
    <Columns columns="minmax(0, 1fr) 248px">
      <Sheet>
        <WeekBoard
          board={board}
          cards={cards}
          chosen={chosen}
          mayChange={mayChange}
          onChoose={choose}
          onMove={onMove}
        />
        {cards.length === 0 && EMPTY_WEEK}
        <ReferenceBars board={board} />
        {walk !== null && <WalkLine {...walk} walkMinutes={walkMinutes} />}
        {mayChange && cards.length > 0 && HOW_TO_MOVE}
      </Sheet>
      <Stack sx={{ gap: 1.5, displayPrint: 'none' }}>
        {(moveAnswer.error ?? answer.error) !== null && (
          <Refused answer={moveAnswer.error === null ? answer : moveAnswer} />
        )}
        {card !== undefined && (
          <div ref={sheet}>
            <CardSheet
              key={card.instrumentId}
              card={card}
              board={board}
              from={from}
              mayChange={mayChange}
              onAnswer={setAnswer}
              onPut={() => focus(card.instrumentId)}
            />
          </div>
        )}
        <NotPlaced
          cards={board.notPlaced}
          unnamed={board.unnamed}
          chosen={chosen}
          from={from}
          unknown={unknown}
          onChoose={choose}
        />
        <RightNow standing={standing} />
      </Stack>
    </Columns>
  );
}
