import { appendToTrail } from '@barys/store/db';
import type { Person } from '@barys/store/people';
import { database } from './database';

/**
 * Leaves in the trail that somebody took data out.
 * @param what in words, such as `list of instruments`
 * @param job whose data it was; left out for lists
 */
export const noteExport = (reader: Person, what: string, job?: number): Promise<void> =>
  appendToTrail(
    database(),
    { personId: reader.id, at: new Date() },
    {
      act: 'export',
      subject: job === undefined ? { kind: 'site', id: 1 } : { kind: 'job', id: job },
      detail: { what },
    },
  );
