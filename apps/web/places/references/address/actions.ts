'use server';
/** What an administrator does to the address of a reference. */
import { askForTrial, dropAddress, keepAddress, wireSchema } from '@barys/store/benches';
import { z } from 'zod';
import type { Asked } from '@/places/bench/useRequest';
import { thenAsked } from '@/places/bench/thenAsked';
import { act, thenStay } from '@/server/act';
import type { Answer } from '@/server/answer';
import { textsOf } from '@/server/texts';
import { ADDRESS_FIELDS, wireOfFields, type AddressFields } from './fields';

const key = z.number().int().positive();
const chosenBench = z.coerce.number({ error: 'Choose a bench.' }).int().positive('Choose a bench.');

export async function keepAddressAction(entry: {
  standardId: number;
  revision: number | null;
  fields: AddressFields;
}): Promise<Answer> {
  return thenStay(async () => {
    const fields = textsOf(ADDRESS_FIELDS).parse(entry.fields);
    const { bench } = z.object({ bench: chosenBench }).parse(fields);
    const wire = wireSchema.parse(wireOfFields(fields));
    const edited = {
      referenceId: key.parse(entry.standardId),
      revision: key.nullable().parse(entry.revision),
    };
    await act((tx, actor) => keepAddress(tx, actor, edited, { bench, wire }));
  });
}

export async function dropAddressAction(entry: { standardId: number; revision: number }): Promise<Answer> {
  return thenStay(async () => {
    const edited = { referenceId: key.parse(entry.standardId), revision: key.parse(entry.revision) };
    await act((tx, actor) => dropAddress(tx, actor, edited));
  });
}

export async function askForTrialAction(entry: { standardId: number }): Promise<Asked> {
  return thenAsked(() => act((tx, actor) => askForTrial(tx, actor, key.parse(entry.standardId))));
}
