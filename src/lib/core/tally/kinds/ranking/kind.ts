import { counted } from '../../../table/format';
import { RELATIVE } from '../../spec/fault';
import type { TallyKind } from '../../kind/kind';
import { checkKey } from '../../groups/keys';
import { checkPeriodName } from '../../series/periodNamed';
import { visitAll, visitNeeded } from '../../spec/visit';
import { rankGroups } from './groups';
import { rankRecords } from './records';
import { rankingFact } from './fact';
import { rankingSentence } from './sentence';
import { rankRecordsWithin } from './recordsByGroup';
import { ranksRecords, type RankingSpec } from './spec';

export const rankingKind: TallyKind<RankingSpec> = {
  inParts: (spec) => !ranksRecords(spec),
  columnsForeseen: true,
  check(spec, faults, path) {
    spec.groups.forEach((key, k) => checkKey(key, faults, `${path}.groups[${k}]`));
    if (spec.within > spec.groups.length)
      faults.add(
        `${path}.within`,
        `Places are given within ${counted(spec.within, 'key')}, but there ${spec.groups.length === 1 ? 'is' : 'are'} ${spec.groups.length}.`,
        'Give as many at most: with all of them records are ranked within the groups.',
      );
    faults.measure(
      `${path}.by`,
      spec.by,
      RELATIVE.filter((kind) => kind !== 'running'),
    );
    if (ranksRecords(spec)) {
      if (spec.by.column === undefined)
        faults.add(
          `${path}.by.column`,
          'Records are ranked by a column.',
          'Name a column of numbers or dates.',
        );
      else
        faults.column(`${path}.by.column`, spec.by.column, ['number', 'date', 'datetime', 'time']);
      if (spec.change && spec.groups.length)
        faults.add(
          `${path}.change`,
          'The change of place of records within groups is not known.',
          'Rank the records over all, or rank groups.',
        );
      else if (spec.change && spec.change.match.length === 0)
        faults.add(
          `${path}.change.match`,
          'A record has no place in two periods unless something names it in both.',
          'Name the columns that do, or rank groups.',
        );
    }
    if (spec.top !== undefined && spec.bottom !== undefined)
      faults.add(`${path}.bottom`, 'Both the top and the bottom are asked.', 'Take one of them.');
    spec.show.forEach((ref, k) => faults.column(`${path}.show[${k}]`, ref));
    if (spec.change) {
      const { column, period, calendar, before, after } = spec.change;
      faults.column(`${path}.change.column`, column, ['date', 'datetime']);
      checkPeriodName(before, period, calendar, faults, `${path}.change.before`);
      checkPeriodName(after, period, calendar, faults, `${path}.change.after`);
      spec.change.match.forEach((ref, k) => faults.column(`${path}.change.match[${k}]`, ref));
    }
  },
  visit(spec, visitor, path) {
    const { change } = spec;
    return {
      ...spec,
      groups: visitAll(spec.groups, visitor.key, `${path}.groups`),
      by: visitNeeded(spec.by, visitor.measure, `${path}.by`),
      show: visitAll(spec.show, visitor.column, `${path}.show`),
      ...(change && {
        change: {
          ...change,
          column: visitNeeded(change.column, visitor.column, `${path}.change.column`),
          match: visitAll(change.match, visitor.column, `${path}.change.match`),
        },
      }),
    };
  },
  *compute(input, spec) {
    if (!ranksRecords(spec)) return yield* rankGroups(input, spec);
    return spec.groups.length
      ? yield* rankRecordsWithin(input, spec)
      : yield* rankRecords(input, spec);
  },
  sentence: rankingSentence,
  fact: rankingFact,
};
