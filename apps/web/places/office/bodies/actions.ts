'use server';
import { addBody, bodySchema, changeBody } from '@barys/store/registers';
import { z } from 'zod';
import { act, thenGo } from '@/server/act';
import type { Answer } from '@/server/answer';
import { textsOf } from '@/server/texts';
import { BODY_FIELDS, bodyOfFields, type BodyFields } from './fields';

const list = z.array(z.string()).max(50);
const key = z.number().int().positive();

/** Adds a body, or changes the one that was being edited. */
export async function keepBodyAction(entry: {
  edited: { id: number; revision: number } | null;
  fields: BodyFields;
  outputs: string[];
  trims: string[];
}): Promise<Answer> {
  return thenGo(async () => {
    const fields = textsOf(BODY_FIELDS).parse(entry.fields);
    const body = bodySchema.parse(bodyOfFields(fields, list.parse(entry.outputs), list.parse(entry.trims)));
    const { edited } = entry;
    const id = await act(async (tx, actor) => {
      if (edited === null) return addBody(tx, actor, body);
      await changeBody(tx, actor, key.parse(edited.id), key.parse(edited.revision), body);
      return edited.id;
    });
    return `/office/bodies/${id}`;
  });
}
