'use client';
import { formatFixed } from '@barys/core/text';
import { isUnit, unitLabel } from '@barys/core/units';
import type { ShownBench, ShownValue } from '@barys/store/benches';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import { useState } from 'react';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { Sheet } from '@/ui/Sheet';
import { usePoll } from '@/ui/usePoll';

const EVERY_MS = 1000;
/** What a reference of the trade resolves; finer digits only flicker. */
const DECIMALS = 4;

/** All benches with what their instruments say, as it is said. */
export function BenchDesk({ first }: { first: readonly ShownBench[] }) {
  const [benches, setBenches] = useState(first);
  const isAway = usePoll('/api/v1/bench', EVERY_MS, setBenches);
  if (benches.length === 0)
    return (
      <Sheet>
        <Typography>
          No bench yet. An administrator makes a token for one at <Link href="/account">Account</Link> (“stand
          at a bench as a link”); the link is started beside the instruments with it:{' '}
          <code>npm run link</code>.
        </Typography>
      </Sheet>
    );
  return (
    <Stack sx={{ gap: 1.5 }}>
      {isAway && (
        <Typography role="status" sx={{ color: 'var(--outside)', fontWeight: 600 }}>
          The server does not answer: what the instruments say now is not known here.
        </Typography>
      )}
      {benches.map((bench) => (
        <Sheet
          key={bench.id}
          title={bench.name}
          aside={isAway ? '' : bench.isThere ? 'its link is there' : 'nothing is heard of its link'}
        >
          {bench.values.length === 0 ? (
            <Typography>Nothing was heard of it yet.</Typography>
          ) : (
            <DataTable
              label={`At ${bench.name}`}
              rows={bench.values}
              keyOf={({ device, channel }) => `${device} ${channel}`}
              columns={[
                ['Instrument', ({ device, channel }) => `${device}, ${channel}`],
                ['Now', (value) => <Figure>{wordsOf(value, bench.isThere && !isAway)}</Figure>, 'right'],
                [
                  'State',
                  ({ state, isStable, trouble }) =>
                    isAway ? '' : trouble || `${state}${isStable === true ? ', stable' : ''}`,
                ],
                ['What it is', ({ model, serial }) => [model, serial].filter(Boolean).join(', ')],
              ]}
            />
          )}
        </Sheet>
      ))}
    </Stack>
  );
}

/** A value that is old is none. */
function wordsOf({ value, unit }: ShownValue, isThere: boolean): string {
  if (value === null || !isThere) return 'no value';
  // A loop is spoken of in milliamperes.
  return unit === 'A'
    ? `${formatFixed(value * 1000, DECIMALS)} mA`
    : `${formatFixed(value, DECIMALS)} ${isUnit(unit) ? unitLabel(unit) : unit}`;
}
