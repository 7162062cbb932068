/**
 * `npm run bench -- all`, or one part by its name: how long Barys takes beside the least that the same work can take, measured
 * side by side in one run. Saving is measured on a private PostgreSQL with its commits made safe on disk, as in real
 * use. Ratios travel between machines; milliseconds do not.
 */
import { benchAutomatic } from './bench/automatic';
import { benchCore } from './bench/core';
import { benchDesks } from './bench/desks';
import { benchFleet } from './bench/fleet';
import { benchImport } from './bench/import';
import { benchKills } from './bench/kills';
import { benchLinks } from './bench/links';
import { benchPlan } from './bench/plan';
import { benchSaving } from './bench/saving';
import { benchScrews } from './bench/screws';
import { benchSuspects } from './bench/suspects';
import { printTable } from './bench/table';
import { Failure, main } from './lib/failure';

const PARTS: Readonly<Record<string, () => Promise<void> | void>> = {
  core: benchCore,
  saving: benchSaving,
  desks: benchDesks,
  import: benchImport,
  automatic: benchAutomatic,
  links: benchLinks,
  screws: benchScrews,
};

/** Parts that take up to half an hour each, and are asked for by their names. */
const LONG_PARTS: Readonly<Record<string, () => Promise<void> | void>> = {
  fleet: benchFleet,
  kills: benchKills,
  plan: benchPlan,
  suspects: benchSuspects,
};

await main(async () => {
  const [part = 'all'] = process.argv.slice(2);
  const one = PARTS[part] ?? LONG_PARTS[part];
  if (part !== 'all' && one === undefined)
    throw new Failure(
      `There is no part ${part}; there are all (${Object.keys(PARTS).join(', ')}), and by themselves ${Object.keys(LONG_PARTS).join(', ')}.`,
    );
  const startedAt = Date.now();
  for (const bench of one === undefined ? Object.values(PARTS) : [one]) await bench();
  printTable();
  console.log(`\nTook ${Math.round((Date.now() - startedAt) / 1000)} s.`);
});
// A bench that failed leaves a web server behind, which would keep this process.
process.exit();
