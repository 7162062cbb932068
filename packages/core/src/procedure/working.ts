/** The working of a wait. */
import { Working, type Worked } from '../working';
import { waitForDamping } from './settle';

/**
 * The wait that a damping asks for, with its working.
 * @throws CoreError as `waitForDamping`
 */
export function workWait(dampingS: number, sharePercent: number): Worked {
  const value = waitForDamping(dampingS, sharePercent);
  const work = new Working();
  work.step({
    what: 'Wait until this part of the step is left',
    symbol: 't_w',
    formula: 'tau * ln(100 / q)',
    given: { tau: { value: dampingS, unit: 's' }, q: { value: sharePercent, unit: '%' } },
    unit: 's',
    source: 'response of a first-order element',
  });
  return { value, working: work.steps };
}
