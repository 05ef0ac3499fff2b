import type { KeptBands } from '../../core/arrange/bands';
import type { Bench, TrayItem, View } from '../../core/bench/document';
import { addRung, narrowTo, setTally, showDeviation } from '../../core/bench/edits';
import { addTally, lookAt, openTally } from '../../core/bench/trayEdits';
import { isLedger, openItem, openLedger, type LedgerItem } from '../../core/bench/tray';
import type { Wish } from '../../core/tally/wish/wish';
import type { Condition } from '../../core/selection/condition';
import { plainSentence } from '../../core/tally/sentence/sentence';
import { sentenceOf } from '../../core/tally/sentence/sentences';
import { SimpleTally } from '../../core/tally/spec/simpleSpecs';
import type { Tally } from '../../core/tally/spec/specs';
import type {
  ArgsOf,
  Counts,
  Distribution,
  Do,
  LedgerPage,
  ReplyOf,
  Place,
} from '../../engine/protocol';
import { EngineClient, Refused } from '../../worker/engineClient';
import type { BenchFacts, Side } from './facts';
import { History } from './history';
import { LedgerLines } from './ledgerLines.svelte';
import { ListsAtHand } from './listsAtHand';
import { keepCopy } from './keeping';
import { drop, leftUnsent } from './outbox';
import { Saver } from './saver.svelte';
import { seeingAll, seeingNew } from '../../core/bench/seenLists';
import { StepDraft } from './step.svelte';
import { Errand } from './errand.svelte';
import { Working } from './working.svelte';
import { TallyFigures } from './tallyFigures.svelte';

/** A bench on the page: its document, what the engine makes of it, and its way back to the server. */
export class BenchState {
  doc = $state.raw<Bench>(undefined as never);
  counts = $state.raw<Counts | null>(null);
  ledger = $state.raw<LedgerPage | null>(null);
  /** What each tally of the tray came to, in small. */
  small = $state.raw<ReadonlyMap<string, ReplyOf<'fact'>>>(new Map());
  /** Whether the questions stand in the place of the open tally. */
  choosing = $state(false);
  #reporting = $state(false);
  wish = $state.raw<Wish>({});
  /** Why the open ledger has no figures; empty where it has. */
  refused = $state('');
  footing = $state.raw<ReplyOf<'footing'> | null>(null);
  /** Known totals beside their figures as they are now. */
  known = $state.raw<ReplyOf<'known'>>([]);
  heads = $state.raw<Distribution[]>([]);
  progress = $state(0);
  /** What is done before there are figures. */
  opening = $state('Opening the list…');
  /** A fault to show, until the next thing works. */
  fault = $state('');
  /** What happened, for the status line and screen readers. */
  notice = $state('');
  side = $state.raw<Side | null>(null);
  canUndo = $state<string | null>(null);
  canRedo = $state<string | null>(null);
  /** Counts runs of the engine, for those who show something that depends on them. */
  runs = $state(0);
  readonly working = new Working(() => this.engine.cancel());
  readonly errand = new Errand(() => this.engine.cancel());
  readonly saver: Saver;
  readonly engine: EngineClient;
  readonly facts: BenchFacts;
  /** The step being made or changed. */
  readonly step = new StepDraft(this);
  /** Lines of the open ledger around those in view. */
  readonly lines = new LedgerLines(
    (token, args, lane) => this.#askOf(token, 'lines', args, lane),
    () => ({
      token: this.counts?.token ?? 0,
      tally: this.#ledgerOf,
      total: this.ledger?.lines ?? 0,
    }),
    (error) => this.#fail(error),
  );
  /** Other lists and readings that can be named. */
  readonly lists: ListsAtHand;
  /** The open tally where it is no ledger. */
  readonly figures = new TallyFigures(
    (token, kind, args, lane) => this.#askOf(token, kind, args, lane),
    () => this.shown.view,
    (error) => this.#fail(error),
  );
  /** The ledger that the figures on the page are of: another may be open already. */
  #ledgerOf = '';
  #lent: Bench['lists'] = {};
  readonly #history = new History();
  #deaths = 0;
  #recovered = false;
  /** Whether the tray has still to be told what its tallies came to. */
  #owed = true;

