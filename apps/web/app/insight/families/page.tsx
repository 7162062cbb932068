import { LEAST_OF_FAMILY, reliabilityBounds } from '@barys/core/interval';
import { FAMILY_PARTS, familySums, lastFinished, type FamilyPart } from '@barys/store/intervals';
import Stack from '@mui/material/Stack';
import Link from 'next/link';
import { partWords } from '@/places/instruments/history/words';
import { database } from '@/server/database';
import { showMoment } from '@/server/dates';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { PageHead } from '@/ui/PageHead';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'Families' };

type Search = Promise<{ by?: string }>;

const WORDS: Record<FamilyPart, string> = { model: 'By model', measures: 'By service', area: 'By area' };

export default async function FamiliesPage({ searchParams }: { searchParams: Search }) {
  const { by } = await searchParams;
  const part = FAMILY_PARTS.find((one) => one === by) ?? 'model';
  const db = database();
  const [sums, finished] = await Promise.all([familySums(db, part), lastFinished(db)]);
  return (
    <>
      <PageHead
        title="Families"
        about={
          finished === null
            ? 'Counted with the intervals: nothing is worked out yet.'
            : `As found, without calls on a fault and what was not judged; counted ${showMoment(finished.endedAt ?? finished.askedAt)}.`
        }
      />
      <Stack component="nav" aria-label="Group by" direction="row" sx={{ gap: 2, mb: 1, flexWrap: 'wrap' }}>
        {FAMILY_PARTS.map((one) => (
          <Link
            key={one}
            prefetch={false}
            href={`/insight/families?by=${one}`}
            aria-current={one === part ? 'page' : undefined}
            style={{ fontWeight: one === part ? 700 : 400, lineHeight: '44px', color: 'inherit' }}
          >
            {WORDS[one]}
          </Link>
        ))}
      </Stack>
      <Sheet>
        <DataTable
          label={`Reliability, ${WORDS[part].toLowerCase()}`}
          rows={sums}
          keyOf={({ name }) => name}
          none="No calibration has one before it yet, or nothing was worked out since."
          isFaint={({ calibrations }) => calibrations < LEAST_OF_FAMILY}
          columns={[
            [
              'Family',
              ({ name }) =>
                part === 'model' ? (
                  name
                ) : (
                  <Link prefetch={false} href={`/instruments?${new URLSearchParams({ [part]: name })}`}>
                    {name}
                  </Link>
                ),
            ],
            ['Calibrations', ({ calibrations }) => calibrations, 'right'],
            ['Found outside', ({ out }) => out, 'right'],
            [
              'Found inside',
              ({ calibrations, out }) => <Figure>{partWords((calibrations - out) / calibrations)}</Figure>,
              'right',
            ],
            [
              '95 % bounds',
              (sum) => {
                const { twoSided } = reliabilityBounds(sum);
                return (
                  <Figure>
                    {partWords(twoSided.low)} … {partWords(twoSided.high)}
                  </Figure>
                );
              },
              'right',
            ],
          ]}
        />
      </Sheet>
    </>
  );
}
