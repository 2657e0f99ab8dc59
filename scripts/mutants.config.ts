import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

/** The tests of one room, for `npm run mutants`: those of the whole house would take days. */
export default defineConfig({
  root: fileURLToPath(new URL('..', import.meta.url)),
  test: {
    include: [`core/${process.env.ROOM ?? ''}/**/*.test.ts`],
    setupFiles: ['scripts/drawn.ts'],
    testTimeout: 60_000,
  },
});
