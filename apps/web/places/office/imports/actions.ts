'use server';
import { bringFile, IMPORT_KINDS, LARGEST_IMPORT_BYTES } from '@barys/store/imports';
import { z } from 'zod';
import { act, thenGo } from '@/server/act';
import type { Answer } from '@/server/answer';

/** Keeps the file of a form and goes on to its page. */
export async function bringFileAction(form: FormData): Promise<Answer> {
  return thenGo(async () => {
    const { kind, file } = z
      .object({
        kind: z.enum(IMPORT_KINDS),
        file: z
          .instanceof(File, { error: 'Choose a file.' })
          .refine(({ size }) => size > 0, 'Choose a file; this one is empty.')
          .refine(({ size }) => size <= LARGEST_IMPORT_BYTES, 'The file is larger than 64 MB.'),
      })
      .parse(Object.fromEntries(form));
    const bytes = new Uint8Array(await file.arrayBuffer());
    const id = await act((tx, actor) => bringFile(tx, actor, { kind, name: file.name, bytes }));
    return `/office/import/${id}`;
  });
}
