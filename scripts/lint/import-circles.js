import { existsSync, readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('../../', import.meta.url));

/** What a file imports, types too, as written. */
const IMPORTS = /(?:^|[\s;}])(?:import|export)\s(?:[^'";]*?\sfrom\s)?\s*['"]([^'"]+)['"]/g;

/** @type {Map<string, string[]>} absolute paths of the files that a file imports */
const known = new Map();

/** @param {string} from @param {string} source */
function resolve(from, source) {
  const base = source.startsWith('$lib/')
    ? path.join(root, 'src/lib', source.slice(5))
    : source.startsWith('.')
      ? path.resolve(path.dirname(from), source)
      : null;
  if (base === null) return null;
  for (const end of ['', '.ts', '.svelte.ts', '.js']) {
    const file = base + end;
    if (existsSync(file) && statSync(file).isFile()) return file;
  }
  return null;
}

/** @param {string} file @param {string} [text] */
function importsOf(file, text) {
  if (text === undefined) {
    const before = known.get(file);
    if (before) return before;
  }
  const found = [...(text ?? readFileSync(file, 'utf8')).matchAll(IMPORTS)]
    .map(([, source]) => resolve(file, source))
    .filter((to) => to !== null && to !== file);
  known.set(file, found);
  return found;
}

/**
 * The way from a file back to itself over imports; null where there is none. A component that draws
 * itself (a condition within a condition) is no circle.
 * @param {string} start absolute path
 * @param {string} [text] the file as it is being edited
 * @returns {string[] | null}
 */
export function circleFrom(start, text) {
  const seen = new Set();
  /** @type {[string, string[]][]} */
  const next = importsOf(start, text).map((to) => [to, [to]]);
  for (let at = next.shift(); at; at = next.shift()) {
    const [file, way] = at;
    if (file === start) return way;
    if (seen.has(file)) continue;
    seen.add(file);
    for (const to of importsOf(file)) next.push([to, [...way, to]]);
  }
  return null;
}

/** @type {import('eslint').Rule.RuleModule} */
export const importCircles = {
  meta: { type: 'problem', schema: [] },
  create(context) {
    return {
      Program(node) {
        if (!context.filename.startsWith(root)) return;
        const way = circleFrom(context.filename, context.sourceCode.text);
        if (way)
          context.report({
            node,
            message: `These files import one another: ${[context.filename, ...way].map((file) => path.relative(root, file)).join(' → ')}.`,
          });
      },
    };
  },
};
