import { writeFileSync } from 'node:fs';
import { format, resolveConfig } from 'prettier';
import { askDocument } from './askDocument';
import { wishesDocument } from './wishesDocument';

const documents = { 'docs/ask.md': askDocument, 'docs/wishes.md': wishesDocument };

for (const [file, document] of Object.entries(documents))
  writeFileSync(
    file,
    await format(document(), { ...(await resolveConfig(file)), parser: 'markdown' }),
  );
