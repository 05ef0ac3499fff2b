import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { format, resolveConfig } from 'prettier';
import { describe, expect, it } from 'vitest';
import { SCHEMAS, schemaOf } from '$lib/core/ask/schemas';
import { checkExpression } from '$lib/core/expression/check';
import { readDemo } from '../support/demo';
import { answered } from '../support/ask';
import { askDocument, EXAMPLE } from '../../scripts/docs/askDocument';
import { wishesDocument } from '../../scripts/docs/wishesDocument';

const DOCUMENTS = [
  'README.md',
  'CONTRIBUTING.md',
  ...readdirSync('docs')
    .filter((f) => f.endsWith('.md'))
    .map((f) => `docs/${f}`),
];

describe('the documents are true of the code', () => {
  it.each([
    ['docs/ask.md', askDocument],
    ['docs/wishes.md', wishesDocument],
  ] as const)('%s is what the code says; “npm run docs” makes it anew', async (file, document) => {
    const fresh = await format(document(), {
      ...(await resolveConfig(file)),
      parser: 'markdown',
    });
    expect(readFileSync(file, 'utf8')).toBe(fresh);
  });

  it.each(SCHEMAS)('every key of the schema of %s is described', (name) => {
    const missing: string[] = [];
    const walk = (part: unknown, path: string): void => {
      if (typeof part !== 'object' || part === null) return;
      for (const [key, inner] of Object.entries(part)) {
        if (key !== 'properties') walk(inner, key === '$defs' ? '' : path);
        else
          for (const [own, of] of Object.entries(
            inner as Record<string, { description?: string }>,
          )) {
            if (!of.description) missing.push(`${path}.${own}`);
            walk(of, `${path}.${own}`);
          }
      }
    };
    walk(schemaOf(name), name);
    expect(missing).toEqual([]);
  });

  it('its example is answered', () => {
    const { table } = readDemo('sailings').reading;
    const result = answered(table, structuredClone(EXAMPLE), {
      fleet: readDemo('vessels').reading.table,
    });
    expect(result.tallies.map((t) => [t.kind, t.footing.foots])).toEqual([
      ['crosstab', true],
      ['frequency', true],
      ['forecast', true],
    ]);
  });

  it('every expression in docs/expressions.md fits the demo', () => {
    const { table } = readDemo('sailings').reading;
    const text = readFileSync('docs/expressions.md', 'utf8');
    const examples = [...text.matchAll(/```sql\n([\s\S]*?)```/g)].flatMap(([, block]) =>
      block.trim().split('\n'),
    );
    expect(examples.length).toBeGreaterThan(15);
    for (const example of examples)
      expect(() => checkExpression(example, table.columns), example).not.toThrow();
  });

  it('every file of the code that they name is there', () => {
    const files = ['src', 'cli', 'scripts', 'tests'].flatMap((root) =>
      readdirSync(root, { recursive: true, encoding: 'utf8' }).map((f) =>
        path.posix.join('/', root, f),
      ),
    );
    const missing = DOCUMENTS.flatMap((document) =>
      [...readFileSync(document, 'utf8').matchAll(/`([\w/.-]+\.(?:ts|js|svelte))`/g)]
        .filter(([, named]) => !files.some((f) => f.endsWith(`/${named}`)))
        .map(([, named]) => `${document}: ${named}`),
    );
    expect(missing).toEqual([]);
  });

  it('links lead somewhere', () => {
    for (const file of DOCUMENTS)
      for (const [, target] of readFileSync(file, 'utf8').matchAll(/\]\(([^)#]+)\)/g))
        if (!/^https?:/.test(target))
          expect([file, target, existsSync(path.join(path.dirname(file), target))]).toEqual([
            file,
            target,
            true,
          ]);
  });
});
