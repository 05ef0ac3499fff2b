import { expect, it } from 'vitest';
import { readDemo } from '../support/demo';
import { Replies } from '$lib/engine/protocol';
import { Engine } from '$lib/engine/engine';
import { newBench } from '$lib/core/bench/newBench';
import { chunkCount, encodeChunk, TableAssembler } from '$lib/core/table/arrow';

it('smoke', () => {
  const { recipe, reading } = readDemo('sailings');
  const asm = new TableAssembler(reading.table.length);
  for (let n = 0; n < chunkCount(reading.table); n++) asm.push(encodeChunk(reading.table, n));
  const table = asm.finish();
  for (const [k, c] of table.columns.entries()) {
    const o = reading.table.columns[k];
    if (c.type === 'text' && o.type === 'text') {
      expect([...c.codes.slice(0, 3000)].map((x) => c.dictionary[x])).toEqual([...o.codes.slice(0, 3000)].map((x) => o.dictionary[x]));
    } else expect({ ...c, values: [...(c as any).values] }).toEqual({ ...o, values: [...(o as any).values] });
  }
  const engine = new Engine(table, recipe, 'Sailings');
  const doc = newBench(table, 1);
  doc.tallies[0].spec.groups = [{ column: 'route', loose: false, order: { by: 'label', descending: false } }, { column: 'vessel', loose: false, order: { by: 'measure', measure: 2, descending: true } }];
  doc.tallies[0].spec.measures.push({ kind: 'mean', column: 'delay' }, { kind: 'median', column: 'delay' }, { kind: 'mode', column: 'weather' });
  doc.tallies[0].view.showDown = 3;
  doc.ladder.rungs.push({ id: 'a', on: true, condition: { kind: 'leaf', column: 'delay', not: false, test: { test: 'compare', op: 'ge', value: 10 } } });
  const o = engine.now({ do: 'reckon', doc });
  console.log(Replies.reckon.safeParse(o).error, Replies.lines.safeParse(engine.now({ do: 'lines', from: 0, count: 200 })).error, Replies.heads.safeParse(engine.now({do:'heads'})).error);
  console.log(JSON.stringify(o, null, 1).slice(0, 6000));
  console.log(engine.now({ do: 'lines', from: 0, count: 8 }).map((l) => JSON.stringify(l)).join('\n'));
  console.log(engine.now({ do: 'heads' })[2], engine.now({ do: 'facts', column: 'delay' }));
  console.log(engine.now({ do: 'behind', place: { at: 'group', path: ['Nessness', 'Nessmaid'], measure: 4 } }));
  console.log(engine.now({ do: 'check', place: { at: 'foot', line: 'counted', measure: 0 }, known: 12345 }));
  console.log(engine.now({ do: 'copy', full: false }).text.slice(0, 800));
});
