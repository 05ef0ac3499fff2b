<script lang="ts">
  import TopBar from './TopBar.svelte';

  const GROUPS: readonly (readonly [string, readonly (readonly [string, string])[]])[] = [
    [
      'Anywhere on a bench',
      [
        ['Ctrl K', 'Find or do: columns, steps, levels, every act'],
        ['Ctrl Z', 'Undo the last change'],
        ['Ctrl Shift Z', 'Redo it'],
        ['Ctrl C', 'Copy what is shown, where nothing is chosen on the page'],
        ['n', 'Narrow by a new condition'],
        ['t', 'Begin a tally'],
        ['c', 'Make a column'],
        ['k', 'Say what the open figure should be'],
        [
          'F6, Shift F6',
          'Go to the next part of the page: what counts and tallies, sentence, table, panel',
        ],
        ['Esc', 'Close what is open'],
        ['?', 'This page'],
      ],
    ],
    [
      'In the ledger',
      [
        ['Arrows', 'Go from cell to cell'],
        ['Page Up, Page Down', 'Go a page'],
        ['Home, End', 'Go to the first or last line'],
        ['Enter', 'Open the figure, the record, or the group under the mark'],
        ['Space', 'Fold or unfold the group'],
        ['Shift with arrows', 'Choose several lines'],
        ['a', 'Set the chosen records aside, or put them back'],
        [
          'Tab, then Left or Right',
          'Make the column of groups narrower or wider; Enter gives it the width its labels need',
        ],
      ],
    ],
    [
      'In a tally',
      [
        [
          'Arrows',
          'Go from figure to figure in a table, from mark to mark in a chart; past the last column of a wide table, to the next ones',
        ],
        ['Enter', 'Open the figure to its records; fold or unfold the group under the mark'],
        ['Space', 'Fold or unfold the group'],
        ['s', 'Sort the table by this column, for the eye'],
        ['Left, Right', 'Move an edge of a band, a percentile or a value that is chosen'],
      ],
    ],
    [
      'In the tray',
      [
        ['Up, Down', 'Go from tally to tally'],
        ['Alt with Up, Down', 'Move the tally'],
        ['F2', 'Write its name; Enter keeps it, Escape does not'],
        ['Delete', 'Take it out'],
      ],
    ],
    [
      'While a column is made',
      [
        ['Ctrl Enter', 'Keep it'],
        ['Alt Enter', 'Take the remedy of the fault'],
        ['Ctrl Space', 'Complete columns, functions, and the values of a column in a text'],
      ],
    ],
    [
      'While a step is made',
      [
        ['Enter', 'Keep it'],
        ['Esc', 'Drop it'],
      ],
    ],
    [
      'In menus and panels',
      [
        ['Tab', 'Go to the next control'],
        ['Arrows', 'Go through a list of choices; choose a part of a column’s bars'],
        ['Enter', 'Choose'],
        ['Esc', 'Close without a change'],
      ],
    ],
    ['At intake', [['Ctrl Enter', 'Accept the reading, once every doubt that asks is answered']]],
  ];
</script>

<svelte:head><title>Keys · Tally Loft</title></svelte:head>
<TopBar>
  {#snippet trail()}Keys{/snippet}
  {#snippet acts()}<a class="bar-button" href="/">Shelf</a>{/snippet}
</TopBar>
<main>
  <h1 class="serif">Everything by keyboard</h1>
  {#each GROUPS as [title, keys] (title)}
    <h2 class="caps">{title}</h2>
    <dl>
      {#each keys as [key, does] (key)}<dt><kbd>{key}</kbd></dt>
        <dd>{does}</dd>{/each}
    </dl>
  {/each}
</main>

<style>
  main {
    max-width: 720px;
    margin: 0 auto;
    padding: 24px;
  }
  h1 {
    font-size: 26px;
    margin: 0 0 14px;
  }
  dl {
    display: grid;
    grid-template-columns: 190px 1fr;
    margin: 6px 0 22px;
  }
  dt,
  dd {
    margin: 0;
    padding: 5px 0;
    border-bottom: 1px solid var(--rule);
  }
  kbd {
    font: inherit;
    font-weight: 600;
  }
</style>
