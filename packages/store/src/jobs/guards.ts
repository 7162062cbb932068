/** What speaks against an adjustment in a job, from what the job knows. */
import type { Advice, GuardedJob } from '@barys/core/adjust';
import { convertPressure, PRESSURE_UNITS } from '@barys/core/units';
import type { Queryable } from '../db/database';
import type { Instrument } from '../registers/instrument';
import { runsOfJob } from '../runs/load';
import { adviceOnRun } from '../runs/advice';
import type { Run } from '../runs/copy';
import { isRangeWrongIn } from './advice';
import { connectionOfJob, type Connection } from './connection';
import { isTooFast } from './leak';
import { CONTROLLER_QUESTION } from './questions';

/** Whether the job says that nothing follows the loop: its controller is in manual, or the instrument is at the bench. */
export async function isLoopFree(tx: Queryable, jobId: number): Promise<boolean> {
  if ((await connectionOfJob(tx, jobId))?.place === 'at the bench') return true;
  const said = await tx.query(
    `select from stage_passed, jsonb_array_elements(answers) as given
     where job_id = $1 and given ->> 'question' = $2 and given ->> 'answer' <> '' limit 1`,
    [jobId, CONTROLLER_QUESTION],
  );
  return said.length > 0;
}

const PRESENT_AIR_HPA = 1013.25;

/** The circumstances of a job, for a form and for the log alike. */
export async function guardedJob(tx: Queryable, jobId: number, instrument: Instrument): Promise<GuardedJob> {
  const connection = await connectionOfJob(tx, jobId);
  const run = (await runsOfJob(tx, jobId)).filter(({ thrownAway }) => thrownAway === null).at(-1);
  const isRangeWrong = await isRangeWrongIn(tx, jobId);
  const advice = run === undefined ? null : adviceOnRun(run, instrument.body, isRangeWrong);
  return {
    ...placeOf(instrument, connection, run),
    isLoopFollowed: !(await isLoopFree(tx, jobId)),
    isRangeWrong,
    ...faultsOf(advice),
  };
}

/** By the rate that was found; a check that is only ticked was passed; null where nobody checked. */
function isLeaking(connection: Connection | null): boolean | null {
  if (connection?.leak != null) return isTooFast(connection.leak);
  return connection?.checksDone.includes('leak checked') === true ? false : null;
}

function placeOf(
  { kind, body, configuration }: Instrument,
  connection: Connection | null,
  run: Run | undefined,
): Omit<GuardedJob, 'isLoopFollowed' | 'isRangeWrong' | keyof ReturnType<typeof faultsOf>> {
  const { inputUnit, lrv, urv } = configuration;
  const limit = (value: number) => convertPressure(value, body.unit, inputUnit);
  const tolerance = run?.madeWith.tolerance;
  const percent =
    tolerance === undefined ? 0 : (tolerance.percentOfSpan * tolerance.adjustAbovePercentOfLimit) / 100;
  const [first, last] = [limit(body.lowerRangeLimit), limit(body.upperRangeLimit)];
  return {
    kind,
    body,
    unit: PRESSURE_UNITS[inputUnit].label,
    adjustLimit: (percent / 100) * Math.abs(urv - lrv),
    lowerRangeLimit: Math.min(first, last),
    upperRangeLimit: Math.max(first, last),
    barometer: convertPressure(connection?.ambient.barometerHpa ?? PRESENT_AIR_HPA, 'hPa', inputUnit),
    isLeaking: isLeaking(connection),
  };
}

function faultsOf(
  advice: Advice | null,
): Pick<GuardedJob, 'errorPercentSpan' | 'isFaultBeforeOutput' | 'isSensorError'> {
  if (advice === null) return { errorPercentSpan: null, isFaultBeforeOutput: false, isSensorError: false };
  const { portrait, stages, found } = advice;
  const errors = [portrait.zero?.value ?? 0, portrait.gain?.value ?? 0];
  return {
    errorPercentSpan: errors.reduce((most, one) => (Math.abs(one) > Math.abs(most) ? one : most), 0),
    isFaultBeforeOutput: stages !== null && stages.isSensorOutside && !stages.isOutputOutside,
    isSensorError:
      stages === null ? found.verdict !== null && found.verdict !== 'within' : stages.isSensorOutside,
  };
}
