import { showCount } from '../../core/table/format';
import type { Decided, Left } from './desk';
import { decide, differenceKey, matchRecipe, type Difference } from '../../core/read/refresh';
import type { Doubt } from '../../core/read/doubts';
import type { ColumnRecipe, Recipe } from '../../core/read/recipe';
import {
  NO_PARTS,
  type AskedOf,
  type DatabaseForm,
  type FileParts,
  type HeadDifference,
} from '../../core/read/decode/source';
import type { HeadsSettled } from '../../core/read/decode/stacked';
import type { PartWanted } from '../../core/read/decode/decode';
import {
  FromIntake,
  type Compared,
  type PreviewCell,
  type ToIntake,
} from '../../worker/intakeMessages';

/** The list a file refreshes. */
export interface Refreshed {
  readonly id: number;
  readonly name: string;
  readonly recipe: Recipe;
  /** The reading that a file takes the place of, or is added to, and its records. */
  readonly reading: number;
  readonly records: number;
}

/** Another way of cutting a file into cells. */
export type LayoutChange = Partial<
  Pick<
    Recipe,
    'delimiter' | 'quote' | 'encoding' | 'header' | 'unitsBelow' | 'skipLines' | 'notesBelow'
  >
>;

/** A table or a query of a database of the server. */
export interface OfDatabase {
  readonly connection: string;
  readonly form: DatabaseForm;
  readonly asked: AskedOf;
}

/** Every difference decided as the list has it. */
const keepAll = (differences: readonly Difference[]): Map<string, boolean> =>
  new Map(differences.map((d) => [differenceKey(d), true]));

/** A packed file may unfold to so many times what a file may have. */
const UNFOLDED = 4;

type Stage = 'empty' | 'heads' | 'reading' | 'read' | 'stopped' | 'sending' | 'done' | 'fault';

/** A file being read: its recipe, first records and doubts, until it is accepted or left. */
export class IntakeState {
  stage = $state<Stage>('empty');
  fileName = $state('');
  name = $state('');
  recipe = $state.raw<Recipe | null>(null);
  /** The file read without a list's recipe: all of its columns. */
  file = $state.raw<Recipe | null>(null);
  /** What of the file can be read: the files of a package, the sheets of a workbook. */
  choices = $state.raw<FileParts>(NO_PARTS);
  /** Heads that not all of several files have, before it is said what each of them is. */
  heads = $state.raw<readonly HeadDifference[]>([]);
  /** The files of a package whose heads differ. */
  files = $state.raw<readonly string[]>([]);
  rows = $state.raw<PreviewCell[][]>([]);
  progress = $state(0);
  /** What has come from a database. */
  come = $state.raw({ read: '', records: 0, bytes: 0 });
  records = $state(0);
  doubts = $state.raw<Doubt[]>([]);
  totals = $state.raw<number[]>([]);
  setTotalsAside = $state(true);
  /** Whether the grand total that the file states is kept, to be compared. */
  keepStated = $state(true);
  fault = $state('');
  differences = $state.raw<Difference[]>([]);
  decisions = $state.raw<ReadonlyMap<string, boolean>>(new Map());
  /** Whether the file's records are added to the list; else they take the place of all of it. */
  adds = $state(false);
  /** Of records that are added: those that the list has already stay away. */
  leaveOut = $state(true);
  /** The file beside its list; null until it was compared. */
  compared = $state.raw<Compared | null>(null);
  stored = $state.raw<{ listId: number; bench: number | null; lost: number } | null>(null);
  readonly refreshed: Refreshed | null;
  readonly #limit: number;
  readonly #settled = new Set<string>();
  #worker: Worker | null = null;
  #given: File | OfDatabase | null = null;
  #left: Decided | null = null;
  /** What was said of heads that not all of several files have. */
  #heads: HeadsSettled = {};
  /** A list's differences are found with the first look at the file. */
  #first = true;

