import type { Difference, Matters } from '@barys/core/setup';
import type { Step } from '@barys/core/working';
import Typography from '@mui/material/Typography';
import { Working } from '@/ui/Working';

const MATTERS: Record<Matters, readonly [words: string, colour: string]> = {
  yes: ['It matters: put it right.', 'var(--outside)'],
  little: ['It stays within the tolerance.', 'var(--adjust)'],
  no: ['It changes no figure.', 'text.secondary'],
};

/** What a difference does, whether it matters, and the steps to its figures where it has some. */
export function DifferenceWords({
  difference: { name, effect, matters },
  steps = [],
}: {
  difference: Difference;
  steps?: readonly Step[];
}) {
  const [words, colour] = MATTERS[matters];
  return (
    <>
      <Typography variant="body2">
        {effect}{' '}
        <Typography component="span" variant="body2" sx={{ color: colour, fontWeight: 600 }}>
          {words}
        </Typography>
      </Typography>
      {steps.length > 0 && <Working of={name} steps={steps} />}
    </>
  );
}
