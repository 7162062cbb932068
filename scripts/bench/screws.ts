/** How many passes of zero and span it takes until both ends stand: as advised, beside plain alternation. */
import { settingsOf } from '@barys/rig/adjusting';
import { performance } from 'node:perf_hooks';
import { remark } from './table';

const INSTRUMENTS = 1000;
const mean = (values: readonly number[]): string =>
  (values.reduce((sum, value) => sum + value, 0) / values.length / 2).toFixed(2);

export function benchScrews(): void {
  const startedAt = performance.now();
  const all = Array.from({ length: INSTRUMENTS }, (_, seed) => settingsOf(seed + 1));
  const tookMs = performance.now() - startedAt;
  const share = (of: (one: (typeof all)[number]) => boolean) =>
    ((all.filter(of).length / INSTRUMENTS) * 100).toFixed(1);
  // Two settings are a pass; counted in whole passes as well, since a half one is still a walk to an end.
  const whole = (settings: number): number => Math.ceil(settings / 2);
  remark(
    `${INSTRUMENTS} random analog transmitters, screws that pull on each other: ${mean(all.map(({ advised }) => advised))} passes as advised, ` +
      `${mean(all.map(({ plain }) => plain))} by plain alternation; fewer in ${share(({ plain, advised }) => advised < plain)} %, ` +
      `fewer whole passes in ${share(({ plain, advised }) => whole(advised) < whole(plain))} %, more in ${share(({ plain, advised }) => advised > plain)} %. ` +
      `${(tookMs / INSTRUMENTS).toFixed(2)} ms each.`,
  );
}
