'use server';
/** What a person does to a job: each act is one transaction in the store, then on to where the job stands. */
import {
  adjustAgain,
  ADJUSTMENT_KINDS,
  backToJudge,
  beginAsLeft,
  CONNECT_CHECKS,
  connectJob,
  decideToAdjust,
  decideToLeave,
  finishRun,
  JOB_REASONS,
  logAdjustment,
  openJob,
  passBrief,
  reopenAsFound,
  signJob,
  stageOfJob,
  type Actor,
  type Queryable,
} from '@barys/store';
import { parseTyped } from '@barys/core';
import { z } from 'zod';
import { act, thenGo } from '@/server/act';
import type { Answer } from '@/server/answer';

const id = z.coerce.number().int().positive();

/** Where a job stands, as an address; straight there, since a redirect to a redirect can leave a page empty. */
async function pageOfJob(tx: Queryable, jobId: number): Promise<string> {
  const stage = await stageOfJob(tx, jobId);
  return `/jobs/${jobId}/${stage === 'closed' ? 'record' : stage}`;
}

/** Runs an act on the job named in the form and, when it was kept, goes to where the job now stands. */
function onJob(
  form: FormData,
  work: (tx: Queryable, actor: Actor, jobId: number, entry: Record<string, unknown>) => Promise<unknown>,
): Promise<Answer> {
  const entry: Record<string, unknown> = { ...Object.fromEntries(form), checks: form.getAll('checks') };
  return thenGo(async () => {
    const jobId = id.parse(entry['job']);
    return act(async (tx, actor) => {
      await work(tx, actor, jobId, entry);
      return pageOfJob(tx, jobId);
    });
  });
}

const note = z.string().max(2000, 'At most 2000 characters, please.').default('');
const withNote = z.object({ note });

export async function openJobAction(_before: Answer, form: FormData): Promise<Answer> {
  return thenGo(async () => {
    const { tag, reason } = z
      .object({ tag: z.string(), reason: z.enum(JOB_REASONS) })
      .parse(Object.fromEntries(form));
    return act(async (tx, actor) => pageOfJob(tx, await openJob(tx, actor, tag, reason)));
  });
}

export async function passBriefAction(_before: Answer, form: FormData): Promise<Answer> {
  return onJob(form, passBrief);
}

/** A typed number between two bounds, with a message that names the field. */
const typedBetween = (name: string, lowest: number, highest: number, unit: string) =>
  z.string().transform((text, context) => {
    const wrong = `${name}: type a number from ${lowest} to ${highest} ${unit}.`;
    try {
      const { value } = parseTyped(text);
      if (value >= lowest && value <= highest) return value;
    } catch {
      // Said below, in the same words as a number out of bounds.
    }
    context.addIssue({ code: 'custom', message: wrong });
    return z.NEVER;
  });

const connectionSchema = z.object({
  pressureReference: z.coerce.number().int().positive('Choose the pressure reference.'),
  meter: z.coerce.number().int().positive('Choose the meter.'),
  referenceReason: z.string().max(500),
  temperatureC: typedBetween('Ambient temperature', -60, 85, '°C'),
  humidityPercent: typedBetween('Humidity', 0, 100, '%'),
  barometerHpa: typedBetween('Barometer', 500, 1100, 'hPa'),
  checks: z.array(z.enum(CONNECT_CHECKS)),
  note,
});

export async function connectAction(_before: Answer, form: FormData): Promise<Answer> {
  return onJob(form, (tx, actor, jobId, raw) => {
    const { temperatureC, humidityPercent, barometerHpa, checks, ...entry } = connectionSchema.parse(raw);
    return connectJob(tx, actor, jobId, {
      ...entry,
      checksDone: checks,
      ambient: { temperatureC, humidityPercent, barometerHpa },
    });
  });
}

export async function finishRunAction(_before: Answer, form: FormData): Promise<Answer> {
  return onJob(form, (tx, actor, jobId, raw) => {
    const { kind } = z.object({ kind: z.enum(['as-found', 'as-left']) }).parse(raw);
    return finishRun(tx, actor, jobId, kind);
  });
}

export async function decideAction(_before: Answer, form: FormData): Promise<Answer> {
  return onJob(form, (tx, actor, jobId, raw) => {
    const entry = z.object({ decision: z.enum(['adjust', 'leave', 'reopen']), note }).parse(raw);
    switch (entry.decision) {
      case 'adjust':
        return decideToAdjust(tx, actor, jobId, entry.note);
      case 'leave':
        return decideToLeave(tx, actor, jobId, entry.note);
      case 'reopen':
        return reopenAsFound(tx, actor, jobId);
    }
  });
}

const adjustmentSchema = z.object({
  kind: z.enum(ADJUSTMENT_KINDS),
  description: note,
  atAppliedText: z.string(),
  beforeText: z.string(),
  afterText: z.string(),
});

export async function logAdjustmentAction(_before: Answer, form: FormData): Promise<Answer> {
  return onJob(form, (tx, actor, jobId, raw) => logAdjustment(tx, actor, jobId, adjustmentSchema.parse(raw)));
}

export async function leaveAdjustAction(_before: Answer, form: FormData): Promise<Answer> {
  return onJob(form, (tx, actor, jobId, raw) => {
    const { to } = z.object({ to: z.enum(['as-left', 'judge']) }).parse(raw);
    return to === 'as-left' ? beginAsLeft(tx, actor, jobId) : backToJudge(tx, actor, jobId);
  });
}

export async function signAction(_before: Answer, form: FormData): Promise<Answer> {
  return onJob(form, (tx, actor, jobId, raw) => {
    const entry = withNote.extend({ act: z.enum(['sign', 'adjust']) }).parse(raw);
    return entry.act === 'sign' ? signJob(tx, actor, jobId, entry.note) : adjustAgain(tx, actor, jobId);
  });
}
