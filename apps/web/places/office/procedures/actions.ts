'use server';
import { keepProcedure, procedureContentSchema, procedureNameSchema } from '@barys/store/registers';
import { z } from 'zod';
import { act, thenGo } from '@/server/act';
import type { Answer } from '@/server/answer';
import { textsOf } from '@/server/texts';
import { contentOfFields, PROCEDURE_FIELDS, type ProcedureFields } from './fields';

const edition = z.object({ id: z.number().int().positive(), version: z.number().int().positive() });

/** Enters a procedure, or a new version of the one that was being looked at. */
export async function keepProcedureAction(entry: {
  edited: { id: number; version: number } | null;
  fields: ProcedureFields;
}): Promise<Answer> {
  return thenGo(async () => {
    const fields = textsOf(PROCEDURE_FIELDS).parse(entry.fields);
    const { name, reason } = z
      .object({
        name: procedureNameSchema,
        reason: z.string().trim().min(1, 'Say why: the reason stays with this version.').max(500),
      })
      .parse(fields);
    const content = procedureContentSchema.parse(contentOfFields(fields));
    const edited = edition.nullable().parse(entry.edited);
    const id = await act((tx, actor) => keepProcedure(tx, actor, edited, { name, content, reason }));
    return `/office/procedures/${id}`;
  });
}
