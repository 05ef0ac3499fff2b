import { describe, expect, it } from 'vitest';
import type { Bench } from '$lib/core/bench/document';
import {
  addRung,
  bringScope,
  changeRung,
  correctCells,
  dropScope,
  keepScope,
  moveColumn,
  moveRung,
  narrowTo,
  negateRung,
  putAllBack,
  putBack,
  removeRung,
  setAsideRecords,
  setAsideValue,
  setFormat,
  setGroups,
  setGroupWidth,
  setShowDown,
  setSort,
  showDeviation,
  switchRung,
  takeBackCorrection,
  turnGroup,
} from '$lib/core/bench/edits';
import { newBench } from '$lib/core/bench/newBench';
import type { Condition } from '$lib/core/selection/condition';
import { plainFormat } from '$lib/core/table/format';
import { History } from '$lib/ui/bench/history';
import { OpenBench } from '../support/bench';
import { noRecipe, small } from '../support/smallList';

const start = newBench(small, 1);
const over = (value: number): Condition => ({
  kind: 'leaf',
  column: 'Sum',
  not: false,
  test: { test: 'compare', op: 'gt', value },
});
const rungsOf = (doc: Bench): [string, boolean, boolean][] =>
  doc.ladder.rungs.map(({ id, on, condition }) => [id, on, condition.not]);
/** How many records a bench counts. */
const countedIn = (doc: Bench): number =>
  new OpenBench(small, noRecipe, 'Depots').show(doc).counted.records;

describe('steps of What counts', () => {
  const two = addRung(addRung(start, over(6)), over(8));

  it('come at the end under a name of their own, whatever was taken out before', () => {
    expect(rungsOf(two)).toEqual([
      ['r1', true, false],
      ['r2', true, false],
    ]);
    expect(rungsOf(addRung(removeRung(two, 'r1'), over(1))).map(([id]) => id)).toEqual([
      'r2',
      'r1',
    ]);
    expect(countedIn(two)).toBe(3);
    // What was there is not altered.
    expect(start.ladder.rungs).toEqual([]);
  });

  it('are changed, switched, turned round and moved, each by its name', () => {
    expect(countedIn(changeRung(two, 'r2', over(9)))).toBe(2);
    expect(rungsOf(switchRung(two, 'r2'))[1]).toEqual(['r2', false, false]);
    expect(switchRung(switchRung(two, 'r2'), 'r2')).toEqual(two);
    expect(countedIn(switchRung(two, 'r2'))).toBe(4);
    // 7 alone is over 6 and not over 8.
    expect(countedIn(negateRung(two, 'r2'))).toBe(1);
    expect(rungsOf(moveRung(two, 'r2', -1)).map(([id]) => id)).toEqual(['r2', 'r1']);
    expect(moveRung(two, 'r1', -1)).toBe(two);
    expect(moveRung(two, 'r2', 1)).toBe(two);
    expect(moveRung(two, 'nobody', 1)).toBe(two);
  });

  it('are kept under a name, brought back, and the name given up', () => {
    const kept = keepScope(two, 'busy');
    const cleared = removeRung(removeRung(kept, 'r1'), 'r2');
    expect(rungsOf(bringScope(cleared, 'busy'))).toEqual(rungsOf(two));
    expect(bringScope(cleared, 'nobody').ladder).toEqual(cleared.ladder);
    const again = keepScope(removeRung(kept, 'r1'), 'busy');
    expect(again.scopes.map(({ name, rungs }) => [name, rungs.length])).toEqual([['busy', 1]]);
    expect(dropScope(again, 'busy').scopes).toEqual([]);
    expect(dropScope(again, 'other').scopes).toHaveLength(1);
  });

  it('narrowing to what is narrowed to already makes no second step; one switched off is not in the way', () => {
    const once = narrowTo(start, [over(5), over(9)]);
    expect(once.ladder.rungs.map(({ condition }) => condition)).toEqual([over(5), over(9)]);
    expect(narrowTo(once, [over(9)])).toEqual(once);
    const off = switchRung(once, once.ladder.rungs[1].id);
    expect(narrowTo(off, [over(9)]).ladder.rungs.map(({ on }) => on)).toEqual([true, false, true]);
  });
});

describe('records set aside', () => {
  it('by number are named once, and put back by it', () => {
    const aside = setAsideRecords(setAsideRecords(start, [4, 1]), [4, 2]);
    expect(aside.ladder.setAside.records).toEqual([1, 2, 4]);
    expect(countedIn(aside)).toBe(3);
    expect(putBack(aside, [2]).ladder.setAside).toEqual({ records: [1, 4], values: [], kept: [] });
    expect(countedIn(putAllBack(aside))).toBe(6);
  });

  it('by value come back one by one, and are set aside again', () => {
    const aside = setAsideValue(start, 'Depot', 'A');
    expect(setAsideValue(aside, 'Depot', 'A')).toBe(aside);
    expect(countedIn(aside)).toBe(4);
    const back = putBack(aside, [1]);
    expect(back.ladder.setAside.kept).toEqual([1]);
    expect(countedIn(back)).toBe(5);
    expect(countedIn(setAsideRecords(back, [1]))).toBe(4);
    expect(countedIn(putAllBack(back))).toBe(6);
    expect(countedIn(setAsideValue(aside, 'Region', null))).toBe(3);
  });
});

