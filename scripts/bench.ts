/**
 * `npm run bench -- all`, or one part of it: how long Barys takes beside the least that the same work can take, measured
 * side by side in one run. Saving is measured on a private PostgreSQL with its commits made safe on disk, as in real
 * use. Ratios travel between machines; milliseconds do not.
 */
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

const PARTS = {
  core: benchCore,
  saving: benchSaving,
  desks: benchDesks,
  import: benchImport,
  fleet: benchFleet,
  kills: benchKills,
  links: benchLinks,
  plan: benchPlan,
  screws: benchScrews,
  suspects: benchSuspects,
};

await main(async () => {
  const [part = 'all'] = process.argv.slice(2);
  const wanted = Object.entries(PARTS).filter(([name]) => part === 'all' || part === name);
  if (wanted.length === 0)
    throw new Failure(`There is no part ${part}; there are all, ${Object.keys(PARTS).join(', ')}.`);
  const startedAt = Date.now();
  for (const [, bench] of wanted) await bench();
  printTable();
  console.log(`\nTook ${Math.round((Date.now() - startedAt) / 1000)} s.`);
});
// A bench that failed leaves a web server behind, which would keep this process.
process.exit();
