/** The range that a job was opened for, handed over from the workshop. */
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import type { Actor } from '../people/actor';
import { requirePlanner } from '../people/people';
import { isSameRange, type NewConfiguration } from '../registers/configuration';
import { findInstrument } from '../registers/instruments';
import { rangeMisfit, torqueWords, type TorqueUnit } from '../registers/body';
import { openJob } from './decide';
import { addLists } from './lists';

/**
 * Opens a range-change job with the new configuration, what its label says, and the lists of what must follow.
 * @param planned the whole of the new configuration
 * @param exchange where the body is exchanged too, so that its swap checklist is walked: torques in which unit
 * @param label what the new label says
 * @throws StoreError `range-unfit`, `no-such`, `job-already-open`, `not-walkable`,
 * `unknown-person`, `not-allowed`
 */
export async function openRangeChange(
  tx: Queryable,
  actor: Actor,
  tag: string,
  planned: NewConfiguration,
  { label, exchange }: { readonly label: string; readonly exchange: TorqueUnit | null },
): Promise<number> {
  await requirePlanner(tx, actor);
  const instrument = await findInstrument(tx, { tag });
  const { body } = instrument;
  const why = rangeMisfit(body, planned.inputUnit, planned.lrv, planned.urv);
  if (why !== null) throw new StoreError({ code: 'range-unfit', why });
  if (!body.outputs.includes(planned.signal))
    throw new StoreError({ code: 'range-unfit', why: `The body ${body.model} does not have this output.` });
  if (isSameRange({ ...planned, version: instrument.configuration.version }, instrument.configuration))
    throw new StoreError({
      code: 'range-unfit',
      why: `${tag} has this range already. What else differs goes into its next configuration.`,
    });
  const jobId = await openJob(tx, actor, tag, 'range change');
  if (exchange !== null) {
    const steps = body.swapChecklist.map(({ step, torqueNm }) =>
      torqueNm === null ? step : `${step}: ${torqueWords(torqueNm, exchange)}`,
    );
    await addLists(tx, actor, [jobId], [['exchange of the body', steps]]);
  }
  await tx.query(
    'insert into range_plan (job_id, configuration, label, made_by, made_at) values ($1, $2, $3, $4, $5)',
    [jobId, JSON.stringify(planned), label.trim(), actor.personId, actor.at],
  );
  await appendToTrail(tx, actor, {
    act: 'plan range',
    subject: { kind: 'job', id: jobId },
    detail: { tag, ...planned, label: label.trim() },
  });
  return jobId;
}
