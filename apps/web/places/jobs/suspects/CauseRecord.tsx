/** What was found to be behind the readings, as the record keeps it. */
import { formatFixed } from '@barys/core/text';
import type { Cause, JobFile } from '@barys/store/jobs';
import Typography from '@mui/material/Typography';
import { showMoment } from '@/server/dates';
import { Sheet } from '@/ui/Sheet';
import { likelihoodWords } from './shown';

/** `The zero has drifted, +3.25 kPa (+0.65 % of span); 96 %`. */
export function causeInWords({ content, remark }: Pick<Cause, 'content' | 'remark'>): string {
  const { title, figure, probability, isTold, residualPercent, vented } = content;
  return [
    `${title}${figure === '' ? '' : `, ${figure}`}; ${likelihoodWords(probability)} by the readings${isTold ? '' : ', which could not tell it from others'}`,
    `leaving ${formatFixed(residualPercent, 3)} % of span`,
    ...(vented === null ? [] : [`drained and open it read ${vented}`]),
    ...(remark === '' ? [] : [remark]),
  ].join('; ');
}

export function CauseRecord({ job: { causes } }: { job: Pick<JobFile, 'causes'> }) {
  if (causes.length === 0) return null;
  return (
    <Sheet title="Findings behind the readings">
      {causes.map((cause) => (
        <Typography key={cause.id} variant="body2">
          {causeInWords(cause)}. {cause.chosenBy}, {showMoment(cause.chosenAt)}
          {cause.takenBack !== null &&
            `. Taken back by ${cause.takenBack.by}, ${showMoment(cause.takenBack.at)}${cause.takenBack.remark === '' ? '' : `: ${cause.takenBack.remark}`}`}
        </Typography>
      ))}
    </Sheet>
  );
}
