import { recordNumber } from '../core/table/recordNumber';
import { IntakeError } from '../core/errors';
import { z } from 'zod';
import { HEAD_BYTES } from '../core/read/decode';
import {
  DelimitedReader,
  proposeRecipe,
  recipeFor,
  type DelimitedReading,
} from '../core/read/delimited';
import { examine } from '../core/read/examine';
import { previewOf } from '../core/read/preview';
import type { Recipe } from '../core/read/recipe';
import { matchRecipe } from '../core/read/refresh';
import { settle } from '../core/read/settle';
import { ToIntake, type FromIntake } from './intakeMessages';
import { IntakeSender, type ReadFile } from './intakeSending';
import { pause } from './pause';

z.config({ jitless: true });

/** Bytes read at a time: some tens of milliseconds of work. */
const SLICE = 1 << 21;
const PREVIEW = 14;

let file: Blob | null = null;
let head = new Uint8Array(0);
let whole = true;
/** Counts the readings begun; an older one stops when it is no longer the newest. */
let turn = 0;
let latest: ReadFile | null = null;

const send = (message: FromIntake): void => postMessage(message);

const faultOf = (error: unknown): string =>
  error instanceof Error ? error.message : String(error);

async function begin(given: Blob, previous: Recipe | null): Promise<void> {
  file = given;
  latest = null;
  head = new Uint8Array(await given.slice(0, HEAD_BYTES).arrayBuffer());
  whole = given.size <= HEAD_BYTES;
  const proposed = proposeRecipe(head, whole);
  await take(previous ? matchRecipe(proposed, previous).recipe : proposed, proposed, new Set());
}

/** Shows the first records at once, then reads the whole file. */
async function take(recipe: Recipe, own: Recipe, settled: ReadonlySet<string>): Promise<void> {
  const mine = ++turn;
  send({ kind: 'preview', recipe, file: own, rows: previewOf(recipe, head, PREVIEW) });
  const steps = settle(recipe, settled);
  let step = steps.next();
  while (!step.done) {
    if (step.value !== recipe) {
      const rows = previewOf(step.value, head, PREVIEW);
      send({ kind: 'preview', recipe: step.value, file: own, rows });
    }
    const read = await readAll(step.value, mine);
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
  const { doubts, totals } = examine(used, reading);
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
  if (!file) return null;
  const reader = new DelimitedReader(recipe);
  for (let at = 0; at < file.size; at += SLICE) {
    const bytes = new Uint8Array(await file.slice(at, at + SLICE).arrayBuffer());
    await pause();
    if (mine !== turn) return null;
    reader.push(bytes, at + SLICE >= file.size);
    send({
      kind: 'progress',
      share: Math.min(1, (at + bytes.length) / file.size),
      records: reader.records,
    });
  }
  return reader.finish();
}

const sender = new IntakeSender();
async function accept(naming: Extract<ToIntake, { kind: 'accept' }>): Promise<void> {
  if (!latest) throw new Error('The file has not been read to its end yet.');
  const { base, list, name, fileName, setAside } = naming;
  const stored = await sender.keep(latest, { base, list, name, fileName, setAside }, (share) =>
    send({ kind: 'sending', share }),
  );
  send({ kind: 'stored', ...stored });
}

function obey(message: ToIntake): Promise<void> | void {
  switch (message.kind) {
    case 'begin':
      return begin(message.file, message.previous);
    case 'layout': {
      const recipe = recipeFor(head, message.recipe, whole);
      return take(recipe, recipe, new Set());
    }
    case 'recipe':
      return take(message.recipe, recipeFor(head, message.recipe, whole), new Set(message.settled));
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
    .catch((error: unknown) => send({ kind: 'fault', message: faultOf(error) }));
});
