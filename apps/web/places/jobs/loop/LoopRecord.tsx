/** What a loop check found at each tap, as found and, where it was run again, as left. */
import type { Run } from '@barys/store/runs';
import { LoopSheet } from './LoopSheet';
import { shownLoop } from './shownLoop';

export function LoopRecord({ asFound, asLeft }: { asFound: Run | null; asLeft: Run | null }) {
  return [
    { run: asFound, title: 'The loop as found' },
    { run: asLeft, title: 'The loop as left' },
  ].map(({ run, title }) => {
    const loop = run === null ? null : shownLoop(run, false);
    return loop === null ? null : <LoopSheet key={title} loop={loop} title={title} />;
  });
}
