import type { ReshapeSpec } from '$lib/core/prepare/specs';
import { VERSION } from '$lib/core/ask/version';
import { newView } from '$lib/core/bench/trayEdits';
import { Bench } from '$lib/core/bench/document';

type Stack = Extract<ReshapeSpec, { do: 'stack' }>;

/**
 * A bench of the same list with a record for each record and stacked column: it is computed from the
 * list whenever it is opened, and follows it to new readings. Nothing else of the first bench comes
 * along, but how its own list was put right and stacked before.
 * @param adds whether what is stacked can be added up
 */
export function stackedBench(of: Bench, stack: Stack, adds: boolean): Bench {
  const tally = {
    kind: 'ledger' as const,
    scope: 'counted' as const,
    groups: [
      {
        column: stack.name,
        loose: false,
        order: { by: 'label' as const, descending: false },
      },
    ],
    sort: [],
    measures: adds ? [{ kind: 'sum' as const, column: stack.value }] : [],
    records: false,
  };
  return Bench.parse({
    version: VERSION,
    reading: of.reading,
    corrections: of.corrections,
    reshape: [...of.reshape, stack],
    lead: adds ? stack.value : null,
    tray: [{ id: 'ledger', tally, view: newView(tally), note: '' }],
    open: 'ledger',
  });
}
