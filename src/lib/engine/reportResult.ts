import type { AskResult } from '../core/ask/result';
import { fromParts } from '../core/ask/resultParts';
import type { Bench } from '../core/bench/document';
import type { Dialect } from '../core/write/dialect';
import { valuesOf, type OutForm } from '../core/write/forms';
import type { Engine } from './engine';

/**
 * The tallies that stand in a bench's report as an answer, with its title, words and notes: what is written
 * in every form that is not a page of its own.
 * @param token of the session of the bench
 */
export const reportResult = (
  engine: Pick<Engine, 'now'>,
  token: number,
  { tray }: Bench,
  form: OutForm,
  dialect: Dialect,
): AskResult =>
  fromParts(
    engine.now('asked', {
      token,
      tallies: tray.filter(({ apart }) => !apart).map(({ id }) => id),
      values: valuesOf(form, dialect),
      report: true,
    }).parts,
  );
