import { JOB_REASONS, jobsOfInstrument, whyNotFor, whyNotWalkable } from '@barys/store/jobs';
import { rangeMisfit } from '@barys/store/registers';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { StartJob } from '@/places/instruments/StartJob';
import { JobTable } from '@/places/jobs/JobTable';
import { STAGE_WORD } from '@/places/jobs/words';
import { rangeInWords } from '@/ui/range/rangeInWords';
import { database } from '@/server/database';
import { localDate } from '@/server/dates';
import { Columns } from '@/ui/Columns';
import { Facts } from '@/ui/Facts';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { Sheet } from '@/ui/Sheet';
import { loadInstrument, type Params } from '@/places/instruments/load';
import { foundInWorkshop, FromWorkshop } from '@/places/instruments/FromWorkshop';
import { StaveSheet } from '@/places/instruments/StaveSheet';
import { registerFacts } from '@/places/instruments/registerFacts';

export async function generateMetadata({ params }: { params: Params }) {
  return { title: decodeURIComponent((await params).tag) };
}

export default async function InstrumentPage({ params }: { params: Params }) {
  const instrument = await loadInstrument(params);
  const db = database();
  const [jobs, found] = await Promise.all([jobsOfInstrument(db, instrument.id), foundInWorkshop(instrument)]);
  const { configuration, body, tag } = instrument;
  const open = jobs.find((job) => job.signedAt === null && job.cancelledAt === null);
  const misfit = rangeMisfit(body, configuration.inputUnit, configuration.lrv, configuration.urv);
  const why = whyNotWalkable(instrument);
  return (
    <>
      <PageHead
        title={
          <>
            {tag}{' '}
            <Box component="span" sx={{ fontWeight: 400 }}>
              {instrument.service}
            </Box>
          </>
        }
        about={rangeInWords(configuration)}
      >
        {open !== undefined ? (
          <LinkButton href={`/jobs/${open.id}`} isMain>
            Go on with job {open.id}: {STAGE_WORD[open.stage]}
          </LinkButton>
        ) : why === null ? (
          <StartJob
            tag={tag}
            reasons={JOB_REASONS.filter(
              (reason) =>
                whyNotFor(reason, instrument) === null && (reason !== 'loop check' || found.loops.length > 0),
            )}
          />
        ) : (
          <Typography variant="body2" sx={{ color: 'text.secondary', maxWidth: 380 }}>
            {why}
          </Typography>
        )}
      </PageHead>
      {misfit !== null && (
        <Alert severity="warning" variant="outlined" sx={{ mb: 1.5 }}>
          {misfit}
        </Alert>
      )}
      <Columns columns="1.5fr 1fr">
        <Stack sx={{ gap: 1.5 }}>
          <StaveSheet instrument={instrument} />
          <Sheet title="Jobs on this instrument">
            <JobTable
              jobs={jobs}
              showInstrument={false}
              empty="None yet. The first signed job sets the next due date."
            />
          </Sheet>
          <FromWorkshop instrument={instrument} found={found} />
        </Stack>
        <Sheet title="Identity and limits">
          <Facts facts={registerFacts(instrument, localDate(new Date()))} />
        </Sheet>
      </Columns>
    </>
  );
}
