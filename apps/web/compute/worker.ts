/** Runs one calculation in a thread of its own; built into one file beside the application. */
import { CALCULATIONS } from './index';
import { answerCalculation } from './answer';

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
