/** Runs one calculation in a thread of its own; built into one file beside the application. */
import { constants, setPriority } from 'node:os';
import { isMainThread } from 'node:worker_threads';
import { answerCalculation } from './answer';
import { CALCULATIONS } from './index';

// Of this thread alone, as Linux counts: readings come before calculations wherever the two meet on a core.
if (!isMainThread) setPriority(constants.priority.PRIORITY_LOW);

export interface ComputeTask {
  readonly name: string;
  /** The body of the request, as it came. */
  readonly text: string;
}

export interface Computed {
  readonly status: number;
  readonly type: string;
  readonly text: string;
}

export default async function compute({ name, text }: ComputeTask): Promise<Computed> {
  const response = answerCalculation(CALCULATIONS.get(name), text);
  return {
    status: response.status,
    type: response.headers.get('content-type') ?? 'application/json',
    text: await response.text(),
  };
}
