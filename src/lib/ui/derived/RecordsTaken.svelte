<script lang="ts">
  import { counted } from '../../core/table/format';
  import type { BenchState } from '../bench/bench.svelte';
  import Segments from '../components/Segments.svelte';

  /** Whether a new list takes all records of a bench, or those that count. */
  interface Props {
    bench: BenchState;
    records: 'all' | 'counted';
  }
  let { bench, records = $bindable() }: Props = $props();
  const options = $derived([
    { value: 'all', label: `all ${counted(bench.counts?.all.records ?? 0, 'record')}` },
    {
      value: 'counted',
      label: `the ${counted(bench.counts?.counted.records ?? 0, 'counted record')}`,
    },
  ]);
</script>

<Segments
  label="Records taken"
  value={records}
  {options}
  onchange={(value) => (records = value === 'counted' ? 'counted' : 'all')}
  test="list-records"
/>
