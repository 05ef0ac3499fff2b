<script lang="ts">
  import { counted, showCount } from '../../core/table/format';
  import type { ReplyOf } from '../../engine/protocol';

  /** How the keys of two lists meet: found, missing, never used, standing more than once. */
  interface Props {
    meets: NonNullable<ReplyOf<'match'>['meets']>;
    list: string;
  }
  let { meets, list }: Props = $props();
  const without = $derived(meets.records - meets.matched);
</script>

<p data-test="join-meets">
  <b>{showCount(meets.matched)} of {counted(meets.records, 'record')}</b>
  {meets.matched === 1 ? 'finds' : 'find'} one in {list}{#if meets.blank}, {showCount(meets.blank)}
    {meets.blank === 1 ? 'has' : 'have'} no key{/if}.
  {#if without === 0}Every record finds one.{/if}
</p>
{#if meets.missingKeys}
  <details data-test="join-missing">
    <summary
      >{counted(meets.missingKeys, 'key')}
      {meets.missingKeys === 1 ? 'is' : 'are'} not in {list}: their records get blanks</summary
    >
    <ul>
      {#each meets.missing as { key, records } (key)}<li>
          {key} <small>{counted(records, 'record')}</small>
        </li>{/each}
      {#if meets.missingKeys > meets.missing.length}<li class="soft">
          and {showCount(meets.missingKeys - meets.missing.length)} more
        </li>{/if}
    </ul>
  </details>
{/if}
{#if meets.neverKeys}
  <details>
    <summary
      >{counted(meets.neverKeys, 'key')} of {list}
      {meets.neverKeys === 1 ? 'is' : 'are'} never used</summary
    >
    <ul>
      {#each meets.never as key (key)}<li>{key}</li>{/each}
      {#if meets.neverKeys > meets.never.length}<li class="soft">
          and {showCount(meets.neverKeys - meets.never.length)} more
        </li>{/if}
    </ul>
  </details>
{/if}
{#if meets.repeatedKeys}
  <details open data-test="join-repeated">
    <summary class="doubt"
      >{counted(meets.repeatedKeys, 'key')}
      {meets.repeatedKeys === 1 ? 'stands' : 'stand'} in {list} more than once: say which one, or what
      of them, each column takes</summary
    >
    <ul>
      {#each meets.repeated as { key, records } (key)}<li>
          {key} <small>{records} times</small>
        </li>{/each}
    </ul>
  </details>
{/if}

<style>
  p {
    margin: 0;
  }
  ul {
    margin: 4px 0 0;
    padding-left: 18px;
    max-height: 130px;
    overflow: auto;
  }
  summary {
    cursor: pointer;
  }
  .doubt {
    color: var(--plum);
  }
  small,
  .soft {
    color: var(--ink-soft);
  }
</style>
