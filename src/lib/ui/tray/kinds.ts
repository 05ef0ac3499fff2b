import ArrowDownWideNarrow from '@lucide/svelte/icons/arrow-down-wide-narrow';
import BetweenHorizontalStart from '@lucide/svelte/icons/between-horizontal-start';
import ChartColumn from '@lucide/svelte/icons/chart-column';
import ChartLine from '@lucide/svelte/icons/chart-line';
import ChartNoAxesGantt from '@lucide/svelte/icons/chart-no-axes-gantt';
import ChartSpline from '@lucide/svelte/icons/chart-spline';
import ChartScatter from '@lucide/svelte/icons/chart-scatter';
import Waypoints from '@lucide/svelte/icons/waypoints';
import Grid3x3 from '@lucide/svelte/icons/grid-3x3';
import Medal from '@lucide/svelte/icons/medal';
import MoveRight from '@lucide/svelte/icons/move-right';
import Percent from '@lucide/svelte/icons/percent';
import Rows3 from '@lucide/svelte/icons/rows-3';
import Scale from '@lucide/svelte/icons/scale';
import TrendingUp from '@lucide/svelte/icons/trending-up';
import type { Component } from 'svelte';
import type { Tally } from '../../core/tally/spec/specs';

interface KindFacts {
  readonly icon: Component<{ size?: number; 'aria-hidden'?: 'true' }>;
  /** For screen readers, before the name of the tally. */
  readonly word: string;
}

/** How each kind shows in the tray. One line a kind. */
export const KINDS: { readonly [K in Tally['kind']]: KindFacts } = {
  ledger: { icon: Rows3, word: 'Ledger' },
  crosstab: { icon: Grid3x3, word: 'Cross-tab' },
  conditional: { icon: Percent, word: 'Conditional figures' },
  frequency: { icon: ChartColumn, word: 'How values fall' },
  spread: { icon: ChartNoAxesGantt, word: 'Spread' },
  percentile: { icon: ChartSpline, word: 'Percentiles' },
  ranking: { icon: ArrowDownWideNarrow, word: 'Ranking' },
  periods: { icon: ChartLine, word: 'Period by period' },
  growth: { icon: TrendingUp, word: 'Growth' },
  forecast: { icon: MoveRight, word: 'Forecast' },
  line: { icon: ChartScatter, word: 'The line' },
  contributions: { icon: Waypoints, word: 'What moved it' },
  nested: { icon: Medal, word: 'Best of each' },
  comparison: { icon: BetweenHorizontalStart, word: 'What moved' },
  reconciliation: { icon: Scale, word: 'Two lists side by side' },
};
