'use server';
/** What the workshop worked out goes to an instrument. */
import { openRangeChange } from '@barys/store/jobs';
import {
  addNote,
  biasSchema,
  configurationSchema,
  findInstrument,
  keepBias,
  keepLoop,
  keepVessel,
  loopSchema,
  noteSchema,
  VESSEL_TOOLS,
  vesselSchema,
} from '@barys/store/registers';
import { TORQUE_UNITS, type TorqueUnit } from '@barys/store/shapes';
import { z } from 'zod';
import { pageOfJob } from '@/places/jobs/onJob';
import {
  CONFIGURATION_FIELDS,
  configurationOfFields,
  fieldsOfConfiguration,
} from '@/places/instruments/fields';
import { act, thenGo, thenStay } from '@/server/act';
import type { Answer } from '@/server/answer';
import { readLoop } from './loop';
import { readVessel } from './vessel';
import { rangeInWords } from '@/ui/range/rangeInWords';

const tagSchema = z
  .string()
  .trim()
  .toUpperCase()
  .min(1, 'Say for which instrument: its tag.')
  .max(32, 'At most 32 characters, please.');
const torqueUnit = z.enum(Object.keys(TORQUE_UNITS) as [TorqueUnit, ...TorqueUnit[]]);
const texts = z.record(z.string(), z.string().max(2000));

export interface HandOverEntry {
  readonly tag: string;
  /** Fields of the form of a configuration, by their names; the others stay as they are set. */
  readonly configuration: Readonly<Record<string, string>>;
  /** Whether the body is exchanged too: torques of its checklist in which unit. */
  readonly exchange: string | null;
}

/** Opens a range-change job with what was worked out over what is set. */
export async function handOverAction(entry: HandOverEntry): Promise<Answer> {
  return thenGo(async () => {
    const tag = tagSchema.parse(entry.tag);
    const given = Object.fromEntries(
      Object.entries(texts.parse(entry.configuration)).filter(([name]) => name in CONFIGURATION_FIELDS),
    );
    const exchange = torqueUnit.nullable().parse(entry.exchange);
    return act(async (tx, actor) => {
      const { configuration } = await findInstrument(tx, { tag });
      const planned = configurationSchema.parse(
        configurationOfFields({ ...fieldsOfConfiguration(configuration), ...given }),
      );
      const label = `${tag}: ${rangeInWords({ ...planned, version: configuration.version })}`;
      return pageOfJob(tx, await openRangeChange(tx, actor, tag, planned, { label, exchange }));
    });
  });
}

export async function keepNoteAction(entry: { tag: string; text: string; address: string }): Promise<Answer> {
  return thenStay(async () => {
    const tag = tagSchema.parse(entry.tag);
    await act((tx, actor) => addNote(tx, actor, tag, noteSchema.parse(entry)));
  });
}

/** Keeps what stands in the fields of a tool as the vessel of an instrument; the range is worked out here again. */
export async function keepVesselAction(entry: {
  tag: string;
  tool: 'level' | 'drum';
  fields: Readonly<Record<string, string>>;
}): Promise<Answer> {
  return thenStay(async () => {
    const tag = tagSchema.parse(entry.tag);
    const tool = z.enum(VESSEL_TOOLS).parse(entry.tool);
    const { why: reason, fields, range } = readVessel(tool, entry.fields);
    const vessel = vesselSchema.parse({ tool, fields, lrvPa: range.lrvPa, urvPa: range.urvPa, reason });
    await act((tx, actor) => keepVessel(tx, actor, tag, vessel));
  });
}

/** Keeps what stands in the fields of the tool as the loop of an instrument; its chain is worked out here again. */
export async function keepLoopAction(entry: {
  tag: string;
  fields: Readonly<Record<string, string>>;
}): Promise<Answer> {
  return thenStay(async () => {
    const tag = tagSchema.parse(entry.tag);
    const loop = loopSchema.parse(readLoop(entry.fields));
    await act((tx, actor) => keepLoop(tx, actor, tag, loop));
  });
}

export type BiasEntry = { readonly tag: string; readonly job: string } & z.input<typeof biasSchema>;

export async function keepBiasAction(entry: BiasEntry): Promise<Answer> {
  return thenStay(async () => {
    const tag = tagSchema.parse(entry.tag);
    const job = z
      .union([
        z.literal('').transform(() => null),
        z.coerce.number({ error: 'A job has a number.' }).int().positive(),
      ])
      .parse(entry.job.trim());
    await act((tx, actor) => keepBias(tx, actor, tag, job, biasSchema.parse(entry)));
  });
}
