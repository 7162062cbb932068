/** Contestants timed in turn in one run, so that what slows the machine slows them all. */

import { measured, timesOf } from './table';

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
  measured(
    title,
    [...times].map(([name, values]) => [name, timesOf(values)]),
  );
}
