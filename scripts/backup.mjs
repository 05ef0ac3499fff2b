// npm run backup FILE, npm run restore FILE: all data in one file, and back. TALLY_LOFT_DATA names the folder.
import { existsSync } from 'node:fs';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { prepare } from './prepare.mjs';

const [what, file] = process.argv.slice(2);
if (!file || (what !== 'backup' && what !== 'restore')) {
  process.stderr.write(`Give a file: npm run ${what ?? 'backup'} FILE\n`);
  process.exit(2);
}
const built = new URL('../build/node/backup.js', import.meta.url);
if (!existsSync(built)) prepare({ quiet: true });
const { backUp, restore, readConfig } = await import(pathToFileURL(fileURLToPath(built)).href);
try {
  const { dataFolder } = readConfig(process.env);
  if (what === 'backup') {
    await backUp(dataFolder, file);
    process.stdout.write(`All data of “${dataFolder}” are in “${file}”.\n`);
  } else {
    const kept = await restore(dataFolder, file);
    process.stdout.write(
      `“${file}” is in the place of the data of “${dataFolder}”.${kept ? ` What was there is kept as “${kept}”.` : ''}\n`,
    );
  }
} catch (error) {
  process.stderr.write(`${error instanceof Error ? error.message : error}\n`);
  process.exit(1);
}
