'use server';
/** What a person does to a job: each act is one transaction in the store, then on to where the job stands. */
import {
  adjustAgain,
  AMENDABLE_FIELDS,
  cancelJob,
  connectAgain,
  amendJob,
  ASKING_STAGES,
  attach,
  backToReturn,
  ADJUSTMENT_KINDS,
  backToJudge,
  beginAsLeft,
  CONNECT_CHECKS,
  connectJob,
  decideOnRun,
  DECISIONS_ON_RUN,
  finishRun,
  JOB_REASONS,
  logAdjustment,
  openJob,
  keepMove,
  passAsked,
  reopenAsFound,
  SECOND_INDICATIONS,
  reviewAmendment,
  reviewJob,
  signJob,
  stageOfJob,
  STAGES,
  StoreError,
  throwRunAway,
  VALVE_STAGES,
  WORK_PLACES,
  type Actor,
  type NewConnection,
  type SecondScale,
  type Standing,
  type Queryable,
} from '@barys/store';
import { HOOK_UPS, parseTyped, type ValveId } from '@barys/core';
import { z } from 'zod';
import { act, actWithPassword, thenGo, thenStay } from '@/server/act';
import type { Answer } from '@/server/answer';

const VALVE_IDS: ReadonlySet<string> = new Set(
  Object.values(HOOK_UPS).flatMap(({ valves }) => valves.map((valve) => valve.id)),
);

const id = z.coerce.number().int().positive();

const isStage = (standing: Standing): boolean => (STAGES as readonly string[]).includes(standing);

/** Where a job stands, as an address; straight there, since a redirect to a redirect can leave a page empty. */
async function pageOfJob(tx: Queryable, jobId: number): Promise<string> {
  const stage = await stageOfJob(tx, jobId);
  return `/jobs/${jobId}/${isStage(stage) ? stage : 'record'}`;
}

