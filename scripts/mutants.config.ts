import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

/** Rooms whose tests speak of another room too: what is worked out there is said here. */
const ABOVE: Readonly<Record<string, readonly string[]>> = { curve: ['compare', 'run'], compare: ['advise'] };
const room = process.env.ROOM ?? '';

/** The tests that are to notice a change in one room, for `npm run mutants`: its own, those above it, the figures of the demo, and what is said of made-up studies. All would take days. */
export default defineConfig({
  root: fileURLToPath(new URL('..', import.meta.url)),
  resolve: { alias: [{ find: /^@core\/(\w+)$/, replacement: fileURLToPath(new URL('../core/$1/index.ts', import.meta.url)) }] },
  test: {
    include: [...[room, ...(ABOVE[room] ?? [])].map((each) => `core/${each}/**/*.test.ts`), 'demo/figures.test.ts', 'truth/said.test.ts'],
    setupFiles: ['scripts/drawn.ts'],
    // Code that is watched for what it covers takes ten times as long.
    testTimeout: 600_000,
  },
});
