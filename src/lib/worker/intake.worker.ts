import { recordNumber } from '../core/table/recordNumber';
import { HeadsDiffer, IntakeError } from '../core/errors';
import { z } from 'zod';
import { HEAD_BYTES } from '../core/read/textDecoding';
import { DelimitedReader, type DelimitedReading } from '../core/read/delimited';
import { examine } from '../core/read/examine';
import { OpenedFile } from '../core/read/opened';
import type { Recipe } from '../core/read/recipe';
import { layoutAtRefresh, matchRecipe } from '../core/read/refresh';
import { settle } from '../core/read/settle';
import { detectForm } from '../core/read/decode/detect';
import { decodeFile, type PartWanted } from '../core/read/decode/decode';
import { ListComparison } from './comparison';
import { readDatabase, type DatabaseWanted } from './fromDatabase';
import { ToIntake, type FromIntake } from './intakeMessages';
import { IntakeSender, type ReadFile } from './intakeSending';
import { pause } from './pause';

z.config({ jitless: true });

/** Bytes read at a time: some tens of milliseconds of work. */
const SLICE = 1 << 21;
const PREVIEW = 14;

let file: Blob | null = null;
let opened: OpenedFile | null = null;
/** The text of the file that is read: the file itself, or what it unfolds to. */
let text = new Blob([]);
/** Bytes that a file may unfold to. */
let limit = 0;
/** Counts the readings begun; an older one stops when it is no longer the newest. */
let turn = 0;
let latest: ReadFile | null = null;

const send = (message: FromIntake): void => postMessage(message);

const faultOf = (error: unknown): string =>
  error instanceof Error ? error.message : String(error);

/** @param missing what of a name in the list's recipe, or chosen, that the file has not */
async function begin(
  given: Blob,
  previous: Recipe | null,
  wanted: PartWanted,
  missing: 'refuse' | 'say',
): Promise<void> {
  file = given;
  latest = null;
  const mine = ++turn;
  const now = await open(given, wanted, missing);
  if (mine !== turn) return;
  await look(now, now.text ? new Blob([now.text.slice()]) : given, previous);
}

/** A table or a query, read to its end before it is looked at. */
async function beginDatabase(wanted: DatabaseWanted, previous: Recipe | null): Promise<void> {
  latest = null;
  const mine = ++turn;
  const database = await readDatabase(wanted, (read, records, bytes) => {
    send({ kind: 'coming', read, records, bytes });
    return mine === turn;
  });
  if (database) await look(database, new Blob([]), previous);
}

/** What can be chosen of it, then all of it by the recipe that is found, or the list's own. */
async function look(now: OpenedFile, of: Blob, previous: Recipe | null): Promise<void> {
  opened = now;
  text = of;
  send({ kind: 'choices', choices: now.choices });
  const proposed = previous ? layoutAtRefresh(now, previous) : now.propose();
  // What was decided about a column at the reading before stands, whatever this file shows.
  const decided = new Set(previous?.columns.map(({ id }) => id));
  await take(previous ? matchRecipe(proposed, previous).recipe : proposed, proposed, decided);
}

/** A file of delimited text is read piece by piece; whatever else it is, is unfolded first. */
async function open(
  given: Blob,
  wanted: PartWanted,
  missing: 'refuse' | 'say',
): Promise<OpenedFile> {
  const head = new Uint8Array(await given.slice(0, HEAD_BYTES).arrayBuffer());
  if (detectForm(head) === 'delimited') return OpenedFile.delimited(head, given.size <= HEAD_BYTES);
  return OpenedFile.unfolded(
    await decodeFile(new Uint8Array(await given.arrayBuffer()), limit, wanted, missing, (share) =>
      send({ kind: 'progress', share, records: 0 }),
    ),
  );
}

const atHand = (): OpenedFile => {
  if (!opened) throw new Error('The file has not been opened yet.');
  return opened;
};

