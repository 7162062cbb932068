import Typography from '@mui/material/Typography';

/** Says that a form was kept, where the page does not show it in another way. */
export function Kept({ isKept }: { isKept: boolean }) {
  return (
    <Typography role="status" variant="body2" sx={{ mt: 1, color: 'text.secondary' }}>
      {isKept && 'Kept.'}
    </Typography>
  );
}