  constructor(facts: BenchFacts) {
    this.facts = facts;
    this.doc = facts.doc;
    this.lists = new ListsAtHand(facts, () => this.doc);
    const name = `${facts.listName}, ${facts.name}`;
    this.saver = new Saver({ id: facts.id, name }, facts.revision, facts.earlier !== null);
    this.engine = new EngineClient({
      progress: (share) => (this.progress = share),
      working: (share) => {
        this.working.told(share);
        this.errand.heard(share);
      },
      died: () => this.#revive(),
    });
  }

  /** Whether the report stands in the place of the open tally. */
  get reporting(): boolean {
    return this.#reporting;
  }

  /** A step still being made counts on the page and never in the report. */
  set reporting(reporting: boolean) {
    if (reporting === this.#reporting) return;
    this.#reporting = reporting;
    if (this.step.isShown) void this.compute(false);
  }

  /** The tally that is open. */
  get shown(): TrayItem {
    return openItem(this.doc);
  }

  /** The ledger that is open, or the first of the tray; null where there is none. */
  get ledgerItem(): LedgerItem | null {
    return openLedger(this.doc);
  }

  /** The ledger that is open: only what draws a ledger asks for it. */
  get item(): LedgerItem {
    const item = openLedger(this.doc);
    if (!item) throw new Error('This bench has no ledger.');
    return item;
  }

  /** Names of the columns by id. */
  get names(): ReadonlyMap<string, string> {
    return new Map(this.columns.map((c) => [c.id, c.name]));
  }

  /** What a tally goes by: the name it was given, or its sentence. */
  nameOf(item: TrayItem): string {
    return item.name ?? plainSentence(sentenceOf(item.tally, this.names, this.facts.listName));
  }

  /** Band tables that can be named: those of this bench first, of one name none of another. */
  get keptBands(): readonly KeptBands[] {
    const own = new Set(this.doc.bands.map(({ name }) => name.toLowerCase()));
    const others = this.facts.bands.filter(({ name }) => !own.has(name.toLowerCase()));
    return [...this.doc.bands, ...others.map(({ name, bands }) => ({ name, bands }))];
  }

  /** Narrows to what meets a condition: one more step. */
  narrowTo(label: string, condition: Condition): void {
    this.change(`Narrow to ${label}`, (doc) => addRung(doc, condition));
  }

  /** Opens a tally of the tray. It is no change that could be undone, but it is kept. */
  visit(id: string): void {
    void this.visitNow(id);
  }

  /** The same; done when its figures are there. */
  async visitNow(id: string): Promise<void> {
    this.choosing = false;
    this.reporting = false;
    const doc = openTally(this.doc, id);
    if (doc === this.doc) return;
    this.side = null;
    this.doc = doc;
    this.saver.save(doc, true);
    await this.compute(false);
  }

  /** Opens a figure of any tally, with its records. */
  async openFigure(place: Place): Promise<void> {
    await this.visitNow(place.tally);
    this.side = { kind: 'behind', place };
  }

  /** Readings of the list and other lists that can be brought, for first guesses. */
  get #elsewhere(): Pick<ArgsOf<'offers'>, 'readings' | 'others'> {
    return {
      readings: this.facts.readings.map((r) => r.name),
      others: this.facts.lists
        .filter((list) => !list.follows)
        .map(({ name, columns }) => ({
          name,
          columns: columns.map((column) => ({ name: column.name, type: column.type })),
        })),
    };
  }

