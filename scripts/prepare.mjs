// Brings a fresh clone to a built application: installs and builds what is missing or out of date.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const inRoot = (...parts) => path.join(root, ...parts);

/** @param {string} text */
function stop(text) {
  process.stderr.write(`${text}\n`);
  process.exit(1);
}

const [major, minor] = process.versions.node.split('.').map(Number);
if (major < 20 || (major === 20 && minor < 19))
  stop(`Tally Loft needs Node 20.19 or later; this is ${process.versions.node}.`);

/** @param {string[]} args @param {boolean} quiet words go to standard error, where results are not */
function npm(args, what, quiet) {
  (quiet ? process.stderr : process.stdout).write(`${what}…\n`);
  const { status } = spawnSync('npm', args, {
    cwd: root,
    stdio: ['ignore', quiet ? 'ignore' : 'inherit', 'inherit'],
    shell: process.platform === 'win32',
  });
  if (status !== 0) stop(`${what} failed. Its own words stand above.`);
}

/** A print of everything the build is made from. */
function sourcePrint() {
  const hash = createHash('sha256');
  const visit = (entry) => {
    for (const item of readdirSync(inRoot(entry), { withFileTypes: true }).sort((a, b) =>
      a.name < b.name ? -1 : 1,
    )) {
      const name = `${entry}/${item.name}`;
      if (item.isDirectory()) visit(name);
      else hash.update(name).update(readFileSync(inRoot(name)));
    }
  };
  for (const folder of ['src', 'cli', 'static'].filter((f) => existsSync(inRoot(f)))) visit(folder);
  for (const file of [
    'package-lock.json',
    'vite.config.ts',
    'vite.node.config.ts',
    'svelte.config.js',
  ])
    hash.update(readFileSync(inRoot(file)));
  return hash.digest('hex');
}

const stamped = (file) => (existsSync(inRoot(file)) ? readFileSync(inRoot(file), 'utf8') : '');
function stamp(file, text) {
  mkdirSync(path.dirname(inRoot(file)), { recursive: true });
  writeFileSync(inRoot(file), text);
}

const STAMP = 'node_modules/.tally-loft-lock';
const lock = () =>
  createHash('sha256')
    .update(readFileSync(inRoot('package-lock.json')))
    .digest('hex');
const UNPACKED = 'unpacked, not compiled: ';

/** How far the packages of the lock file are installed. */
export function packages() {
  const there = stamped(STAMP);
  return there === lock() ? 'ready' : there === UNPACKED + lock() ? 'unpacked' : 'missing';
}

/** Brings the packages in and leaves what they compile for later: that takes minutes and nothing else needs it. */
export function unpackPackages() {
  if (packages() !== 'missing') return;
  npm(['ci', '--no-fund', '--no-audit', '--ignore-scripts'], 'Unpacking packages', false);
  stamp(STAMP, UNPACKED + lock());
}

/** Packages that were unpacked have compiled what they needed to. */
export const packagesCompiled = () => stamp(STAMP, lock());

const BUILT = 'build/.print';

/** Whether what is built is of the sources as they are. */
export const isBuilt = () => stamped(BUILT) === sourcePrint();

/** It was built of the sources as they are. */
export const built = () => stamp(BUILT, sourcePrint());

/** @param {{ quiet?: boolean }} [options] */
export function prepare({ quiet = false } = {}) {
  const state = packages();
  if (state === 'missing') npm(['ci', '--no-fund', '--no-audit'], 'Installing packages', quiet);
  if (state === 'unpacked') npm(['rebuild'], 'Compiling packages', quiet);
  if (state !== 'ready') packagesCompiled();
  if (isBuilt()) return;
  npm(['run', '--silent', 'build'], 'Building', quiet);
  built();
}
