import { bind, type BoundTally, type Registry } from './bound';
import { conditionalKind } from './conditional/kind';
import { contributionsKind } from './contributions/kind';
import { crosstabKind } from './crosstab/kind';
import { forecastKind } from './forecast/kind';
import { frequencyKind } from './frequency/kind';
import { growthKind } from './growth/kind';
import { ledgerKind } from './ledger/kind';
import { lineKind } from './line/kind';
import { percentileKind } from './percentile/kind';
import { periodsKind } from './periods/kind';
import { rankingKind } from './ranking/kind';
import type { SimpleSpecs, SimpleTally } from './simpleSpecs';
import { spreadKind } from './spread/kind';

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
