// The full test run on a machine with Node and npm: installs what is missing, then formatting, lint,
// types, unit tests, build, and the interface tests in a real browser.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { built, isBuilt, packages, packagesCompiled, unpackPackages } from './prepare.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));

/** @param {string} command @param {string[]} args @param {string} what */
function step(command, args, what) {
  const start = Date.now();
  process.stdout.write(`\n== ${what}\n`);
  const { status } = spawnSync(command, args, {
    cwd: root,
    stdio: ['ignore', 'inherit', 'inherit'],
  });
  if (status !== 0) {
    process.stderr.write(`${what} failed.\n`);
    process.exit(1);
  }
  process.stdout.write(`== ${what}: ${((Date.now() - start) / 1000).toFixed(1)} s\n`);
}

/**
 * Steps that need nothing of one another, at once: what each says is written when it has ended.
 * @param {readonly { npm: string[], what: string }[]} steps
 * @returns {Promise<boolean>} whether all went well
 */
async function together(steps) {
  const ended = steps.map(({ npm, what }) => {
    const start = Date.now();
    const child = spawn('npm', npm, {
      cwd: root,
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    /** @type {Buffer[]} */
    const said = [];
    child.stdout.on('data', (part) => said.push(part));
    child.stderr.on('data', (part) => said.push(part));
    return new Promise((resolve) => {
      child.on('close', (status) => {
        process.stdout.write(`\n== ${what}\n`);
        process.stdout.write(Buffer.concat(said));
        process.stdout.write(
          status === 0
            ? `== ${what}: ${((Date.now() - start) / 1000).toFixed(1)} s\n`
            : `${what} failed.\n`,
        );
        resolve(status === 0);
      });
    });
  });
  return !(await Promise.all(ended)).includes(false);
}

// The last reads what the browser prints.
const BROWSER = ['/usr/bin/chromium', '/usr/bin/chromedriver', '/usr/bin/pdftotext'];
/** Tests of databases start a server of their own; without it they are left out with a word. */
const POSTGRES = '/usr/lib/postgresql';

/** Debian's Chromium, its driver, Poppler's tools and PostgreSQL, where they are missing and this may install them. */
function haveTools() {
  const browser = BROWSER.every(existsSync);
  if (browser && existsSync(POSTGRES)) return;
  const isRoot = typeof process.getuid === 'function' && process.getuid() === 0;
  if (!existsSync('/usr/bin/apt-get') || !isRoot) {
    if (browser) return;
    process.stderr.write(
      'The interface tests need Chromium, ChromeDriver and Poppler (Debian: apt-get install chromium chromium-driver poppler-utils). Install them and run this again.\n',
    );
    process.exit(1);
  }
  step('apt-get', ['update', '-q'], 'Looking for Chromium and PostgreSQL');
  step(
    'apt-get',
    [
      'install',
      '-y',
      '-q',
      '--no-install-recommends',
      'chromium',
      'chromium-driver',
      'poppler-utils',
      'postgresql',
    ],
    'Installing Chromium and PostgreSQL',
  );
}

haveTools();
unpackPackages();
// Checks and build read sources only: what packages compile is made beside them. Both need what is derived
// from the routes, and the build writes it anew: no check begins before it has, or one would read half a file.
step('npx', ['svelte-kit', 'sync'], 'Deriving types of routes');
const compiling = together(
  packages() === 'ready' ? [] : [{ npm: ['rebuild'], what: 'Compiling packages' }],
);
const building = together(
  isBuilt() ? [] : [{ npm: ['run', '--silent', 'build'], what: 'Building' }],
);
const sound = [
  await building,
  await together([
    { npm: ['run', '--silent', 'format:check'], what: 'Formatting' },
    { npm: ['run', '--silent', 'lint'], what: 'Lint' },
    { npm: ['run', '--silent', 'types'], what: 'Types' },
  ]),
  await compiling,
];
if (sound.includes(false)) process.exit(1);
packagesCompiled();
built();
step('npm', ['run', '--silent', 'unit'], 'Unit tests');
step('npm', ['run', '--silent', 'interface'], 'Interface tests');
