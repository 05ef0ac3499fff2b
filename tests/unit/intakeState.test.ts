import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Doubt } from '$lib/core/read/doubts';
import { ColumnRecipe, type Recipe } from '$lib/core/read/recipe';
import { NO_PARTS } from '$lib/core/read/decode/source';
import { IntakeState, type Refreshed } from '$lib/ui/intake/intake.svelte';
import { FromIntake, ToIntake } from '$lib/worker/intakeMessages';

/** The worker that reads: what it was told, and what it says. */
class Reader {
  static all: Reader[] = [];
  readonly told: ToIntake[] = [];
  ended = false;
  readonly #listeners = new Map<string, (event: unknown) => void>();

  constructor() {
    Reader.all.push(this);
  }

  addEventListener(kind: string, listener: (event: unknown) => void): void {
    this.#listeners.set(kind, listener);
  }

  postMessage(message: unknown): void {
    this.told.push(ToIntake.parse(message));
  }

  terminate(): void {
    this.ended = true;
  }

  says(message: FromIntake): void {
    this.#listeners.get('message')?.({ data: message });
  }

  breaks(): void {
    this.#listeners.get('error')?.({});
  }

  get last(): ToIntake | undefined {
    return this.told.at(-1);
  }
}
const reader = (): Reader => {
  const last = Reader.all.at(-1);
  if (!last) throw new Error('nothing is read');
  return last;
};

const column = (id: string, at: number): ColumnRecipe =>
  ColumnRecipe.parse({ id, at, source: id, name: id, type: 'text' });
const recipeOf = (columns: readonly ColumnRecipe[]): Recipe => ({
  format: 'delimited',
  delimiter: ',',
  quote: '"',
  encoding: 'utf-8',
  header: true,
  skipLines: 0,
  width: 3,
  columns: [...columns],
});
const FILE = recipeOf([column('Route', 0), column('Fares', 1), column('Delay', 2)]);
const file = new File(['Route,Fares,Delay\nHolm,1,2\n'], 'kiosk-takings_2026.csv');
const preview = (recipe: Recipe, of = recipe): FromIntake => ({
  kind: 'preview',
  recipe,
  file: of,
  rows: [],
});
type Read = Extract<FromIntake, { kind: 'read' }>;
const read = (recipe: Recipe, more: Partial<Read> = {}): Read => ({
  kind: 'read',
  recipe,
  records: 7,
  doubts: [],
  totals: [],
  ...more,
});
/** A doubt that must be answered. */
const asks = (id: string): Doubt => ({
  kind: 'ambiguousDates',
  column: id,
  count: 1,
  places: [{ record: 1, text: '01/02/2026' }],
  words: 'Day or month first?',
  asks: true,
});

const LIMIT = 1024 * 1024;
const fetched = vi.fn(() => Promise.resolve(new Response()));

beforeEach(() => {
  Reader.all = [];
  vi.stubGlobal('Worker', Reader);
  vi.stubGlobal('location', { origin: 'http://127.0.0.1' });
  vi.stubGlobal('fetch', fetched);
  fetched.mockClear();
});
afterEach(() => vi.unstubAllGlobals());

/** A new list's file, read to its end. */
function readOnce(): IntakeState {
  const intake = new IntakeState(null, LIMIT);
  intake.begin(file);
  reader().says(preview(FILE));
  reader().says(read(FILE));
  return intake;
}

