'use client';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { followLines } from '@/ui/followLines';
import type { VerifyLine } from './verifyLine';

const count = (number: number, word: string): string =>
  `${number.toLocaleString('en')} ${word}${number === 1 ? '' : 's'}`;

function inWords(line: Exclude<VerifyLine, { what: string }>): string {
  if ('error' in line) return line.error;
  const { found } = line;
  return found.isSound
    ? `All is as it was written: ${count(found.seals, 'seal')}, ${found.entries.toLocaleString('en')} entries, ${count(found.records, 'record')}.`
    : `Not as it was written. The first thing that differs is ${found.where}.`;
}

/** Checks records, trail and seals against each other and says how they stand. */
export function VerifyButton() {
  const [told, setTold] = useState('');
  const [running, setRunning] = useState<{ what: string; percent: number } | null>(null);
  const run = async () => {
    setTold('');
    setRunning({ what: 'begins', percent: 0 });
    try {
      const answer = await fetch('/office/trail/verify', { method: 'POST' });
      if (!answer.ok || answer.body === null) {
        const { detail } = (await answer.json()) as { detail?: string };
        setTold(detail ?? 'The server could not check the trail. Try again.');
      } else
        await followLines(answer.body, (one) => {
          const line = one as VerifyLine;
          if ('what' in line)
            setRunning({ what: line.what, percent: (100 * line.done) / Math.max(1, line.of) });
          else setTold(inWords(line));
        });
    } catch {
      setTold('The server does not answer. Try again.');
    }
    setRunning(null);
  };
  return (
    <Stack direction="row" sx={{ gap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
      <Typography role="status" variant="body2" sx={{ maxWidth: 460 }}>
        {told}
      </Typography>
      {running !== null && (
        <Stack sx={{ width: 180 }}>
          <Typography variant="caption">Checking: {running.what}</Typography>
          <LinearProgress
            variant="determinate"
            value={running.percent}
            aria-label={`Checking: ${running.what}`}
          />
        </Stack>
      )}
      <Button variant="outlined" disabled={running !== null} onClick={() => void run()}>
        Check the trail
      </Button>
    </Stack>
  );
}
