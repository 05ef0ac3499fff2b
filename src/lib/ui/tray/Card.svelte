<script lang="ts">
  import type { Begin, Sketch } from '../../engine/protocol';
  import { sourceOfSketch } from '../tally/source';
  import { VIEWS } from '../tally/views';

  /** A question with its first answer in small. */
  interface Props {
    question: Begin;
    /** Null while it is being computed. */
    sketch: Sketch | null;
    onbegin: () => void;
  }
  let { question, sketch, onbegin }: Props = $props();
  const tally = $derived(question.tally);
</script>

<button
  type="button"
  class="card"
  disabled={tally === null}
  onclick={onbegin}
  data-test="question-{question.kind}"
>
  <span class="serif question">{question.question}</span>
  <span class="drawing">
    {#if tally && sketch?.table}
      {#await VIEWS[tally.kind].load() then { default: Drawing }}
        <Drawing {tally} source={sourceOfSketch(sketch)} width={132} small />
      {/await}
      <small>{sketch.fact}</small>
    {:else if tally && sketch}
      <small>{sketch.refused}</small>
    {:else if tally}
      <small>computing…</small>
    {/if}
  </span>
  <span class="sentence">{question.needs || question.sentence}</span>
</button>

<style>
  .card {
    width: 100%;
    height: 152px;
    display: flex;
    flex-direction: column;
    gap: 6px;
    text-align: left;
    padding: 10px 13px;
    border: 1px solid var(--rule);
    border-radius: 8px;
    background: var(--raised);
    color: inherit;
    font: inherit;
    cursor: pointer;
  }
  .card:hover:not(:disabled),
  .card:focus-visible {
    border-color: var(--tide);
    box-shadow: 0 0 0 1px var(--tide);
  }
  .card:disabled {
    cursor: default;
    background: var(--panel);
    color: var(--ink-soft);
    opacity: 1;
  }
  .question {
    font-size: 17px;
    font-weight: 600;
    line-height: 1.2;
  }
  .drawing {
    display: flex;
    gap: 10px;
    align-items: center;
    height: 60px;
    overflow: hidden;
    pointer-events: none;
  }
  .drawing small {
    color: var(--tide);
    font-size: 13px;
    font-weight: 600;
  }
  .sentence {
    color: var(--ink-soft);
    font-size: 13px;
    line-height: 1.3;
    display: -webkit-box;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 2;
    line-clamp: 2;
    overflow: hidden;
    overflow-wrap: anywhere;
  }
</style>
