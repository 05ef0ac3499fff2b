<script lang="ts">
  interface Props {
    /** What it makes wider or narrower, for those who do not see it. */
    label: string;
    width: number;
    least: number;
    /** Whether the Tab key stops here; else another control does the same by key. */
    stop?: boolean;
    /** While it is dragged; null when that ends. */
    ondrag: (width: number | null) => void;
    /** A new width, or null for what the texts need. */
    onwidth: (width: number | null) => void;
  }
  let { label, width, least, stop = false, ondrag, onwidth }: Props = $props();

  const MOST = 900;
  const STEP = 20;
  let start: { x: number; width: number } | null = null;

  const within = (px: number): number => Math.round(Math.max(least, Math.min(MOST, px)));

  function grab(event: PointerEvent): void {
    start = { x: event.clientX, width };
    (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
  }
  function drag(event: PointerEvent): void {
    if (start) ondrag(within(start.width + event.clientX - start.x));
  }
  function letGo(event: PointerEvent): void {
    if (!start) return;
    const moved = event.clientX - start.x;
    const to = within(start.width + moved);
    start = null;
    ondrag(null);
    if (moved !== 0) onwidth(to);
  }
  function keyed(event: KeyboardEvent): void {
    const by = { ArrowLeft: -STEP, ArrowRight: STEP }[event.key];
    if (by === undefined && event.key !== 'Enter') return;
    event.preventDefault();
    event.stopPropagation();
    onwidth(by === undefined ? null : within(width + by));
  }
</script>

<!-- A separator that can be focused is a control: its value is the width. -->
<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<span
  class="grip"
  role="separator"
  aria-orientation="vertical"
  aria-label={label}
  aria-valuenow={width}
  aria-valuemin={least}
  aria-valuemax={MOST}
  tabindex={stop ? 0 : -1}
  title="Drag to resize; double click for the width its texts need"
  onpointerdown={grab}
  onpointermove={drag}
  onpointerup={letGo}
  ondblclick={() => onwidth(null)}
  onkeydown={keyed}
></span>

<style>
  .grip {
    position: absolute;
    right: 0;
    top: 0;
    bottom: 0;
    width: 7px;
    cursor: col-resize;
    touch-action: none;
  }
  .grip:hover,
  .grip:focus-visible {
    border-right: 2px solid var(--tide);
    outline: none;
  }
</style>