describe('a file on its way to a list', () => {
  it('is called after its file, read, and accepted once nothing asks', () => {
    const intake = new IntakeState(null, LIMIT);
    intake.begin(file);
    expect([intake.name, intake.stage]).toEqual(['kiosk takings 2026', 'reading']);
    expect(reader().last).toMatchObject({ kind: 'begin', previous: null, limit: 4 * LIMIT });
    reader().says({ kind: 'progress', share: 0.5, records: 3 });
    expect([intake.progress, intake.records]).toEqual([0.5, 3]);
    reader().says(preview(FILE));
    reader().says({ ...read(FILE), totals: [4, 9] });
    expect([intake.stage, intake.records, intake.canAccept]).toEqual(['read', 7, true]);
    intake.accept();
    expect(reader().last).toEqual({
      kind: 'accept',
      base: 'http://127.0.0.1',
      list: null,
      name: 'kiosk takings 2026',
      fileName: 'kiosk-takings_2026.csv',
      setAside: [4, 9],
      stated: true,
      addTo: null,
      leaveOut: true,
      totals: 'aside',
    });
    reader().says({ kind: 'stored', listId: 5, reading: 1, bench: 2, lost: 0 });
    expect([intake.stage, intake.stored?.bench]).toEqual(['done', 2]);
    // What is kept is not left on the desk.
    expect(intake.left).toBeNull();
  });

  it('sets no totals aside that are meant to stay, and needs a name', () => {
    const intake = readOnce();
    reader().says(read(FILE, { totals: [4] }));
    intake.name = '  ';
    expect(intake.canAccept).toBe(false);
    intake.accept();
    expect(reader().told).toHaveLength(1);
    intake.name = ' Takings ';
    intake.setTotalsAside = false;
    intake.accept();
    expect(reader().last).toMatchObject({ name: 'Takings', setAside: [], totals: 'counted' });
  });

  it('too large a file is not begun, and the words say by how much', () => {
    const intake = new IntakeState(null, 8);
    intake.begin(file);
    expect(intake.stage).toBe('fault');
    expect(intake.fault).toContain('kiosk-takings_2026.csv has 0 MB');
    expect(Reader.all).toHaveLength(0);
  });

  it('what was refused can be accepted again; what broke off cannot', () => {
    const intake = readOnce();
    intake.accept();
    reader().says({ kind: 'sending', share: 0.25 });
    expect(intake.progress).toBe(0.25);
    reader().says({ kind: 'refused', message: 'A list of this name is there.' });
    expect([intake.stage, intake.fault]).toEqual(['read', 'A list of this name is there.']);
    expect(intake.canAccept).toBe(true);
    reader().breaks();
    expect([intake.stage, intake.canAccept]).toEqual(['fault', false]);
    expect(intake.fault).toContain('Nothing was changed');
  });

  it('a doubt that asks keeps it from being accepted', () => {
    const intake = readOnce();
    reader().says(read(FILE, { doubts: [asks('Fares')] }));
    expect([intake.asking, intake.canAccept]).toEqual([1, false]);
  });
});

describe('what is decided about a file', () => {
  it('a column set by hand stays settled; another layout is found anew', () => {
    const intake = readOnce();
    intake.changeColumn('Fares', { type: 'number' });
    expect(reader().last).toMatchObject({ kind: 'recipe', settled: ['Fares'] });
    expect(intake.recipe?.columns.map((c) => c.type)).toEqual(['text', 'number', 'text']);
    expect(intake.stage).toBe('reading');
    intake.changeLayout({ delimiter: ';' });
    expect(reader().last).toMatchObject({ kind: 'layout', recipe: { delimiter: ';' } });
    reader().says(preview(FILE));
    intake.changeColumn('Delay', { unit: 'min' });
    expect(reader().last).toMatchObject({ kind: 'recipe', settled: ['Delay'] });
  });

  it('columns are left out and taken in again where they stood, but never the last', () => {
    const intake = readOnce();
    const [route, fares, delay] = FILE.columns;
    intake.takeColumn(route, false);
    intake.takeColumn(fares, false);
    expect(intake.leftOut.map((c) => c.id)).toEqual(['Route', 'Fares']);
    intake.takeColumn(delay, false);
    expect(intake.recipe?.columns.map((c) => c.id)).toEqual(['Delay']);
    intake.takeColumn(fares, true);
    intake.takeColumn(route, true);
    expect(intake.recipe?.columns.map((c) => c.id)).toEqual(['Route', 'Fares', 'Delay']);
    expect(intake.leftOut).toEqual([]);
  });

  it('another sheet of the same file of a package is asked with it', () => {
    const intake = new IntakeState(null, LIMIT);
    intake.begin(file);
    const packed: Recipe = { ...FILE, source: { form: 'workbook', member: 'may.xlsx' } };
    reader().says({ kind: 'choices', choices: NO_PARTS });
    reader().says(preview(packed));
    intake.choose({ part: 'June' });
    expect(reader().last).toEqual({
      kind: 'choose',
      wanted: { member: 'may.xlsx', part: 'June' },
      previous: null,
    });
    intake.choose({ member: 'june.xlsx' });
    expect(reader().last).toMatchObject({ wanted: { member: 'june.xlsx' } });
  });

  it('heads that differ are asked first, and what was said of them is kept', () => {
    const intake = new IntakeState(null, LIMIT);
    intake.begin(file);
    reader().says({ kind: 'heads', heads: [], files: ['a.csv', 'b.csv'] });
    expect([intake.stage, intake.files]).toEqual(['heads', ['a.csv', 'b.csv']]);
    intake.choose({ all: true, heads: { Fare: { sameAs: 'Fares' } } });
    expect(reader().last).toMatchObject({
      wanted: { all: true, heads: { Fare: { sameAs: 'Fares' } } },
    });
    expect(intake.stage).toBe('reading');
  });
});

