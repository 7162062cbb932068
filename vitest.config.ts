import { availableParallelism } from 'node:os';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    // On two cores one would stand idle once the static checks are through.
    maxWorkers: Math.max(2, availableParallelism() - 1),
    projects: [
      {
        resolve: { alias: { '@': new URL('apps/web', import.meta.url).pathname } },
        test: {
          name: 'core',
          // Pure functions: files may share their modules, of which mathjs alone takes a second to load.
          isolate: false,
          // Two cores that also lint and build take their time over the longest tables.
          testTimeout: 180_000,
          include: [
            'packages/{core,rig,link,plan}/**/*.test.ts',
            'apps/web/**/*.test.ts',
            'scripts/lib/*.test.ts',
          ],
        },
      },
      {
        test: {
          name: 'store',
          isolate: false,
          include: ['packages/store/**/*.test.ts', 'demo/**/*.test.ts'],
          testTimeout: 120_000,
          hookTimeout: 180_000,
        },
      },
      // Starts the whole of Barys on the build that the journeys used.
      {
        test: {
          name: 'start',
          // Each looks at all processes of the machine.
          fileParallelism: false,
          include: ['scripts/*.test.ts'],
          testTimeout: 240_000,
          hookTimeout: 60_000,
        },
      },
    ],
  },
});
