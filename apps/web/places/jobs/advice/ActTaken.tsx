import { actWords, doWords, headline, type AdjustableBody, type Advice } from '@barys/core/adjust';
import type { KeptAdvice } from '@barys/store/jobs';
import Typography from '@mui/material/Typography';
import { adviceInWords } from './words';

/** What was advised and what is done about it, in one line. */
export function ActTaken({ advice, body }: { advice: KeptAdvice; body: AdjustableBody }) {
  const { act, lead } = advice.content;
  return (
    <>
      <Typography sx={{ fontSize: 19, fontWeight: 700, lineHeight: 1.3 }}>
        {doWords(act ?? lead, body)}
      </Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1.5 }}>
        {act !== null && act !== lead
          ? `Advised was: ${actWords(lead, body).toLowerCase()}.`
          : adviceInWords(advice, body)}
      </Typography>
    </>
  );
}

/** What the last as-left run asks for, where it was not enough. */
export function AdvisedAnew({ advice, body }: { advice: Advice; body: AdjustableBody }) {
  return (
    <>
      <Typography sx={{ fontSize: 19, fontWeight: 700, lineHeight: 1.3 }}>
        {advice.lead === null ? 'The readings as left cannot be judged.' : doWords(advice.lead, body)}
      </Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1.5 }}>
        As left: {headline(advice)}
      </Typography>
    </>
  );
}
