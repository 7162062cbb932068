'use server';
/** What a person does to the register of instruments. */
import { JOB_REASONS, openJobsFor } from '@barys/store/jobs';
import {
  addConfiguration,
  addInstrument,
  assignOwner,
  changeInstrument,
  configurationSchema,
  instrumentSchema,
} from '@barys/store/registers';
import { revalidatePath } from 'next/cache';
import { z } from 'zod';
import { act, answer, thenGo, thenStay } from '@/server/act';
import type { Answer } from '@/server/answer';
import { textsOf } from '@/server/texts';
import {
  configurationOfFields,
  CONFIGURATION_FIELDS,
  entryOfFields,
  NEW_INSTRUMENT,
  type ConfigurationFields,
  type InstrumentFields,
} from './fields';

const instrumentFields = textsOf(NEW_INSTRUMENT);
const configurationFields = textsOf(CONFIGURATION_FIELDS);
const id = z.number().int().positive();
const ids = z.array(id).min(1, 'Choose at least one instrument.').max(1000, 'At most 1000 at once.');

const pageOf = (tag: string): string => `/instruments/${encodeURIComponent(tag)}`;

export async function addInstrumentAction(entry: {
  instrument: InstrumentFields;
  configuration: ConfigurationFields;
}): Promise<Answer> {
  return thenGo(async () => {
    const instrument = instrumentSchema.parse(entryOfFields(instrumentFields.parse(entry.instrument)));
    const fields = configurationFields.parse(entry.configuration);
    const configuration = configurationSchema.parse(configurationOfFields(fields));
    await act((tx, actor) => addInstrument(tx, actor, instrument, configuration));
    return pageOf(instrument.tag);
  });
}

export async function changeInstrumentAction(entry: {
  id: number;
  revision: number;
  instrument: InstrumentFields;
}): Promise<Answer> {
  return thenGo(async () => {
    const instrument = instrumentSchema.parse(entryOfFields(instrumentFields.parse(entry.instrument)));
    await act((tx, actor) =>
      changeInstrument(tx, actor, id.parse(entry.id), id.parse(entry.revision), instrument),
    );
    return pageOf(instrument.tag);
  });
}

export async function configureAction(entry: {
  id: number;
  tag: string;
  /** The job that asks for it; null for the instrument's own page. */
  job: number | null;
  configuration: ConfigurationFields;
  /** Answers to what a changed range asks. */
  given: Readonly<Record<string, string>>;
}): Promise<Answer> {
  return thenGo(async () => {
    const fields = configurationFields.parse(entry.configuration);
    const configuration = configurationSchema.parse(configurationOfFields(fields));
    const given = z
      .record(z.string(), z.string().max(300, 'At most 300 characters, please.'))
      .parse(entry.given);
    await act((tx, actor) => addConfiguration(tx, actor, id.parse(entry.id), configuration, given));
    const job = id.nullable().parse(entry.job);
    return job === null ? pageOf(z.string().parse(entry.tag)) : `/jobs/${job}/adjust`;
  });
}

export async function assignOwnerAction(entry: { ids: number[]; owner: string }): Promise<Answer> {
  return thenStay(async () => {
    const owner = z.string().trim().max(60, 'At most 60 characters, please.').parse(entry.owner);
    await act((tx, actor) => assignOwner(tx, actor, ids.parse(entry.ids), owner));
  });
}

/** Opens a job on each; what could not be opened is said with its reason. */
export async function openJobsAction(entry: {
  ids: number[];
  reason: string;
}): Promise<Answer & { opened?: number; refused?: readonly string[] }> {
  const found: { opened: number; refused: readonly string[] }[] = [];
  const result = await answer(async () => {
    const reason = z.enum(JOB_REASONS).parse(entry.reason);
    found.push(await act((tx, actor) => openJobsFor(tx, actor, ids.parse(entry.ids), reason)));
  });
  revalidatePath('/', 'layout');
  return { ...result, ...found[0] };
}
