import type { Tally } from '../../core/tally/spec/specs';
import { groupWords } from '../../core/tally/sentence/words';
import { crossShade, overlapShade } from './shade';
import type { View } from './view';

/** The view of each kind, loaded when it is first looked at. One line a kind. */
export const VIEWS: { readonly [K in Tally['kind']]: View } = {
  ledger: { load: () => import('./nested/View.svelte') },
  crosstab: {
    load: () => import('./crosstab/View.svelte'),
    shade: crossShade,
    levels: (tally, names) =>
      tally.kind === 'crosstab' ? tally.down.map((key) => groupWords(key, names)) : [],
  },
  conditional: { load: () => import('./conditional/View.svelte'), shade: overlapShade },
  frequency: {
    load: () => import('./frequency/View.svelte'),
    ways: [
      { value: 'squeezed', label: 'squeezed' },
      { value: 'even', label: 'even' },
    ],
    waysNeed: 'bins',
    beside: () => import('./frequency/BandsKept.svelte'),
  },
  spread: { load: () => import('./spread/View.svelte') },
  percentile: { load: () => import('./percentile/View.svelte') },
  ranking: { load: () => import('./ranking/View.svelte') },
  periods: {
    load: () => import('./periods/View.svelte'),
    ways: [
      { value: 'along', label: 'along time' },
      { value: 'overlaid', label: 'years over one another' },
    ],
    levels: (tally) => (tally.kind === 'periods' ? tally.levels : []),
  },
  growth: { load: () => import('./growth/View.svelte') },
  forecast: { load: () => import('./forecast/View.svelte') },
  line: { load: () => import('./line/View.svelte') },
  contributions: { load: () => import('./contributions/View.svelte') },
  nested: { load: () => import('./nested/View.svelte') },
  comparison: {
    load: () => import('./comparison/View.svelte'),
    strip: { in: 'change' },
    below: () => import('./comparison/Below.svelte'),
  },
  reconciliation: { load: () => import('./reconciliation/View.svelte') },
};
