<script lang="ts">
  import { noteKnown, removeKnown } from '../../core/bench/reportEdits';
  import type { KnownTotal } from '../../core/check/known';
  import type { BenchState } from '../bench/bench.svelte';

  /** All known totals of the bench, those that do not agree first, each with the way to its figure. */
  let { bench }: { bench: BenchState } = $props();

  const rows = $derived(
    bench.known
      .flatMap((now) => {
        const kept = bench.doc.known.find(({ id }) => id === now.id);
        const item = bench.doc.tray.find(({ id }) => id === now.tally);
        return kept ? [{ now, kept, of: item ? bench.nameOf(item) : '' }] : [];
      })
      .sort((a, b) => Number(a.now.stands === 'agrees') - Number(b.now.stands === 'agrees')),
  );

  const open = ({ tally, place, scope }: KnownTotal): Promise<void> =>
    bench.openFigure({ ...place, tally, ...(scope !== undefined && { scope }) });
</script>

{#if rows.length === 0}
  <p>
    None is kept. Open a figure and type what it should be by another source: it is compared at
    every change and every reading.
  </p>
{/if}
<ul data-test="known-list">
  {#each rows as { now, kept, of } (now.id)}
    <li class={now.stands}>
      <h3>{[now.where, now.title].filter(Boolean).join(', ') || of || 'Its tally is gone'}</h3>
      {#if now.stands === 'lost'}
        <p class="why">{now.why} It should be {now.known}.</p>
      {:else}
        <p class="soft of" title={of}>{of}</p>
        <dl>
          <div>
            <dt>It is</dt>
            <dd>{now.figure}</dd>
          </div>
          <div>
            <dt>It should be</dt>
            <dd>{now.known}</dd>
          </div>
          <div>
            <dt>{now.stands === 'agrees' ? 'It agrees' : 'It differs by'}</dt>
            <dd class="sign">{now.stands === 'agrees' ? '✓' : now.difference}</dd>
          </div>
        </dl>
      {/if}
      {#if kept.source}<p class="soft">By {kept.source}</p>{/if}
      <label class="soft"
        >Note
        <input
          class="field"
          value={kept.note}
          maxlength="2000"
          onchange={(e) => {
            const note = e.currentTarget.value.trim();
            bench.change('Note on a known total', (doc) => noteKnown(doc, now.id, note));
          }}
        /></label
      >
      <div class="acts">
        {#if now.stands !== 'lost'}
          <button type="button" class="act" onclick={() => void open(kept)}>Open the figure</button>
        {/if}
        <button
          type="button"
          class="act"
          onclick={() => bench.change('Take a known total off', (doc) => removeKnown(doc, now.id))}
          >Take off</button
        >
      </div>
    </li>
  {/each}
</ul>

<style>
  ul {
    list-style: none;
    margin: 12px 16px;
    padding: 0;
    display: grid;
    gap: 12px;
  }
  li {
    min-width: 0;
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 6px;
    padding: 10px 12px;
    border: 1px solid var(--rule);
    border-left: 4px solid var(--good);
    border-radius: 6px;
    background: var(--raised);
  }
  li.differs,
  li.lost {
    border-left-color: var(--bad);
  }
  h3 {
    margin: 0;
    font-family: var(--font-serif);
    font-size: 15px;
    line-height: 1.3;
  }
  p {
    margin: 0;
  }
  p:not(li p) {
    margin: 12px 16px;
  }
  .of {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  dl {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 18px;
    margin: 0;
  }
  dt {
    color: var(--ink-soft);
    font-size: 12px;
  }
  dd {
    margin: 0;
    font-weight: 600;
    font-variant-numeric: tabular-nums;
  }
  .agrees .sign {
    color: var(--good);
  }
  .differs .sign,
  .why {
    color: var(--bad);
  }
  .soft {
    color: var(--ink-soft);
    font-size: 12.5px;
  }
  label {
    display: grid;
    gap: 2px;
  }
  .acts {
    display: flex;
    gap: 14px;
  }
</style>
