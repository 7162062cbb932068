import { formatPlain } from '@barys/core/text';
import { jobsOfInstrument, questionsAt, type JobFile } from '@barys/store/jobs';
import { listReferences, settleWaitS, toleranceOf, type Reference } from '@barys/store/registers';
import { rankReferences } from '@barys/store/runs';
import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { toleranceInWords } from '@/ui/range/toleranceInWords';
import { ProcedureNotes } from '@/places/office/procedures/ProcedureNotes';
import { pointsInWords } from '@/places/office/procedures/words';
import { database } from '@/server/database';
import { dueInWords, showDate } from '@/server/dates';
import { moment } from '@/server/moment';
import { Columns } from '@/ui/Columns';
import { serialWords } from '@/places/references/words';
import { Facts } from '@/ui/Facts';
import { ratioInWords } from '@/ui/ratio';
import { Sheet } from '@/ui/Sheet';
import { Stave } from '@/ui/Stave';
import { VerdictMark } from '@/ui/VerdictMark';
import { Caution, SITE_RULES_FIRST } from '@/places/jobs/Caution';
import { AskedForm } from '@/places/jobs/AskedForm';
import { ExpectTable } from '@/places/jobs/ExpectTable';
import { PlanSheet } from '@/places/jobs/PlanSheet';
import { REASON_WORD, sinceFacts } from '@/places/jobs/words';

export async function BriefStage({ job }: { job: JobFile }) {
  const { instrument } = job;
  const { configuration, procedure } = instrument;
  const [history, references] = await Promise.all([
    jobsOfInstrument(database(), instrument.id),
    listReferences(database()),
  ]);
  return (
    <Columns columns="1fr 1.15fr">
      <Stack sx={{ gap: 1.5 }}>
        <WorkSheet job={job} history={history} references={references} />
        <Caution>
          {instrument.hazards.length > 0 && (
            <Box component="strong" sx={{ display: 'block' }}>
              Hazards here: {instrument.hazards.join('; ')}.
            </Box>
          )}
          Before you touch it: permit, controller in manual, trips bypassed by an authorised person, isolate,
          vent, prove zero energy. {SITE_RULES_FIRST}
        </Caution>
        <ProcedureNotes content={procedure.content} />
        <Typography>
          For where no screen may go: field sheet on{' '}
          <a href={`/jobs/${job.id}/field-sheet`} download>
            A4
          </a>{' '}
          or{' '}
          <a href={`/jobs/${job.id}/field-sheet?paper=letter`} download>
            Letter
          </a>
        </Typography>
        {job.stage === 'brief' && (
          <AskedForm
            job={job.id}
            stage="brief"
            questions={questionsAt('brief', instrument)}
            word="Brief read, authorise"
            isSkippable={false}
          />
        )}
      </Stack>
      <Stack sx={{ gap: 1.5 }}>
        <Sheet title="Signal stave" aside={`body: ${instrument.body.model}`}>
          <Stave body={instrument.body} configuration={configuration} spacing={54} />
        </Sheet>
        <Sheet
          title="What to apply and expect"
          aside={procedure.content.direction === 'up-and-down' ? 'the same coming down' : undefined}
        >
          <ExpectTable instrument={instrument} />
        </Sheet>
        <PlanSheet job={job} />
      </Stack>
    </Columns>
  );
}

/** What the job is about, and what it is judged by. */
function WorkSheet({
  job,
  history,
  references,
}: {
  job: JobFile;
  history: Awaited<ReturnType<typeof jobsOfInstrument>>;
  references: readonly Reference[];
}) {
  const { instrument } = job;
  const { configuration, procedure } = instrument;
  const { content } = procedure;
  const tolerance = toleranceOf(instrument);
  const { today } = moment();
  const last = history.find(({ signedAt }) => signedAt !== null);
  const suitable = rankReferences(references, instrument, 'input', { today }).filter(
    ({ unfit }) => unfit === null,
  );
  const waitS = settleWaitS(content, configuration.dampingS);
  return (
    <Sheet title="The work">
      <Facts
        facts={[
          [
            'Why',
            `${REASON_WORD[job.reason]}; due ${showDate(instrument.dueOn)} (${dueInWords(instrument.dueOn, today)})`,
          ],
          ['Where', instrument.area],
          ...sinceFacts(job),
          ['Instrument', `${instrument.body.model}, ${serialWords(instrument.serial)}`],
          ['Procedure', `${procedure.name}, version ${procedure.version}: ${pointsInWords(content)}`],
          [
            'Settling',
            `${formatPlain(Number(waitS.toPrecision(2)))} s after each step, then steady for ${formatPlain(content.settle.holdS)} s within ${formatPlain(content.settle.bandPercent)} % of span`,
          ],
          [
            'Limit',
            `${toleranceInWords(tolerance)}; adjust above ${formatPlain(tolerance.adjustAbovePercentOfLimit)} % of it`,
          ],
          [
            'Last time',
            last?.signedAt == null || last.asFoundVerdict === null || last.asLeftVerdict === null ? (
              'no record yet'
            ) : (
              <Box component="span" key="last" sx={{ display: 'inline-flex', gap: 1, flexWrap: 'wrap' }}>
                {showDate(last.signedAt)}: found <VerdictMark verdict={last.asFoundVerdict} isShort /> left{' '}
                <VerdictMark verdict={last.asLeftVerdict} isShort />
              </Box>
            ),
          ],
          [
            'References',
            suitable.length === 0
              ? `none in date is ${content.leastRatio} times as good as the tolerance`
              : suitable
                  .map(
                    ({ reference, ratio }) =>
                      `${reference.tag}${ratio === null ? '' : ` (${ratioInWords(ratio)})`}`,
                  )
                  .join(', ') + `; at least ${content.leastRatio} : 1 is asked for`,
          ],
        ]}
      />
    </Sheet>
  );
}
