// Reads 10,000 made files of each sort (layouts, numbers, dates, identifiers) and holds the reader to
// account for every line, digit and day. The unit tests run a few hundred of the same.
import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';

const { status } = spawnSync(
  'npx',
  [
    'vitest',
    'run',
    'tests/unit/mangled.test.ts',
    'tests/unit/forms/mangled.test.ts',
    '--testTimeout',
    '600000',
  ],
  {
    cwd: fileURLToPath(new URL('..', import.meta.url)),
    env: { ...process.env, TALLY_LOFT_MANGLE: process.argv[2] ?? '10000' },
    stdio: 'inherit',
  },
);
process.exit(status ?? 1);
