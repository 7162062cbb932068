import type { ShownBench } from '@barys/store/benches';

/** A transmitter that is heard of now. */
export interface Transmitter {
  readonly key: string;
  readonly words: string;
  readonly bench: number;
  readonly device: string;
}

/** What gives a digital value can be asked how it is set. */
export const transmittersOf = (benches: readonly ShownBench[]): Transmitter[] =>
  benches
    .filter(({ isThere }) => isThere)
    .flatMap((bench) =>
      bench.values
        .filter(({ channel }) => channel === 'digital value')
        .map(({ device }) => ({
          key: `${bench.id} ${device}`,
          words: `${bench.name}, ${device}`,
          bench: bench.id,
          device,
        })),
    );
