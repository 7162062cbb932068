import {
  ADVICE_PAGE,
  adviceQuerySchema,
  countAdvice,
  lastCalculation,
  lastFinished,
  listAdvice,
} from '@barys/store/intervals';
import { SCHEDULING_ROLES } from '@barys/store/people';
import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { AdviceFilters } from '@/places/insight/intervals/AdviceFilters';
import { AdviceTable } from '@/places/insight/intervals/AdviceTable';
import { CalculationDesk } from '@/places/insight/intervals/CalculationDesk';
import { standing } from '@/places/insight/intervals/standing';
import { differenceWords } from '@/places/instruments/history/words';
import { database } from '@/server/database';
import { actingPerson } from '@/server/person';
import { PageHead } from '@/ui/PageHead';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'Intervals' };

type Search = Promise<Record<string, string | string[] | undefined>>;

const KINDS = [
  ['', 'All'],
  ['shorter', 'Shorter'],
  ['look', 'Look at it'],
  ['longer', 'Longer'],
  ['keep', 'Keep'],
  ['none', 'Too little known'],
  ['worth a look', 'Worth a look'],
] as const;

export default async function IntervalsPage({ searchParams }: { searchParams: Search }) {
  const query = adviceQuerySchema.parse(await searchParams);
  const db = database();
  const [{ lines, count }, counts, last, finished, person] = await Promise.all([
    listAdvice(db, query),
    countAdvice(db),
    lastCalculation(db),
    lastFinished(db),
    actingPerson(),
  ]);
  const all = [...counts].reduce((sum, [kind, of]) => sum + (kind === 'worth a look' ? 0 : of), 0);
  const differences = finished?.differences ?? [];
  return (
    <>
      <PageHead title="Intervals" about={standing(last, finished)}>
        <CalculationDesk
          running={last?.state === 'runs' ? last : null}
          mayAsk={person !== null && SCHEDULING_ROLES.includes(person.role)}
        />
      </PageHead>
      <Stack sx={{ gap: 1.5 }}>
        {differences.length > 0 && (
          <Sheet title="Differ from the others">
            <Box component="ul" sx={{ m: 0, pl: 2.25 }}>
              {differences.map((one) => (
                <Typography key={`${one.of} ${one.name}`} component="li" variant="body2">
                  {differenceWords(one)}
                </Typography>
              ))}
            </Box>
          </Sheet>
        )}
        <Sheet>
          <AdviceFilters
            key={query.q}
            kind={query.kind}
            q={query.q}
            page={query.page}
            pages={Math.ceil(count / ADVICE_PAGE)}
            kinds={KINDS.map(([kind, words]) => ({
              kind,
              words,
              count: kind === '' ? all : (counts.get(kind) ?? 0),
            }))}
          />
          <AdviceTable
            lines={lines}
            none={
              last === null
                ? 'Nothing is worked out yet.'
                : 'No instrument here. Take away a filter or a word.'
            }
          />
        </Sheet>
      </Stack>
    </>
  );
}
