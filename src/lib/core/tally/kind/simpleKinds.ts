import { bind, type BoundTally, type Registry } from './binding';
import { conditionalKind } from '../kinds/conditional/kind';
import { contributionsKind } from '../kinds/contributions/kind';
import { crosstabKind } from '../kinds/crosstab/kind';
import { forecastKind } from '../kinds/forecast/kind';
import { frequencyKind } from '../kinds/frequency/kind';
import { growthKind } from '../kinds/growth/kind';
import { ledgerKind } from '../kinds/ledger/kind';
import { lineKind } from '../kinds/line/kind';
import { percentileKind } from '../kinds/percentile/kind';
import { periodsKind } from '../kinds/periods/kind';
import { rankingKind } from '../kinds/ranking/kind';
import type { SimpleSpecs, SimpleTally } from '../spec/simpleSpecs';
import { spreadKind } from '../kinds/spread/kind';

/** The kinds of one list: those that others are built on. One line each. */
export const SIMPLE_KINDS: Registry<SimpleSpecs> = {
  ledger: ledgerKind,
  crosstab: crosstabKind,
  conditional: conditionalKind,
  frequency: frequencyKind,
  spread: spreadKind,
  percentile: percentileKind,
  ranking: rankingKind,
  periods: periodsKind,
  growth: growthKind,
  forecast: forecastKind,
  line: lineKind,
  contributions: contributionsKind,
};

/** A simple tally with its kind. */
export const simpleKind = (tally: SimpleTally): BoundTally<SimpleTally> =>
  bind<SimpleSpecs, SimpleTally['kind']>(SIMPLE_KINDS, tally.kind, tally);
