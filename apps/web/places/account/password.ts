/** A new password as it was typed, judged. */
import { passwordSchema } from '@barys/store/people';
import { z } from 'zod';

/** @throws ZodError where it would be guessed */
export const newPassword = (typed: unknown): string =>
  z.object({ password: passwordSchema }).parse({ password: typed }).password;
