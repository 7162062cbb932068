/** Contestants timed in turn in one run, so that what slows the machine slows them all. */

/** The value that a share of the sorted ones stays below. */
export const quantile = (sorted: readonly number[], share: number): number =>
  sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? 0;

export interface Contestant {
  readonly name: string;
  readonly act: (round: number) => unknown;
}

/** The first contestant is the least that the work can take; the others are printed as multiples of it. */
export async function compare(
  title: string,
  contestants: readonly Contestant[],
  { rounds, warmUp }: { rounds: number; warmUp: number },
): Promise<void> {
  const times = new Map<string, number[]>(contestants.map(({ name }) => [name, []]));
  for (let round = 0; round < rounds + warmUp; round += 1)
    for (const { name, act } of contestants) {
      const startedAt = performance.now();
      await act(round);
      if (round >= warmUp) times.get(name)?.push(performance.now() - startedAt);
    }
  console.log(`\n${title} (${rounds} rounds)`);
  const base = { p50: 0, p95: 0 };
  for (const [index, [name, unsorted]] of [...times].entries()) {
    const sorted = unsorted.sort((a, b) => a - b);
    const [p50, p95] = [quantile(sorted, 0.5), quantile(sorted, 0.95)];
    if (index === 0) Object.assign(base, { p50, p95 });
    console.log(
      `  ${name.padEnd(44)} p50 ${p50.toFixed(2)} ms (${(p50 / base.p50).toFixed(1)} times)` +
        `   p95 ${p95.toFixed(2)} ms (${(p95 / base.p95).toFixed(1)} times)`,
    );
  }
}
