import { formatPlain } from '@barys/core';
import { findInstrument, jobsOfInstrument, StoreError } from '@barys/store';
import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { notFound } from 'next/navigation';
import { rangeInWords } from '@/instruments/rangeInWords';
import { StartJob } from '@/instruments/StartJob';
import { JobTable } from '@/jobs/JobTable';
import { STAGE_WORD } from '@/jobs/words';
import { database } from '@/server/database';
import { dueInWords, localDate, showDate } from '@/server/dates';
import { Columns } from '@/ui/Columns';
import { Facts } from '@/ui/Facts';
import { LinkButton } from '@/ui/LinkButton';
import { Sheet } from '@/ui/Sheet';
import { Stave } from '@/ui/Stave';

type Params = Promise<{ tag: string }>;

export async function generateMetadata({ params }: { params: Params }) {
  return { title: (await params).tag };
}

async function load(tag: string) {
  try {
    const instrument = await findInstrument(database(), { tag });
    return { instrument, jobs: await jobsOfInstrument(database(), instrument.id) };
  } catch (error) {
    if (error instanceof StoreError && error.refusal.code === 'no-such') notFound();
    throw error;
  }
}

export default async function InstrumentPage({ params }: { params: Params }) {
  const { instrument, jobs } = await load(decodeURIComponent((await params).tag));
  const { configuration, body, tolerance, dueOn } = instrument;
  const today = localDate(new Date());
  const open = jobs.find((job) => job.stage !== 'closed');
  return (
    <>
      <Stack direction="row" sx={{ alignItems: 'flex-start', gap: 3, flexWrap: 'wrap', mb: 1.5 }}>
        <Box>
          <Typography variant="h1">
            {instrument.tag}{' '}
            <Box component="span" sx={{ fontWeight: 400 }}>
              {instrument.service}
            </Box>
          </Typography>
          <Typography sx={{ color: 'text.secondary' }}>{rangeInWords(configuration)}</Typography>
        </Box>
        <Box sx={{ ml: { md: 'auto' } }}>
          {open === undefined ? (
            <StartJob tag={instrument.tag} />
          ) : (
            <LinkButton href={`/jobs/${open.id}`} isMain>
              Go on with job {open.id}: {STAGE_WORD[open.stage]}
            </LinkButton>
          )}
        </Box>
      </Stack>
      <Columns columns="1.5fr 1fr">
        <Sheet title="Signal stave" aside={`body: ${body.model}`}>
          <Stave body={body} configuration={configuration} spacing={76} />
        </Sheet>
        <Sheet title="Identity and limits">
          <Facts
            facts={[
              [
                'Next due',
                `${showDate(dueOn)} (${dueInWords(dueOn, today)}), every ${instrument.intervalMonths} months`,
              ],
              ['Tolerance', `±${formatPlain(tolerance.percentOfSpan)} % of output span`],
              ['Adjust above', `${formatPlain(tolerance.adjustAbovePercentOfLimit)} % of the tolerance`],
              ['Points', `${instrument.testPoints.map(formatPlain).join(', ')} % up and down`],
              ['Damping', `${formatPlain(configuration.dampingS)} s`],
              ['Area', instrument.area],
              ['Hazards', instrument.hazards.length === 0 ? 'none entered' : instrument.hazards.join('; ')],
              ['Serial', instrument.serial],
              [
                'Configuration',
                `version ${configuration.version}, ${showDate(configuration.madeAt)}, ${configuration.madeBy}: ${configuration.reason}`,
              ],
            ]}
          />
        </Sheet>
        <Sheet title="Jobs on this instrument" sx={{ gridColumn: '1 / -1' }}>
          <JobTable
            jobs={jobs}
            showInstrument={false}
            empty="None yet. The first signed job sets the next due date."
          />
        </Sheet>
      </Columns>
    </>
  );
}
