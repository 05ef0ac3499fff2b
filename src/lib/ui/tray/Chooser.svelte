<script lang="ts">
  import type { Begin, Offered, Sketch } from '../../engine/protocol';
  import type { BenchState } from '../bench/bench.svelte';
  import NothingCounted from '../ladder/NothingCounted.svelte';
  import Card from './Card.svelte';

  /** Questions about this list, each already answered in small. */
  let { bench }: { bench: BenchState } = $props();
  let questions = $state.raw<Begin[]>([]);
  let sketches = $state.raw<ReadonlyMap<string, Sketch>>(new Map());
  let text = $state('');
  let grid = $state<HTMLUListElement>();
  let field = $state<HTMLInputElement>();

  const words = $derived(text.toLowerCase().split(/\s+/).filter(Boolean));
  const matches = (q: Begin): number => {
    const all = `${q.question} ${q.found} ${q.sentence}`.toLowerCase();
    return words.filter((word) => all.includes(word)).length;
  };
  /** The tallies that what was typed may mean, with what it narrows to and the words that each does not say. */
  let offers = $state.raw<readonly Offered[]>([]);
  const offerOf = ({ kind }: Begin): Offered | undefined => offers.find((o) => o.kind === kind);
  /** What was typed as a wish: a measure, a column, a period. The cards then begin with it. */
  const typed = $derived.by(() => {
    const wish = offers.at(0)?.wish;
    // The name of a question alone finds its card, and wishes for nothing.
    const says = Object.values(wish ?? {}).some((said) => !Array.isArray(said) || said.length > 0);
    return says ? wish : undefined;
  });
  /** In the order of the offers: those that leave fewest words first. */
  const placeOf = (q: Begin): number => {
    const at = offers.findIndex(({ kind }) => kind === q.kind);
    return at < 0 ? offers.length : at;
  };
  const shown = $derived(
    typed
      ? [...questions].sort(
          (a, b) =>
            Number(b.tally !== null) - Number(a.tally !== null) ||
            placeOf(a) - placeOf(b) ||
            matches(b) - matches(a),
        )
      : questions.filter((q) => matches(q) === words.length),
  );

  const first = $derived(shown.find((q) => q.tally));
  const narrowWords = $derived(offers[0]?.narrowWords ?? []);
  const left = $derived((first && offerOf(first)?.left) ?? []);
  /** The words for which the words not understood were gone to: the next Enter begins all the same. */
  let shownLeft = $state('');

  /** The words that the questions answer. */
  let answered = '';
  /** Enter came before the questions to these words: the first is begun when they are there. */
  let entering = false;

  // Answers of older figures are dropped: with a new stand the questions are asked anew.
  $effect(() => {
    const token = bench.counts?.token;
    const asked = text.trim();
    const panel = bench.wish;
    let stale = false;
    entering = false;
    void (async () => {
      try {
        // Letters come one by one: what they say so far is asked once they rest.
        if (asked) await new Promise((resolve) => setTimeout(resolve, 200));
        if (stale) return;
        const found = asked ? (await bench.offers(asked, 'chooser')).tallies : [];
        if (stale) return;
        offers = found;
        const answers = await bench.questions({ ...panel, ...typed });
        if (stale) return;
        // What narrows is out of the way of an offer; what a panel asked for before is not known to it.
        const begun = typed && Object.keys(panel).length === 0 ? found : [];
        questions = answers.map((question) => {
          const offer = begun.find(({ kind }) => kind === question.kind);
          return offer ? { ...question, tally: offer.tally, sentence: offer.sentence } : question;
        });
        answered = asked;
        if (entering) return beginFirst();
        sketches = new Map();
        for (const { kind, tally } of questions) {
          if (!tally) continue;
          const sketch = await bench.ask('sketch', {
            spec: tally,
            narrow: found.at(0)?.narrow ?? [],
          });
          if (stale || bench.counts?.token !== token) return;
          sketches = new Map(sketches).set(kind, sketch);
        }
      } catch {
        // A newer stand took the place of this one; its own questions are on their way.
      }
    })();
    return () => (stale = true);
  });
  $effect(() => field?.focus());

  function begin(question: Begin): void {
    const { tally, sentence } = question;
    if (!tally) return;
    const wish = { ...bench.wish, ...typed };
    bench.begin(`New tally: ${sentence}`, tally, wish, offerOf(question)?.narrow);
  }

  /** Begins the first, unless words of it were not understood: those are gone to first. */
  function beginFirst(): void {
    const [word] = left;
    const from = word === undefined ? -1 : text.toLowerCase().indexOf(word.toLowerCase());
    if (word === undefined || shownLeft === text || !field) {
      if (first) begin(first);
      return;
    }
    shownLeft = text;
    field.focus();
    if (from >= 0) field.setSelectionRange(from, from + word.length);
  }

  function keyed(event: KeyboardEvent): void {
    if (event.key === 'Escape') {
      bench.choosing = false;
      event.preventDefault();
      return;
    }
    const cards = [...(grid?.querySelectorAll('button') ?? [])];
    const at = cards.findIndex((card) => card === document.activeElement);
    const across = grid ? getComputedStyle(grid).gridTemplateColumns.split(' ').length : 1;
    const typing = document.activeElement === field;
    const step: Record<string, number> = typing
      ? { ArrowDown: 1 }
      : { ArrowRight: 1, ArrowLeft: -1, ArrowDown: across, ArrowUp: -across };
    if (typing && event.key === 'Enter') {
      if (answered === text.trim()) beginFirst();
      else entering = true;
    } else if (Object.hasOwn(step, event.key)) {
      const to = at < 0 ? 0 : at + step[event.key];
      if (to < 0) field?.focus();
      else cards[Math.min(cards.length - 1, to)]?.focus();
    } else return;
    event.preventDefault();
  }
