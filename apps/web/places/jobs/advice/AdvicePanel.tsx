import {
  doWords,
  headline,
  incurableWords,
  portraitWords,
  workAdvice,
  type AdjustableBody,
  type Advice,
} from '@barys/core/adjust';
import { expectedOutput } from '@barys/core/signal';
import type { Run } from '@barys/store/runs';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { Figure } from '@/ui/Figure';
import { figuresOfRun, pointWords } from '@/ui/figures';
import { VerdictMark } from '@/ui/VerdictMark';
import { Working } from '@/ui/Working';

/** What the readings say: the verdict, what kind of error it is, and its parts. */
export function Findings({ advice }: { advice: Advice }) {
  const { found, portrait, behavesLike } = advice;
  const outside = found.readings.filter(({ verdict }) => verdict === 'outside').length;
  return (
    <>
      <Typography sx={{ fontSize: 19, lineHeight: 1.35 }}>
        {found.verdict !== null && (
          <Box component="span" sx={{ '& > span': { verticalAlign: 'bottom' } }}>
            <VerdictMark verdict={found.verdict} size={19} />
          </Box>
        )}{' '}
        {headline(advice)}
      </Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary', mt: 0.5 }}>
        {outside > 0 && `${outside} of ${found.readings.length} readings are outside the limit. `}
        {portraitWords(portrait).join(', ')}; of span, about 95 %.
      </Typography>
      {behavesLike !== null && <RangeDoubt behavesLike={behavesLike} />}
    </>
  );
}

function RangeDoubt({ behavesLike: [lrv, urv] }: { behavesLike: readonly [number, number] }) {
  return (
    <Alert severity="warning" variant="outlined" sx={{ mt: 1 }}>
      It behaves like a range of {lrv.toPrecision(4)} to {urv.toPrecision(4)}. That is further than sensors go
      by themselves: read which range, unit and transfer function are set in it before anything is trimmed.
    </Alert>
  );
}

/** Where an act is aimed at, and what to expect of it. */
function Aim({ run, advice, body }: { run: Run; advice: Advice; body: AdjustableBody }) {
  const { configuration } = run.madeWith;
  const figures = figuresOfRun(run.madeWith);
  const outlook = advice.acts.find(({ act }) => act === advice.lead);
  const worst = outlook?.points?.[outlook.worst ?? -1];
  const at = advice.found.readings[outlook?.worst ?? -1];
  if (outlook === undefined || worst === undefined || at === undefined || outlook.act === 'none') return null;
  const zeroAt = isZeroAct(outlook.act) && isAtTrueZero(body) ? 0 : configuration.lrv;
  return (
    <Typography variant="body2" sx={{ mt: 0.5 }}>
      {isZeroAct(outlook.act) && (
        <>
          Aim at <Figure>{figures.output(expectedOutput(configuration, zeroAt))}</Figure> {figures.outputUnit}{' '}
          with <Figure>{figures.input(zeroAt)}</Figure> {figures.inputUnit}.{' '}
        </>
      )}
      Then expect at worst <Figure>{figures.percent(worst.errorPercentSpan)}</Figure>
      {worst.uncertaintyPercentSpan !== null && (
        <>
          {' '}
          ± <Figure>{figures.amount(worst.uncertaintyPercentSpan)}</Figure>
        </>
      )}{' '}
      % of span, at{' '}
      <Box component="span" sx={{ whiteSpace: 'nowrap' }}>
        {pointWords(at)}
      </Box>
      .
    </Typography>
  );
}

const isZeroAct = (act: string): boolean => act === 'zero' || act === 'zero and output trim';
const isAtTrueZero = ({ trims }: AdjustableBody): boolean => !trims.includes('zero screw');

/** What to do, in one line, with its figures and their working. */
export function WhatToDo({
  run,
  advice,
  body,
  position,
}: {
  run: Run;
  advice: Advice;
  body: AdjustableBody;
  /** What a tilt of the body makes of zero, in words; empty where it is not known. */
  position: string;
}) {
  const { lead, incurable } = advice;
  return (
    <Box sx={{ mb: 1.5 }}>
      <Typography sx={{ fontSize: 19, fontWeight: 700, lineHeight: 1.3 }}>
        {lead === null
          ? 'The readings cannot be judged: take a better standard and read them again.'
          : doWords(lead, body)}
      </Typography>
      <Aim run={run} advice={advice} body={body} />
      {position !== '' && lead !== null && isZeroAct(lead) && (
        <Typography variant="body2" sx={{ mt: 0.5 }}>
          {position}
        </Typography>
      )}
      {incurable.map((one) => (
        <Typography key={one.what} variant="body2" sx={{ mt: 0.5 }}>
          {incurableWords(one)}
        </Typography>
      ))}
      <Working of="this advice" steps={workAdvice(run.madeWith.configuration, advice)} />
    </Box>
  );
}
