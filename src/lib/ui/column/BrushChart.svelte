<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import { isoDate, isoDateTime, clockTime } from '../../core/table/calendar';
  import type { Condition } from '../../core/selection/condition';
  import { showCount } from '../../core/table/format';
  import type { Distribution } from '../../engine/protocol';

  interface Props {
    distribution: Distribution;
    column: string;
    type: string;
    onnarrow: (condition: Condition) => void;
  }
  let { distribution, column, type, onnarrow }: Props = $props();

  const W = 306;
  const H = 84;
  let from = $state<number | null>(null);
  let to = $state<number | null>(null);
  let drawing = $state(false);

  const bins = $derived(distribution.kind === 'bins' ? distribution : null);
  const n = $derived(bins?.counts.length ?? 0);
  const x = $derived(scaleLinear([0, Math.max(1, n)], [0, W]));
  const y = $derived(scaleLinear([0, Math.max(1, ...(bins?.counts ?? [0]))], [0, H - 4]));
  const chosen = $derived(
    from === null || to === null ? null : { first: Math.min(from, to), last: Math.max(from, to) },
  );
  const most = $derived(
    distribution.kind === 'values' ? Math.max(1, ...distribution.items.map((i) => i.count)) : 1,
  );

  const binAt = (event: PointerEvent): number => {
    const box = (event.currentTarget as Element).getBoundingClientRect();
    return Math.max(0, Math.min(n - 1, Math.floor(((event.clientX - box.left) / box.width) * n)));
  };

  /** An edge as a condition writes it. */
  const point = (value: number): number | string =>
    type === 'date'
      ? isoDate(value)
      : type === 'datetime'
        ? isoDateTime(value)
        : type === 'time'
          ? clockTime(Math.min(value, 86_399_999))
          : value;

  function narrow(): void {
    if (!bins || !chosen) return;
    onnarrow({
      kind: 'leaf',
      column,
      not: false,
      test: {
        test: 'between',
        from: point(bins.edges[chosen.first]),
        to: point(bins.edges[chosen.last + 1]),
        fromIn: true,
        toIn: false,
      },
    });
    from = to = null;
  }

  function stepped(event: KeyboardEvent): void {
    const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (by === 0 || !n) return;
    event.preventDefault();
    const start = to ?? (by > 0 ? -1 : n);
    const next = Math.max(0, Math.min(n - 1, start + by));
    to = next;
    if (!event.shiftKey || from === null) from = next;
  }
</script>

{#if bins}
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <svg
    viewBox="0 0 {W} {H + 16}"
    width="100%"
    role="slider"
    tabindex="0"
    aria-label="How the values fall. Arrow keys choose a part, Shift extends it."
    aria-valuemin={0}
    aria-valuemax={n}
    aria-valuenow={to ?? 0}
    aria-valuetext={chosen
      ? `${bins.labels[chosen.first]} up to ${bins.labels[chosen.last + 1]}`
      : 'nothing chosen'}
    onkeydown={stepped}
    onpointerdown={(e) => {
      drawing = true;
      from = to = binAt(e);
      e.currentTarget.setPointerCapture(e.pointerId);
    }}
    onpointermove={(e) => drawing && (to = binAt(e))}
    onpointerup={() => (drawing = false)}
  >
    {#if chosen}<rect
        class="brush"
        x={x(chosen.first)}
        y="0"
        width={x(chosen.last - chosen.first + 1)}
        height={H}
      />{/if}
    {#each bins.counts as count, k (k)}
      <rect
        class="bar"
        x={x(k) + 0.5}
        y={H - y(count)}
        width={Math.max(1, x(1) - 1)}
        height={y(count)}
      />
    {/each}
    <line x1="0" x2={W} y1={H} y2={H} />
    <text x="0" y={H + 13}>{bins.labels[0]}</text>
    <text x={W} y={H + 13} text-anchor="end">{bins.labels[n]}</text>
  </svg>
  {#if bins.under || bins.over}
    <p class="soft">
      {bins.under ? `${showCount(bins.under)} below` : ''}{bins.under && bins.over
        ? ', '
        : ''}{bins.over ? `${showCount(bins.over)} beyond` : ''} what is drawn.
    </p>
  {/if}
  <p class="soft" aria-live="polite">
    {#if chosen}
      From {bins.labels[chosen.first]} to under {bins.labels[chosen.last + 1]}.
      <button type="button" class="act" onclick={narrow} data-test="brush-narrow"
        >Narrow to this</button
      >
    {:else}Drag over the bars to narrow to a part.{/if}
  </p>
{:else if distribution.kind === 'values'}
  <ul>
    {#each distribution.items as { text, count, spellings } (text)}
      <li>
        <button
          type="button"
          title={spellings.length > 1
            ? `Narrow to ${text} in all its spellings: ${spellings.map((s) => `“${s.text}” ${showCount(s.count)}`).join(', ')}`
            : `Narrow to ${text}`}
          onclick={() =>
            onnarrow({
              kind: 'leaf',
              column,
              not: false,
              test: { test: 'is', values: spellings.map((s) => s.text), exact: true },
            })}
        >
          <span
            >{text}{#if spellings.length > 1}<em> {spellings.length} spellings</em>{/if}</span
          ><small>{showCount(count)}</small>
          <i style:width="{(count / most) * 100}%"></i>
        </button>
      </li>
    {/each}
  </ul>
  <p class="soft">
    {distribution.others ? `${showCount(distribution.others)} more values. ` : ''}A click narrows to
    a value.
  </p>
{:else}
  <p class="soft">No values among the counted records.</p>
{/if}

<style>
  em {
    color: var(--plum);
    font-size: 12px;
    font-style: normal;
    margin-left: 6px;
  }
  svg {
    display: block;
    touch-action: none;
    cursor: crosshair;
  }
  .bar {
    fill: var(--tide-bar);
  }
  .brush {
    fill: var(--tide-wash);
    stroke: var(--tide);
    stroke-width: 1;
  }
  line {
    stroke: var(--rule-strong);
  }
  text {
    font-size: 11px;
    fill: var(--ink-soft);
  }
  .soft {
    color: var(--ink-soft);
    margin: 4px 0;
  }
  ul {
    list-style: none;
    padding: 0;
    margin: 0;
  }
  li button {
    position: relative;
    display: flex;
    justify-content: space-between;
    width: 100%;
    background: none;
    border: 0;
    padding: 2px 0 4px;
    font: inherit;
    color: inherit;
    cursor: pointer;
    text-align: left;
    gap: 8px;
  }
  li span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  li button:hover span {
    color: var(--tide);
  }
  small {
    color: var(--ink-soft);
  }
  i {
    position: absolute;
    left: 0;
    bottom: 0;
    height: 3px;
    background: var(--tide-bar);
  }
</style>
