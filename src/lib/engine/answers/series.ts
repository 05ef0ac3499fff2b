import { pausing, type Steps } from '../../core/steps/steps';
import { keysOfRow, type Answer } from '../../core/tally/answer';
import type { Figure } from '../../core/tally/result';
import type { Shape } from '../replies/shape';

/** More lines than this cannot be told apart. */
const MOST_LINES = 10;

/** Rows made between two pauses. */
const ROWS = 512;

interface Line {
  readonly name: string;
  readonly at: Map<Figure, { value: number; keys: readonly Figure[] }>;
  size: number;
}

/** One column of the table `groups` as lines over its periods; of many groups those of the largest figures. */
export function* seriesOf(answer: Answer, column: string): Steps<Shape> {
  const table = answer.tables.find((t) => t.name === 'groups');
  const at = table?.columns.findIndex((c) => c.key === column) ?? -1;
  if (!table || at < 0) return { kind: 'none' };
  const labels = table.columns.slice(0, table.labels);
  const period = labels.findIndex((c) => c.key === 'period');
  const groups = labels.flatMap((c, k) => (/^g\d+$/.test(c.key) ? [k] : []));
  const steps = new Map<Figure, string>();
  const lines = new Map<string, Line>();
  const due = pausing(ROWS);
  for (let n = 0; n < table.length; n++) {
    if (due(n)) yield n / table.length;
    const row = table.row(n);
    if (row.kind !== 'group') continue;
    const keys = keysOfRow(row, table.labels);
    const name = groups.map((k) => String(row.cells[k] ?? '')).join(' › ');
    const value = table.number(n, at);
    let line = lines.get(name);
    if (!line) lines.set(name, (line = { name, at: new Map(), size: 0 }));
    steps.set(keys[period], String(row.cells[period]));
    line.at.set(keys[period], { value, keys });
    if (value === value) line.size += Math.abs(value);
  }
  const inTime = [...steps].sort(([a], [b]) => String(a).localeCompare(String(b)));
  const shown = new Set([...lines.values()].sort((a, b) => b.size - a.size).slice(0, MOST_LINES));
  const { title, unit, type } = table.columns[at];
  return {
    kind: 'series',
    steps: inTime.map(([, label]) => label),
    lines: [...lines.values()]
      .filter((line) => shown.has(line))
      .map((line) => ({
        name: line.name,
        values: inTime.map(([key]) => {
          const value = line.at.get(key)?.value ?? NaN;
          return value === value ? value : null;
        }),
        keys: inTime.map(([key]) => [...(line.at.get(key)?.keys ?? [])]),
      })),
    title,
    unit,
    share: type === 'share',
    others: lines.size - shown.size,
  };
}
