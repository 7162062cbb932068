'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Sheet } from '@/ui/Sheet';
import type { Card } from './shape';

/** Looks for an instrument that nobody planned; it comes first among those without a place. */
function AlsoForm({ from }: { from: string }) {
  const router = useRouter();
  const [tag, setTag] = useState('');
  return (
    <Stack
      component="form"
      direction="row"
      sx={{ gap: 1, mt: 1 }}
      onSubmit={(event) => {
        event.preventDefault();
        if (tag.trim() !== '') router.push(`/planning?${new URLSearchParams({ from, also: tag.trim() })}`);
      }}
    >
      <TextField
        label="Another tag"
        value={tag}
        onChange={(event) => setTag(event.target.value)}
        slotProps={{ htmlInput: { maxLength: 60, autoCapitalize: 'characters' } }}
        sx={{ minWidth: 0, flex: 1 }}
      />
      <Button type="submit">Look</Button>
    </Stack>
  );
}

/** What could be planned and is not, and why. */
export function NotPlaced({
  cards,
  unnamed,
  chosen,
  from,
  unknown,
  onChoose,
}: {
  cards: readonly Card[];
  unnamed: number;
  chosen: number | null;
  /** Monday of the week. */
  from: string;
  /** A tag that was asked for and is of no instrument in service; null where none was. */
  unknown: string | null;
  onChoose: (card: Card) => void;
}) {
  return (
    <Sheet title="Not placed" aside={cards.length + unnamed === 0 ? undefined : cards.length + unnamed}>
      {unknown !== null && (
        <Typography variant="body2" role="alert" sx={{ mb: 1 }}>
          No instrument in service has the tag {unknown}.
        </Typography>
      )}
      {cards.length === 0 && (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          Everything that comes due stands in a plan.
        </Typography>
      )}
      <Box
        component="ul"
        aria-label="Not placed"
        sx={{ listStyle: 'none', m: 0, p: 0, maxHeight: { md: 340 }, overflowY: 'auto' }}
      >
        {cards.map((card) => (
          <li key={card.instrumentId}>
            <Box
              component="button"
              type="button"
              aria-pressed={card.instrumentId === chosen}
              onClick={() => onChoose(card)}
              sx={{
                font: 'inherit',
                fontSize: 14,
                color: 'inherit',
                cursor: 'pointer',
                textAlign: 'left',
                width: 1,
                minHeight: 44,
                py: 0.5,
                px: 0.5,
                border: 0,
                borderTop: '1px solid var(--rule)',
                background: card.instrumentId === chosen ? 'var(--wash)' : 'transparent',
              }}
            >
              <strong>{card.tag}</strong>{' '}
              <Box component="span" sx={{ color: 'text.secondary' }}>
                {card.whyNot}
              </Box>
            </Box>
          </li>
        ))}
      </Box>
      {unnamed > 0 && (
        <Typography variant="body2" sx={{ mt: 0.5 }}>
          and {unnamed.toLocaleString('en')} more: see Due.
        </Typography>
      )}
      <AlsoForm from={from} />
    </Sheet>
  );
}
