import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    projects: [
      { test: { name: 'core', include: ['packages/{core,rig}/**/*.test.ts', 'apps/web/**/*.test.ts'] } },
      {
        test: {
          name: 'store',
          include: ['packages/store/**/*.test.ts', 'demo/**/*.test.ts'],
          globalSetup: 'packages/store/test/throwaway.ts',
        },
      },
    ],
  },
});
