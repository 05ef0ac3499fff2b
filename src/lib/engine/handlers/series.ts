import { pausing, type Task } from '../../core/task/task';
import { keysOfRow, type Answer } from '../../core/tally/answer/answer';
import { numberFormatOf } from '../../core/tally/answer/figureText';
import type { Formats } from '../../core/tally/spec/formats';
import type { Figure } from '../../core/tally/answer/result';
import type { Shape } from '../replies/shape';

/** More lines than this cannot be told apart. */
const MOST_LINES = 10;

/** Rows made between two pauses. */
const ROWS = 512;

/** More figures than this are no drawing any more: of very many steps fewer lines are drawn. */
const MOST_FIGURES = 12_000;
const FEWEST_LINES = 3;

/** Steps of one answer: each weighs its label and its keys, and a figure of every line. */
const stepsAtOnce = (lines: number): number => Math.floor(180_000 / (90 + 20 * lines));

interface Line {
  readonly name: string;
  /** The keys of its first row. */
  readonly keys: readonly Figure[];
  readonly at: Map<Figure, number>;
  size: number;
}

/** A label; a text that reads like the name of the blanks stands in quotes. */
const nameOf = (label: Figure, key: Figure): string =>
  key === BLANK ? `“${BLANK}”` : String(label ?? '');

/** What the group of blanks is called. */
const BLANK = 'blank';

/**
 * One column of the table `groups` as lines over its periods; of many groups those of the largest
 * figures.
 * @param from the first step that is told; the later ones come in further answers
 */
export function* seriesOf(
  answer: Answer,
  column: string,
  from: number,
  formats: Formats,
): Task<Shape> {
  const table = answer.tables.find((t) => t.name === 'groups');
  const at = table?.columns.findIndex((c) => c.key === column) ?? -1;
  if (!table || at < 0) return { kind: 'none' };
  const labels = table.columns.slice(0, table.labels);
  const period = labels.findIndex((c) => c.key === 'period');
  const groups = labels.flatMap((c, k) => (/^g\d+$/.test(c.key) ? [k] : []));
  const steps = new Map<Figure, { label: string; keys: readonly Figure[] }>();
  const lines = new Map<string, Line>();
  const due = pausing(ROWS);
  for (let n = 0; n < table.length; n++) {
    if (due(n)) yield n / table.length;
    const row = table.row(n);
    if (row.kind !== 'group') continue;
    const keys = keysOfRow(row, table.labels);
    const of = groups.map((k) => keys[k]);
    const value = table.number(n, at);
    // Told apart by the values behind the labels: a blank is not the text “blank”.
    const own = JSON.stringify(of);
    let line = lines.get(own);
    if (!line) {
      const name = groups.map((k) => nameOf(row.cells[k], keys[k])).join(' › ');
      lines.set(own, (line = { name, keys, at: new Map(), size: 0 }));
    }
    if (!steps.has(keys[period]))
      steps.set(keys[period], { label: String(row.cells[period]), keys });
    line.at.set(keys[period], value);
    if (value === value) line.size += Math.abs(value);
  }
  const inTime = [...steps].sort(([a], [b]) => String(a).localeCompare(String(b)));
  const most = Math.floor(MOST_FIGURES / Math.max(1, inTime.length));
  const drawn = Math.min(MOST_LINES, Math.max(FEWEST_LINES, most));
  const shown = new Set([...lines.values()].sort((a, b) => b.size - a.size).slice(0, drawn));
  const { title, unit, type } = table.columns[at];
  const told = inTime.slice(from, from + stepsAtOnce(drawn));
  return {
    kind: 'series',
    length: inTime.length,
    steps: told.map(([, { label }]) => label),
    lines: [...lines.values()]
      .filter((line) => shown.has(line))
      .map((line) => ({
        name: line.name,
        values: told.map(([key]) => {
          const value = line.at.get(key) ?? NaN;
          return value === value ? value : null;
        }),
        keys: [...line.keys],
      })),
    stepKeys: told.map(([, step]) => [...step.keys]),
    groupsAt: groups,
    title,
    unit,
    share: type === 'share',
    format: numberFormatOf(table.columns[at], formats),
    others: lines.size - shown.size,
  };
}
