<script lang="ts">
  import type { Bands } from '../../../core/arrange/bands';
  import Bars from '../../chart/Bars.svelte';
  import Falls from '../../chart/Falls.svelte';
  import { columnAt, drawnAt, groupsOf, labelOf, numberAt } from '../source';
  import DrawnOf from '../DrawnOf.svelte';
  import type { ViewProps } from '../view';

  let {
    tally,
    source,
    width,
    small = false,
    drawn = 'squeezed',
    chosen = null,
    onopen,
    onchange,
  }: ViewProps = $props();

  const MOST = 40;
  const table = $derived(source.table('main'));
  const rows = $derived(table ? groupsOf(table) : []);
  const at = $derived({
    count: table ? columnAt(table, 'count') : -1,
    share: table ? columnAt(table, 'share') : -1,
    from: table ? columnAt(table, 'from') : -1,
    to: table ? columnAt(table, 'to') : -1,
  });
  const bands = $derived(
    table && at.from >= 0
      ? rows.map((row) => {
          const count = drawnAt(table, row, at.count);
          return {
            from: Number.isNaN(numberAt(row, at.from)) ? -Infinity : numberAt(row, at.from),
            to: Number.isNaN(numberAt(row, at.to)) ? Infinity : numberAt(row, at.to),
            text: row.cells[at.share] ?? '',
            words: count.words,
            place: count.place,
          };
        })
      : [],
  );
  /** Those of the sentence itself, where it names them: they are there before the figures are. */
  const given = $derived(
    tally.kind === 'frequency' && tally.key.bands?.by === 'edges' ? tally.key.bands.edges : null,
  );
  const edges = $derived(
    given ??
      [...new Set(bands.flatMap((b) => [b.from, b.to]).filter(Number.isFinite))].sort(
        (a, b) => a - b,
      ),
  );
  const description = $derived(
    `Counts by ${table?.head.columns[0]?.title ?? 'value'}: ${rows
      .slice(0, 12)
      .map((r) => `${table ? labelOf(table, r) : ''} ${r.cells[at.count] ?? ''}`)
      .join(', ')}`,
  );

  /** The bands with an edge elsewhere: those of a table keep their names. */
  function moved(bandsNow: Bands | undefined, k: number, value: number): Bands {
    const old = edges[k];
    if (bandsNow?.by === 'table')
      return {
        ...bandsNow,
        bands: bandsNow.bands.map((band) => ({
          ...band,
          from: band.from === old ? value : band.from,
          to: band.to === old ? value : band.to,
        })),
      };
    return {
      by: 'edges',
      edges: edges.map((edge, e) => (e === k ? value : edge)),
      ...(bandsNow?.edgeIn && { edgeIn: bandsNow.edgeIn }),
    };
  }

  function drag(k: number, value: number): void {
    if (tally.kind !== 'frequency') return;
    onchange?.('Move an edge', {
      ...tally,
      key: { ...tally.key, bands: moved(tally.key.bands, k, value) },
    });
  }
</script>

{#if table && source.shape.kind === 'bins' && bands.length}
  <Falls
    {width}
    height={small ? 56 : 260}
    {description}
    shape={source.shape}
    {bands}
    {edges}
    squeezed={drawn !== 'even'}
    {chosen}
    {small}
    {onopen}
    onedge={drag}
  />
{:else if table}
  <Bars
    {width}
    {description}
    rows={rows.slice(0, small ? 5 : MOST).map((r) => labelOf(table, r))}
    series={[
      {
        name: 'count',
        figures: rows.slice(0, small ? 5 : MOST).map((r) => drawnAt(table, r, at.count)),
      },
    ]}
    {chosen}
    {small}
    {onopen}
  />
  {#if !small}<DrawnOf {table} drawn={Math.min(MOST, rows.length)} />{/if}
{/if}
