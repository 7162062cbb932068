'use client';
import type { RequestAnswer } from '@barys/core/port';
import type { ShownBench } from '@barys/store/benches';
import type { Configuration } from '@barys/store/registers';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useCallback, useState } from 'react';
import { useRequest } from '@/places/bench/useRequest';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { usePoll } from '@/ui/usePoll';
import { askForSetupAction } from './actions';
import type { SetupFields } from './fields';
import { readOverLink } from './overLink';

const EVERY_MS = 3000;

interface Transmitter {
  readonly key: string;
  readonly bench: ShownBench;
  readonly device: string;
}

/** Transmitters that are heard of now: what gives a digital value can be asked how it is set. */
const transmittersOf = (benches: readonly ShownBench[]): Transmitter[] =>
  benches
    .filter(({ isThere }) => isThere)
    .flatMap((bench) =>
      bench.values
        .filter(({ channel }) => channel === 'digital value')
        .map(({ device }) => ({ key: `${bench.id} ${device}`, bench, device })),
    );

/** Settings read at the instrument over a link, instead of typed. */
export function OverLink({
  tag,
  configuration,
  benches: first,
  change,
}: {
  tag: string;
  configuration: Configuration;
  benches: readonly ShownBench[];
  change: (patch: Partial<SetupFields>) => void;
}) {
  const [benches, setBenches] = useState(first);
  // Where there is no bench at all, nobody waits for one.
  usePoll(first.length === 0 ? null : '/api/v1/bench', EVERY_MS, setBenches);
  const there = transmittersOf(benches);
  const [chosen, choose] = useState('');
  const [words, setWords] = useState<readonly string[]>([]);
  const one = there.find(({ key }) => key === chosen) ?? there[0];
  const from = one === undefined ? '' : `${one.bench.name}, ${one.device}`;
  const heard = useCallback(
    (answer: RequestAnswer) => {
      if (answer.kind !== 'set-up') {
        setWords([answer.kind === 'trouble' ? answer.words : '']);
        return;
      }
      const found = readOverLink(answer.setup, { tag, configuration }, from);
      change(found.fields);
      setWords(found.words);
    },
    [tag, configuration, from, change],
  );
  const { ask, refused, isPending, waiting } = useRequest(askForSetupAction, heard);
  if (one === undefined) return null;
  return (
    <Sheet title="Read it over a link" sx={{ displayPrint: 'none' }}>
      <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', alignItems: 'center' }}>
        <TextField
          select
          label="Transmitter"
          value={one.key}
          onChange={({ target }) => choose(target.value)}
          sx={{ minWidth: 260, maxWidth: '100%' }}
        >
          {there.map(({ key, bench, device }) => (
            <MenuItem key={key} value={key} sx={{ minHeight: 44 }}>
              {bench.name}, {device}
            </MenuItem>
          ))}
        </TextField>
        <Button
          variant="outlined"
          onClick={() => ask({ tag, bench: one.bench.id, device: one.device })}
          aria-busy={isPending || waiting !== null}
          sx={{ minHeight: 44 }}
        >
          Read its settings
        </Button>
      </Box>
      <Refused answer={refused} />
      <Typography role="status" sx={{ mt: 1 }}>
        {waiting ??
          (words.join(' ') ||
            'Fills in below what it says of itself; nothing is set. What it does not say is read where it stands.')}
      </Typography>
    </Sheet>
  );
}
