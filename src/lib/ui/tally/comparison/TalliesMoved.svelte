<script lang="ts">
  import { counted, signedShare } from '../../../core/table/format';
  import type { Moved, MovedTally } from '../../../engine/replies/moved';

  /** Every tally's figures before and after. */
  interface Props {
    moved: Moved;
    /** Takes a tally's figures apart to the records; none where nothing can be asked. */
    onapart?: (tally: string) => void;
  }
  let { moved, onapart }: Props = $props();
  const still = $derived(moved.tallies.filter((t) => !t.why && isStill(t)));
  const rest = $derived(moved.tallies.filter((t) => t.why || !isStill(t)));

  const isStill = ({ count, came, went }: MovedTally): boolean =>
    count === 0 && came.length === 0 && went.length === 0;
  const nameOf = ({ name, words }: MovedTally): string => name || words.replace(/\.$/, '');
  const percent = (share: number | null): string =>
    share === null ? '' : signedShare(share, Math.abs(share) < 0.1 ? 1 : 0);
</script>

<div class="moved" data-test="tallies-moved">
  {#each rest as tally (tally.id)}
    <section aria-label={nameOf(tally)}>
      <h3>{nameOf(tally)}</h3>
      {#if tally.why}
        <p>{tally.why}</p>
      {:else}
        <p>
          {counted(tally.count, 'figure')} of {tally.compared} moved{tally.came.length
            ? `; new: ${tally.came.join(', ')}`
            : ''}{tally.went.length ? `; gone: ${tally.went.join(', ')}` : ''}.
          {#if onapart}<button type="button" class="act" onclick={() => onapart(tally.id)}
              >Through which records?</button
            >{/if}
        </p>
      {/if}
      {#if tally.moved.length}
        <table>
          <thead>
            <tr>
              <th scope="col">Of</th><th scope="col">Figure</th><th scope="col" class="right"
                >Before</th
              ><th scope="col" class="right">After</th><th scope="col" class="right">Moved by</th
              ><th scope="col" class="right">Of it</th>
            </tr>
          </thead>
          <tbody>
            {#each tally.moved as figure, k (k)}
              <tr>
                <th scope="row">{figure.where}</th>
                <td>{figure.title}</td>
                <td class="right">{figure.before}</td>
                <td class="right">{figure.after}</td>
                <td class="right">{figure.change}</td>
                <td class="right">{percent(figure.share)}</td>
              </tr>
            {/each}
          </tbody>
        </table>
        {#if tally.count > tally.moved.length}<p>
            And {tally.count - tally.moved.length} more that moved by less.
          </p>{/if}
      {/if}
    </section>
  {/each}
  {#if still.length}
    <p>Nothing moved in {still.map(nameOf).join('; ')}.</p>
  {/if}
  {#if moved.lost}
    <p>
      {counted(moved.lost, 'record')} that this bench sets aside, corrects or names {moved.lost ===
      1
        ? 'is'
        : 'are'} not in the older reading.
    </p>
  {/if}
</div>

<style>
  section {
    margin-bottom: 14px;
  }
  h3 {
    margin: 6px 0 2px;
    font: 600 1.05em/1.3 var(--font-serif);
    overflow-wrap: anywhere;
  }
  p {
    margin: 0 0 4px;
    color: var(--ink-soft);
    overflow-wrap: anywhere;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  th,
  td {
    text-align: left;
    font-weight: 400;
    padding: 3px 6px;
    border-bottom: 0.6px solid var(--rule);
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
</style>
