'use client';
/** What a stage asks before it can be left, and the way past it with a reason. */
import type { AskingStage, Question } from '@barys/store/jobs';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControl from '@mui/material/FormControl';
import FormControlLabel from '@mui/material/FormControlLabel';
import FormLabel from '@mui/material/FormLabel';
import Radio from '@mui/material/Radio';
import RadioGroup from '@mui/material/RadioGroup';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { Refused } from '@/ui/Refused';
import { asItStands, useSubmit } from '@/ui/useSubmit';
import { passAskedAction } from './actions/stages';

export function AskedForm({
  job,
  stage,
  questions,
  word,
  isSkippable = true,
  takesFocus = true,
}: {
  job: number;
  stage: AskingStage;
  questions: readonly Question[];
  /** What the button says. */
  word: string;
  isSkippable?: boolean;
  /** Whether the hand goes here first; not where something else on the page comes before. */
  takesFocus?: boolean;
}) {
  const { answer, isPending, form } = useSubmit(passAskedAction, `${stage} ${job}`);
  const [isSkipping, setIsSkipping] = useState(false);
  return (
    <form {...form(asItStands)} noValidate>
      <input type="hidden" name="job" value={job} />
      <input type="hidden" name="stage" value={stage} />
      <Stack sx={{ gap: 1 }}>
        {questions.map((question, index) => (
          <Asked key={question.key} question={question} isFirst={takesFocus && index === 0} />
        ))}
        {isSkipping && (
          <TextField
            name="skipReason"
            label="Why this stage is passed over; the record keeps it"
            fullWidth
            autoFocus
          />
        )}
        <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
          {!isSkipping && (
            <Button
              type="submit"
              variant="contained"
              size="large"
              aria-busy={isPending}
              autoFocus={questions.length === 0}
            >
              {word}
            </Button>
          )}
          {isSkipping && (
            <Button type="submit" variant="contained" size="large" aria-busy={isPending}>
              Pass over it
            </Button>
          )}
          {isSkippable && (
            <Button onClick={() => setIsSkipping(!isSkipping)}>
              {isSkipping ? 'Do not pass over it' : 'Pass over this stage'}
            </Button>
          )}
        </Stack>
      </Stack>
      <Refused answer={answer} />
    </form>
  );
}

/** One question; its field is named after its key. Also asked in forms that are not a stage's own. */
export function Asked({ question, isFirst = false }: { question: Question; isFirst?: boolean }) {
  const { key, text, kind, options = [], example } = question;
  const name = `answer.${key}`;
  if (kind === 'tick')
    return (
      <FormControlLabel
        sx={{ minHeight: 44, my: -0.5 }}
        control={<Checkbox name={name} value="done" autoFocus={isFirst} />}
        label={text}
      />
    );
  if (kind === 'choice')
    return (
      <FormControl>
        <FormLabel id={name}>{text}</FormLabel>
        <RadioGroup name={name} aria-labelledby={name} row>
          {options.map((option) => (
            <FormControlLabel key={option} value={option} control={<Radio />} label={option} />
          ))}
        </RadioGroup>
      </FormControl>
    );
  return (
    <Box>
      <FormLabel htmlFor={name} sx={{ display: 'block', mb: 0.5 }}>
        {text}
      </FormLabel>
      <TextField
        id={name}
        name={name}
        fullWidth
        autoComplete="off"
        autoFocus={isFirst}
        placeholder={example}
      />
    </Box>
  );
}
