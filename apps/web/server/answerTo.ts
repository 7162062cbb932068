/** What an error is answered with, for forms and for routes alike. */
import { CoreError } from '@barys/core/errors';
import { StoreError } from '@barys/store/db';
import { z } from 'zod';
import type { Answer } from './answer';
import { logOf } from './log';

export const log = logOf('barys');

/** The answer to an error that the person can do something about; null for one that they cannot. */
export function answerTo(error: unknown): Answer | null {
  if (error instanceof StoreError) return { error: error.message };
  if (error instanceof CoreError) return { error: error.message, field: error.field };
  if (error instanceof z.ZodError) {
    const [issue] = error.issues;
    return { error: issue?.message ?? 'The entry is not complete.', field: issue?.path.join('.') };
  }
  return null;
}

/** Said where the server has no room left; it goes on by itself once there is. */
export const DISK_FULL =
  'The disk of the server is full: this is not kept yet. What you typed is still here. Tell whoever keeps the server; it goes on by itself when there is room.';