</script>

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div class="chooser" onkeydown={keyed} data-test="chooser">
  <div class="head">
    <h2 class="serif">What do you want to know?</h2>
    <input
      class="field"
      bind:this={field}
      bind:value={text}
      placeholder="Find: delay, vessel, median…"
      aria-label="Find a question"
      data-test="find-question"
    />
    <button type="button" class="act" onclick={() => (bench.choosing = false)}>Close Esc</button>
  </div>
  <NothingCounted {bench} />
  {#if narrowWords.length}<p class="soft" role="status">
      What is begun narrows to: {narrowWords.join('; ')}.
    </p>{/if}
  {#if left.length}<p class="left" role="status" data-test="chooser-left">
      Not understood: {left.map((word) => `“${word}”`).join(', ')}. {shownLeft === text
        ? 'Enter once more begins the first without it.'
        : 'Enter goes to these words.'}
    </p>{/if}
  <ul bind:this={grid}>
    {#each shown as question (question.kind)}
      <li>
        <Card
          {question}
          sketch={sketches.get(question.kind) ?? null}
          onbegin={() => begin(question)}
        />
      </li>
    {:else}
      <li class="none">
        {questions.length ? `No question is found by “${text}”.` : 'Looking at the columns…'}
      </li>
    {/each}
  </ul>
  <p class="soft">
    Each card is already computed from the counted records. Enter opens it; every word of its
    sentence can be changed.
  </p>
</div>

<style>
  .chooser {
    flex: 1;
    min-height: 0;
    overflow: auto;
    padding: 16px 22px 20px;
  }
  .left {
    margin: 8px 0;
    color: var(--plum);
    font-weight: 600;
  }
  .head {
    display: flex;
    gap: 18px;
    align-items: center;
    margin-bottom: 14px;
  }
  h2 {
    margin: 0;
    font-size: 22px;
    font-weight: 600;
  }
  .head input {
    width: min(300px, 30vw);
  }
  .head .act {
    margin-left: auto;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(280px, 1fr));
    gap: 12px;
  }
  .none,
  .soft {
    color: var(--ink-soft);
  }
  .soft {
    margin: 12px 0 0;
  }
</style>
