import { CompletionContext, type CompletionResult } from '@codemirror/autocomplete';
import { EditorState } from '@codemirror/state';
import { describe, expect, it } from 'vitest';
import { completions, type Completing } from './completion';

const asked: [string, string][] = [];
const completing: Completing = {
  columns: [
    { id: 'route', name: 'Route', type: 'text', unit: '' },
    { id: 'fares', name: 'Fares taken', type: 'number', unit: '£' },
    { id: 'odd', name: 'Say "when"', type: 'text', unit: '' },
  ],
  values: (column, search) => {
    asked.push([column, search]);
    return Promise.resolve(['Holm', "Keld's Haven"]);
  },
};

/** What is offered where the bar stands in what was typed. */
async function offered(typed: string, explicit = false): Promise<CompletionResult | null> {
  const at = typed.indexOf('|');
  const doc = typed.replace('|', '');
  const state = EditorState.create({ doc });
  return await completions(() => completing)(new CompletionContext(state, at, explicit));
}
const labels = (result: CompletionResult | null): string[] =>
  (result?.options ?? []).map(({ label }) => label);

/** What is written where an option is taken, and where one goes on. */
async function taken(typed: string, label: string): Promise<string> {
  const result = await offered(typed, true);
  const option = result?.options.find((o) => o.label === label);
  if (!result || !option) throw new Error(`“${label}” is not offered`);
  const at = typed.indexOf('|');
  const doc = typed.replace('|', '');
  const to = at;
  if (typeof option.apply === 'string' || option.apply === undefined) {
    const text = option.apply ?? option.label;
    return `${doc.slice(0, result.from)}${text}|${doc.slice(to)}`;
  }
  let state = EditorState.create({ doc });
  const view = {
    get state() {
      return state;
    },
    dispatch: (change: Parameters<EditorState['update']>[0]) => {
      state = state.update(change).state;
    },
  };
  // Of a view, what completes needs its state and a way to change it.
  option.apply(view as Parameters<typeof option.apply>[0], option, result.from, to);
  const { head } = state.selection.main;
  const text = state.doc.toString();
  return `${text.slice(0, head)}|${text.slice(head)}`;
}

describe('completing an expression', () => {
  it('offers columns before functions and words, with what they are', async () => {
    const result = await offered('Ro|');
    expect(labels(result).slice(0, 3)).toEqual(['Route', 'Fares taken', 'Say "when"']);
    expect(labels(result)).toEqual(expect.arrayContaining(['NULLIF', 'CASE', 'BETWEEN']));
    expect(result?.from).toBe(0);
    expect(result?.options[1].detail).toBe('number, £');
  });

  it('offers nothing before anything is typed, unless it is asked to', async () => {
    expect(await offered('1 + |')).toBeNull();
    expect(labels(await offered('1 + |', true))).toContain('Route');
  });

  it('writes names as expressions name them', async () => {
    expect(await taken('1 + Ro|', 'Route')).toBe('1 + Route|');
    expect(await taken('fa| / 2', 'Fares taken')).toBe('"Fares taken"| / 2');
    expect(await taken('nul|', 'NULLIF')).toBe('NULLIF(|');
  });

  it('goes on within a name that was begun with its quote, to the quote that closes it', async () => {
    const result = await offered('"Fa|"');
    expect(labels(result)).toEqual(['Route', 'Fares taken', 'Say "when"']);
    expect(result?.from).toBe(1);
    expect(await taken('"Fa|', 'Fares taken')).toBe('"Fares taken"|');
    // A quote that stands there already is not written twice.
    expect(await taken('"Fa|" + 1', 'Fares taken')).toBe('"Fares taken"| + 1');
    expect(await taken('"S|', 'Say "when"')).toBe('"Say ""when"""|');
  });

  it('a word that stands there whole is not offered again', async () => {
    expect(labels(await offered('CASE|'))).not.toContain('CASE');
    expect(labels(await offered('CAS|'))).toContain('CASE');
  });

  it.each([
    ["Route = 'Ho|", 'route', 'Ho'],
    ["route <> '|", 'route', ''],
    [`"Route" LIKE 'H|`, 'route', 'H'],
    ["Route IN ('Ness', 'H|", 'route', 'H'],
    ["Route NOT IN ('H|", 'route', 'H'],
    [`"Say ""when""" = 'x|`, 'odd', 'x'],
  ])('in %s offers values of the column before it', async (typed, column, search) => {
    asked.length = 0;
    const result = await offered(typed);
    expect(asked).toEqual([[column, search]]);
    expect(labels(result)).toEqual(['Holm', "Keld's Haven"]);
  });

  it('writes a value to its closing quote, an apostrophe twice', async () => {
    expect(await taken("Route = 'Ho|", 'Holm')).toBe("Route = 'Holm'|");
    expect(await taken("Route = 'Ke|' AND 1", "Keld's Haven")).toBe(
      "Route = 'Keld''s Haven'| AND 1",
    );
  });

  it('offers nothing within other texts, nor of a column that is not there', async () => {
    expect(await offered("CONCAT('Ho|")).toBeNull();
    expect(await offered("vessel = 'T|")).toBeNull();
    // Behind a text that is closed, names again.
    expect(labels(await offered("CONCAT('Holm', Ro|"))).toContain('Route');
  });
});
