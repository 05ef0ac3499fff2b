<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { ChartFrame } from './figures';
  import { samePlace, type ChartMark } from './marks';

  /**
   * The frame of every chart: one tab stop, arrow keys along its marks, Enter opens the figure of a
   * mark. Drawn without a page as well, for the report.
   */
  interface Props extends ChartFrame {
    marks?: readonly ChartMark[];
    /** Opens the record of a mark that is a single one. */
    onrecord?: ((record: number) => void) | undefined;
    children: Snippet;
  }
  let {
    width,
    height,
    description,
    marks = [],
    chosen = null,
    small = false,
    onopen,
    onrecord,
    children,
  }: Props = $props();
  const id = $props.id();

  let svg = $state<SVGSVGElement>();
  let active = $state(-1);
  let focused = $state(false);
  const marked = $derived(marks.findIndex((mark) => samePlace(mark.place, chosen)));
  const ring = $derived(focused && active >= 0 ? marks[active] : marks[marked]);
  const words = $derived(focused ? (marks[active]?.words ?? '') : '');

  export const element = (): SVGSVGElement | undefined => svg;

  function keyed(event: KeyboardEvent): void {
    const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
    if (event.key === 'Enter' && marks[active]) {
      event.preventDefault();
      open(marks[active]);
      return;
    }
    if (event.key === 'Home') active = 0;
    else if (event.key === 'End') active = marks.length - 1;
    else if (step !== undefined)
      active = Math.max(0, Math.min(marks.length - 1, active < 0 ? 0 : active + step));
    else return;
    event.preventDefault();
  }

  function open({ place, record }: ChartMark): void {
    if (place) onopen?.(place);
    else if (record !== undefined) onrecord?.(record);
  }

  /** The mark nearest to the pointer, within a finger's width. */
  function nearest(event: MouseEvent): number {
    const box = (event.currentTarget as Element).getBoundingClientRect();
    const x = ((event.clientX - box.left) / box.width) * width;
    const y = ((event.clientY - box.top) / box.height) * height;
    let best = -1;
    let least = 28 * 28;
    marks.forEach((mark, k) => {
      const far = (mark.x - x) ** 2 + (mark.y - y) ** 2;
      if (far < least) [best, least] = [k, far];
    });
    return best;
  }

  function clicked(event: MouseEvent): void {
    const at = nearest(event);
    if (at < 0) return;
    active = at;
    open(marks[at]);
  }

  let over = $state(-1);
</script>

{#if small}
  <svg viewBox="0 0 {width} {height}" {width} {height} aria-hidden="true" class="chart">
    {@render children()}
  </svg>
{:else}
  <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions, a11y_click_events_have_key_events -->
  <svg
    bind:this={svg}
    viewBox="0 0 {width} {height}"
    {width}
    {height}
    class="chart"
    role="application"
    aria-label={description}
    aria-describedby="{id}-mark"
    tabindex={marks.length ? 0 : undefined}
    onkeydown={keyed}
    onclick={clicked}
    onpointermove={(event) => (over = nearest(event))}
    onpointerleave={() => (over = -1)}
    onfocus={() => {
      focused = true;
      if (active < 0) active = 0;
    }}
    onblur={() => (focused = false)}
    data-test="chart"
  >
    {@render children()}
    {#if ring}<circle class="ring" cx={ring.x} cy={ring.y} r="8" data-screen-only />{/if}
    {#if over >= 0 && marks[over]}
      {@const { x, y, words: told } = marks[over]}
      {@const wide = told.length * 6.3 + 14}
      <g
        class="told"
        data-screen-only
        transform="translate({Math.max(2, Math.min(width - wide - 2, x - wide / 2))} {y > 34
          ? y - 32
          : y + 12})"
      >
        <rect width={wide} height="22" rx="4" />
        <text x="7" y="15">{told}</text>
      </g>
    {/if}
  </svg>
  <p class="visually-hidden" id="{id}-mark" aria-live="polite">{words}</p>
{/if}

<style>
  .chart {
    display: block;
    font-family: var(--font-sans);
    font-size: 12px;
    fill: var(--ink-soft);
    overflow: visible;
    max-width: 100%;
  }
  .chart:focus-visible {
    outline: 2px solid var(--tide);
    outline-offset: 3px;
    border-radius: 4px;
  }
  .ring {
    fill: none;
    stroke: var(--tide);
    stroke-width: 2;
  }
  .told {
    pointer-events: none;
  }
  .told rect {
    fill: var(--raised);
    stroke: var(--rule);
  }
  .told text {
    fill: var(--ink);
  }
</style>
