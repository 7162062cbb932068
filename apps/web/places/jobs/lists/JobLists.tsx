'use client';
import type { JobListLine } from '@barys/store/jobs';
import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Typography from '@mui/material/Typography';
import { tickLineAction } from '@/places/jobs/actions/lists';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { useSubmit } from '@/ui/useSubmit';

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** The lines of a job's lists, to be ticked; who ticked one stands beside it. */
export function JobLists({ job, lines }: { job: number; lines: readonly JobListLine[] }) {
  const { answer, isPending, submit } = useSubmit(tickLineAction);
  const names = [...new Set(lines.map(({ list }) => list))];
  return names.map((list) => {
    const own = lines.filter((line) => line.list === list);
    const done = own.filter(({ isDone }) => isDone).length;
    return (
      <Sheet key={list} title={capital(list)} aside={`${done} of ${own.length} done`} sx={{ mt: 1.5 }}>
        <Box component="ol" sx={{ listStyle: 'none', m: 0, p: 0 }} aria-busy={isPending}>
          {own.map(({ id, text, isDone, doneBy }) => (
            <Box component="li" key={id} sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
              <FormControlLabel
                sx={{ minHeight: 44, flex: 1 }}
                control={
                  <Checkbox
                    checked={isDone}
                    onChange={(_event, isTicked) => submit({ job, line: id, isDone: isTicked })}
                  />
                }
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
