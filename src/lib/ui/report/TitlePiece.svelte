<script lang="ts">
  import type { Report } from '../../engine/report';
  import NoteText from './NoteText.svelte';

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
<div class="intro" class:bare={!report.intro}>
  <NoteText
    words={report.intro}
    cited={report.cited}
    label="Words under the title"
    placeholder="Words under the title…"
    onedit={onedit && ((intro) => onedit({ intro }))}
    test="report-intro"
  />
</div>

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
  }
  /* Until there are words, the place for them is at the end of the line above, and takes no room. */
  .bare:not(:focus-within) {
    margin: 0;
    height: 0;
    text-align: right;
    transform: translateY(-30px);
  }
  [contenteditable]:hover {
    background: var(--band);
  }
</style>
