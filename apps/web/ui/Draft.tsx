import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import type { DraftOfForm } from './useTyped';

/** Says that a form holds what was typed before and never sent, and lets it go. */
export function Draft({ draft: { isBack, forget } }: { draft: DraftOfForm }) {
  if (!isBack) return null;
  const beginAnew = () => {
    forget();
    location.reload();
  };
  return (
    <Alert
      severity="info"
      variant="outlined"
      sx={{ mb: 1.5, displayPrint: 'none' }}
      action={<Button onClick={beginAnew}>Begin anew</Button>}
    >
      What you typed here before, and did not send, is back.
    </Alert>
  );
}
