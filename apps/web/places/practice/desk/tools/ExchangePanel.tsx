'use client';
/** The exchange of a body: which one comes out of the store, and the steps, done one by one. */
import { formatPlain } from '@barys/core/text';
import type { Act, PracticeBench } from '@barys/rig/practice';
import CheckOutlined from '@mui/icons-material/CheckOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Radio from '@mui/material/Radio';
import RadioGroup from '@mui/material/RadioGroup';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Sheet } from '@/ui/Sheet';

/** The steps stand in the order of the alphabet: which comes when is the trainee's to know. */
const shuffled = (steps: readonly { readonly words: string }[]) =>
  steps.map((step, place) => ({ ...step, place })).sort((a, b) => a.words.localeCompare(b.words, 'en'));

export function ExchangePanel({ bench, onDo }: { bench: PracticeBench; onDo: (act: Act) => string | null }) {
  const [answer, setAnswer] = useState('');
  const { exchange, lesson } = bench;
  if (exchange === null || lesson.swap === null) return null;
  return (
    <Sheet
      title="Exchange of the body"
      aside={answer === '' ? undefined : <span role="status">{answer}</span>}
    >
      <Typography variant="body2" sx={{ mb: 0.5 }}>
        In the store, accuracy as a share of its upper limit:
      </Typography>
      <RadioGroup
        row
        aria-label="Body from the store"
        value={exchange.body ?? ''}
        onChange={(_event, body) => setAnswer(onDo({ do: 'pick body', body: Number(body) }) ?? '')}
      >
        {lesson.swap.bodies.map(({ name, accuracyPercent }, place) => (
          <FormControlLabel
            key={name}
            value={place}
            control={<Radio />}
            label={`${name}, ±${formatPlain(accuracyPercent)} %`}
          />
        ))}
      </RadioGroup>
      <Box
        component="ul"
        sx={{
          listStyle: 'none',
          m: 0,
          p: 0,
          display: 'grid',
          gap: 1,
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', sm: '1fr 1fr' },
        }}
      >
        {shuffled(lesson.swap.steps).map(({ words, place }) => (
          <Box component="li" key={words}>
            <Button
              onClick={() => setAnswer(onDo({ do: 'swap', step: place }) ?? '')}
              disabled={exchange.made.has(place)}
              startIcon={exchange.made.has(place) ? <CheckOutlined /> : undefined}
              variant="outlined"
              fullWidth
              sx={{ minHeight: 44, height: '100%', lineHeight: 1.2 }}
            >
              {words}
            </Button>
          </Box>
        ))}
      </Box>
    </Sheet>
  );
}
