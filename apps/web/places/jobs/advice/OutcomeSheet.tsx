import { actWords, type AdjustableBody } from '@barys/core/adjust';
import { asFoundRun, outcomesOf, type JobFile, type Outcome } from '@barys/store/jobs';
import { bodyOfRun, type Run } from '@barys/store/runs';
import Typography from '@mui/material/Typography';
import { showMoment } from '@/server/dates';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { figuresOfRun, pointWords } from '@/ui/figures';
import { Sheet } from '@/ui/Sheet';
import { adviceInWords } from './words';

const asSaid = ({ isAsSaid }: Outcome): string =>
  isAsSaid === null ? 'not said how sure' : isAsSaid ? 'as predicted' : 'otherwise';

/** The first as-left run that counts after the advice: what was predicted is predicted of that one. */
function runAfter({ runs }: Pick<JobFile, 'runs'>): Run | undefined {
  return runs.find(({ kind, thrownAway }) => kind === 'as-left' && thrownAway === null);
}

/** What was predicted and what was read as left, side by side; nothing where the two cannot be compared. */
export function OutcomeSheet({ job }: { job: JobFile }) {
  const advice = job.advice.at(-1);
  const run = runAfter(job);
  if (advice === undefined || run === undefined) return null;
  const outcomes = outcomesOf(advice, run);
  if (outcomes === null) return null;
  const body: AdjustableBody = bodyOfRun(run, job.instrument.body);
  const figures = figuresOfRun(run.madeWith);
  const wrong = outcomes.filter(({ isAsSaid }) => isAsSaid === false);
  const pointOf = (position: number) => {
    const point = run.madeWith.points.find((one) => one.position === position);
    return point === undefined ? '' : pointWords(point);
  };
  return (
    <Sheet title="Predicted and real">
      <Typography sx={{ mb: 1 }}>
        {wrong.length === 0
          ? `${actWords(advice.content.act ?? advice.content.lead, body)}: it came out as predicted.`
          : `The prediction was wrong at ${wrong.length} of ${outcomes.length} points: more changed than this act, or the instrument does not repeat. Look again before it is trusted.`}
      </Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1 }}>
        {adviceInWords(advice, body)}
      </Typography>
      <DataTable
        label="Predicted and real errors"
        rows={outcomes}
        keyOf={({ position }) => position}
        columns={[
          ['Point', ({ position }) => pointOf(position)],
          [
            'Predicted, % of span',
            ({ predicted, uncertainty }) => (
              <Figure>
                {figures.percent(predicted)}
                {uncertainty === null ? '' : ` ± ${figures.amount(uncertainty)}`}
              </Figure>
            ),
            'right',
          ],
          ['As left', ({ real }) => <Figure>{figures.percent(real)}</Figure>, 'right'],
          ['', asSaid],
        ]}
      />
    </Sheet>
  );
}

/** The advice of a job as its record keeps it: what was made of it, and how it came out where that can be told. */
export function AdviceRecord({ job }: { job: JobFile }) {
  if (job.advice.length === 0) return null;
  const run = asFoundRun(job);
  const body: AdjustableBody = run === null ? job.instrument.body : bodyOfRun(run, job.instrument.body);
  return (
    <>
      <Sheet title="Advice">
        {job.advice.map((advice) => (
          <Typography key={advice.id} variant="body2">
            {adviceInWords(advice, body)} {advice.givenTo}, {showMoment(advice.givenAt)}
          </Typography>
        ))}
      </Sheet>
      <OutcomeSheet job={job} />
    </>
  );
}
