'use server';
import { keepLiquid, liquidSchema } from '@barys/store/registers';
import { z } from 'zod';
import { act, thenGo } from '@/server/act';
import type { Answer } from '@/server/answer';
import { textsOf } from '@/server/texts';
import { LIQUID_FIELDS, liquidOfFields, type LiquidFields } from './fields';

const key = z.number().int().positive();
const editedSchema = z.object({ id: key, revision: key }).nullable();

/** Adds a liquid, or changes the one that was being edited. */
export async function keepLiquidAction(entry: {
  edited: { id: number; revision: number } | null;
  fields: LiquidFields;
}): Promise<Answer> {
  return thenGo(async () => {
    const liquid = liquidSchema.parse(liquidOfFields(textsOf(LIQUID_FIELDS).parse(entry.fields)));
    const edited = editedSchema.parse(entry.edited);
    await act((tx, actor) => keepLiquid(tx, actor, edited, liquid));
    return '/office/liquids';
  });
}
