import type { Calculation } from '@barys/store/intervals';
import { showMoment } from '@/server/dates';

/** How the last calculation ended, in words. */
export function standing(last: Calculation | null, finished: Calculation | null): string {
  if (last === null)
    return 'Nothing is worked out yet. A planner has it done here; instruments with five calibrations in a range, or a family of twenty, are advised.';
  const stands =
    finished === null
      ? ''
      : `Worked out ${showMoment(finished.endedAt ?? finished.askedAt)}, asked for by ${finished.askedBy}.`;
  switch (last.state) {
    case 'runs':
    case 'done':
      return stands;
    case 'cancelled':
      return `The last one was stopped after ${last.done.toLocaleString('en')} instruments, whose advice is new. ${stands}`;
    case 'cut off':
      return `The last one was cut off after ${last.done.toLocaleString('en')} instruments: the server went meanwhile. Ask again. ${stands}`;
    case 'failed':
      return `The last one ended with a fault after ${last.done.toLocaleString('en')} instruments; the server's log says which. ${stands}`;
  }
}
