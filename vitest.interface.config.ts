import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

/** Tests that drive the built application in Chromium: each file has a server and data of its own. */
export default defineConfig({
  resolve: { alias: { $lib: fileURLToPath(new URL('./src/lib', import.meta.url)) } },
  test: {
    include: ['tests/interface/**/*.test.ts'],
    // Two at once: a journey waits for its page as often as the page for the machine.
    maxWorkers: 2,
    testTimeout: 60_000,
    hookTimeout: 90_000,
  },
});
