/** A reading on its way from the browser to the store. */
import { CoreError, parseTyped } from '@barys/core';
import { z } from 'zod';

const typedNumber = z.string().superRefine((text, context) => {
  try {
    parseTyped(text);
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    context.addIssue({ code: 'custom', message: error.message });
  }
});

export const readingSchema = z.object({
  position: z.number().int().positive(),
  clientKey: z.uuid(),
  appliedText: typedNumber,
  appliedAs: z.enum(['set', 'read']),
  outputText: typedNumber,
  supersedes: z.number().int().positive().nullable(),
});
