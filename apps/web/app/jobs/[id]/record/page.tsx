import { asFoundRun, asLeftRun, type JobFile, type Run } from '@barys/store';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { AdjustmentTable } from '@/jobs/AdjustmentTable';
import { JobHead } from '@/jobs/JobHead';
import { RunSummary } from '@/jobs/RunSummary';
import { RunTable } from '@/jobs/RunTable';
import { StageHistory } from '@/jobs/StageHistory';
import { CHECK_WORD, REASON_WORD, STAGE_WORD } from '@/jobs/words';
import { certificateWords } from '@/references/words';
import { showMoment } from '@/server/dates';
import { Columns } from '@/ui/Columns';
import { Corridor, CorridorKey } from '@/ui/Corridor';
import { corridorPoints } from '@/ui/corridor';
import { figuresFor } from '@/ui/figures';
import { Facts } from '@/ui/Facts';
import { LinkButton } from '@/ui/LinkButton';
import { Sheet } from '@/ui/Sheet';
import { loadJobOr404 } from '../load';

type Params = Promise<{ id: string }>;

export async function generateMetadata({ params }: { params: Params }) {
  return { title: `Record of job ${(await params).id}` };
}

export default async function RecordPage({ params }: { params: Params }) {
  const job = await loadJobOr404((await params).id);
  const asFound = asFoundRun(job);
  const asLeft = asLeftRun(job);
  return (
    <>
      <JobHead job={job} />
      <Stack direction="row" sx={{ gap: 1, mb: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
        {job.stage === 'closed' ? (
          <Button variant="contained" component="a" href={`/jobs/${job.id}/certificate`} download>
            Download certificate (PDF)
          </Button>
        ) : (
          <>
            <Typography sx={{ fontWeight: 700 }}>Not signed yet: this is the record so far.</Typography>
            <LinkButton href={`/jobs/${job.id}`} isMain>
              Back to {STAGE_WORD[job.stage]}
            </LinkButton>
          </>
        )}
        <LinkButton href={`/instruments/${job.tag}`}>Instrument {job.tag}</LinkButton>
      </Stack>
      <Columns columns="1fr 1fr">
        <Visit job={job} />
        {asFound !== null && (
          <Sheet title="Error against the limit" aside={<CorridorKey hasAsLeft={asLeft !== null} />}>
            <Corridor
              asFound={corridorPoints(asFound)}
              asLeft={asLeft === null ? [] : corridorPoints(asLeft)}
              adjustAbovePercent={asFound.madeWith.tolerance.adjustAbovePercentOfLimit}
              height={240}
            />
          </Sheet>
        )}
        {job.runs.map((run) => (
          <RunRecord key={run.id} run={run} />
        ))}
        {job.adjustments.length > 0 && asFound !== null && (
          <Sheet title="Adjustments" sx={{ gridColumn: '1 / -1' }}>
            <AdjustmentTable adjustments={job.adjustments} {...figuresFor(asFound.madeWith.configuration)} />
          </Sheet>
        )}
        <Sheet title="How the job went" sx={{ gridColumn: '1 / -1' }}>
          <StageHistory job={job} />
        </Sheet>
      </Columns>
    </>
  );
}

function Visit({ job }: { job: JobFile }) {
  const { connection } = job;
  return (
    <Sheet title="Visit">
      <Facts
        facts={[
          ['Why', REASON_WORD[job.reason]],
          ['Opened', `${showMoment(job.openedAt)}, ${job.openedBy}`],
          [
            'Signed',
            job.signedAt === null ? 'not yet' : `${showMoment(job.signedAt)}, ${job.signedBy ?? ''}`,
          ],
          ...(job.remark === '' ? [] : [['Remark', job.remark] as const]),
          ...(connection === null
            ? []
            : ([
                [
                  'Reference',
                  `${connection.pressureReference.tag}, ${certificateWords(connection.pressureReference)}`,
                ],
                ['Meter', `${connection.meter.tag}, ${certificateWords(connection.meter)}`],
                [
                  'Ambient',
                  `${connection.ambient.temperatureC} °C, ${connection.ambient.humidityPercent} %, ${connection.ambient.barometerHpa} hPa`,
                ],
                ...(connection.referenceReason === ''
                  ? []
                  : [['Used though unfit', connection.referenceReason] as const]),
                ['Checked', connection.checksDone.map((check) => CHECK_WORD[check]).join('; ') || 'nothing'],
              ] as const)),
        ]}
      />
    </Sheet>
  );
}

function RunRecord({ run }: { run: Run }) {
  const name = run.kind === 'as-found' ? 'As found' : `As left${run.pass > 1 ? `, pass ${run.pass}` : ''}`;
  return (
    <Sheet title={name} aside={`${run.startedBy}, ${showMoment(run.startedAt)}`}>
      <RunSummary run={run} />
      <Box sx={{ mt: 1.5 }}>
        <RunTable run={run} />
      </Box>
      {run.superseded.length > 0 && (
        <Typography variant="body2" sx={{ mt: 1, color: 'text.secondary' }}>
          Corrected since and kept:{' '}
          {run.superseded
            .map(
              ({ position, outputText, readBy, readAt }) =>
                `point ${position} read ${outputText} (${readBy}, ${showMoment(readAt)})`,
            )
            .join('; ')}
        </Typography>
      )}
    </Sheet>
  );
}
