import type { Act } from '@barys/core/adjust';
import { CoreError } from '@barys/core/errors';
import type { RunEvaluation } from '@barys/core/run';
import { formatPlain, formatSignificant, parseTyped } from '@barys/core/text';
import { StoreError } from '@barys/store/db';
import { asFoundRun, knownBeside, type JobFile } from '@barys/store/jobs';
import type { SpanTolerance } from '@barys/store/registers';
import {
  adviceOnRun,
  besideOf,
  besideVerdicts,
  bodyOfRun,
  evaluateStoredRun,
  weighRun,
} from '@barys/store/runs';
import Alert from '@mui/material/Alert';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { database } from '@/server/database';
import { corridorOf } from '@/ui/corridor-shape';
import { Columns } from '@/ui/Columns';
import { CorridorSheet } from '@/ui/CorridorSheet';
import { figuresOfRun, pointWords } from '@/ui/figures';
import { Sheet } from '@/ui/Sheet';
import { Findings, WhatToDo } from '@/places/jobs/advice/AdvicePanel';
import { shownActs } from '@/places/jobs/advice/shownActs';
import { BesideTable } from '@/places/jobs/BesideTable';
import { DecideForm } from '@/places/jobs/DecideForm';
import { RunSummary } from '@/places/jobs/RunSummary';
import { LoopSheet } from '@/places/jobs/loop/LoopSheet';
import { SegmentBoard } from '@/places/jobs/loop/SegmentBoard';
import { shownLoop } from '@/places/jobs/loop/shownLoop';
import { causeInWords } from '@/places/jobs/suspects/CauseRecord';
import { shownSuspects } from '@/places/jobs/suspects/shown';
import { SuspectBoard } from '@/places/jobs/suspects/SuspectBoard';
import { RunTable } from '@/places/jobs/RunTable';

/** What the readings of a gauge over decades ask for, in a sentence: each point stands by itself. */
function plainAdvice(
  { verdict, readings }: RunEvaluation,
  { adjustAbovePercentOfLimit }: SpanTolerance,
): string {
  const outside = readings.filter((reading) => reading.verdict === 'outside').length;
  const strip = `${formatPlain(adjustAbovePercentOfLimit)} % of the limit`;
  switch (verdict) {
    case 'outside':
      return `${outside} of ${readings.length} readings are outside the limit: adjust, then run as left.`;
    case 'within-adjust':
      return `All readings are inside the limit, but at least one is past ${strip}: adjust.`;
    case 'not-judged': {
      const open = readings.filter((reading) => reading.verdict === 'not-judged').length;
      return `${open} of ${readings.length} readings cannot be judged with this standard: their uncertainty is larger than the limit. Take a better standard and read them again.`;
    }
    case 'undecided':
      return 'At least one reading lies so near the limit that its uncertainty reaches over it: decide by the site rule.';
    case 'within':
    case null:
      return `All readings are inside ${strip}: leave it alone. Not adjusting keeps the drift history clean.`;
  }
}

/** What a second indication says; the stages of a transmitter and friction are in the advice itself. */
function BesideAdvice({ verdicts }: { verdicts: ReturnType<typeof besideVerdicts> }) {
  return (
    verdicts.second === 'outside' && (
      <Typography sx={{ mb: 1.5 }}>The second indication is outside its own tolerance.</Typography>
    )
  );
}

/** Says plainly where the limit is small against the uncertainty. */
function LowRatio({ evaluation, leastRatio }: { evaluation: RunEvaluation; leastRatio: number }) {
  const known = evaluation.readings.flatMap((reading) =>
    reading.uncertainty === undefined || reading.uncertainty === 0
      ? []
      : [{ reading, ratio: reading.limit / reading.uncertainty }],
  );
  const low = known.filter(({ ratio }) => ratio < leastRatio);
  const [worst] = low.sort((a, b) => a.ratio - b.ratio);
  if (worst === undefined) return null;
  return (
    <Alert severity="warning" variant="outlined" sx={{ mb: 1.5 }}>
      The limit is less than {formatPlain(leastRatio)} times the uncertainty at {low.length} of {known.length}{' '}
      readings; least is {formatSignificant(worst.ratio, 2)} : 1 at {pointWords(worst.reading)}. A verdict
      there says little.
    </Alert>
  );
}

