import Alert from '@mui/material/Alert';
import type { Answer } from '@/server/answer';

/** What was wrong with an entry, read out at once; nothing while all is well. */
export function Refused({ answer }: { answer: Answer }) {
  return (
    <div aria-live="assertive">
      {answer.error !== null && (
        <Alert severity="error" variant="outlined" sx={{ mt: 1.5 }}>
          {answer.error}
        </Alert>
      )}
    </div>
  );
}
