import type { Difference, Matters } from '@barys/core/setup';
import Typography from '@mui/material/Typography';

const MATTERS: Record<Matters, readonly [words: string, colour: string]> = {
  yes: ['It matters: put it right.', 'var(--outside)'],
  little: ['It stays within the tolerance.', 'var(--adjust)'],
  no: ['It changes no figure.', 'text.secondary'],
};

/** What a difference does, and whether it matters. */
export function DifferenceWords({ difference: { effect, matters } }: { difference: Difference }) {
  const [words, colour] = MATTERS[matters];
  return (
    <Typography variant="body2">
      {effect}{' '}
      <Typography component="span" variant="body2" sx={{ color: colour, fontWeight: 600 }}>
        {words}
      </Typography>
    </Typography>
  );
}
