import { answerCalculation } from '../answer';
import { CALCULATIONS } from '../index';

/** One good request for each calculation of a subject, and a figure of its answer worked out by hand or in the core's own cases. */
export type Good = Readonly<Record<string, readonly [request: object, figure: string, value: unknown]>>;

// What requests of more than one subject are made of.

export const range = { lrv: 0, urv: 100, outputLow: 4, outputHigh: 20 };
export const tolerance = { terms: [{ kind: 'percent-of-span', percent: 0.25 }] };
export const reading = { direction: 'up', nominalPercent: 0, applied: 0, output: 4.04 };
export const limits = { lower: -0.04, upper: 0.04 };
export const input = {
  name: 'a',
  estimate: 2,
  unit: 'mA',
  distribution: { kind: 'standard', uncertainty: 0.1 },
};
export const budget = { model: '2 * a', unit: 'mA', inputs: [input] };

/** What a calculation answers to a body as it came. */
export async function post(name: string, body: unknown) {
  const text = typeof body === 'string' ? body : JSON.stringify(body);
  const response = answerCalculation(CALCULATIONS.get(name), text);
  return {
    status: response.status,
    type: response.headers.get('content-type'),
    body: (await response.json()) as never,
  };
}

/** @param path names and positions with full stops between them */
export const at = (body: unknown, path: string): unknown =>
  path.split('.').reduce<unknown>((value, key) => (value as Record<string, unknown>)[key], body);
