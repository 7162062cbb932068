/** Readings and marks on their way from the browser to the store. */
import { parseOutput } from '@barys/core/adjust';
import { CoreError } from '@barys/core/errors';
import { parseTyped } from '@barys/core/text';
import { EXTRA_COLUMNS, MARK_KINDS } from '@barys/store/runs';
import { z } from 'zod';

const typedBy = (parse: (text: string) => unknown) =>
  z.string().superRefine((text, context) => {
    try {
      parse(text);
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      context.addIssue({ code: 'custom', message: error.message });
    }
  });
const typedNumber = typedBy(parseTyped);
/** A number, or a deviation that a null meter showed, such as `4 + 0.02`. */
const typedOutput = typedBy(parseOutput);

export const readingSchema = z.object({
  position: z.number().int().positive(),
  clientKey: z.uuid(),
  appliedText: typedNumber,
  appliedAs: z.enum(['set', 'read']),
  outputText: typedOutput,
  more: z.partialRecord(z.enum(EXTRA_COLUMNS), typedNumber).default({}),
  takenAt: z.iso
    .datetime()
    .transform((text) => new Date(text))
    .nullable()
    .default(null),
  desk: z.uuid().nullable().default(null),
  supersedes: z.number().int().positive().nullable(),
});

export const readingsSchema = z
  .array(readingSchema)
  .min(1, 'A list of readings holds at least one.')
  .max(200, 'At most 200 readings in one request, please.');

const typedOrEmpty = z.union([z.literal(''), typedNumber]);

export const markSchema = z.object({
  position: z.number().int().positive(),
  clientKey: z.uuid(),
  mark: z.enum(MARK_KINDS),
  appliedText: typedOrEmpty.default(''),
  outputText: typedOrEmpty.default(''),
  desk: z.uuid().nullable().default(null),
  remark: z
    .string()
    .max(500, 'At most 500 characters, please.')
    .refine(
      (text) => !text.includes('\0') && !/\p{Surrogate}/u.test(text),
      'A character here cannot be kept. Type it again.',
    )
    .default(''),
});