  /** What can be asked of this list, from what is wished for so far. */
  questions(wish: Wish, lane?: string): Promise<ReplyOf<'questions'>> {
    return this.ask('questions', { wish, ...this.#elsewhere }, lane);
  }

  /** The tallies that a wish may mean, and what of it none of them says. */
  offers(typed: string, lane?: string): Promise<ReplyOf<'offers'>> {
    return this.ask('offers', { typed, ...this.#elsewhere, bands: this.keptBands }, lane);
  }

  /** Opens the questions, with what is wished for so far. */
  choose(wish: Wish = {}): void {
    this.wish = wish;
    this.side = null;
    this.reporting = false;
    this.choosing = true;
  }

  /** Begins to say what moved since the reading before, in the first tally that can be compared. */
  async sayMoved(): Promise<void> {
    const found = (await this.questions({})).find(({ kind }) => kind === 'comparison');
    if (!found?.tally || found.tally.kind !== 'comparison') {
      this.notice = found?.needs ?? '';
      return;
    }
    const { with: older } = found.tally;
    const there = this.doc.tray.find(
      ({ tally }) => tally.kind === 'comparison' && tally.with === older,
    );
    if (there) {
      this.visit(there.id);
      return;
    }
    const own = this.doc.tray.flatMap(({ tally }) => SimpleTally.safeParse(tally).data ?? [])[0];
    this.begin('What moved', { ...found.tally, ...(own && { tally: own }) });
  }

  /** Opens the report. */
  report(): void {
    this.side = null;
    this.choosing = false;
    this.reporting = true;
  }

  /**
   * Puts a new tally into the tray and opens it.
   * @param wish what it was begun from, where it says how figures are to be shown
   */
  begin(label: string, tally: Tally, wish: Wish = {}, narrow: readonly Condition[] = []): void {
    this.choosing = false;
    this.reporting = false;
    this.side = null;
    const { column, withDeviation } = wish;
    this.change(label, (doc) => {
      const narrowed = narrowTo(doc, narrow);
      const added = addTally(this.lists.withThoseOf(narrowed, tally, this.names), tally);
      return withDeviation && column !== undefined ? showDeviation(added, column) : added;
    });
  }

  /** Has another list at hand for what is in the making; the document does not have it yet. */
  async lend(name: string | null): Promise<void> {
    const source = name === null || name in this.doc.lists ? null : this.lists.sourceOf(name);
    const before = JSON.stringify(this.#asked().lists);
    this.#lent = name !== null && source ? { [name]: source } : {};
    if (JSON.stringify(this.#asked().lists) !== before) await this.compute(false);
  }

  takeNote(): void {
    this.change('Take note of what was read anew', (doc) =>
      seeingAll(doc, this.lists.current(doc)),
    );
  }

  /** Changes the tray itself: names and order. No figure changes. */
  arrange(label: string, edit: (doc: Bench) => Bench): void {
    const before = this.doc;
    const after = edit(before);
    if (after === before) return;
    this.#history.record(label, before, after);
    this.doc = after;
    this.saver.save(after);
    this.#marks(label);
  }

  /** Changes how a tally is looked at: no figure changes, so nothing is computed. */
  lookAt(label: string, id: string, change: Partial<View>): void {
    const before = this.doc;
    const after = lookAt(before, id, change);
    this.#history.record(label, before, after);
    this.doc = after;
    this.saver.save(after);
    this.#marks(label);
    void this.figures.again();
  }

  get columns(): Counts['columns'] {
    return this.counts?.columns ?? [];
  }

  column(id: string | null | undefined): Counts['columns'][number] | undefined {
    return this.columns.find((c) => c.id === id);
  }

  /** Asks of the figures on the page; what newer ones replaced is refused. */
  ask<K extends Do>(kind: K, args: Omit<ArgsOf<K>, 'token'>, lane?: string): Promise<ReplyOf<K>> {
    return this.#askOf(this.counts?.token ?? 0, kind, args, lane);
  }

  #askOf<K extends Do>(
    token: number,
    kind: K,
    args: Omit<ArgsOf<K>, 'token'>,
    lane?: string,
  ): Promise<ReplyOf<K>> {
    return this.engine.ask(kind, args, { token, ...(lane !== undefined && { lane }) });
  }

  /** What counts by the bench as it is now: newer than what is shown where that was stopped. */
  async countsNow(): Promise<Counts> {
    if (this.counts && !this.working.stopped && !this.working.busy) return this.counts;
    const doc = $state.snapshot(this.#asked()) as Bench;
    return this.engine.ask('resolve', { doc }, { lane: 'counts now' });
  }

  /** Asks of the bench as it is now, whatever is shown. */
  async askNow<K extends Do>(kind: K, args: Omit<ArgsOf<K>, 'token'>): Promise<ReplyOf<K>> {
    const { token } = await this.countsNow();
    return this.#askOf(token, kind, args);
  }

  /** Puts another spec in the place of a tally. */
  retell(label: string, id: string, tally: Tally): void {
    const now = this.doc.tray.find((item) => item.id === id)?.tally;
    if (JSON.stringify(now) === JSON.stringify(tally)) return;
    this.change(label, (doc) =>
      setTally(this.lists.withThoseOf(doc, tally, this.names), id, tally),
    );
  }

  /** The same while an edge or a value is dragged: all of it is one step to undo. */
  drag(label: string, id: string, tally: Tally): void {
    this.change(label, (doc) => setTally(doc, id, tally), `${label} ${id}`);
  }

  endDrag(): void {
    this.#history.endDrag();
  }

  async open(): Promise<void> {
    this.opening = 'Looking for changes kept in this browser…';
    await this.#recover();
    this.opening = 'Opening the list…';
    try {
      await this.engine.open(this.doc.reading, location.origin);
      this.progress = 1;
      await this.compute();
    } catch (error) {
      this.#fail(error);
    }
  }

  /** Puts back what was changed here before and never saved. */
  async #recover(): Promise<void> {
    if (this.#recovered || this.facts.earlier) return;
    this.#recovered = true;
    const [unsent, ...others] = (await leftUnsent()).filter(({ bench }) => bench === this.facts.id);
    if (!unsent) return;
    this.#history.record('Changes kept in this browser', this.doc, unsent.doc);
    this.doc = unsent.doc;
    this.saver.follow(unsent);
    this.saver.save(unsent.doc);
    this.#marks('What you changed here before, kept in this browser, was put back.');
    // From here on it is this tab's.
    await drop(unsent);
    for (const other of others) {
      // What another tab had changed is a bench of its own: neither writes over the other.
      const copy = await keepCopy(this.facts, other.doc).catch(() => null);
      if (copy === null) continue;
      await drop(other);
      this.notice = `What another tab had changed here is kept as a bench of its own: “${this.facts.name}, my copy”.`;
    }
  }

  /** Makes the earlier state that is shown the newest; undone, the newest until then is back. */
  makeNewest(): void {
    const { earlier } = this.facts;
    if (!earlier) return;
    const label = 'Make the earlier state the newest';
    this.#history.record(label, earlier.newest, this.doc);
    this.saver.join();
    this.saver.save(this.doc);
    this.#marks(label);
  }

  /** A worker that died is started anew, a few times; the document was never in it. */
  #revive(): void {
    this.#deaths++;
    if (this.#deaths > 3) {
      this.fault =
        'The calculation stopped several times. Reload the page; your changes are saved.';
      return;
    }
    this.notice = 'The calculation was interrupted and is starting again.';
    this.engine.restart();
    void this.open();
  }

  /** Changes the document: computed, saved, and undone as one step. */
  change(label: string, edit: (doc: Bench) => Bench, drag?: string): void {
    const before = this.doc;
    const edited = edit(before);
    if (edited === before) return;
    const after = seeingNew(before, edited, this.lists.current(edited));
    this.#history.record(label, before, after, drag);
    this.#take(after, label);
  }

  undo(): void {
    const step = this.#history.undo();
    if (step) this.#take(step.doc, `Undone: ${step.label}`);
  }

  redo(): void {
    const step = this.#history.redo();
    if (step) this.#take(step.doc, `Done again: ${step.label}`);
  }

  /** Takes a document from elsewhere as one undoable change. */
  replace(doc: Bench, label: string): void {
    const reopen = doc.reading !== this.doc.reading;
    this.#history.record(label, this.doc, doc);
    this.#closeMade(doc);
    this.doc = doc;
    this.#marks(label);
    if (reopen) void this.open();
    else void this.compute();
  }

  #take(doc: Bench, label: string): void {
    const reopen = doc.reading !== this.doc.reading;
    this.#closeMade(doc);
    this.doc = doc;
    this.saver.save(doc);
    this.#marks(label);
    if (reopen) void this.open();
    else void this.compute();
  }

  /** A panel of a made column goes where the next document has another one there, or none. */
  #closeMade(next: Bench): void {
    const { side, doc } = this;
    if (
      side?.kind === 'made' &&
      side.at !== null &&
      doc[side.of][side.at] !== next[side.of][side.at]
    )
      this.side = null;
  }

  #marks(label: string): void {
    this.notice = label;
    this.canUndo = this.#history.canUndo;
    this.canRedo = this.#history.canRedo;
  }

  /** Stands the bench, and shows its figures once all of them are there. */
  async compute(small = true): Promise<void> {
    const work = this.working.begin();
    try {
      const counts = await this.engine.ask('resolve', {
        doc: $state.snapshot(this.#asked()) as Bench,
      });
      const { token } = counts;
      await (isLedger(this.shown)
        ? this.#computeLedger(counts, work)
        : this.#computeTally(counts, work));
      if (this.counts?.token === token)
        this.known = this.doc.known.length ? await this.#askOf(token, 'known', {}) : [];
      // What the tray says of the others holds as long as only another tally was opened.
      this.#owed ||= small;
      if (this.#owed) await this.#computeSmall(token);
    } catch (error) {
      this.working.end(work);
      this.#fail(error);
    }
  }

  /** The document with the step and the list that are being tried. */
  #asked(): Bench {
    const doc = this.#reporting ? this.doc : this.step.asked(this.doc);
    return { ...doc, lists: { ...this.#lent, ...doc.lists } };
  }

  async #computeLedger(counts: Counts, work: number): Promise<void> {
    const { token } = counts;
    const tally = this.item.id;
    let ledger: LedgerPage;
    try {
      ledger = await this.#askOf(token, 'ledger', { tally });
    } catch (error) {
      if (!(error instanceof Refused) || error.code !== 'tallyRefused') throw error;
      // What counts stands all the same, and the sentence can be changed.
      this.#show(counts, null, error.message, work);
      return;
    }
    await this.lines.draw(token, tally, ledger.lines);
    this.#ledgerOf = tally;
    this.#show(counts, ledger, '', work);
    const footing = await this.#askOf(token, 'footing', { tally });
    if (this.counts?.token === token) this.footing = footing;
    const heads: Distribution[] = [];
    while (heads.length < ledger.heads.length)
      heads.push(...(await this.#askOf(token, 'heads', { tally, from: heads.length })));
    if (this.counts?.token === token) this.heads = heads;
  }

  async #computeTally(counts: Counts, work: number): Promise<void> {
    const { token } = counts;
    const { id } = this.shown;
    await this.figures.compute(token, id, (refused) => this.#show(counts, null, refused, work));
    const footing = await this.#askOf(token, 'footing', { tally: id });
    if (this.counts?.token === token) this.footing = footing;
  }

  /** What the tray says of each tally, one by one, as long as nothing newer is asked. */
  async #computeSmall(token: number): Promise<void> {
    for (const { id } of this.doc.tray) {
      if (this.counts?.token !== token) return;
      const fact = await this.#askOf(token, 'fact', { tally: id });
      if (this.counts?.token !== token) return;
      this.small = new Map(this.small).set(id, fact);
    }
    this.#owed = false;
  }

  #show(counts: Counts, ledger: LedgerPage | null, refused: string, work: number): void {
    this.counts = counts;
    this.ledger = ledger;
    // Whether these foot is not known yet; what older ones did says nothing of them.
    this.footing = null;
    this.refused = refused;
    this.fault = '';
    this.working.end(work);
    this.runs++;
  }

  #fail(error: unknown): void {
    if (
      error instanceof Refused &&
      ['superseded', 'stopped', 'workerDied', 'notOpen', 'stale'].includes(error.code)
    )
      return;
    this.fault = error instanceof Error ? error.message : String(error);
  }

  stop(): void {
    this.engine.stop();
  }
}
