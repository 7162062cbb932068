'use client';
import type { JobListLine } from '@barys/store/jobs';
import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Typography from '@mui/material/Typography';
import { startTransition, useOptimistic, useState } from 'react';
import { tickLineAction } from '@/places/jobs/actions/lists';
import { DONE, type Answer } from '@/server/answer';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** The lines of a job's lists, to be ticked; who ticked one stands beside it. */
export function JobLists({ job, lines }: { job: number; lines: readonly JobListLine[] }) {
  const [answer, setAnswer] = useState<Answer>(DONE);
  // A tick shows at once, and goes back where it is refused.
  const [shown, show] = useOptimistic(lines, (before, tick: { line: number; isDone: boolean }) =>
    before.map((line) => (line.id === tick.line ? { ...line, isDone: tick.isDone, doneBy: null } : line)),
  );
  const tick = (line: number, isDone: boolean) =>
    startTransition(async () => {
      show({ line, isDone });
      try {
        setAnswer(await tickLineAction({ job, line, isDone }));
      } catch {
        setAnswer({ error: 'The server does not answer: the tick is not kept. Try again in a moment.' });
      }
    });
  return [...new Set(shown.map(({ list }) => list))].map((list) => {
    const own = shown.filter((line) => line.list === list);
    const done = own.filter(({ isDone }) => isDone).length;
    return (
      <Sheet key={list} title={capital(list)} aside={`${done} of ${own.length} done`} sx={{ mt: 1.5 }}>
        <Box component="ol" sx={{ listStyle: 'none', m: 0, p: 0 }}>
          {own.map(({ id, text, isDone, doneBy }) => (
            <Box component="li" key={id} sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
              <FormControlLabel
                sx={{ minHeight: 44, flex: 1 }}
                control={<Checkbox checked={isDone} onChange={(_event, isTicked) => tick(id, isTicked)} />}
                label={text}
              />
              {isDone && (
                <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                  {doneBy}
                </Typography>
              )}
            </Box>
          ))}
        </Box>
        <Refused answer={answer} />
      </Sheet>
    );
  });
}
