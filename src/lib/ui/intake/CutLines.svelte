<script lang="ts">
  /** The first lines of text in columns of fixed width, with the places where its columns begin. */
  interface Props {
    lines: readonly string[];
    /** Characters from 0, rising. */
    cuts: readonly number[];
    onchange: (cuts: number[]) => void;
  }
  let { lines, cuts, onchange }: Props = $props();
  const width = $derived(Math.max(1, ...lines.map((line) => line.length)));
  let ruler = $state<HTMLElement>();
  /** The cut that is dragged, and where it is meanwhile. */
  let dragged = $state<{ cut: number; at: number } | null>(null);
  const shown = $derived(
    dragged ? cuts.map((cut) => (dragged?.cut === cut ? dragged.at : cut)) : cuts,
  );

  const tidy = (places: readonly number[]): number[] =>
    [...new Set(places)].filter((at) => at >= 0 && at < width).sort((a, b) => a - b);
  function set(places: readonly number[]): void {
    const next = tidy(places);
    if (next.length && next.join() !== cuts.join()) onchange(next);
  }
  const moved = (cut: number, at: number): void =>
    set(cuts.map((other) => (other === cut ? at : other)));

  /** The character under a pointer. */
  function characterAt(event: PointerEvent | MouseEvent): number {
    if (!ruler) return 0;
    const { left, width: room } = ruler.getBoundingClientRect();
    return Math.max(0, Math.min(width - 1, Math.round(((event.clientX - left) / room) * width)));
  }

  function keyed(event: KeyboardEvent, cut: number): void {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (by !== undefined) moved(cut, cut + by);
    else if (event.key === 'Delete' || event.key === 'Backspace')
      set(cuts.filter((other) => other !== cut));
    else return;
    event.preventDefault();
  }
</script>

<section aria-label="Where the columns begin" data-test="cut-lines">
  <p>
    Drag a mark, or press the arrow keys on it; Delete takes it away, a click on the text sets one.
  </p>
  <div class="wide">
    <!-- The field beside it says the same places by numbers: pointing is one way more. -->
    <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
    <div
      class="lines"
      bind:this={ruler}
      style:--width={width}
      onclick={(event) => {
        if (event.target === event.currentTarget || !(event.target instanceof HTMLButtonElement))
          set([...cuts, characterAt(event)]);
      }}
    >
      <pre aria-hidden="true">{lines.join('\n')}</pre>
      {#each shown as at, k (cuts[k])}
        <button
          type="button"
          style:--at={at}
          class:dragged={dragged?.cut === cuts[k]}
          aria-label="A column begins at character {at + 1}"
          onkeydown={(event) => keyed(event, cuts[k])}
          onpointerdown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            dragged = { cut: cuts[k], at };
          }}
          onpointermove={(event) => {
            if (dragged) dragged = { ...dragged, at: characterAt(event) };
          }}
          onpointerup={() => {
            const end = dragged;
            dragged = null;
            if (end) moved(end.cut, end.at);
          }}
          onpointercancel={() => (dragged = null)}
        ></button>
      {/each}
    </div>
  </div>
</section>

<style>
  section {
    padding: 10px 20px;
    border-bottom: 1px solid var(--rule);
  }
  p {
    margin: 0 0 6px;
    color: var(--ink-soft);
    font-size: 12px;
  }
  .wide {
    overflow-x: auto;
    /* The first mark stands out by half. */
    padding-left: 6px;
    margin-left: -6px;
  }
  .lines {
    position: relative;
    width: calc(var(--width) * 1ch);
    font-family: ui-monospace, monospace;
    font-size: 13px;
    cursor: copy;
    padding-top: 8px;
  }
  pre {
    margin: 0;
    font: inherit;
    line-height: 1.5;
    pointer-events: none;
  }
  button {
    position: absolute;
    top: 0;
    bottom: 0;
    left: calc(var(--at) * 1ch - 5px);
    width: 10px;
    padding: 0;
    border: 0;
    background: linear-gradient(var(--tide) 0 0) center / 2px 100% no-repeat;
    cursor: ew-resize;
    touch-action: none;
  }
  button::before {
    content: '';
    position: absolute;
    top: 0;
    left: 1px;
    width: 8px;
    height: 8px;
    border-radius: 50%;
    background: var(--tide);
  }
  .dragged {
    background-image: linear-gradient(var(--brass) 0 0);
  }
</style>