/** Shows the first records at once, then reads the whole file. */
async function take(recipe: Recipe, own: Recipe, settled: ReadonlySet<string>): Promise<void> {
  const mine = ++turn;
  const from = atHand();
  send({ kind: 'preview', recipe, file: own, rows: from.preview(recipe, PREVIEW) });
  const steps = settle(recipe, new Set([...settled, ...from.decided(recipe)]));
  let step = steps.next();
  while (!step.done) {
    if (step.value !== recipe) {
      const rows = from.preview(step.value, PREVIEW);
      send({ kind: 'preview', recipe: step.value, file: own, rows });
    }
    const read = from.typed(step.value) ?? (await readAll(step.value, mine));
    if (!read) return;
    step = steps.next(read);
  }
  const { recipe: used, reading } = step.value;
  if (reading.table.length === 0)
    throw new IntakeError(
      'noRecords',
      recipe.header
        ? 'The file holds a header and no records below it.'
        : 'The file holds no records.',
    );
  await pause();
  const { doubts: found, totals } = examine(used, reading, from.marks(used));
  const doubts = [...found, ...from.doubts(used)];
  // What the analyst has set by hand no longer waits for an answer.
  const asked = doubts.map((d) =>
    d.asks && d.column !== undefined && settled.has(d.column) ? { ...d, asks: false } : d,
  );
  latest = { recipe: used, table: reading.table, doubts: asked };
  send({
    kind: 'read',
    recipe: used,
    records: reading.table.length,
    doubts: asked,
    totals: totals.map((t) => recordNumber(t.record)),
  });
}

/** The whole file by a recipe; null when a newer reading was begun. */
async function readAll(recipe: Recipe, mine: number): Promise<DelimitedReading | null> {
  const reader = new DelimitedReader(recipe);
  for (let at = 0; at < text.size; at += SLICE) {
    const bytes = new Uint8Array(await text.slice(at, at + SLICE).arrayBuffer());
    await pause();
    if (mine !== turn) return null;
    reader.push(bytes, at + SLICE >= text.size);
    send({
      kind: 'progress',
      share: Math.min(1, (at + bytes.length) / text.size),
      records: reader.records,
    });
  }
  return reader.finish();
}

const comparison = new ListComparison();
async function compare(wanted: Extract<ToIntake, { kind: 'compare' }>): Promise<void> {
  if (!latest) return;
  const of = latest;
  const compared = await comparison.compare(of.table, wanted);
  if (of === latest) send({ kind: 'compared', ...compared });
}

const sender = new IntakeSender();
/** What was accepted last, as it was sent: accepted again it is the same, and kept once. */
let accepted: { readonly of: ReadFile; readonly as: string; readonly file: ReadFile } | null = null;

async function accept(naming: Extract<ToIntake, { kind: 'accept' }>): Promise<void> {
  if (!latest) throw new Error('The file has not been read to its end yet.');
  const { base, list, addTo, leaveOut, name, fileName, stated, totals } = naming;
  const recipe = { ...latest.recipe, ...(totals && { totals }) };
  const all = { file: latest, setAside: naming.setAside };
  const { file, setAside } =
    addTo !== null && leaveOut ? comparison.newOf(latest, naming.setAside) : all;
  const as = JSON.stringify({ recipe, setAside, addTo, leaveOut });
  if (accepted?.of !== latest || accepted.as !== as)
    accepted = { of: latest, as, file: { ...file, recipe } };
  const named = { base, list, addTo, name, fileName, setAside, stated };
  const stored = await sender.keep(accepted.file, named, (share) =>
    send({ kind: 'sending', share }),
  );
  send({ kind: 'stored', ...stored });
}

function obey(message: ToIntake): Promise<void> | void {
  switch (message.kind) {
    case 'begin':
      ({ limit } = message);
      return begin(message.file, message.previous, message.wanted ?? {}, 'say');
    case 'database':
      return beginDatabase(message, message.previous);
    case 'choose':
      return file ? begin(file, message.previous, message.wanted, 'refuse') : undefined;
    case 'layout': {
      const recipe = atHand().under(message.recipe);
      return take(recipe, recipe, new Set());
    }
    case 'recipe':
      return take(message.recipe, atHand().under(message.recipe), new Set(message.settled));
    case 'compare':
      return compare(message).catch((error: unknown) =>
        send({ kind: 'refused', message: faultOf(error) }),
      );
    case 'accept':
      return accept(message).catch((error: unknown) =>
        send({ kind: 'refused', message: faultOf(error) }),
      );
  }
}

addEventListener('message', (event: MessageEvent<unknown>) => {
  const message = ToIntake.parse(event.data);
  Promise.resolve()
    .then(() => obey(message))
    .catch((error: unknown) =>
      send(
        error instanceof HeadsDiffer
          ? { kind: 'heads', heads: error.heads, files: error.files }
          : { kind: 'fault', message: faultOf(error) },
      ),
    );
});
