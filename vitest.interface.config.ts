import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

/** Tests that drive the built application in Chromium, one file after another. */
export default defineConfig({
  resolve: { alias: { $lib: fileURLToPath(new URL('./src/lib', import.meta.url)) } },
  test: {
    include: ['tests/interface/**/*.test.ts'],
    fileParallelism: false,
    testTimeout: 60_000,
    hookTimeout: 90_000,
  },
});
