// @ts-check
import { run } from './bootstrap.mjs';

await run('./backup.ts');
