import { writeFileSync } from 'node:fs';
import { format, resolveConfig } from 'prettier';
import { askDocument } from './askDocument';

const file = 'docs/ask.md';
writeFileSync(
  file,
  await format(askDocument(), { ...(await resolveConfig(file)), parser: 'markdown' }),
);
