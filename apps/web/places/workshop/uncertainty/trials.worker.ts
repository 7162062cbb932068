/** Runs Monte Carlo trials away from the page, which stops them by ending this worker. */
import { CoreError } from '@barys/core/errors';
import {
  monteCarlo,
  type BudgetModel,
  type MonteCarloOptions,
  type MonteCarloResult,
} from '@barys/core/uncertainty';
import { expose } from 'comlink';

/** The result, or what is wrong in words: a class of error does not survive the way between threads. */
export type TrialsAnswer = { readonly result: MonteCarloResult } | { readonly error: string };

const trials = {
  run(
    model: BudgetModel,
    options: MonteCarloOptions,
    onProgress: (done: number, of: number) => void,
  ): TrialsAnswer {
    try {
      const steps = monteCarlo(model, options);
      for (let block = 0; ; block += 1) {
        const next = steps.next();
        if (next.done === true) return { result: next.value };
        // Every tenth block: a message costs more than a thousand trials.
        if (block % 10 === 0) onProgress(next.value.done, next.value.of);
      }
    } catch (error) {
      if (error instanceof CoreError) return { error: error.message };
      throw error;
    }
  },
};

export type Trials = typeof trials;

expose(trials);
