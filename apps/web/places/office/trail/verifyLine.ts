import type { Progress, Verified } from '@barys/store/db';

/** One line of what a verification tells while it runs. */
export type VerifyLine = Progress | { readonly found: Verified } | { readonly error: string };
