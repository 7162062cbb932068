import { ADJUSTMENTS } from './good/adjustments';
import { CONFORMITY } from './good/conformity';
import { CORRECTIONS } from './good/corrections';
import { FLOWS } from './good/flows';
import { INTERVALS } from './good/intervals';
import { LEVELS } from './good/levels';
import { LOOPS } from './good/loops';
import { RANGING } from './good/ranging';
import { RUNS } from './good/runs';
import { SETUP } from './good/setup';
import { SIGNALS } from './good/signals';
import { SUSPECTS } from './good/suspects';
import { UNCERTAINTY } from './good/uncertainty';
import { UNITS } from './good/units';
import { VACUUM } from './good/vacuum';
import type { Good } from './parts';

/** The good requests of all subjects. */
export const GOOD: Good = {
  ...UNITS,
  ...SIGNALS,
  ...RANGING,
  ...SETUP,
  ...RUNS,
  ...SUSPECTS,
  ...ADJUSTMENTS,
  ...INTERVALS,
  ...UNCERTAINTY,
  ...CONFORMITY,
  ...CORRECTIONS,
  ...VACUUM,
  ...LEVELS,
  ...FLOWS,
  ...LOOPS,
};
