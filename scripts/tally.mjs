#!/usr/bin/env node
// The command line. In a clone it builds what is missing first, in silence but for its failures; an
// installed package carries the built program.
import { existsSync } from 'node:fs';

if (existsSync(new URL('../package-lock.json', import.meta.url))) {
  const { prepare } = await import('./prepare.mjs');
  prepare({ quiet: true });
}
await import('../build/node/tally.js');