describe('how a ledger is looked at', () => {
  const grouped = setGroups(start, [
    { column: 'Region', loose: false, order: { by: 'label', descending: false } },
  ]);
  const viewOf = (doc: Bench) => doc.tray[0].view;

  it('groups fold and unfold one by one, until a level is shown', () => {
    const turned = turnGroup(turnGroup(grouped, '["North"]'), '["South"]');
    expect(viewOf(turned).turned).toEqual(['["North"]', '["South"]']);
    expect(viewOf(turnGroup(turned, '["North"]')).turned).toEqual(['["South"]']);
    expect(viewOf(setShowDown(turned, 2)).turned).toEqual([]);
    // Other groups have other keys.
    expect(viewOf(setGroups(turned, [])).turned).toEqual([]);
    expect(viewOf(setSort(turned, [])).turned).toHaveLength(2);
  });

  it('what was shown down to the records stays so with more groups', () => {
    const records = setShowDown(grouped, 2);
    const [region] = grouped.tray[0].tally.kind === 'ledger' ? grouped.tray[0].tally.groups : [];
    const deeper = setGroups(records, [region, { ...region, column: 'Depot' }]);
    expect(viewOf(deeper).showDown).toBe(3);
    expect(viewOf(setGroups(grouped, [region, { ...region, column: 'Depot' }])).showDown).toBe(2);
  });

  it('columns are moved before another, or to the end', () => {
    const order = ['Region', 'Depot', 'Sum', 'Day'];
    const ids = (doc: Bench): string[] => viewOf(doc).columns.map((c) => c.column);
    expect(ids(moveColumn(start, order, 'Day', 'Region'))).toEqual([
      'Day',
      'Region',
      'Depot',
      'Sum',
    ]);
    expect(ids(moveColumn(start, order, 'Region', null))).toEqual([
      'Depot',
      'Sum',
      'Day',
      'Region',
    ]);
    expect(moveColumn(start, order, 'Day', 'Day')).toBe(start);
  });

  it('the column of groups has a width until it is given back', () => {
    expect(viewOf(setGroupWidth(start, 240)).groupWidth).toBe(240);
    expect(viewOf(setGroupWidth(setGroupWidth(start, 240), null)).groupWidth).toBeUndefined();
  });
});

describe('what is kept of cells and columns', () => {
  it('a cell has one correction, the last; taken back, it has none', () => {
    const once = correctCells(start, [{ record: 2, column: 'Sum', text: '50', was: '5' }]);
    const twice = correctCells(once, [{ record: 2, column: 'Sum', text: '60', was: '5' }]);
    expect(twice.corrections).toEqual([{ record: 2, column: 'Sum', text: '60', was: '5' }]);
    const other = correctCells(twice, [{ record: 3, column: 'Sum', text: '1', was: '12' }]);
    expect(takeBackCorrection(other, 2, 'Sum').corrections.map((c) => c.record)).toEqual([3]);
    expect(takeBackCorrection(other, 2, 'Depot').corrections).toHaveLength(2);
  });

  it('means are shown with their deviation in whatever way the column is written', () => {
    const comma = { ...plainFormat, decimals: 1 };
    const shown = showDeviation(setFormat(start, 'Sum', comma), 'Sum');
    expect(shown.formats.Sum).toEqual({ ...comma, deviation: 2 });
    expect(showDeviation(start, 'Sum').formats.Sum).toEqual({ ...plainFormat, deviation: 2 });
    expect(setFormat(shown, 'Sum', null).formats).toEqual({});
  });
});

describe('undo and redo', () => {
  const docs = Array.from({ length: 5 }, (_, k): Bench => ({ ...start, reading: k }));

  it('go step by step, and what is done anew leaves no way on', () => {
    const history = new History();
    history.record('one', docs[0], docs[1]);
    history.record('two', docs[1], docs[2]);
    expect([history.canUndo, history.canRedo]).toEqual(['two', null]);
    expect(history.undo()).toEqual({ label: 'two', doc: docs[1] });
    expect(history.undo()).toEqual({ label: 'one', doc: docs[0] });
    expect(history.undo()).toBeNull();
    expect(history.redo()).toEqual({ label: 'one', doc: docs[1] });
    expect(history.canRedo).toBe('two');
    history.record('three', docs[1], docs[3]);
    expect([history.canUndo, history.canRedo, history.redo()]).toEqual(['three', null, null]);
  });

  it('take a drag as one step, and the next drag as another', () => {
    const history = new History();
    history.record('edge', docs[0], docs[1], 'edge 1');
    history.record('edge', docs[1], docs[2], 'edge 1');
    history.endDrag();
    history.record('edge', docs[2], docs[3], 'edge 1');
    expect(history.undo()).toEqual({ label: 'edge', doc: docs[2] });
    expect(history.undo()).toEqual({ label: 'edge', doc: docs[0] });
    // A step of a drag leaves no way on either, though it is one with the step before.
    history.redo();
    history.record('edge', docs[1], docs[2], 'edge 3');
    history.record('other', docs[2], docs[3]);
    history.undo();
    expect(history.canRedo).toBe('other');
    history.record('edge', docs[2], docs[4], 'edge 3');
    expect(history.canRedo).toBeNull();
    expect(history.undo()?.doc).toBe(docs[1]);
  });

  it('keep the last three hundred steps', () => {
    const history = new History();
    for (let k = 0; k < 320; k++) history.record(`step ${k}`, docs[0], docs[1]);
    let steps = 0;
    let last = '';
    for (let step = history.undo(); step; step = history.undo()) {
      steps++;
      last = step.label;
    }
    expect([steps, last]).toEqual([300, 'step 20']);
  });
});
