'use client';
import { formatSignificant } from '@barys/core/text';
import { unitLabel, type PressureUnit } from '@barys/core/units';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState, useTransition } from 'react';
import type { Answer } from '@/server/answer';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { ratioInWords } from '@/ui/ratio';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { fitOfRangeAction } from './actions';
import type { RangeFit } from './fit';

/** Whether tolerance and references of an instrument still fit in the new range; asked of the server when wanted. */
export function FitSheet({
  tag,
  lrv,
  urv,
  unit,
}: {
  tag: string;
  lrv: number;
  urv: number;
  unit: PressureUnit;
}) {
  const [answer, setAnswer] = useState<Answer & { fit?: RangeFit }>({ error: null });
  const [isPending, start] = useTransition();
  const ask = () =>
    start(async () => {
      try {
        setAnswer(await fitOfRangeAction({ tag, lrv, urv, inputUnit: unit }));
      } catch {
        setAnswer({ error: 'The server does not answer. Try again in a moment.' });
      }
    });
  return (
    <Sheet title={`Tolerance and references of ${tag}, then`}>
      <Button variant="outlined" onClick={ask} aria-busy={isPending} sx={{ displayPrint: 'none' }}>
        Hold the new range against them
      </Button>
      <Refused answer={answer} />
      {answer.fit !== undefined && <FitWords fit={answer.fit} unit={unit} />}
    </Sheet>
  );
}

function FitWords({ fit, unit }: { fit: RangeFit; unit: PressureUnit }) {
  const { tolerancePercent, accuracyPercent, best, leastRatio, points } = fit;
  const isTooCoarse = accuracyPercent !== null && accuracyPercent > tolerancePercent;
  return (
    <Stack sx={{ gap: 1, mt: 1.5 }}>
      {isTooCoarse && (
        <Alert severity="warning" variant="outlined">
          {`The body is good for ±${formatSignificant(accuracyPercent, 3)} % of this span, the tolerance is ±${formatSignificant(tolerancePercent, 3)} %: it cannot be kept with certainty.`}
        </Alert>
      )}
      {best?.unfit != null && (
        <Alert severity="warning" variant="outlined">
          {`No reference fits; nearest is ${best.tag}: ${best.unfit}.`}
        </Alert>
      )}
      {best === null && (
        <Alert severity="warning" variant="outlined">
          No reference measures such a pressure.
        </Alert>
      )}
      {!isTooCoarse && best !== null && best.unfit === null && (
        <Typography>{`The tolerance can be kept, and ${best.tag} fits at every point.`}</Typography>
      )}
      <DataTable
        label="At every point"
        rows={points}
        keyOf={({ applied }) => applied}
        columns={[
          [
            `Apply, ${unitLabel(unit)}`,
            ({ applied }) => <Figure>{formatSignificant(applied, 6)}</Figure>,
            'right',
          ],
          ['Limit, ±', ({ limit }) => <Figure>{formatSignificant(limit, 3)}</Figure>, 'right'],
          [
            best === null ? 'Ratio' : `Ratio of ${best.tag}`,
            ({ ratio }) => <Figure>{ratio === null ? '—' : ratioInWords(ratio)}</Figure>,
            'right',
          ],
        ]}
      />
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {`The procedure asks for ${leastRatio} : 1. Limits in the unit of the output.`}
      </Typography>
    </Stack>
  );
}