describe('a file that refreshes a list', () => {
  const list: Refreshed = {
    records: 3,
    reading: 8,
    id: 3,
    name: 'Takings',
    recipe: recipeOf([column('Route', 0), column('Fares', 1), column('Gone', 2)]),
  };

  it('is accepted once every difference is decided on', () => {
    const intake = new IntakeState(list, LIMIT);
    intake.begin(file);
    expect([intake.name, reader().last]).toMatchObject([
      'Takings',
      { kind: 'begin', previous: list.recipe },
    ]);
    reader().says(preview(list.recipe, FILE));
    reader().says(read(list.recipe));
    expect(intake.differences.map((d) => [d.kind, d.column.id])).toEqual([
      ['missing', 'Gone'],
      ['new', 'Delay'],
    ]);
    expect([intake.undecided, intake.canAccept]).toEqual([2, false]);
    const [missing, added] = intake.differences;
    intake.decideOn(missing, false);
    intake.decideOn(added, true);
    expect(intake.undecided).toBe(0);
    expect(reader().last?.kind).toBe('recipe');
    // A later look at the file does not ask the same again.
    reader().says(preview(FILE, FILE));
    reader().says(read(FILE));
    expect(intake.canAccept).toBe(true);
    intake.accept();
    expect(reader().last).toMatchObject({ kind: 'accept', list: 3, name: 'Takings' });
  });

  it('reads its columns as was decided before, and shows what was decided about totals', () => {
    const counted: Refreshed = { ...list, recipe: { ...list.recipe, totals: 'counted' } };
    const intake = new IntakeState(counted, LIMIT);
    expect([intake.setTotalsAside, new IntakeState(list, LIMIT).setTotalsAside]).toEqual([
      false,
      true,
    ]);
    intake.begin(file);
    reader().says(preview(list.recipe, FILE));
    reader().says(read(list.recipe, { totals: [4] }));
    for (const difference of intake.differences) intake.decideOn(difference, true);
    // None of the list's columns is judged anew, whatever the file shows.
    expect(reader().last).toMatchObject({ kind: 'recipe', settled: ['Route', 'Fares', 'Gone'] });
    reader().says(read(list.recipe, { totals: [4] }));
    intake.accept();
    expect(reader().last).toMatchObject({ kind: 'accept', setAside: [], totals: 'counted' });
  });
});

describe('a file that is added to a list', () => {
  const list: Refreshed = {
    records: 3,
    reading: 8,
    id: 3,
    name: 'Takings',
    recipe: recipeOf([column('Route', 0), column('Fares', 1), column('Gone', 2)]),
  };
  const compared = (already: number) => ({
    kind: 'compared' as const,
    key: [],
    keys: [['Route']],
    already,
    differing: 0,
    first: [],
    lost: '',
  });

  it('keeps the columns of the list, and waits until it was compared', () => {
    const intake = new IntakeState(list, LIMIT, true);
    intake.begin(file);
    reader().says(preview(list.recipe, FILE));
    reader().says(read(list.recipe, { records: 5 }));
    expect([intake.undecided, intake.canAccept]).toEqual([0, false]);
    expect(reader().last).toMatchObject({ kind: 'compare', reading: 8, key: [] });
    reader().says(compared(5));
    // All of it is in the list already: there is nothing to add.
    expect([intake.leftAway, intake.canAccept]).toEqual([5, false]);
    intake.leaveOut = false;
    expect([intake.leftAway, intake.canAccept]).toEqual([0, true]);
    intake.compareBy(['Route']);
    expect([intake.compared, reader().last]).toMatchObject([null, { key: ['Route'] }]);
    reader().says(compared(2));
    intake.leaveOut = true;
    intake.accept();
    expect(reader().last).toMatchObject({ kind: 'accept', list: 3, addTo: 8, leaveOut: true });
  });

  it('may still take the place of the list, and then asks about what differs', () => {
    const intake = new IntakeState(list, LIMIT, true);
    intake.begin(file);
    reader().says(preview(list.recipe, FILE));
    reader().says(read(list.recipe));
    intake.setAdds(false);
    reader().says(read(list.recipe));
    expect([intake.undecided, intake.canAccept]).toEqual([2, false]);
    intake.setAdds(true);
    expect(intake.undecided).toBe(0);
  });
});

