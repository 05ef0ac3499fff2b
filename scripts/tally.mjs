#!/usr/bin/env node
// The command line: builds what is missing, in silence but for its failures, then runs it.
import { prepare } from './prepare.mjs';

prepare({ quiet: true });
await import('../build/node/tally.js');
