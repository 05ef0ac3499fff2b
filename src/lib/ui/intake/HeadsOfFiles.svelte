<script lang="ts">
  import { counted } from '../../core/table/format';
  import type { HeadDifference, HeadSettled } from '../../core/read/decode/source';
  import type { HeadsSettled } from '../../core/read/decode/stacked';
  import OneOf from '../fields/OneOf.svelte';

  /** Several files whose columns differ: what each of these columns is, before anything is read. */
  interface Props {
    heads: readonly HeadDifference[];
    /** Whether they are sheets of a workbook. */
    sheets: boolean;
    onsettle: (heads: HeadsSettled) => void;
    /** Reads the files one at a time instead. */
    onapart: () => void;
  }
  let { heads, sheets, onsettle, onapart }: Props = $props();
  let said = $state.raw<HeadsSettled>({});
  const as = (head: string): HeadSettled => said[head] ?? 'own';
  const SAME = 'same ';
  const valueOf = (settled: HeadSettled): string =>
    typeof settled === 'object' ? SAME + settled.sameAs : settled;
  const settledBy = (value: string): HeadSettled =>
    value.startsWith(SAME) ? { sameAs: value.slice(SAME.length) } : value === 'out' ? 'out' : 'own';

  /** What a head is taken for cannot itself be taken for another. */
  const taken = $derived(
    new Set(
      heads.flatMap(({ head }) => {
        const settled = as(head);
        return typeof settled === 'object' ? [settled.sameAs] : [];
      }),
    ),
  );
  const options = ({ head, others }: HeadDifference): (readonly [string, string])[] => [
    ['own', 'a column of its own, blank where it is lacking'],
    ...(taken.has(head)
      ? []
      : others
          .filter((other) => typeof as(other) !== 'object')
          .map((other) => [SAME + other, `the same as ${other}`] as const)),
    ['out', 'left out'],
  ];
  const named = (files: readonly string[]): string =>
    files.length > 3
      ? `${files.slice(0, 3).join(', ')} and ${files.length - 3} more`
      : files.join(', ');
</script>

<section aria-labelledby="heads-of-files" data-test="heads">
  <h1 class="serif" id="heads-of-files">
    The {sheets ? 'sheets' : 'files'} have not the same columns
  </h1>
  <p>
    {counted(heads.length, 'column')}
    {heads.length === 1 ? 'is' : 'are'} not in all of them. Say what each is; nothing is read before.
  </p>
  <table>
    <thead>
      <tr><th scope="col">Column</th><th scope="col">Lacking in</th><th scope="col">It is</th></tr>
    </thead>
    <tbody>
      {#each heads as difference (difference.head)}
        <tr>
          <th scope="row">{difference.head}</th>
          <td>{named(difference.lackedBy)}</td>
          <td>
            <label>
              <span class="visually-hidden">{difference.head} is</span>
              <OneOf
                value={valueOf(as(difference.head))}
                options={options(difference)}
                test="head-{difference.head}"
                onchange={(value) => (said = { ...said, [difference.head]: settledBy(value) })}
              />
            </label>
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
  <div class="acts">
    <button
      type="button"
      class="main-button"
      onclick={() => onsettle(Object.fromEntries(heads.map(({ head }) => [head, as(head)])))}
      data-test="heads-settled">Read them together</button
    >
    <button type="button" class="plain-button" onclick={onapart}
      >Read one of the {sheets ? 'sheets' : 'files'} alone</button
    >
  </div>
</section>

<style>
  section {
    width: min(760px, 100%);
    margin: 40px auto;
    padding: 0 24px;
    box-sizing: border-box;
  }
  h1 {
    font-size: 26px;
    margin: 0 0 8px;
  }
  table {
    border-collapse: collapse;
    table-layout: fixed;
    width: 100%;
    margin: 8px 0 16px;
  }
  label :global(.one-of) {
    width: 100%;
  }
  th,
  td {
    text-align: left;
    padding: 5px 10px 5px 0;
    border-bottom: 1px solid var(--rule);
    font-weight: 400;
    overflow-wrap: anywhere;
  }
  thead th {
    white-space: nowrap;
    font-weight: 600;
    border-bottom: 1.5px solid var(--rule-strong);
  }
  tbody th {
    font-weight: 600;
  }
  .acts {
    display: flex;
    gap: 12px;
  }
</style>
