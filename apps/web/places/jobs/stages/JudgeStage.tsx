import type { RunEvaluation } from '@barys/core/run';
import { formatPlain, formatSignificant } from '@barys/core/text';
import { StoreError } from '@barys/store/db';
import { asFoundRun, type JobFile } from '@barys/store/jobs';
import type { SpanTolerance } from '@barys/store/registers';
import { besideOf, besideVerdicts, evaluateStoredRun } from '@barys/store/runs';
import Alert from '@mui/material/Alert';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Columns } from '@/ui/Columns';
import { CorridorSheet } from '@/ui/CorridorSheet';
import { pointWords } from '@/ui/figures';
import { Sheet } from '@/ui/Sheet';
import { BesideTable } from '@/places/jobs/BesideTable';
import { DecideForm } from '@/places/jobs/DecideForm';
import { RunSummary } from '@/places/jobs/RunSummary';
import { RunTable } from '@/places/jobs/RunTable';

/** What the readings ask for, in a sentence. */
function advice({ verdict, readings }: RunEvaluation, { adjustAbovePercentOfLimit }: SpanTolerance): string {
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

/** What the readings beside the output say about where the fault lies. */
function BesideAdvice({ verdicts }: { verdicts: ReturnType<typeof besideVerdicts> }) {
  const said = [
    verdicts.sensor === 'outside' && verdicts.output !== 'outside'
      ? 'The sensor is outside and the output stage is not: a sensor trim, not an output trim, which would only hide it.'
      : null,
    verdicts.output === 'outside' && verdicts.sensor !== 'outside'
      ? 'The output stage is outside and the sensor is not: an output trim, not a sensor trim.'
      : null,
    verdicts.sensor === 'outside' && verdicts.output === 'outside'
      ? 'Sensor and output stage are both outside: trim the sensor first, then the output.'
      : null,
    verdicts.second === 'outside' ? 'The second indication is outside its own tolerance.' : null,
    verdicts.friction === 'outside'
      ? 'Tapping moves the pointer further than the class allows: no adjustment cures friction; repair or replace.'
      : null,
  ].filter((one) => one !== null);
  return said.map((one) => (
    <Typography key={one} sx={{ mb: 1.5 }}>
      {one}
    </Typography>
  ));
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

export function JudgeStage({ job }: { job: JobFile }) {
  const run = asFoundRun(job);
  if (run === null) throw new StoreError({ code: 'no-such', what: 'as-found run of job', name: job.id });
  // After further tests the run run is what is decided on and signed; the earlier ones stay beside it.
  const earlier = job.runs.filter(
    ({ id, kind, thrownAway }) => kind === 'as-found' && thrownAway === null && id !== run.id,
  );
  const evaluation = evaluateStoredRun(run);
  const { tolerance } = run.madeWith;
  return (
    <Columns columns="1fr 1.3fr">
      <Stack sx={{ gap: 1.5 }}>
        <Sheet title={earlier.length === 0 ? 'As found' : `As found, pass ${run.pass}`}>
          <RunSummary run={run} />
        </Sheet>
        {earlier.map((one) => (
          <Sheet key={one.id} title={`Before further tests, pass ${one.pass}`}>
            <RunSummary run={one} />
          </Sheet>
        ))}
        <Sheet title="What to do">
          <Typography sx={{ mb: 1.5 }}>{advice(evaluation, tolerance)}</Typography>
          <BesideAdvice verdicts={besideVerdicts(besideOf(run))} />
          <LowRatio evaluation={evaluation} leastRatio={run.madeWith.leastRatio} />
          <DecideForm job={job.id} isAdjustAdvised={evaluation.verdict !== 'within'} />
        </Sheet>
      </Stack>
      <Stack sx={{ gap: 1.5 }}>
        <CorridorSheet asFound={run} height={225} />
        <Sheet>
          <RunTable run={run} />
          <BesideTable run={run} />
        </Sheet>
      </Stack>
    </Columns>
  );
}
