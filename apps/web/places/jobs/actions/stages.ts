'use server';
/** Opening a job, passing its stages, moving its valves, taking it another way, and what is kept with it. */
import { StoreError } from '@barys/store/db';
import {
  cancelJob,
  connectAgain,
  ASKING_STAGES,
  attach,
  JOB_REASONS,
  openJob,
  keepMove,
  passAsked,
  VALVE_STAGES,
} from '@barys/store/jobs';
import { HOOK_UPS, type ValveId } from '@barys/core/hookup';
import { z } from 'zod';
import { act, thenGo, thenStay } from '@/server/act';
import type { Answer } from '@/server/answer';
import { answersIn, id, note, onJob, pageOfJob } from '@/places/jobs/onJob';

const VALVE_IDS: ReadonlySet<string> = new Set(
  Object.values(HOOK_UPS).flatMap(({ valves }) => valves.map((valve) => valve.id)),
);

export async function openJobAction(form: FormData): Promise<Answer> {
  return thenGo(async () => {
    const { tag, reason } = z
      .object({ tag: z.string(), reason: z.enum(JOB_REASONS) })
      .parse(Object.fromEntries(form));
    return act(async (tx, actor) => pageOfJob(tx, await openJob(tx, actor, tag, reason)));
  });
}

export async function passAskedAction(form: FormData): Promise<Answer> {
  return onJob(form, (tx, actor, jobId, raw) => {
    const { stage, skipReason } = z
      .object({
        stage: z.enum(ASKING_STAGES),
        skipReason: z.string().max(500, 'At most 500 characters, please.').optional(),
      })
      .parse(raw);
    if (skipReason?.trim() === '')
      throw new StoreError({ code: 'reason-needed', why: 'the stage is passed over' });
    return passAsked(tx, actor, jobId, stage, { given: answersIn(raw), skipReason: skipReason ?? '' });
  });
}

const moveSchema = z.object({
  job: id,
  stage: z.enum(VALVE_STAGES),
  valve: z.string().refine((text): text is ValveId => VALVE_IDS.has(text), 'There is no such valve.'),
  to: z.enum(['open', 'closed']),
  isMadeAnyway: z.boolean(),
  known: z.number().int().nonnegative(),
});

export async function moveValveAction(entry: z.input<typeof moveSchema>): Promise<Answer> {
  return thenStay(async () => {
    const { job, ...move } = moveSchema.parse(entry);
    await act((tx, actor) => keepMove(tx, actor, job, move));
  });
}

export async function turnAction(form: FormData): Promise<Answer> {
  return onJob(form, (tx, actor, jobId, raw) => {
    const { turn, reason, isBack } = z
      .object({ turn: z.enum(['cancel', 'connect']), reason: note, isBack: z.literal('yes').optional() })
      .parse(raw);
    return turn === 'cancel'
      ? cancelJob(tx, actor, jobId, { reason, isBack: isBack === 'yes' })
      : connectAgain(tx, actor, jobId, reason);
  });
}

export async function attachAction(form: FormData): Promise<Answer> {
  return thenStay(async () => {
    const { job, remark, run, position } = z
      .object({
        job: id,
        remark: z.string().max(2000, 'At most 2000 characters, please.').default(''),
        run: id.optional(),
        position: z.union([z.literal('').transform(() => undefined), z.coerce.number().int()]).optional(),
      })
      .parse(Object.fromEntries(form));
    const point = run === undefined || position === undefined ? null : { runId: run, position };
    const file = form.get('file');
    const kept =
      file instanceof File && file.size > 0
        ? { name: file.name, bytes: Buffer.from(await file.arrayBuffer()) }
        : null;
    await act((tx, actor) => attach(tx, actor, job, { remark, file: kept, point }));
  });
}
