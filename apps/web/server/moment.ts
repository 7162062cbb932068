import type { Actor } from '@barys/store/people';
import { localDate } from './dates';

/** Now, and the day it is where the works stands. */
export function moment(): Pick<Actor, 'at' | 'today'> {
  const at = new Date();
  return { at, today: localDate(at) };
}
