/**
 * `npm run audit:verify [-- --since SEAL]`: compares records, trail, seals and the anchor file; ends with 1 where they
 * differ, and names the first record that does.
 */
import { SealFolder } from '@barys/store/db';
import { Failure, main } from './lib/failure';
import { onDatabase } from './lib/installation';
import { SEALS } from './lib/paths';
import { soundInWords, verifyDatabase } from './lib/trail';

/** The seal after `--since`; 0 where everything is wanted. */
function wantedSince(args: readonly string[]): number {
  const [flag, value, ...rest] = args;
  if (flag === undefined) return 0;
  const since = Number(value);
  if (flag !== '--since' || rest.length > 0 || !Number.isInteger(since) || since < 1)
    throw new Failure('Say which seal to begin after: npm run audit:verify -- --since 41');
  return since;
}

await main(() =>
  onDatabase(async (url) => {
    const since = wantedSince(process.argv.slice(2));
    const found = await verifyDatabase(url, SealFolder.open(SEALS), { since, tells: true });
    if (!found.isSound)
      throw new Failure(`Not as it was written. The first thing that differs is ${found.where}.`);
    console.log(
      since === 0
        ? `All is as it was written: ${soundInWords(found)}.`
        : `All since seal ${since} is as it was written: ${soundInWords(found)}. What nobody touched after it was not looked at.`,
    );
  }),
);
