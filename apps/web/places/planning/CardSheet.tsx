'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import { useCallback, useEffect, useState } from 'react';
import type { Answer } from '@/server/answer';
import { Draft } from '@/ui/Draft';
import { FieldGrid, unplaced, type FieldSpec } from '@/ui/FieldGrid';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { useSubmit } from '@/ui/useSubmit';
import { useTyped } from '@/ui/useTyped';
import { fixAction, putAction, takeOutAction } from './actions';
import type { Board, Card } from './shape';
import type { WayOut } from './ways';
import { dayWord, dueWords } from './words';

type Found = readonly WayOut[] | 'looking' | 'no answer';

/** Looks for places where a card breaks nothing; anew whenever something of the plan has changed. */
function useWays(card: Card, from: string, isWanted: boolean): Found {
  const [found, setFound] = useState<{ readonly of: Card; readonly ways: Found } | null>(null);
  const { instrumentId } = card;
  const look = useCallback(
    async (signal: AbortSignal): Promise<Found> => {
      const address = `/planning/ways?${new URLSearchParams({ from, instrument: String(instrumentId) })}`;
      try {
        const answer = await fetch(address, { signal });
        return answer.ok ? ((await answer.json()) as { ways: WayOut[] }).ways : 'no answer';
      } catch {
        return 'no answer';
      }
    },
    [from, instrumentId],
  );
  useEffect(() => {
    if (!isWanted) return;
    const ending = new AbortController();
    void look(ending.signal).then((ways) => {
      if (!ending.signal.aborted) setFound({ of: card, ways });
    });
    return () => ending.abort();
  }, [card, isWanted, look]);
  return found?.of === card ? found.ways : 'looking';
}

const sameReferences = (a: readonly string[], b: readonly string[]): boolean => a.join() === b.join();

/** What a way changes, in words. */
function wayWords(card: Card, { personId, day, clock, moves }: WayOut, board: Board): string {
  const name = board.people.find(({ id }) => id === personId)?.name ?? '';
  const references = moves[0]?.references ?? [];
  const isSamePlace = card.personId === personId && card.day === day;
  const others = moves.length - 1;
  return [
    isSamePlace ? '' : `${dayWord(day)} ${clock}, ${name}`,
    sameReferences(references, card.references) ? '' : `with ${references.join(', ')}`,
    others === 0 ? '' : `and ${others} isolated with it`,
  ]
    .filter((part) => part !== '')
    .join(', ');
}

function Ways({
  card,
  board,
  from,
  onAnswer,
  onPut,
}: {
  card: Card;
  board: Board;
  from: string;
  onAnswer: (answer: Answer) => void;
  onPut: () => void;
}) {
  const ways = useWays(card, from, !card.isDone);
  const { submit, isPending } = useSubmit(async (moves: WayOut['moves']) => {
    const found = await putAction(moves);
    onAnswer(found);
    if (found.error === null) onPut();
    return found;
  });
  if (ways === 'looking')
    return (
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        Looking where it fits …
      </Typography>
    );
  if (ways === 'no answer')
    return (
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        The server does not say where it fits. Choose below.
      </Typography>
    );
  const other = ways.map((way) => ({ way, words: wayWords(card, way, board) })).filter(({ words }) => words);
  if (other.length === 0)
    return (
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {card.clashes.length === 0 && card.day !== null
          ? 'It fits nowhere else in this week.'
          : 'It fits nowhere in this week without breaking something.'}
      </Typography>
    );
  return (
    <Stack component="ul" aria-label="Where it fits" sx={{ listStyle: 'none', m: 0, p: 0, gap: 0.5 }}>
      {other.map(({ way, words }) => (
        <li key={words}>
          <Button
            variant={card.clashes.length > 0 || card.day === null ? 'outlined' : 'text'}
            onClick={() => submit(way.moves)}
            aria-busy={isPending}
            sx={{ textAlign: 'left', justifyContent: 'flex-start', lineHeight: 1.25, width: 1 }}
          >
            {words}
          </Button>
        </li>
      ))}
    </Stack>
  );
}

