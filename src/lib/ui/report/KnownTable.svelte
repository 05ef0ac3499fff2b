<script lang="ts">
  import type { KnownNow } from '../../engine/protocol';

  /** Known totals beside the figures as they are. */
  let { known }: { known: readonly KnownNow[] } = $props();
  const SIGNS = { agrees: '✓ agrees', differs: '✗ differs', lost: '✗ no longer there' } as const;
</script>

<h2>Known totals</h2>
<table data-test="report-known">
  <thead>
    <tr>
      <th scope="col">Figure</th><th scope="col" class="right">As it is</th><th
        scope="col"
        class="right">Should be</th
      ><th scope="col" class="right">Difference</th><th scope="col">Source</th><th scope="col"
        ><span class="visually-hidden">Whether it agrees</span></th
      >
    </tr>
  </thead>
  <tbody>
    {#each known as k (k.id)}
      <tr>
        <th scope="row">{[k.where, k.title].filter(Boolean).join(', ') || k.why}</th>
        <td class="right">{k.figure}</td>
        <td class="right">{k.known}</td>
        <td class="right">{k.stands === 'differs' ? k.difference : ''}</td>
        <td>{k.source}{k.note ? `. ${k.note}` : ''}</td>
        <td class:bad={k.stands !== 'agrees'} class:good={k.stands === 'agrees'}
          >{SIGNS[k.stands]}</td
        >
      </tr>
    {/each}
  </tbody>
</table>

<style>
  h2 {
    font: 600 13.5px/1.3 var(--font-serif);
    margin: 0 0 4px;
    padding-top: 8px;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 10.5px;
  }
  th,
  td {
    text-align: left;
    padding: 3px 5px;
    border-bottom: 0.6px solid var(--rule);
    font-weight: 400;
    overflow-wrap: anywhere;
  }
  thead th {
    font-weight: 600;
    border-bottom: 1.3px solid var(--rule-strong);
  }
  .right {
    text-align: right;
    white-space: nowrap;
  }
  .bad {
    color: var(--bad);
    white-space: nowrap;
  }
  .good {
    color: var(--good);
    white-space: nowrap;
  }
</style>
