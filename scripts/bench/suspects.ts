/** How often the suspects name what was planted in simulated instruments, and how sure they may be. */
import { SUSPICIONS, TELLS_FROM, weigh, type Suspicion } from '@barys/core/suspects';
import { drawCase } from '@barys/rig/suspecting';
import { performance } from 'node:perf_hooks';
import { quantile, remark } from './table';

/** Of each kind. 27 kinds make 5,400. */
const EACH = 200;
/** Seeds that nothing was built or set with: those were below 40 million. */
const FIRST_SEED = 50_000_000;

interface Judged {
  readonly truth: Suspicion;
  readonly first: Suspicion;
  readonly probability: number;
  readonly isLikely: boolean;
  readonly ms: number;
}

function judge(truth: Suspicion, seed: number): Judged {
  const { suspected } = drawCase(truth, seed);
  const startedAt = performance.now();
  const { suspects, likely } = weigh(suspected);
  const ms = performance.now() - startedAt;
  const [first] = suspects;
  if (first === undefined) throw new Error('Nothing was weighed.');
  return {
    truth,
    first: first.suspicion,
    probability: first.probability,
    isLikely: likely.includes(truth),
    ms,
  };
}

const isRight = ({ truth, first }: Judged): boolean => truth === first;
const percent = (part: number, of: number): string => (of === 0 ? '-' : ((part / of) * 100).toFixed(1));
const rightOf = (all: readonly Judged[]): string => percent(all.filter(isRight).length, all.length);

/** What was planted against what was said; what cannot be told stands in a column of its own. */
function confusion(all: readonly Judged[]): void {
  console.log(`\nPlanted, and what was said of ${EACH} each (cannot tell below ${TELLS_FROM}):`);
  for (const truth of SUSPICIONS) {
    const said = new Map<string, number>();
    for (const one of all.filter((other) => other.truth === truth)) {
      const word = one.probability < TELLS_FROM ? 'cannot tell' : one.first;
      said.set(word, (said.get(word) ?? 0) + 1);
    }
    const words = [...said].sort((a, b) => b[1] - a[1]).map(([word, count]) => `${word} ${count}`);
    console.log(`  ${truth.padEnd(20)} ${words.join(', ')}`);
  }
}

export function benchSuspects(): void {
  const all = SUSPICIONS.flatMap((truth, kind) =>
    Array.from({ length: EACH }, (_one, i) => judge(truth, FIRST_SEED + kind * EACH + i)),
  );
  confusion(all);
  console.log('\nHow sure it says to be, and how often it is right:');
  for (const [from, to] of [
    [0.4, 0.5],
    [0.5, 0.6],
    [0.6, 0.7],
    [0.7, 0.8],
    [0.8, 0.9],
    [0.9, 0.93],
    [0.93, 0.97],
    [0.97, 1.01],
  ] as const) {
    const there = all.filter(({ probability }) => probability >= from && probability < to);
    const said = there.reduce((sum, { probability }) => sum + probability, 0) / Math.max(1, there.length);
    console.log(
      `  ${from.toFixed(2)} to ${Math.min(1, to).toFixed(2)}: ${there.length} instruments, said ${(said * 100).toFixed(1)} %, right ${rightOf(there)} %`,
    );
  }
  const told = all.filter(({ probability }) => probability >= TELLS_FROM);
  const times = all.map(({ ms }) => ms);
  remark(
    `${all.length} simulated instruments, ${EACH} of each of ${SUSPICIONS.length} kinds: told in ${percent(told.length, all.length)} %, ` +
      `of those right in the first place in ${rightOf(told)} %; of all ${rightOf(all)} %; the truth among the likely ones (95 %) in ` +
      `${percent(all.filter(({ isLikely }) => isLikely).length, all.length)} %. A run takes ${quantile(times, 0.5).toFixed(0)} ms, ` +
      `95 in 100 at most ${quantile(times, 0.95).toFixed(0)} ms, 99 in 100 at most ${quantile(times, 0.99).toFixed(0)} ms.`,
  );
}
