import { plannedPoints } from '@barys/core/procedure';
import { acceptedOutput } from '@barys/core/run';
import { expectedOutput } from '@barys/core/signal';
import { formatPlain } from '@barys/core/text';
import { jobsOfInstrument, questionsAt, type JobFile } from '@barys/store/jobs';
import { listReferences, settleWaitS, toleranceOf, type Reference } from '@barys/store/registers';
import { limitsOf, rankReferences } from '@barys/store/runs';
import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import { toleranceInWords } from '@/ui/range/toleranceInWords';
import { ProcedureNotes } from '@/places/office/procedures/ProcedureNotes';
import { pointsInWords } from '@/places/office/procedures/words';
import { database } from '@/server/database';
import { dueInWords, localDate, showDate } from '@/server/dates';
import { Columns } from '@/ui/Columns';
import { Figure } from '@/ui/Figure';
import { figuresFor, pointPercent } from '@/ui/figures';
import { serialWords } from '@/places/references/words';
import { Facts } from '@/ui/Facts';
import { ratioInWords } from '@/ui/ratio';
import { Sheet } from '@/ui/Sheet';
import { Stave } from '@/ui/Stave';
import { VerdictMark } from '@/ui/VerdictMark';
import { Caution, SITE_RULES_FIRST } from '@/places/jobs/Caution';
import { AskedForm } from '@/places/jobs/AskedForm';
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
        <ExpectSheet instrument={instrument} />
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
  const today = localDate(new Date());
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

/** What to apply at each point, and what may be read there. */
function ExpectSheet({ instrument }: { instrument: JobFile['instrument'] }) {
  const { configuration, procedure } = instrument;
  const { content } = procedure;
  const figures = figuresFor(configuration);
  const limits = limitsOf(toleranceOf(instrument));
  const rising = content.direction === 'down' ? 'down' : 'up';
  const first = plannedPoints({ ...content, cycles: 1 }, configuration).filter(
    ({ direction }) => direction === rising,
  );
  return (
    <Sheet
      title="What to apply and expect"
      aside={content.direction === 'up-and-down' ? 'the same coming down' : undefined}
    >
      <Table size="small">
        <TableHead>
          <TableRow>
            <TableCell>Point</TableCell>
            <TableCell align="right">Apply, {figures.inputUnit}</TableCell>
            <TableCell align="right">Expect, {figures.outputUnit}</TableCell>
            <TableCell align="right">Lowest</TableCell>
            <TableCell align="right">Highest</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {first.map(({ position, nominalPercent, applied }) => {
            const { lowest, highest } = acceptedOutput(configuration, limits, applied);
            return (
              <TableRow key={position}>
                <TableCell sx={{ whiteSpace: 'nowrap' }}>{pointPercent(nominalPercent)} %</TableCell>
                {[
                  figures.input(applied),
                  figures.output(expectedOutput(configuration, applied)),
                  figures.output(lowest),
                  figures.output(highest),
                ].map((text, index) => (
                  <TableCell key={index} align="right">
                    <Figure>{text}</Figure>
                  </TableCell>
                ))}
              </TableRow>
            );
          })}
        </TableBody>
      </Table>
    </Sheet>
  );
}
