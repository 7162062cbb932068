/** Every calculation of the workshop and of the job, by the name under which the API offers it. */
import { ADJUSTMENT_CALCULATIONS } from './adjustments';
import type { Calculation } from './calculation';
import { CONFORMITY_CALCULATIONS } from './conformity';
import { CORRECTION_CALCULATIONS } from './corrections';
import { FLOW_CALCULATIONS } from './flows';
import { INTERVAL_CALCULATIONS } from './intervals';
import { LEVEL_CALCULATIONS } from './levels';
import { LOOP_CALCULATIONS } from './loops';
import { RANGING_CALCULATIONS } from './ranging';
import { RUN_CALCULATIONS } from './runs';
import { SETUP_CALCULATIONS } from './setup';
import { SIGNAL_CALCULATIONS } from './signals';
import { SUSPECT_CALCULATIONS } from './suspects';
import { UNCERTAINTY_CALCULATIONS } from './uncertainty';
import { UNIT_CALCULATIONS } from './units';
import { VACUUM_CALCULATIONS } from './vacuum';

/** By subject, as the API's description groups them. */
export const CALCULATIONS_BY_SUBJECT: Readonly<Record<string, readonly Calculation[]>> = {
  Units: UNIT_CALCULATIONS,
  'Ranges and signals': SIGNAL_CALCULATIONS,
  'Range changes': RANGING_CALCULATIONS,
  'Set-up': SETUP_CALCULATIONS,
  Runs: RUN_CALCULATIONS,
  Suspects: SUSPECT_CALCULATIONS,
  Adjustment: ADJUSTMENT_CALCULATIONS,
  'Drift and intervals': INTERVAL_CALCULATIONS,
  Uncertainty: UNCERTAINTY_CALCULATIONS,
  Conformity: CONFORMITY_CALCULATIONS,
  Corrections: CORRECTION_CALCULATIONS,
  Vacuum: VACUUM_CALCULATIONS,
  'Levels and boiler drums': LEVEL_CALCULATIONS,
  'Flow by differential pressure': FLOW_CALCULATIONS,
  Loops: LOOP_CALCULATIONS,
};

export const CALCULATIONS: ReadonlyMap<string, Calculation> = new Map(
  Object.values(CALCULATIONS_BY_SUBJECT)
    .flat()
    .map((one) => [one.name, one]),
);
