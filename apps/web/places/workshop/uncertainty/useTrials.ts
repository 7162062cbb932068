'use client';
import type { BudgetModel, MonteCarloOptions, MonteCarloResult } from '@barys/core/uncertainty';
import { proxy, wrap } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { Trials } from './trials.worker';

export type TrialsState =
  | { readonly kind: 'idle' }
  | { readonly kind: 'running'; readonly share: number }
  | { readonly kind: 'done'; readonly result: MonteCarloResult }
  | { readonly kind: 'failed'; readonly error: string };

/** Monte Carlo trials in a worker of their own, with progress; stopping ends the worker. */
export function useTrials() {
  const [state, setState] = useState<TrialsState>({ kind: 'idle' });
  const worker = useRef<Worker | null>(null);
  const end = () => {
    worker.current?.terminate();
    worker.current = null;
  };
  useEffect(() => end, []);

  const stop = () => {
    end();
    setState({ kind: 'idle' });
  };

  const run = async (model: BudgetModel, options: MonteCarloOptions) => {
    end();
    const own = new Worker(new URL('./trials.worker.ts', import.meta.url), { type: 'module' });
    worker.current = own;
    setState({ kind: 'running', share: 0 });
    const failed = new Promise<{ error: string }>((resolve) => {
      own.onerror = () => resolve({ error: 'The trials could not be run. Reload the page and try again.' });
    });
    const onProgress = proxy((done: number, of: number) => {
      if (worker.current === own) setState({ kind: 'running', share: done / of });
    });
    const answer = await Promise.race([wrap<Trials>(own).run(model, options, onProgress), failed]);
    if (worker.current !== own) return;
    end();
    setState(
      'error' in answer ? { kind: 'failed', error: answer.error } : { kind: 'done', result: answer.result },
    );
  };

  return { state, run, stop };
}
