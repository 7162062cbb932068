/**
 * `npm run bench [-- core|saving|desks|kills|import|fleet]`: how long Barys takes beside the least that the same work can take, measured
 * side by side in one run. Saving is measured on a private PostgreSQL with its commits made safe on disk, as in real
 * use. Ratios travel between machines; milliseconds do not.
 */
import { benchCore } from './bench/core';
import { benchDesks } from './bench/desks';
import { benchFleet } from './bench/fleet';
import { benchImport } from './bench/import';
import { benchKills } from './bench/kills';
import { benchSaving } from './bench/saving';
import { main } from './lib/failure';

const [part] = process.argv.slice(2);

await main(async () => {
  if (part === undefined || part === 'core') await benchCore();
  if (part === undefined || part === 'saving') await benchSaving();
  if (part === undefined || part === 'desks') await benchDesks();
  if (part === undefined || part === 'kills') await benchKills();
  if (part === undefined || part === 'import') await benchImport();
  if (part === undefined || part === 'fleet') await benchFleet();
});
// A bench that failed leaves a web server behind, which would keep this process.
process.exit();
