'use client';
import { atInstrument } from '@barys/core/corrections';
import { acceptedOutput, type RunEvaluation } from '@barys/core/run';
import { expectedOutput } from '@barys/core/signal';
import { formatPlain } from '@barys/core/text';
import type { MadeWith } from '@barys/store/runs';
import { limitsOf, standardAt } from '@barys/store/evaluation';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { Figure } from '@/ui/Figure';
import type { Figures } from '@/ui/figures';
import { memo, type ReactNode } from 'react';

/** What to apply now and what to expect for it. */
export function ApplyPanel({
  madeWith,
  point,
  applied,
  figures,
  children,
}: {
  madeWith: MadeWith;
  point: MadeWith['points'][number];
  /** The value at the instrument that the expectation is for: nominal, or from what was read at the reference. */
  applied: number;
  figures: Figures;
  children: ReactNode;
}) {
  const { configuration, tolerance, head } = madeWith;
  const { lowest, highest } = acceptedOutput(configuration, limitsOf(tolerance), applied);
  const expectFor =
    applied === point.nominalApplied ? '' : ` for ${formatPlain(applied)} ${figures.inputUnit}`;
  return (
    <Box
      sx={{
        display: 'flex',
        flexDirection: { xs: 'row', md: 'column' },
        flexWrap: 'wrap',
        columnGap: 3,
        rowGap: 0.75,
      }}
    >
      <div>
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          {point.direction === 'up' ? 'Apply, going up' : 'Apply, coming down'}
          {madeWith.secondReference === null ? '' : `, by ${standardAt(madeWith, point).tag}`}
        </Typography>
        <Figure sx={{ fontSize: { xs: 26, md: 44 }, fontWeight: 700, lineHeight: 1.1, display: 'block' }}>
          {figures.input(atInstrument(point.nominalApplied, -head))}
          <Unit>{figures.inputUnit}</Unit>
        </Figure>
      </div>
      <div>
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          Expect{expectFor}
        </Typography>
        <Figure sx={{ fontSize: 26, fontWeight: 700, lineHeight: 1.1, display: 'block' }}>
          {figures.output(expectedOutput(configuration, applied))}
          <Unit>{figures.outputUnit}</Unit>
        </Figure>
      </div>
      <Typography variant="body2" sx={{ color: 'text.secondary', flexBasis: { xs: '100%', md: 'auto' } }}>
        accept{' '}
        <Figure>
          {figures.output(lowest)}…{figures.output(highest)}
        </Figure>
        {configuration.scaleDivision === null
          ? ''
          : ` · read to ${formatPlain(configuration.scaleDivision / 2)} ${figures.outputUnit}, half a division`}
        {head === 0
          ? ''
          : ` · head ${figures.input(head)} ${figures.inputUnit}: the instrument sees ${figures.input(point.nominalApplied)}`}
      </Typography>
      {children}
    </Box>
  );
}

function Unit({ children }: { children: string }) {
  return (
    <Box component="span" sx={{ fontSize: '0.55em', ml: '0.4em' }}>
      {children}
    </Box>
  );
}

/** The run so far in four figures; a figure that cannot be said yet is a dash. */
export const RunFigures = memo(function RunFigures({
  evaluation,
  figures,
}: {
  evaluation: RunEvaluation;
  figures: Figures;
}) {
  const { zeroErrorPercentSpan, spanErrorPercentSpan, hysteresisPercentSpan } = evaluation;
  const worst = figures.worst(evaluation);
  const signed = (value: number | null | undefined) => (value == null ? '–' : `${figures.percent(value)} %`);
  const facts: [string, string][] = [
    ['worst', worst === null ? '–' : `${figures.error(worst)} %`],
    ['zero', signed(zeroErrorPercentSpan)],
    ['span', signed(spanErrorPercentSpan)],
    ['hysteresis', hysteresisPercentSpan === null ? '–' : `${figures.amount(hysteresisPercentSpan)} %`],
  ];
  return (
    <Box
      component="dl"
      sx={{
        display: 'grid',
        gridTemplateColumns: 'auto 1fr auto 1fr',
        gap: '2px 10px',
        m: 0,
        mt: { xs: 0.75, md: 1.5 },
      }}
    >
      {facts.map(([name, value]) => (
        <Box key={name} sx={{ display: 'contents' }}>
          <Typography component="dt" variant="body2" sx={{ color: 'text.secondary' }}>
            {name}
          </Typography>
          <Box component="dd" sx={{ m: 0, fontSize: 14 }}>
            <Figure>{value}</Figure>
          </Box>
        </Box>
      ))}
    </Box>
  );
});
