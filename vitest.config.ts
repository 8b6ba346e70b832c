import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['{core,standins,gateway,app,scripts,bench}/**/*.test.{ts,tsx,mjs}'],
    exclude: ['**/node_modules/**', '**/dist/**'],
    // Interface tests that need a page ask for it with a line at their top; core never does.
    environment: 'node',
    restoreMocks: true,
    // A busy machine is slow, not wrong: a compiler that shares two cores with browsers took more than half a minute.
    testTimeout: 240_000,
    hookTimeout: 240_000,
    // One module graph for all files: they share no state, and it takes a fifth of the time.
    isolate: false,
  },
});