/** Runs an act on the job named in the form and, when it was kept, goes to where the job now stands. */
function onJob(
  form: FormData,
  work: (tx: Queryable, actor: Actor, jobId: number, entry: Record<string, unknown>) => Promise<unknown>,
  run = act,
): Promise<Answer> {
  const entry: Record<string, unknown> = { ...Object.fromEntries(form), checks: form.getAll('checks') };
  return thenGo(async () => {
    const jobId = id.parse(entry['job']);
    return run(async (tx, actor) => {
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

/** Answers by the key of their question: the fields of a form that are named `answer.` and the key. */
const answersIn = (raw: Readonly<Record<string, unknown>>): Record<string, string> =>
  Object.fromEntries(
    Object.entries(raw).flatMap(([name, value]) =>
      name.startsWith('answer.') && typeof value === 'string'
        ? [[name.slice('answer.'.length), value.slice(0, 500)]]
        : [],
    ),
  );

export async function passAskedAction(_before: Answer, form: FormData): Promise<Answer> {
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

/** The same, where an empty field stands for a usual value. */
const typedOr = (name: string, usual: number, lowest: number, highest: number, unit: string) =>
  z
    .string()
    .default('')
    .transform((text) => (text.trim() === '' ? String(usual) : text))
    .pipe(typedBetween(name, lowest, highest, unit));

const connectionSchema = z.object({
  pressureReference: z.coerce.number().int().positive('Choose the pressure reference.'),
  secondReference: z.union([z.literal(''), z.coerce.number().int().positive()]).default(''),
  /** Not asked where the output is read by eye. */
  meter: z.coerce.number().int().positive('Choose the meter.').optional(),
  referenceReason: z.string().max(500),
  temperatureC: typedBetween('Ambient temperature', -60, 85, '°C'),
  humidityPercent: typedBetween('Humidity', 0, 100, '%'),
  barometerHpa: typedBetween('Barometer', 500, 1100, 'hPa'),
  checks: z.array(z.enum(CONNECT_CHECKS)),
  place: z.enum(WORK_PLACES, { error: 'Say where the readings are taken.' }),
  leakStart: z.string().max(40).default(''),
  leakEnd: z.string().max(40).default(''),
  leakMinutes: z.string().max(40).default(''),
  heightM: typedOr('Height difference', 0, -100, 100, 'm'),
  liquidDensityKgPerM3: typedOr('Liquid in the line', 0, 0, 20000, 'kg/m³'),
  secondIndication: z.union([z.literal(''), z.enum(SECOND_INDICATIONS)]).default(''),
  secondLow: z.string().max(40).default(''),
  secondHigh: z.string().max(40).default(''),
  secondUnit: z.string().max(20).default(''),
  secondTolerance: z.string().max(40).default(''),
  readsDigital: z.literal('yes').optional(),
  note,
});

/** A leak check is taken whole or not at all. */
function leakOf({
  leakStart,
  leakEnd,
  leakMinutes,
}: z.infer<typeof connectionSchema>): NewConnection['leak'] {
  if ([leakStart, leakEnd, leakMinutes].every((text) => text.trim() === '')) return null;
  return {
    startText: leakStart,
    endText: leakEnd,
    minutes: typedBetween('Leak check', 0.1, 1440, 'minutes').parse(leakMinutes),
  };
}

/** The scale of a second indication is taken whole or not at all. */
function secondScaleOf(entry: z.infer<typeof connectionSchema>): SecondScale | null {
  const { secondIndication, secondLow, secondHigh, secondUnit, secondTolerance } = entry;
  if (secondIndication === '' || secondTolerance.trim() === '') return null;
  const number = (name: string, text: string) => typedBetween(name, -1e9, 1e9, '').parse(text);
  return {
    unit: secondUnit.trim(),
    low: number('What it shows at 0 %', secondLow),
    high: number('What it shows at 100 %', secondHigh),
    percentOfSpan: typedBetween('Its tolerance', 0.001, 100, '%').parse(secondTolerance),
  };
}

export async function connectAction(_before: Answer, form: FormData): Promise<Answer> {
  return onJob(form, (tx, actor, jobId, raw) => {
    const entry = connectionSchema.parse(raw);
    const { temperatureC, humidityPercent, barometerHpa } = entry;
    return connectJob(tx, actor, jobId, {
      pressureReference: entry.pressureReference,
      secondReference: entry.secondReference === '' ? null : entry.secondReference,
      meter: entry.meter ?? null,
      referenceReason: entry.referenceReason,
      checksDone: entry.checks,
      place: entry.place,
      ambient: { temperatureC, humidityPercent, barometerHpa },
      leak: leakOf(entry),
      heightM: entry.heightM,
      liquidDensityKgPerM3: entry.liquidDensityKgPerM3,
      secondIndication: entry.secondIndication,
      secondScale: secondScaleOf(entry),
      readsDigital: entry.readsDigital === 'yes',
      given: answersIn(raw),
      note: entry.note,
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
    const entry = z.object({ decision: z.enum([...DECISIONS_ON_RUN, 'reopen']), note }).parse(raw);
    const { decision } = entry;
    return decision === 'reopen'
      ? reopenAsFound(tx, actor, jobId)
      : decideOnRun(tx, actor, jobId, { decision, note: entry.note });
  });
}

export async function throwAwayAction(_before: Answer, form: FormData): Promise<Answer> {
  return onJob(form, (tx, actor, jobId, raw) => {
    const entry = z.object({ kind: z.enum(['as-found', 'as-left']), reason: note }).parse(raw);
    return throwRunAway(tx, actor, jobId, entry.kind, entry.reason);
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

export async function adjustAgainAction(_before: Answer, form: FormData): Promise<Answer> {
  return onJob(form, adjustAgain);
}

const password = z.string().max(500).default('');

export async function signAction(_before: Answer, form: FormData): Promise<Answer> {
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

export async function reviewAction(_before: Answer, form: FormData): Promise<Answer> {
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

export async function amendAction(_before: Answer, form: FormData): Promise<Answer> {
  return thenStay(async () => {
    const { job, readingId, ...entry } = amendmentSchema.parse(Object.fromEntries(form));
    await actWithPassword((tx, actor) =>
      amendJob(tx, actor, job, { ...entry, readingId: readingId === 0 ? null : readingId }),
    );
  });
}

export async function reviewAmendmentAction(_before: Answer, form: FormData): Promise<Answer> {
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

export async function turnAction(_before: Answer, form: FormData): Promise<Answer> {
  return onJob(form, (tx, actor, jobId, raw) => {
    const { turn, reason, isBack } = z
      .object({ turn: z.enum(['cancel', 'connect']), reason: note, isBack: z.literal('yes').optional() })
      .parse(raw);
    return turn === 'cancel'
      ? cancelJob(tx, actor, jobId, { reason, isBack: isBack === 'yes' })
      : connectAgain(tx, actor, jobId, reason);
  });
}

export async function attachAction(_before: Answer, form: FormData): Promise<Answer> {
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
