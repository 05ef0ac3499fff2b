<script lang="ts">
  import type { Report } from '../../engine/report';

  /** The report's title, what it is about, and the words under it; edited where they stand. */
  interface Props {
    report: Report;
    onedit?: ((change: { title?: string; intro?: string }) => void) | undefined;
  }
  let { report, onedit }: Props = $props();
  const about = $derived(report.title === report.list ? '' : `${report.list} · `);
  const textOf = (event: FocusEvent): string =>
    event.currentTarget instanceof HTMLElement ? event.currentTarget.innerText.trim() : '';
</script>

{#if onedit}
  <h1>
    <span
      contenteditable="plaintext-only"
      role="textbox"
      aria-label="Title of the report"
      tabindex="0"
      onblur={(e) => onedit({ title: textOf(e) })}
      onkeydown={(e) => {
        if (e.key !== 'Enter') return;
        e.preventDefault();
        e.currentTarget.blur();
      }}
      data-test="report-title">{report.title}</span
    >
  </h1>
{:else}
  <h1>{report.title}</h1>
{/if}
<p class="about">{about}read {report.read} · prepared {report.made}</p>
{#if onedit}
  <!-- svelte-ignore a11y_no_noninteractive_element_to_interactive_role -->
  <p
    class="intro"
    class:empty={!report.intro}
    contenteditable="plaintext-only"
    role="textbox"
    aria-multiline="true"
    aria-label="Words under the title"
    tabindex="0"
    data-placeholder="Words under the title…"
    onblur={(e) => onedit({ intro: textOf(e) })}
    data-test="report-intro"
  >
    {report.intro}
  </p>
{:else if report.intro}<p class="intro">{report.intro}</p>{/if}

<style>
  h1 {
    font: 600 25px/1.15 var(--font-serif);
    margin: 0 0 5px;
    overflow-wrap: anywhere;
  }
  h1 span {
    display: block;
  }
  .about {
    margin: 0 0 12px;
    color: var(--ink-soft);
    font-size: 11px;
  }
  .intro {
    font: 14px/1.4 var(--font-serif);
    margin: 0 0 12px;
    white-space: pre-line;
    overflow-wrap: anywhere;
  }
  /* Empty, it takes no room: the page prints as it stands. */
  .empty:not(:focus) {
    height: 0;
    margin: 0;
  }
  .empty:not(:focus)::before {
    content: attr(data-placeholder);
    position: relative;
    top: -13px;
    font: 11px var(--font-sans);
    color: var(--ink-faint);
  }
  [contenteditable]:hover {
    background: var(--band);
  }
  @media print {
    .empty::before {
      display: none;
    }
  }
</style>
