// @ts-check
import { run } from './bootstrap.mjs';

await run('./audit-verify.ts');
