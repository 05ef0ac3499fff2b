import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('../../', import.meta.url));

/**
 * The house, from the foundation up: a folder imports from itself and from those above it in this
 * list, never from below.
 */
export const house = [
  'src/lib/core/errors.ts',
  'src/lib/core/task',
  'src/lib/core/sorting',
  'src/lib/core/pattern',
  'src/lib/core/table',
  'src/lib/core/read',
  'src/lib/core/expression',
  'src/lib/core/selection',
  'src/lib/core/arrange',
  'src/lib/core/measure',
  'src/lib/core/forecast',
  'src/lib/core/prepare',
  'src/lib/core/tally',
  'src/lib/core/parts',
  'src/lib/core/check',
  'src/lib/core/wish',
  'src/lib/core/ask',
  'src/lib/core/bench',
  'src/lib/core/write',
  'src/lib/engine',
  'src/lib/worker',
  'src/lib/server',
  'src/lib/ui',
  'src/routes',
  'cli',
];

/** What the core may take from outside: no interface code, no Node, no I/O; formats are bytes in and out. */
const allowedInCore = new Set([
  'zod',
  'papaparse',
  'apache-arrow',
  '@noble/hashes',
  '@e965/xlsx',
  'fflate',
  'hyparquet',
  'hyparquet-compressors',
  'hyparquet-writer',
]);

/** @param {string} file a path relative to the root */
function rankOf(file) {
  return house.findIndex(
    (folder) => file === folder || `${file}.ts` === folder || file.startsWith(`${folder}/`),
  );
}

/** @param {string} from @param {string} source */
function resolve(from, source) {
  if (source.startsWith('$lib/')) return `src/lib/${source.slice(5)}`;
  if (source.startsWith('.'))
    return path
      .relative(root, path.resolve(path.dirname(from), source))
      .split(path.sep)
      .join('/');
  return null;
}

/**
 * Judges one import; returns a message, or null where it is allowed.
 * @param {string} from absolute path of the importing file
 * @param {string} source what it imports
 */
export function judgeImport(from, source) {
  const here = path.relative(root, from).split(path.sep).join('/');
  const rank = rankOf(here);
  if (rank < 0) return null;
  const inCore = here.startsWith('src/lib/core/');
  const isTest = here.endsWith('.test.ts');
  const target = resolve(from, source);
  if (target === null) {
    const name = source.startsWith('@')
      ? source.split('/').slice(0, 2).join('/')
      : source.split('/')[0];
    if (inCore && !isTest && !allowedInCore.has(name))
      return `The core takes nothing from '${name}': it holds no interface code and no input or output.`;
    return null;
  }
  const targetRank = rankOf(target);
  if (targetRank < 0) return null;
  if (house[rank] === 'src/lib/ui' && house[targetRank] === 'src/lib/server')
    return 'The interface never imports the server.';
  if (targetRank > rank)
    return `${house[rank]} stands before ${house[targetRank]} in the house and must not import from it.`;
  return null;
}

/** @type {import('eslint').Rule.RuleModule} */
export const importDirection = {
  meta: { type: 'problem', schema: [] },
  create(context) {
    /** @param {any} node */
    const check = (node) => {
      if (!node.source || typeof node.source.value !== 'string') return;
      const message = judgeImport(context.filename, node.source.value);
      if (message) context.report({ node, message });
    };
    return {
      ImportDeclaration: check,
      ExportNamedDeclaration: check,
      ExportAllDeclaration: check,
      ImportExpression: check,
    };
  },
};
