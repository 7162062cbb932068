'use server';
/** What was read at an instrument is kept. */
import { askForSetup } from '@barys/store/benches';
import { keepSetupReading, SETUP_MOMENTS, type SetupMoment } from '@barys/store/registers';
import { z } from 'zod';
import { thenAsked } from '@/places/bench/thenAsked';
import type { Asked } from '@/places/bench/useRequest';
import { act, thenStay } from '@/server/act';
import type { Answer } from '@/server/answer';
import { textsOf } from '@/server/texts';
import { checksOfFields, SETUP_FIELDS, setupOfFields, type SetupFields } from './fields';

const whole = z.number().int().positive();
const entrySchema = z.object({
  tag: z.string(),
  version: whole,
  job: z.object({ id: whole, moment: z.enum(SETUP_MOMENTS) }).nullable(),
  fields: textsOf(SETUP_FIELDS),
});

export async function keepSetupAction(entry: {
  tag: string;
  version: number;
  job: { readonly id: number; readonly moment: SetupMoment } | null;
  fields: SetupFields;
}): Promise<Answer> {
  return thenStay(async () => {
    const { tag, version, job, fields } = entrySchema.parse(entry);
    const reading = {
      job,
      version,
      settings: setupOfFields(fields),
      checks: checksOfFields(fields),
      remark: fields.remark,
    };
    await act((tx, actor) => keepSetupReading(tx, actor, tag, reading));
  });
}

export async function askForSetupAction(entry: {
  tag: string;
  bench: number;
  device: string;
}): Promise<Asked> {
  return thenAsked(() => {
    const { tag, ...where } = z
      .object({ tag: z.string(), bench: whole, device: z.string().min(1).max(60) })
      .parse(entry);
    return act((tx, actor) => askForSetup(tx, actor, tag, where));
  });
}
