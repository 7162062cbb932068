'use server';
/** Signing, reviewing and amending. */
import {
  AMENDABLE_FIELDS,
  amendJob,
  backToReturn,
  reviewAmendment,
  reviewJob,
  signJob,
} from '@barys/store/jobs';
import { z } from 'zod';
import { act, actWithPassword, thenStay } from '@/server/act';
import type { Answer } from '@/server/answer';
import { id, note, onJob, password, withNote } from '@/places/jobs/onJob';

export async function signAction(form: FormData): Promise<Answer> {
  return onJob(
    form,
    (tx, actor, jobId, raw) => {
      const entry = withNote.extend({ act: z.enum(['sign', 'back']), password }).parse(raw);
      return entry.act === 'sign'
        ? signJob(tx, actor, jobId, { remark: entry.note, password: entry.password })
        : backToReturn(tx, actor, jobId);
    },
    form.get('act') === 'sign' ? actWithPassword : act,
  );
}

export async function reviewAction(form: FormData): Promise<Answer> {
  return onJob(
    form,
    (tx, actor, jobId, raw) => {
      const entry = withNote.extend({ act: z.enum(['accept', 'send-back']), password }).parse(raw);
      return reviewJob(tx, actor, jobId, {
        isAccepted: entry.act === 'accept',
        remark: entry.note,
        password: entry.password,
      });
    },
    actWithPassword,
  );
}

const amendmentSchema = z.object({
  job: id,
  readingId: z.coerce.number().int().nonnegative(),
  field: z.enum(AMENDABLE_FIELDS),
  what: z.string().max(200).default(''),
  afterText: z.string().max(500),
  reason: note,
  password,
});

export async function amendAction(form: FormData): Promise<Answer> {
  return thenStay(async () => {
    const { job, readingId, ...entry } = amendmentSchema.parse(Object.fromEntries(form));
    await actWithPassword((tx, actor) =>
      amendJob(tx, actor, job, { ...entry, readingId: readingId === 0 ? null : readingId }),
    );
  });
}

export async function reviewAmendmentAction(form: FormData): Promise<Answer> {
  return thenStay(async () => {
    const { amendment, ...entry } = z
      .object({ amendment: id, act: z.enum(['accept', 'refuse']), note, password })
      .parse(Object.fromEntries(form));
    await actWithPassword((tx, actor) =>
      reviewAmendment(tx, actor, amendment, {
        isAccepted: entry.act === 'accept',
        remark: entry.note,
        password: entry.password,
      }),
    );
  });
}
