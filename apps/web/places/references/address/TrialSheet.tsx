'use client';
import type { RequestAnswer, Tried } from '@barys/core/port';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useRequest } from '@/places/bench/useRequest';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { askForTrialAction } from './actions';

const NOT_YET =
  'It is asked who it is, for each of its values, and what else it says of itself; nothing is set.';

function wordsOf(answer: RequestAnswer | null): string {
  if (answer === null) return NOT_YET;
  if (answer.kind === 'trouble') return answer.words;
  return answer.kind === 'trial' && answer.tried.every(({ isGood }) => isGood)
    ? 'It answers as it was entered.'
    : 'It does not answer as it was entered.';
}

/** The instrument asked each of its questions once, by the link of its bench. */
export function TrialSheet({ standardId }: { standardId: number }) {
  const { ask, refused, isPending, waiting, answer } = useRequest(askForTrialAction);
  return (
    <Sheet title="Try it">
      <Button
        variant="outlined"
        onClick={() => ask({ standardId })}
        aria-busy={isPending || waiting !== null}
        sx={{ minHeight: 44 }}
      >
        Try it
      </Button>
      <Refused answer={refused} />
      <Typography role="status" sx={{ mt: 1 }}>
        {waiting ?? wordsOf(answer)}
      </Typography>
      {answer?.kind === 'trial' && <TriedTable tried={answer.tried} />}
    </Sheet>
  );
}

function TriedTable({ tried }: { tried: readonly Tried[] }) {
  return (
    <DataTable
      label="What it answered"
      rows={tried}
      keyOf={({ what }) => what}
      columns={[
        ['For', ({ what }) => what],
        ['Asked', ({ asked }) => <Figure>{asked}</Figure>],
        [
          'Answered',
          ({ answered }) => (
            <Figure sx={{ whiteSpace: 'normal', overflowWrap: 'anywhere' }}>{answered || '—'}</Figure>
          ),
        ],
        [
          'Understood',
          ({ words, isGood }) => (
            <span style={isGood ? {} : { color: 'var(--outside)', fontWeight: 600 }}>{words}</span>
          ),
        ],
      ]}
    />
  );
}