/** Where a card goes, from fields. */
function PutForm({ card, board, onPut }: { card: Card; board: Board; onPut: () => void }) {
  const [first] = board.people;
  const free = board.days.filter(({ isPast }) => !isPast);
  const isFree = free.some(({ day }) => day === card.day);
  const [fields, change, draft] = useTyped<Record<string, string>>(
    {
      personId: String(card.personId ?? first?.id ?? ''),
      day: isFree ? (card.day ?? '') : (free[0]?.day ?? ''),
      minutes: String(card.minutes),
      ...Object.fromEntries(
        card.serving.map((serving, place) => [
          `reference${place}`,
          card.references[place] ?? serving[0] ?? '',
        ]),
      ),
    },
    `plan of ${card.instrumentId} ${card.revision ?? 'new'}`,
  );
  const { answer, isPending, form } = useSubmit(putAction);
  const onKept = () => {
    draft.forget();
    onPut();
  };
  const specs: readonly FieldSpec[] = [
    {
      name: 'personId',
      label: 'Who',
      options: board.people.map(({ id, name }) => [String(id), name] as const),
      width: 12,
    },
    { name: 'day', label: 'Day', options: free.map(({ day }) => [day, dayWord(day)] as const), width: 7 },
    { name: 'minutes', label: 'Minutes', kind: 'number', width: 5 },
    ...card.serving.map((serving, place) => ({
      name: `reference${place}`,
      label: card.serving.length > 1 ? `Reference ${place + 1}` : 'Reference',
      options: [...new Set([...(card.references[place] ? [card.references[place]] : []), ...serving])],
      width: 6,
    })),
  ];
  if (free.length === 0 || first === undefined) return null;
  return (
    <form
      {...form(
        () => [
          {
            instrumentId: card.instrumentId,
            seen: card.revision,
            personId: Number(fields['personId']),
            day: fields['day'] ?? '',
            minutes: fields['minutes'] ?? '',
            references: card.serving.map((_, place) => fields[`reference${place}`] ?? '').filter(Boolean),
          },
        ],
        onKept,
      )}
    >
      <Draft draft={draft} />
      <FieldGrid specs={specs} fields={fields} change={change} answer={answer} />
      <Button type="submit" variant="outlined" aria-busy={isPending} sx={{ mt: 1 }}>
        {card.day === null ? 'Put it in' : 'Put it there'}
      </Button>
      <Refused answer={unplaced(specs, answer)} />
    </form>
  );
}

/** What else can be done with what stands in the plan. */
function Acts({ card, onAnswer }: { card: Card; onAnswer: (answer: Answer) => void }) {
  const told =
    <Entry,>(action: (entry: Entry) => Promise<Answer>) =>
    async (entry: Entry) => {
      const found = await action(entry);
      onAnswer(found);
      return found;
    };
  const fix = useSubmit(told(fixAction));
  const out = useSubmit(told(takeOutAction));
  if (card.day === null || card.revision === null) return null;
  const one = { instrumentId: card.instrumentId, seen: card.revision };
  return (
    <Stack direction="row" sx={{ flexWrap: 'wrap', gap: 0.5 }}>
      <Button onClick={() => fix.submit({ ...one, isFixed: !card.isFixed })} aria-busy={fix.isPending}>
        {card.isFixed ? 'Leave it to the next plan' : 'Fix it here'}
      </Button>
      <Button onClick={() => out.submit(one)} aria-busy={out.isPending}>
        Take it out
      </Button>
    </Stack>
  );
}

const placeWords = ({ day, clock, minutes, personId }: Card, board: Board): string => {
  const name = board.people.find(({ id }) => id === personId)?.name ?? 'somebody';
  return day === null ? '' : `${name}, ${dayWord(day)}${clock === null ? '' : ` ${clock}`}, ${minutes} min`;
};

/** One card: where it stands, what it breaks, where it would fit, and what can be done with it. */
export function CardSheet({
  card,
  board,
  from,
  mayChange,
  onAnswer,
  onPut,
}: {
  card: Card;
  board: Board;
  /** Monday of the week. */
  from: string;
  mayChange: boolean;
  onAnswer: (answer: Answer) => void;
  /** It was put somewhere, and its form is gone: the focus is to go on with it. */
  onPut: () => void;
}) {
  const on = card.day ?? board.days.find(({ isPast }) => !isPast)?.day ?? card.dueOn;
  const isOpen = mayChange && !card.isDone;
  return (
    <Sheet
      title={card.tag}
      sx={card.clashes.length > 0 ? { borderColor: 'var(--outside)', borderWidth: 2 } : {}}
    >
      <Typography variant="body2">{card.service}</Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {card.area}
        {card.isolatedWith === '' ? '' : `, isolated with ${card.isolatedWith}`};{' '}
        {dueWords(card.dueOn, on, board.graceDays)}
      </Typography>
      <Typography variant="body2" sx={{ my: 0.5 }}>
        {card.day === null ? `Not in the plan: ${card.whyNot}.` : placeWords(card, board)}
        {card.references.length > 0 && card.day !== null && `, with ${card.references.join(', ')}`}
      </Typography>
      {card.clashes.map((words) => (
        <Typography key={words} variant="body2" sx={{ fontWeight: 700, my: 0.5 }}>
          <Box component="span" aria-hidden sx={{ color: 'var(--outside)' }}>
            ◆{' '}
          </Box>
          {words}
        </Typography>
      ))}
      <Typography variant="body2" sx={{ my: 0.5 }}>
        <Link href={`/instruments/${encodeURIComponent(card.tag)}`}>Instrument</Link>
        {card.jobId !== null && (
          <>
            {' · '}
            <Link href={`/jobs/${card.jobId}`}>
              {card.isDone ? `done in job ${card.jobId}` : `job ${card.jobId} is open`}
            </Link>
          </>
        )}
      </Typography>
      {isOpen && (
        <Stack sx={{ gap: 1.25, mt: 1 }}>
          <Ways card={card} board={board} from={from} onAnswer={onAnswer} onPut={onPut} />
          <PutForm
            key={`${card.revision} ${card.day} ${card.personId}`}
            card={card}
            board={board}
            onPut={onPut}
          />
          <Acts card={card} onAnswer={onAnswer} />
        </Stack>
      )}
    </Sheet>
  );
}
