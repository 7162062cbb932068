// @ts-check
import { run } from './bootstrap.mjs';

await run('../packages/link/src/standInsMain.ts');
