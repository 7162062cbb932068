'use server';
import { askForWrite, writeSchema } from '@barys/store/benches';
import { z } from 'zod';
import { thenAsked } from '@/places/bench/thenAsked';
import type { Asked } from '@/places/bench/useRequest';
import { act } from '@/server/act';
import { textsOf } from '@/server/texts';
import { actOfFields, WRITE_FIELDS, type WriteFields } from './fields';

const jobNumber = z.number().int().positive();

export async function askForWriteAction(entry: {
  job: number;
  bench: number;
  device: string;
  serial: string;
  fields: WriteFields;
}): Promise<Asked> {
  return thenAsked(() => {
    const { job, bench, device, serial } = entry;
    const fields = textsOf(WRITE_FIELDS).parse(entry.fields);
    const wanted = writeSchema.parse({
      bench,
      device,
      serial,
      act: actOfFields(fields),
      atAppliedText: fields.applied,
    });
    return act((tx, actor) => askForWrite(tx, actor, jobNumber.parse(job), wanted));
  });
}
