'use client';
import { formatFixed } from '@barys/core/text';
import { isUnit, unitLabel } from '@barys/core/units';
import type { ShownBench, ShownValue } from '@barys/store/benches';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { Sheet } from '@/ui/Sheet';

const EVERY_MS = 1000;
/** What a reference of the trade resolves; finer digits only flicker. */
const DECIMALS = 4;

/** All benches with what their instruments say, as it is said. */
export function BenchDesk({ first }: { first: readonly ShownBench[] }) {
  const benches = useLive(first);
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
      {benches.map((bench) => (
        <Sheet
          key={bench.id}
          title={bench.name}
          aside={bench.isThere ? 'its link is there' : 'nothing is heard of its link'}
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
                ['Now', (value) => <Figure>{wordsOf(value, bench.isThere)}</Figure>, 'right'],
                [
                  'State',
                  ({ state, isStable, trouble }) =>
                    trouble || `${state}${isStable === true ? ', stable' : ''}`,
                ],
                ['What it is', ({ model }) => model],
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

function useLive(first: readonly ShownBench[]): readonly ShownBench[] {
  const [benches, setBenches] = useState(first);
  useEffect(() => {
    let isHere = true;
    let timer: ReturnType<typeof setTimeout>;
    const look = async () => {
      try {
        const answer = await fetch('/api/v1/bench', { signal: AbortSignal.timeout(4000) });
        if (answer.ok && isHere) setBenches((await answer.json()) as ShownBench[]);
      } catch {
        // It is asked again; until then the last that was heard stands.
      }
      if (isHere) timer = setTimeout(() => void look(), EVERY_MS);
    };
    timer = setTimeout(() => void look(), EVERY_MS);
    return () => {
      isHere = false;
      clearTimeout(timer);
    };
  }, []);
  return benches;
}
