import adapter from '@sveltejs/adapter-node';

/** @type {import('@sveltejs/kit').Config} */
const config = {
  compilerOptions: { runes: true },
  vitePlugin: {
    // What the report is drawn with brings its styles along: a report is also a file by itself.
    dynamicCompileOptions: ({ filename }) =>
      /\/ui\/(chart|report|tally)\//.test(filename) ? { css: 'injected' } : undefined,
  },
  kit: {
    adapter: adapter({ out: 'build' }),
    // The command line and the programs beside the server are checked with the rest.
    typescript: {
      config: (config) => ({
        ...config,
        include: [...config.include, '../cli/**/*.ts', '../scripts/**/*.ts'],
      }),
    },
    // Only the framework's own inline script runs, by nonce; no eval anywhere. Style attributes
    // are needed for column widths and bars.
    csp: {
      mode: 'nonce',
      directives: {
        'default-src': ['self'],
        'script-src': ['self'],
        'worker-src': ['self'],
        'style-src': ['self', 'unsafe-inline'],
        'img-src': ['self', 'data:'],
        'font-src': ['self'],
        'connect-src': ['self'],
        'object-src': ['none'],
        'base-uri': ['none'],
        'form-action': ['self'],
        'frame-ancestors': ['none'],
      },
    },
  },
};

export default config;
