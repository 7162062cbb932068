'use client';
import type { RequestAnswer } from '@barys/core/port';
import type { ShownBench } from '@barys/store/benches';
import type { Configuration } from '@barys/store/registers';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useCallback, useState } from 'react';
import { TransmitterChoice, useTransmitter } from '@/places/bench/TransmitterChoice';
import { useRequest } from '@/places/bench/useRequest';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { askForSetupAction } from './actions';
import type { SetupFields } from './fields';
import { readOverLink } from './overLink';

/** Settings read at the instrument over a link, instead of typed. */
export function OverLink({
  tag,
  configuration,
  benches,
  change,
}: {
  tag: string;
  configuration: Configuration;
  benches: readonly ShownBench[];
  change: (patch: Partial<SetupFields>) => void;
}) {
  const { one, ...choice } = useTransmitter(benches);
  const [words, setWords] = useState<readonly string[]>([]);
  const from = one?.words ?? '';
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
  if (one === null) return null;
  return (
    <Sheet title="Read it over a link" sx={{ displayPrint: 'none' }}>
      <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', alignItems: 'center' }}>
        <TransmitterChoice one={one} {...choice} />
        <Button
          variant="outlined"
          onClick={() => ask({ tag, bench: one.bench, device: one.device })}
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
