import { exactSum } from '../exact';

/**
 * What the instrument sees where the standard shows `applied`, to the last typed digit: 0.1 and 0.2 make 0.3.
 * @param head what the instrument sees more than the standard, in the same unit
 */
export const atInstrument = (applied: number, head: number): number =>
  head === 0 ? applied : exactSum(applied, head);
