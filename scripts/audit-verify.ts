/** `npm run audit:verify`: checks the chain of the audit trail; ends with 1 where it is broken. */
import { query } from './lib/cluster';
import { Failure, main } from './lib/failure';
import { onDatabase } from './lib/installation';

await main(() =>
  onDatabase(async (url) => {
    const [trail] = await query<{ broken: string | null; entries: string }>(
      url,
      'select first_broken_audit_entry() as broken, count(*) as entries from audit_entry',
    );
    if (trail === undefined) throw new Failure('The database gave no answer.');
    if (trail.broken !== null)
      throw new Failure(
        `The chain is broken at entry ${trail.broken}: it is missing, altered or out of its place.`,
      );
    console.log(`The chain is whole: ${trail.entries} entries, none missing or altered.`);
  }),
);
