import type { Steps } from '../../core/steps/steps';
import { namesOf } from '../../core/table/table';
import { keysOfRow } from '../../core/tally/answer';
import { figureText } from '../../core/tally/figureText';
import { foot } from '../../core/tally/foot';
import type { Footing } from '../../core/tally/footing';
import { kindOf } from '../../core/tally/kinds';
import type { FigureColumn } from '../../core/tally/result';
import { EngineError } from '../errors';
import type { Held } from '../held';
import type { ArgsOf } from '../protocol';
import type { Answered, Row } from '../replies';

const isRight = ({ type }: FigureColumn): boolean =>
  type === 'number' || type === 'count' || type === 'share' || type === 'rank';

/** A tally without its rows. */
export function* answerTally(held: Held, { tally: id }: ArgsOf<'answer'>): Steps<Answered> {
  const { answer, faults, refused } = yield* held.answer(id);
  const { tally } = held.item(id);
  return {
    sentence: answer?.says ?? kindOf(tally).plain(namesOf(held.table), held.listName),
    refused,
    faults: [...faults],
    warnings: [...(answer?.warnings ?? [])],
    tables: (answer?.tables ?? []).map(({ name, caption, labels, length, columns }) => ({
      name,
      caption,
      labels,
      length,
      columns: columns.map((c) => ({
        key: c.key,
        title: c.title,
        unit: c.unit,
        type: c.type,
        right: isRight(c),
      })),
    })),
  };
}

/** A stretch of a tally's rows as the page shows them. @throws EngineError */
export function* answerRows(
  held: Held,
  { tally, table: name, from, count }: ArgsOf<'rows'>,
): Steps<Row[]> {
  const { answer } = yield* held.answer(tally);
  const table = answer?.tables.find((t) => t.name === name);
  if (!table) throw new EngineError('noPlace', `This tally has no table “${name}”.`);
  const out: Row[] = [];
  for (let n = from; n < Math.min(from + count, table.length); n++) {
    const row = table.row(n);
    out.push({
      kind: row.kind,
      level: row.level,
      keys: [...keysOfRow(row, table.labels)],
      cells: row.cells.map((cell, c) =>
        cell === null && c < table.labels
          ? ''
          : figureText(table.columns[c], cell, held.doc.formats),
      ),
      marks: row.marks ?? [],
    });
  }
  return out;
}

/** Whether a tally foots. A ledger's footing is checked over the very figures it shows. */
export function* answerFooting(held: Held, { tally }: ArgsOf<'footing'>): Steps<Footing> {
  const { answer, base } = yield* held.answer(tally);
  if (!answer)
    return {
      foots: true,
      compared: 0,
      failure: null,
      notAdding: [],
      says: 'There are no figures, so nothing was compared.',
    };
  return yield* foot(base, answer);
}
