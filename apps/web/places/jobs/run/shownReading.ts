import type { Reading } from '@barys/store/runs';
import { showClock } from '@/server/dates';
import type { ShownReading } from './types';

/** A reading as the page shows it. */
export const shownReading = ({
  id,
  position,
  appliedText,
  applied,
  outputText,
  output,
  more,
  readAt,
}: Reading): ShownReading => ({
  id,
  position,
  appliedText,
  applied,
  outputText,
  output,
  more,
  savedClock: showClock(readAt),
});
