import { formatSigned } from '@barys/core/text';
import { CALIBRATIONS_PAGE, calibrationQuerySchema, listCalibrations } from '@barys/store/insight';
import Stack from '@mui/material/Stack';
import Link from 'next/link';
import { filterWords } from '@/places/insight/filterWords';
import { database } from '@/server/database';
import { showDate } from '@/server/dates';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { Sheet } from '@/ui/Sheet';
import { VerdictMark } from '@/ui/VerdictMark';
import { Whole } from '@/ui/Whole';

export const metadata = { title: 'Calibrations' };

type Search = Promise<Record<string, string | string[] | undefined>>;

export default async function CalibrationsPage({ searchParams }: { searchParams: Search }) {
  const query = calibrationQuerySchema.parse(await searchParams);
  const { lines, count } = await listCalibrations(database(), query);
  const pages = Math.max(1, Math.ceil(count / CALIBRATIONS_PAGE));
  const address = (page: number) =>
    `/insight/calibrations?${new URLSearchParams(
      Object.entries({ ...query, page: String(page) }).filter(([, value]) => value !== '' && value !== '0'),
    )}`;
  const filters = filterWords(query);
  return (
    <>
      <PageHead
        title="Calibrations"
        about={`${count.toLocaleString('en')} ${count === 1 ? 'run' : 'runs'}${filters === '' ? '' : `: ${filters}`}`}
      >
        <LinkButton href="/insight">Back to Insight</LinkButton>
      </PageHead>
      <Sheet>
        <DataTable
          label="Calibrations"
          rows={lines}
          keyOf={({ id }) => id}
          none="No calibration is like this."
          columns={[
            ['When', ({ doneOn }) => <Whole mayBreakOnPhone>{showDate(doneOn)}</Whole>],
            [
              'Instrument',
              ({ tag, service }) => (
                <>
                  <Link prefetch={false} href={`/instruments/${encodeURIComponent(tag)}/history`}>
                    {tag}
                  </Link>{' '}
                  {service}
                </>
              ),
            ],
            [
              'Job',
              ({ jobId }) =>
                jobId === null ? (
                  'brought in'
                ) : (
                  <Link prefetch={false} href={`/jobs/${jobId}/record`}>
                    {jobId}
                  </Link>
                ),
            ],
            ['Run', ({ kind }) => <Whole mayBreakOnPhone>{kind.replace('-', ' ')}</Whole>],
            ['Verdict', ({ verdict }) => verdict !== null && <VerdictMark verdict={verdict} isShort />],
            [
              'Worst, of its limit',
              ({ worstOfLimit }) => (
                <Figure>{worstOfLimit === null ? '—' : formatSigned(worstOfLimit, 2)}</Figure>
              ),
              'right',
            ],
            ['Body', ({ model }) => model],
            ['Reference', ({ standard }) => standard],
            ['Who', ({ doneBy }) => <Whole mayBreakOnPhone>{doneBy}</Whole>],
          ]}
        />
        {pages > 1 && (
          <Stack direction="row" sx={{ alignItems: 'center', justifyContent: 'flex-end', mt: 1 }}>
            <LinkButton href={address(query.page - 1)} isDisabled={query.page === 0}>
              Before
            </LinkButton>
            {query.page + 1} of {pages}
            <LinkButton href={address(query.page + 1)} isDisabled={query.page + 1 >= pages}>
              Next
            </LinkButton>
          </Stack>
        )}
      </Sheet>
    </>
  );
}
