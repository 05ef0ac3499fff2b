import { defineConfig } from 'vite';
import { fileURLToPath } from 'node:url';

/**
 * The programs that run in Node beside the SvelteKit server: the thread that reads and reckons,
 * the command line, and the benchmarks. Built from the same core as the page.
 */
export default defineConfig({
  resolve: { alias: { $lib: fileURLToPath(new URL('./src/lib', import.meta.url)) } },
  build: {
    ssr: true,
    outDir: 'build/node',
    emptyOutDir: true,
    target: 'node20',
    rollupOptions: {
      input: {
        thread: 'src/lib/server/thread/thread.ts',
        tally: 'cli/tally.ts',
        config: 'src/lib/server/config.ts',
        bench: 'scripts/bench/bench.ts',
        docs: 'scripts/docs/docs.ts',
        pictures: 'scripts/pictures/pictures.ts',
        load: 'scripts/load/load.ts',
      },
      output: { entryFileNames: '[name].js' },
    },
  },
});
