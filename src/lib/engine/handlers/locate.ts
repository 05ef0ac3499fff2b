import { EngineError } from '../../core/errors';
import type { Task } from '../../core/task/task';
import type { Session } from '../session';
import type { LedgerLayout } from '../ledger/layout';
import type { ArgsOf, Keys, ReplyOf } from '../protocol';

/** The line of a group; the whole has none, which is -1. @throws EngineError */
export function* answerLocate(
  session: Session,
  { tally, keys }: ArgsOf<'locate'>,
): Task<ReplyOf<'locate'>> {
  if (!Array.isArray(keys) || keys.length === 0) return { line: -1 };
  const ledger = yield* session.ledger(tally);
  const { level, group } = groupAt(ledger, keys);
  return { line: ledger.lines.lineOfGroup(level, group) };
}

export function* answerLocateRecord(
  session: Session,
  { tally, record }: ArgsOf<'locateRecord'>,
): Task<ReplyOf<'locateRecord'>> {
  return { line: (yield* session.ledger(tally)).lines.lineOf(record) };
}

/** The records that stand on a stretch of lines, without the lines of groups. */
export function* answerRecordsOn(
  session: Session,
  { tally, from, to }: ArgsOf<'recordsOn'>,
): Task<ReplyOf<'recordsOn'>> {
  const { lines } = yield* session.ledger(tally);
  const records: number[] = [];
  for (let n = from; n <= Math.min(to, lines.length - 1); n++) {
    const line = lines.at(n);
    if (line.kind === 'record') records.push(line.record);
  }
  return { records };
}

/** The group with these keys. @throws EngineError */
function groupAt(l: LedgerLayout, keys: Keys): { level: number; group: number } {
  const { tree } = l.ledger;
  let above = 0;
  for (const [level, key] of keys.entries()) {
    const groups = tree.levels[level];
    let found = -1;
    for (let g = 0; g < (groups?.size ?? 0); g++)
      if (
        (level === 0 || groups.parent[g] === above) &&
        tree.keys[level].key(groups.code[g]) === key
      )
        found = g;
    if (found < 0)
      throw new EngineError('noPlace', 'There is no such group in the ledger as it stands.');
    above = found;
    if (level === keys.length - 1) return { level, group: found };
  }
  throw new EngineError('noPlace', 'The whole has no line of its own.');
}
