// @ts-check
import { run } from './bootstrap.mjs';

await run('./bench.ts');