/** The vented reading of the address, where it is a number. */
function ventedOf(text: string): { readonly value: number | undefined; readonly error: string | null } {
  if (text.trim() === '') return { value: undefined, error: null };
  try {
    return { value: parseTyped(text.slice(0, 40)).value, error: null };
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    return { value: undefined, error: error.message };
  }
}

/** @param vented what the address says; null where it says nothing, and what a finding of this run was decided by stays */
export async function JudgeStage({ job, vented }: { job: JobFile; vented: string | null }) {
  const run = asFoundRun(job);
  if (run === null) throw new StoreError({ code: 'no-such', what: 'as-found run of job', name: job.id });
  // After further tests the run run is what is decided on and signed; the earlier ones stay beside it.
  const earlier = job.runs.filter(
    ({ id, kind, thrownAway }) => kind === 'as-found' && thrownAway === null && id !== run.id,
  );
  const evaluation = evaluateStoredRun(run);
  const body = bodyOfRun(run, job.instrument.body);
  const advice = adviceOnRun(run, body, job.isRangeWrong);
  const figures = figuresOfRun(run.madeWith);
  const lead = advice?.acts.find(({ act }) => act === advice.lead);
  const predicted = lead === undefined || lead.act === 'none' ? null : lead.points;
  const loop = shownLoop(run, true);
  const standing = job.causes.filter(({ runId, takenBack }) => runId === run.id && takenBack === null);
  const typed = vented ?? standing.at(-1)?.content.vented ?? '';
  const read = ventedOf(typed);
  const found = weighRun(run, job.instrument.kind, await knownBeside(database(), job, run), read.value);
  return (
    <Columns columns="1.1fr 1fr">
      <Stack sx={{ gap: 1.5 }}>
        {loop !== null && <LoopSheet loop={loop} />}
        <Sheet
          title={earlier.length === 0 ? 'What the readings say' : `What the readings say, pass ${run.pass}`}
        >
          {advice === null ? <RunSummary run={run} /> : <Findings advice={advice} />}
        </Sheet>
        <Sheet title={advice === null ? 'What to do' : 'Smallest act that suffices'}>
          {advice === null ? (
            <Typography sx={{ mb: 1.5 }}>{plainAdvice(evaluation, run.madeWith.tolerance)}</Typography>
          ) : (
            <WhatToDo run={run} advice={advice} body={body} position={positionOf(job)} />
          )}
          <BesideAdvice verdicts={besideVerdicts(besideOf(run))} />
          <LowRatio evaluation={evaluation} leastRatio={run.madeWith.leastRatio} />
          <DecideForm
            job={job.id}
            lead={advice === null ? plainLead(evaluation) : (advice.lead ?? plainLead(evaluation))}
            acts={
              advice === null
                ? []
                : shownActs(run.madeWith.configuration, advice, body, (value) => figures.percent(value))
            }
          />
        </Sheet>
        {earlier.map((one) => (
          <Sheet key={one.id} title={`Before further tests, pass ${one.pass}`}>
            <RunSummary run={one} />
          </Sheet>
        ))}
      </Stack>
      <Stack sx={{ gap: 1.5 }}>
        {loop !== null && <SegmentBoard loop={loop} />}
        {found === null ? (
          <CorridorSheet asFound={run} predicted={predicted} height={225} />
        ) : (
          <SuspectBoard
            job={job.id}
            shape={corridorOf(run, null, predicted)}
            shown={shownSuspects(run, found)}
            standing={standing.map((cause) => ({
              suspicion: cause.suspicion,
              words: causeInWords(cause),
            }))}
            vented={{ text: typed, error: read.error, unit: figures.outputUnit }}
          />
        )}
        {advice !== null && (
          <Sheet title={earlier.length === 0 ? 'As found' : `As found, pass ${run.pass}`}>
            <RunSummary run={run} />
          </Sheet>
        )}
        <Sheet>
          <RunTable run={run} />
          <BesideTable run={run} />
        </Sheet>
      </Stack>
    </Columns>
  );
}

/** What the tilt of the body makes, as the set-up walk of this job read it; empty where nobody did. */
const positionOf = ({ setups }: JobFile): string =>
  setups
    .flatMap(({ checks }) => checks)
    .filter(({ name }) => name === 'Position')
    .at(-1)?.words ?? '';

/** What to do where there is no advice to lead: adjust, unless all lies inside. */
const plainLead = ({ verdict }: RunEvaluation): Act => (verdict === 'within' ? 'none' : 'zero and span');