  constructor(refreshed: Refreshed | null, limit: number, adds = false) {
    this.refreshed = refreshed;
    this.adds = adds && refreshed !== null;
    this.setTotalsAside = refreshed?.recipe.totals !== 'counted';
    this.#limit = limit;
  }

  /** @param left what was decided about it before the page was reloaded */
  begin(file: File, left: Decided | null = null): void {
    this.#given = file;
    this.#called(file.name, file.name.replace(/\.[^.]+$/, ''));
    this.#left = left;
    if (file.size > this.#limit) {
      const mb = (n: number): string => `${showCount(Math.round(n / 1024 / 1024))} MB`;
      this.#fail(
        `${file.name} has ${mb(file.size)}; one list may take ${mb(this.#limit)}. Bring in a part of it, or raise TALLY_LOFT_UPLOAD_MB.`,
      );
      return;
    }
    const wanted = left?.recipe.source ?? this.refreshed?.recipe.source;
    this.#heads = wanted?.heads ?? {};
    this.#startWorker();
    this.#post({
      kind: 'begin',
      file,
      previous: this.refreshed?.recipe ?? null,
      wanted,
      limit: this.#limit * UNFOLDED,
    });
  }

  /** Reads a table or a query. */
  ask(of: OfDatabase): void {
    this.#given = of;
    const what = 'table' in of.asked ? of.asked.table : 'a query';
    this.#called(`${what} of ${of.connection}`, 'table' in of.asked ? what : of.connection);
    this.#startWorker();
    this.#post({
      kind: 'database',
      base: location.origin,
      ...of,
      previous: this.refreshed?.recipe ?? null,
    });
  }

  /** What is read, and what its list may be called. */
  #called(source: string, list: string): void {
    this.fileName = source;
    this.name = this.refreshed?.name ?? (list.replace(/[-_]+/g, ' ').trim() || 'New list');
    this.fault = '';
    this.doubts = [];
    this.come = { read: '', records: 0, bytes: 0 };
    this.#left = null;
    this.#settleAsBefore();
    this.#first = true;
  }

  /**
   * Another file of the package, or another part of the file that is read: all is found anew. Heads that were
   * settled before stay so.
   */
  choose(wanted: PartWanted): void {
    const { member } = this.recipe?.source ?? {};
    if (wanted.heads) this.#heads = { ...this.#heads, ...wanted.heads };
    const of =
      wanted.all || wanted.member !== undefined
        ? { ...wanted, ...(wanted.all && { heads: this.#heads }) }
        : { ...(member !== undefined && { member }), ...wanted };
    this.#settleAsBefore();
    this.#first = true;
    this.differences = [];
    this.decisions = new Map();
    this.#reading();
    this.#post({ kind: 'choose', wanted: of, previous: this.refreshed?.recipe ?? null });
  }

  /** Another delimiter, quote, encoding, header or number of lines above and below. */
  changeLayout(change: LayoutChange): void {
    if (!this.recipe) return;
    this.#settleAsBefore();
    this.#reading();
    // Another way of cutting the lines may find other notes below.
    this.#post({ kind: 'layout', recipe: { ...this.recipe, notesBelow: undefined, ...change } });
  }

  changeColumn(id: string, change: Partial<ColumnRecipe>): void {
    if (!this.recipe) return;
    this.#settled.add(id);
    this.#use({
      ...this.recipe,
      columns: this.recipe.columns.map((c) => (c.id === id ? { ...c, ...change } : c)),
    });
  }

  /** Reads the numbers of a column as the days that a workbook counts by them, with the time where some have one. */
  readAsDays(id: string): void {
    const at = this.recipe?.columns.findIndex((c) => c.id === id) ?? -1;
    const timed = this.rows.some((row) => /\d[.,]\d/.test(row[at]?.text.replaceAll(',', '') ?? ''));
    this.changeColumn(id, { type: timed ? 'datetime' : 'date', dayNumbers: true });
  }

  /** Takes a column of the file in, or leaves it out. */
  takeColumn(column: ColumnRecipe, taken: boolean): void {
    if (!this.recipe) return;
    const columns = taken
      ? [...this.recipe.columns, column]
      : this.recipe.columns.filter((c) => c.id !== column.id);
    if (columns.length === 0) return;
    const order = new Map((this.file?.columns ?? []).map((c, k) => [c.at, k]));
    if (!this.refreshed) columns.sort((a, b) => (order.get(a.at) ?? 0) - (order.get(b.at) ?? 0));
    this.#use({ ...this.recipe, columns });
  }

  decideOn(difference: Difference, keep: boolean): void {
    if (!this.refreshed || !this.file) return;
    this.decisions = new Map(this.decisions).set(differenceKey(difference), keep);
    const matched = matchRecipe(this.file, this.refreshed.recipe).recipe;
    this.#use(decide(matched, this.differences, this.decisions));
  }

  /** Adds the file's records to the list, or lets them take the place of all of it. */
  setAdds(adds: boolean): void {
    if (!this.refreshed || adds === this.adds) return;
    this.adds = adds;
    if (!this.file || this.differences.length === 0) return;
    // A list that is added to keeps its columns as they are.
    this.decisions = adds ? keepAll(this.differences) : new Map();
    const matched = matchRecipe(this.file, this.refreshed.recipe).recipe;
    this.#use(decide(matched, this.differences, this.decisions));
  }

  /** Records are the same where these columns are; without any, where all columns are. */
  compareBy(key: readonly string[]): void {
    if (!this.refreshed) return;
    this.compared = null;
    this.#compare([...key]);
  }

  #compare(key: string[]): void {
    if (!this.refreshed) return;
    const { reading } = this.refreshed;
    this.#post({ kind: 'compare', base: location.origin, reading, key });
  }

  /** Records that the list has already, of those that would be added. */
  get leftAway(): number {
    return this.adds && this.leaveOut ? (this.compared?.already ?? 0) : 0;
  }

  get undecided(): number {
    return this.differences.filter((d) => !this.decisions.has(differenceKey(d))).length;
  }

  get asking(): number {
    return this.doubts.filter((d) => d.asks).length;
  }

  get canAccept(): boolean {
    return (
      this.stage === 'read' &&
      this.undecided === 0 &&
      this.asking === 0 &&
      this.name.trim() !== '' &&
      (!this.adds || (this.compared !== null && this.records > this.leftAway))
    );
  }

  /** Columns of the file that the list leaves out. */
  get leftOut(): ColumnRecipe[] {
    const taken = new Set(this.recipe?.columns.map((c) => c.at));
    return (this.file?.columns ?? []).filter((c) => !taken.has(c.at));
  }

  /** Ends the reading at once, whatever the worker is at. What was decided stays. */
  stop(): void {
    this.#stopWorker();
    this.stage = 'stopped';
  }

  /** Reads the file from its start again, with what was decided. */
  again(): void {
    if (this.#given instanceof File) this.begin(this.#given, this.left?.decided ?? null);
    else if (this.#given) this.ask(this.#given);
  }

  accept(): void {
    if (!this.canAccept) return;
    this.stage = 'sending';
    this.progress = 0;
    this.fault = '';
    this.#post({
      kind: 'accept',
      base: location.origin,
      list: this.refreshed?.id ?? null,
      addTo: this.adds ? (this.refreshed?.reading ?? null) : null,
      leaveOut: this.leaveOut,
      name: this.name.trim(),
      fileName: this.fileName,
      setAside: this.setTotalsAside ? [...this.totals] : [],
      stated: this.setTotalsAside && this.keepStated && this.refreshed === null,
      totals: this.totals.length ? (this.setTotalsAside ? 'aside' : 'counted') : null,
    });
  }

  leave(): void {
    this.#stopWorker();
  }

  /** What a reloaded page needs to go on; null before anything was read, and once it is kept. */
  get left(): Left | null {
    const { recipe, name, setTotalsAside, adds, decisions, stage } = this;
    if (!(this.#given instanceof File) || !recipe || stage === 'fault' || stage === 'done')
      return null;
    return {
      file: this.#given,
      decided: {
        recipe,
        name,
        setTotalsAside,
        adds,
        settled: [...this.#settled],
        decisions: [...decisions],
      },
    };
  }

  /** Columns of a list that is refreshed stand as they were decided; all others are found. */
  #settleAsBefore(): void {
    this.#settled.clear();
    for (const { id } of this.refreshed?.recipe.columns ?? []) this.#settled.add(id);
  }

  #goOn(left: Decided): void {
    this.#left = null;
    this.name = left.name;
    this.setTotalsAside = left.setTotalsAside;
    this.adds = left.adds;
    this.decisions = new Map(left.decisions);
    for (const id of left.settled) this.#settled.add(id);
    this.#use(left.recipe);
  }

  #use(recipe: Recipe): void {
    this.recipe = recipe;
    this.#reading();
    this.#post({ kind: 'recipe', recipe, settled: [...this.#settled] });
  }

  #reading(): void {
    this.stage = 'reading';
    this.progress = 0;
    this.fault = '';
  }

  #fail(message: string): void {
    this.fault = message;
    this.stage = 'fault';
  }

  #startWorker(): void {
    this.#stopWorker();
    const worker = new Worker(new URL('../../worker/intake.worker.ts', import.meta.url), {
      type: 'module',
    });
    this.#worker = worker;
    // What a worker said before it was ended may still be on its way.
    worker.addEventListener('message', (event: MessageEvent<unknown>) => {
      if (this.#worker === worker) this.#receive(FromIntake.parse(event.data));
    });
    worker.addEventListener('error', () => {
      if (this.#worker === worker)
        this.#fail('Reading was interrupted. Nothing was changed; choose the file again.');
    });
    this.#reading();
  }

  #stopWorker(): void {
    this.#worker?.terminate();
    // What is still asked of a database ends there too; one that has ended is not known any more.
    if (this.come.read && this.stage === 'reading' && !this.recipe)
      void fetch(`/api/reads/${this.come.read}`, { method: 'DELETE', keepalive: true }).catch(
        () => undefined,
      );
    this.#worker = null;
  }

  #post(message: ToIntake): void {
    this.#worker?.postMessage(message);
  }

  #receive(message: FromIntake): void {
    switch (message.kind) {
      case 'choices':
        this.choices = message.choices;
        this.heads = [];
        return;
      case 'heads':
        this.heads = message.heads;
        this.files = message.files;
        this.stage = 'heads';
        return;
      case 'preview':
        this.recipe = message.recipe;
        this.file = message.file;
        this.rows = message.rows;
        if (this.#first && this.refreshed) {
          this.differences = matchRecipe(message.file, this.refreshed.recipe).differences;
          if (this.adds) this.decisions = keepAll(this.differences);
        }
        this.#first = false;
        if (this.#left) this.#goOn(this.#left);
        return;
      case 'coming':
        this.come = message;
        return;
      case 'progress':
        this.progress = message.share;
        this.records = message.records;
        return;
      case 'read':
        this.recipe = message.recipe;
        this.records = message.records;
        this.doubts = message.doubts;
        this.totals = message.totals;
        this.stage = 'read';
        this.compared = null;
        this.#compare([]);
        return;
      case 'compared':
        this.compared = message;
        return;
      case 'fault':
        return this.#fail(message.message);
      case 'sending':
        this.progress = message.share;
        return;
      case 'stored':
        this.stored = message;
        this.stage = 'done';
        return;
      case 'refused':
        this.fault = message.message;
        this.stage = 'read';
    }
  }
}