describe('a reading that is stopped, or a page that is reloaded', () => {
  it('stopping ends the worker at once, what it says late is not heard, and again begins anew', () => {
    const intake = readOnce();
    intake.changeColumn('Fares', { type: 'number' });
    const stopped = reader();
    intake.stop();
    expect([intake.stage, stopped.ended]).toEqual(['stopped', true]);
    stopped.says(read(FILE));
    stopped.breaks();
    expect(intake.stage).toBe('stopped');
    intake.again();
    expect(Reader.all).toHaveLength(2);
    reader().says(preview(FILE));
    // What was decided before is used for the file again.
    expect(reader().last).toMatchObject({ kind: 'recipe', settled: ['Fares'] });
    expect(intake.recipe?.columns[1].type).toBe('number');
  });

  it('a reloaded page goes on with what was decided', () => {
    const before = readOnce();
    before.name = 'Takings of May';
    before.setTotalsAside = false;
    before.changeColumn('Delay', { type: 'number', unit: 'min' });
    const { left } = before;
    if (!left) throw new Error('nothing was left');
    const intake = new IntakeState(null, LIMIT);
    intake.begin(left.file, left.decided);
    reader().says(preview(FILE));
    expect([intake.name, intake.setTotalsAside]).toEqual(['Takings of May', false]);
    expect(reader().last).toMatchObject({ kind: 'recipe', settled: ['Delay'] });
    expect(intake.recipe?.columns[2]).toMatchObject({ type: 'number', unit: 'min' });
    // Only once: the next look at the file is that of the recipe in use.
    const told = reader().told.length;
    reader().says(preview(intake.recipe ?? FILE, FILE));
    expect(reader().told).toHaveLength(told);
  });

  it('leaves nothing where nothing was read yet', () => {
    const intake = new IntakeState(null, LIMIT);
    intake.begin(file);
    expect(intake.left).toBeNull();
  });
});

describe('a table of a database', () => {
  it('is called after it, counts what comes, and is ended at the server where it is stopped', () => {
    const intake = new IntakeState(null, LIMIT);
    intake.ask({ connection: 'harbour', form: 'postgres', asked: { table: 'fares_2026' } });
    expect([intake.fileName, intake.name]).toEqual(['fares_2026 of harbour', 'fares 2026']);
    expect(reader().last).toMatchObject({ kind: 'database', connection: 'harbour' });
    reader().says({ kind: 'coming', read: 'r-9', records: 1200, bytes: 9000 });
    expect(intake.come).toMatchObject({ records: 1200, bytes: 9000 });
    intake.stop();
    expect(fetched).toHaveBeenCalledWith('/api/reads/r-9', { method: 'DELETE', keepalive: true });
    intake.again();
    expect(reader().last).toMatchObject({ kind: 'database', asked: { table: 'fares_2026' } });
    // A file alone is left on the desk.
    reader().says(preview(FILE));
    expect(intake.left).toBeNull();
  });

  it('a query is called after its connection, and what has come whole is not ended', () => {
    const intake = new IntakeState(null, LIMIT);
    intake.ask({ connection: 'harbour', form: 'postgres', asked: { query: 'select 1' } });
    expect([intake.fileName, intake.name]).toEqual(['a query of harbour', 'harbour']);
    reader().says({ kind: 'coming', read: 'r-9', records: 1, bytes: 9 });
    reader().says(preview(FILE));
    reader().says(read(FILE));
    intake.leave();
    expect(fetched).not.toHaveBeenCalled();
  });
});
