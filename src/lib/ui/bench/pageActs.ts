import { goto } from '$app/navigation';
import type { Act } from '../finder/acts';
import type HandOver from '../handover/HandOver.svelte';
import { turnTheme } from '../components/theme';
import type { BenchState } from './bench.svelte';

/** What the page does that is not the bench's own. */
interface Does {
  readonly makeColumn: () => void;
  readonly sayKnown: () => void;
  readonly copyLink: () => void;
  readonly handOver: () => HandOver;
  readonly turnAside: () => void;
}

/** Acts of the bench's page that stand in the finder, with their keys. */
export const pageActs = (bench: BenchState, does: Does): Act[] => [
  { kind: 'act', label: 'Undo', keys: 'Ctrl+Z', run: () => bench.undo() },
  { kind: 'act', label: 'Redo', keys: 'Ctrl+Shift+Z', run: () => bench.redo() },
  { kind: 'act', label: 'Narrow by…', keys: 'n', run: () => bench.step.begin() },
  { kind: 'act', label: 'New tally…', keys: 't', run: () => bench.choose() },
  { kind: 'act', label: 'Make a column…', keys: 'c', run: does.makeColumn },
  {
    kind: 'act',
    label: 'Stack columns as records…',
    run: () => (bench.side = { kind: 'list', of: 'stack' }),
  },
  {
    kind: 'act',
    label: 'Unstack: a column for each value…',
    run: () => (bench.side = { kind: 'list', of: 'unstack' }),
  },
  {
    kind: 'act',
    label: 'Make a list of the rows of this tally…',
    run: () => (bench.side = { kind: 'list', of: 'rows' }),
  },
  { kind: 'act', label: 'Say what the open figure should be', keys: 'k', run: does.sayKnown },
  { kind: 'act', label: 'Known totals', run: () => (bench.side = { kind: 'known' }) },
  {
    kind: 'act',
    label: 'Hand over: copy what is shown',
    keys: 'Ctrl+C',
    run: () => void does.handOver().copyShown(),
  },
  {
    kind: 'act',
    label: 'Hand over: save what is shown as a CSV file',
    run: () => void does.handOver().saveShown(),
  },
  {
    kind: 'act',
    label: 'Hand over: save the counted records as a CSV file',
    run: () => void does.handOver().saveRecords(),
  },
  {
    kind: 'act',
    label: 'Hand over: save the bench as a question file',
    run: () => void does.handOver().saveAsk(),
  },
  { kind: 'act', label: 'The report', run: () => bench.report() },
  { kind: 'act', label: 'Copy a link to this state', run: does.copyLink },
  {
    kind: 'act',
    label: 'Set aside or put back the chosen records',
    keys: 'a',
    run: does.turnAside,
  },
  { kind: 'act', label: 'Turn between light and dark', run: () => void turnTheme() },
  {
    kind: 'page',
    label: 'Refresh data',
    run: () => void goto(`/intake?list=${bench.facts.listId}&bench=${bench.facts.id}`),
  },
  {
    kind: 'page',
    label: 'Readings of this list',
    run: () => void goto(`/lists/${bench.facts.listId}`),
  },
  ...bench.facts.lists.flatMap(({ name, bench: first }): Act[] =>
    first === null
      ? []
      : [
          {
            kind: 'page',
            label: `Go to the bench of ${name}`,
            run: () => void goto(`/benches/${first}`),
          },
        ],
  ),
  { kind: 'page', label: 'The shelf', run: () => void goto('/') },
  { kind: 'page', label: 'Keys', keys: '?', run: () => void goto('/keys') },
];
