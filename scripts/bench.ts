/**
 * `npm run bench`: how long Barys takes beside the least that the same work can take, measured side by side in one run.
 * Saving is measured on a private PostgreSQL with its commits made safe on disk, as in real use. Ratios travel between
 * machines; milliseconds do not.
 */
import { benchCore } from './bench/core';
import { benchSaving } from './bench/saving';
import { main } from './lib/failure';

await main(async () => {
  await benchCore();
  await benchSaving();
});
