import type { Suffices } from '@barys/core/adjust';
import type { Verdict } from '@barys/core/run';
import Box from '@mui/material/Box';
import { VerdictMark } from '@/ui/VerdictMark';

const MARK: Readonly<Record<Suffices, { readonly verdict: Verdict; readonly word: string }>> = {
  surely: { verdict: 'within', word: 'all inside' },
  likely: { verdict: 'undecided', word: 'likely inside' },
  no: { verdict: 'outside', word: 'not enough' },
};

/** Whether an act brings all points inside the adjust limit, by the marks of the verdicts. */
export function SufficesMark({ suffices }: { suffices: Suffices }) {
  const { verdict, word } = MARK[suffices];
  return (
    <Box
      component="span"
      sx={{ display: 'inline-flex', gap: 0.75, alignItems: 'center', whiteSpace: 'nowrap' }}
    >
      <span aria-hidden>
        <VerdictMark verdict={verdict} isMarkOnly />
      </span>
      {word}
    </Box>
  );
}
