import { z } from 'zod';
import { ContributionsSpec } from './contributions/spec';
import { ConditionalSpec } from './conditional/spec';
import { CrosstabSpec } from './crosstab/spec';
import { ForecastSpec } from './forecast/spec';
import { FrequencySpec } from './frequency/spec';
import { GrowthSpec } from './growth/spec';
import { LedgerSpec } from './ledger/spec';
import { LineSpec } from './line/spec';
import { PercentileSpec } from './percentile/spec';
import { PeriodsSpec } from './periods/spec';
import { RankingSpec } from './ranking/spec';
import { SpreadSpec } from './spread/spec';

/** Tallies of one list: those that others can be built on. */
export const SimpleTally = z.discriminatedUnion('kind', [
  LedgerSpec,
  CrosstabSpec,
  ConditionalSpec,
  FrequencySpec,
  SpreadSpec,
  PercentileSpec,
  RankingSpec,
  PeriodsSpec,
  GrowthSpec,
  ForecastSpec,
  LineSpec,
  ContributionsSpec,
]);
export type SimpleTally = z.infer<typeof SimpleTally>;

/** Specs by their kinds. */
export type SimpleSpecs = { [K in SimpleTally['kind']]: Extract<SimpleTally, { kind: K }> };
