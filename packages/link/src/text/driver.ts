/**
 * A driver for an instrument that is spoken to in lines of text: data, not code. Syntax of commands after IEEE 488.2 and
 * SCPI-1999 (from memory); what an instrument calls its commands stands in its driver.
 */
import { CHANNELS } from '@barys/core/port';
import { isUnit } from '@barys/core/units';
import { z } from 'zod';

const command = z
  .string()
  .min(1)
  .max(200)
  .regex(/^[\x20-\x7e]*$/, 'A command is one line of plain characters.');
const pattern = z
  .string()
  .min(1)
  .max(300)
  .refine((text) => {
    try {
      return Boolean(new RegExp(text));
    } catch {
      return false;
    }
  }, 'The pattern of the answer is no regular expression.');

/** A question, and what its answer looks like: groups `value`, and `unit` and `stable` where they are said. */
const question = z.object({ ask: command, answer: pattern });

export const driverSchema = z.object({
  name: z.string().min(1).max(80),
  identify: question,
  /** By channel. Where the answer says no unit, it is this one. */
  reads: z.partialRecord(z.enum(CHANNELS), question.extend({ unit: z.string().nullable() })),
  /** Units as the instrument writes them, in Barys' words. */
  units: z.record(z.string(), z.string().refine(isUnit, 'This is no unit that Barys knows.')),
  /** What the instrument is set to before anything is read, once for each connection. */
  begin: z.array(command).max(20),
  /** Commands with {value}, {unit} and {rate}; null where it cannot. */
  set: z.array(command).max(10).nullable(),
  hold: z.array(command).max(10).nullable(),
  vent: z.array(command).max(10).nullable(),
  /** Whether something went wrong: the answer that says no. */
  errors: question.nullable(),
  /** How long an answer may take, and the pause between commands, ms. */
  answerMs: z.number().int().min(10).max(60_000),
  pauseMs: z.number().int().min(0).max(10_000),
});
export type Driver = z.infer<typeof driverSchema>;

/** NaN and the infinities of SCPI-1999, volume 1, 7.2.1.4 and 7.2.1.5 (from memory). */
const NO_NUMBERS = [9.91e37, 9.9e37, -9.9e37];
/** NR1, NR2 and NR3 of IEEE 488.2, 8.7 (from memory). */
const NUMBER = /^[+-]?(\d+\.?\d*|\.\d+)([eE][+-]?\d{1,3})?$/;

/**
 * @throws Error naming what came, where it is no number
 */
export function numberOf(text: string): number {
  const plain = text.trim();
  const value = NUMBER.test(plain) ? Number(plain) : NaN;
  if (!Number.isFinite(value) || NO_NUMBERS.includes(value))
    throw new Error(`"${shortened(text)}" is no value.`);
  return value;
}

/** What came, short enough to be said. */
export const shortened = (text: string): string => (text.length > 60 ? `${text.slice(0, 60)}…` : text);

/**
 * The groups of an answer.
 * @throws Error naming what came, where it is another answer
 */
export function matched(
  { answer }: { readonly answer: string },
  line: string,
): Readonly<Record<string, string>> {
  const found = new RegExp(`^(?:${answer})$`).exec(line);
  if (found === null) throw new Error(`"${shortened(line)}" is not the answer that was expected.`);
  return found.groups ?? {};
}

/** A command with its figures in their places. */
export const filled = (text: string, figures: Readonly<Record<string, string>>): string =>
  text.replaceAll(/\{(\w+)\}/g, (_all, name: string) => figures[name] ?? '');
