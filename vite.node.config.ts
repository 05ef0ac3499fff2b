import { svelte } from '@sveltejs/vite-plugin-svelte';
import { defineConfig } from 'vite';
import { fileURLToPath } from 'node:url';

/**
 * The programs that run in Node beside the SvelteKit server: the thread that reads and reckons,
 * the command line, and the benchmarks. Built from the same core as the page.
 */
export default defineConfig({
  // The command line draws reports with the page's own components, their styles within them.
  plugins: [
    svelte({
      configFile: false,
      emitCss: false,
      compilerOptions: { runes: true, css: 'injected' },
    }),
  ],
  // What only draws is a part of the programs; what they depend on at run time stays outside.
  ssr: { noExternal: [/^svelte/, /^d3/, 'internmap', 'clsx', 'devalue', 'esm-env'] },
  resolve: { alias: { $lib: fileURLToPath(new URL('./src/lib', import.meta.url)) } },
  build: {
    ssr: true,
    outDir: 'build/node',
    emptyOutDir: true,
    target: 'node20',
    rollupOptions: {
      input: {
        thread: 'src/lib/server/thread/thread.ts',
        askThread: 'src/lib/server/databases/askThread.ts',
        tally: 'cli/tally.ts',
        config: 'src/lib/server/config.ts',
        backup: 'scripts/backup/backup.ts',
        bench: 'scripts/bench/bench.ts',
        docs: 'scripts/docs/docs.ts',
        pictures: 'scripts/pictures/pictures.ts',
        load: 'scripts/load/load.ts',
        tasks: 'scripts/tasks/tasks.ts',
      },
      output: { entryFileNames: '[name].js' },
    },
  },
});
