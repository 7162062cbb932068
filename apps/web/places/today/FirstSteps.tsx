import type { Site } from '@barys/store/people';
import Typography from '@mui/material/Typography';
import Link from 'next/link';

/** What a new installation needs before its first job, in the order in which each needs the one before. */
export function FirstSteps({ site }: { site: Site | null }) {
  const steps = [
    [
      '/office/settings',
      'Laboratory and customer, as certificates name them',
      site?.letterhead.laboratory !== undefined && site.letterhead.laboratory !== '',
    ],
    [
      '/office/settings',
      'One person or two: whether a second person reviews what is signed. Whoever works alone sets "No review"',
      false,
    ],
    ['/office/people', 'The people who work here', false],
    ['/office/bodies/new', 'A body: the model of a transmitter or gauge, with its limits', false],
    ['/references/new', 'A standard, with its range and certificate', false],
    ['/instruments/new', 'The first instrument; or bring in a list at Office, Import', false],
  ] as const;
  return (
    <>
      <Typography>No instruments yet. The first steps, in this order:</Typography>
      <ol aria-label="First steps">
        {steps.map(([href, words, isDone]) => (
          <li key={words} style={{ padding: '6px 0' }}>
            <Link prefetch={false} href={href}>
              {words}
            </Link>
            {isDone && ' · done'}
          </li>
        ))}
      </ol>
    </>
  );
}
