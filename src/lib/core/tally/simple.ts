import { z } from 'zod';
import { conditionalKind } from './conditional/kind';
import { ConditionalSpec } from './conditional/spec';
import { crosstabKind } from './crosstab/kind';
import { CrosstabSpec } from './crosstab/spec';
import { forecastKind } from './forecast/kind';
import { ForecastSpec } from './forecast/spec';
import { frequencyKind } from './frequency/kind';
import { FrequencySpec } from './frequency/spec';
import { GrowthSpec, growthKind } from './growth/kind';
import type { TallyKind } from './kind';
import { LedgerAsk, ledgerKind } from './ledger/kind';
import { PercentileSpec, percentileKind } from './percentile/kind';
import { periodsKind } from './periods/kind';
import { PeriodsSpec } from './periods/spec';
import { rankingKind } from './ranking/kind';
import { RankingSpec } from './ranking/spec';
import { SpreadSpec, spreadKind } from './spread/kind';

/** Tallies of one list: those that others can be built on. One line each. */
export const SimpleTally = z.discriminatedUnion('kind', [
  LedgerAsk,
  CrosstabSpec,
  ConditionalSpec,
  FrequencySpec,
  SpreadSpec,
  PercentileSpec,
  RankingSpec,
  PeriodsSpec,
  GrowthSpec,
  ForecastSpec,
]);
export type SimpleTally = z.infer<typeof SimpleTally>;

const KINDS: { readonly [K in SimpleTally['kind']]: TallyKind<Extract<SimpleTally, { kind: K }>> } =
  {
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
  };

/** The kind of a tally; its functions take that very tally. */
export const simpleKind = (tally: SimpleTally): TallyKind<SimpleTally> =>
  KINDS[tally.kind] as unknown as TallyKind<SimpleTally>;
