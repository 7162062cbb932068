/**
 * A simulated pressure transmitter, the first piece of the practice bench. The model is the usual straight line with
 * a zero and a span error, hysteresis as a loop that is widest in mid-range, and seeded normal noise; the figures are
 * inventions for practice and demonstration, not data of any instrument.
 */
import type { Direction } from '@barys/core/procedure';
import { expectedOutput, outputSpan, type SignalRange } from '@barys/core/signal';
import { makeChance } from '../chance';

export interface Faults {
  /** All in per cent of the output span. */
  readonly zeroErrorPercent: number;
  readonly spanErrorPercent: number;
  /** Width of the loop between rising and falling at mid-range. */
  readonly hysteresisPercent: number;
  /** Standard deviation of the noise of one reading. */
  readonly noisePercent: number;
}

export interface SimulatedTransmitter {
  /**
   * The output in the range's output unit when an input is held.
   * @param applied in the range's input unit
   * @param direction which way the input was approached
   */
  read(applied: number, direction: Direction): number;
}

/** Two transmitters of the same faults and seed read the same in the same order. */
export function makeTransmitter(range: SignalRange, faults: Faults, seed: number): SimulatedTransmitter {
  const chance = makeChance(seed);
  const sign = Math.sign(range.outputHigh - range.outputLow);
  return {
    read(applied, direction) {
      const share = (applied - range.lrv) / (range.urv - range.lrv);
      const loop = (faults.hysteresisPercent / 2) * 4 * share * (1 - share) * (direction === 'down' ? 1 : -1);
      const errorPercent =
        faults.zeroErrorPercent +
        sign * faults.spanErrorPercent * share +
        loop +
        faults.noisePercent * chance.normal();
      return expectedOutput(range, applied) + (errorPercent / 100) * outputSpan(range);
    },
  };
}
