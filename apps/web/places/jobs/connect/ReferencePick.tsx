'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Radio from '@mui/material/Radio';
import RadioGroup from '@mui/material/RadioGroup';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Sheet } from '@/ui/Sheet';

export interface ReferenceChoice {
  readonly id: number;
  readonly tag: string;
  readonly about: string;
  readonly ratio: string | null;
  readonly dueOn: string;
  readonly unfit: string | null;
}

function Choice({ choice }: { choice: ReferenceChoice }) {
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', borderTop: '1px solid var(--rule)' }}>
      <FormControlLabel
        value={String(choice.id)}
        control={<Radio size="small" />}
        sx={{ mr: 1, flex: 1, py: 0.25 }}
        label={
          <Box sx={{ lineHeight: 1.25 }}>
            <strong>{choice.tag}</strong> {choice.about}
            <Typography variant="body2" sx={{ color: 'text.secondary' }}>
              {choice.unfit === null ? `in date until ${choice.dueOn}` : `does not fit: ${choice.unfit}`}
            </Typography>
          </Box>
        }
      />
      <Typography sx={{ whiteSpace: 'nowrap', color: choice.unfit === null ? 'inherit' : 'text.secondary' }}>
        {choice.ratio ?? '–'}
      </Typography>
    </Box>
  );
}

/** The standards that serve, the best first and chosen; the weaker ones behind a word. */
export function ReferencePick({
  name,
  title,
  choices,
}: {
  name: string;
  title: string;
  choices: readonly ReferenceChoice[];
}) {
  const fitting = choices.filter(({ unfit }) => unfit === null);
  // Where none fits, the weaker ones are what there is to choose from.
  const [isOpen, setIsOpen] = useState(fitting.length === 0);
  const others = choices.filter((choice) => !fitting.includes(choice));
  const [first] = fitting;
  return (
    <Sheet title={title} aside="accuracy ratio">
      {first === undefined && (
        <Typography>
          None alone is good enough for these points. Two may share them (below), or another one is taken with
          a reason, which the record keeps.
        </Typography>
      )}
      <RadioGroup name={name} defaultValue={first === undefined ? '' : String(first.id)} aria-label={title}>
        {fitting.map((choice) => (
          <Choice key={choice.id} choice={choice} />
        ))}
        {others.length > 0 && (
          <>
            <Button
              onClick={() => setIsOpen(!isOpen)}
              aria-expanded={isOpen}
              sx={{ px: 0, alignSelf: 'flex-start' }}
            >
              {others.length} more {others.length === 1 ? 'is' : 'are'} weaker or{' '}
              {others.length === 1 ? 'does' : 'do'} not fit
            </Button>
            {isOpen && others.map((choice) => <Choice key={choice.id} choice={choice} />)}
          </>
        )}
      </RadioGroup>
    </Sheet>
  );
}
