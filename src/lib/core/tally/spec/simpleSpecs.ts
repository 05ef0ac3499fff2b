import { z } from 'zod';
import { ContributionsSpec } from '../kinds/contributions/spec';
import { ConditionalSpec } from '../kinds/conditional/spec';
import { CrosstabSpec } from '../kinds/crosstab/spec';
import { ForecastSpec } from '../kinds/forecast/spec';
import { FrequencySpec } from '../kinds/frequency/spec';
import { GrowthSpec } from '../kinds/growth/spec';
import { LedgerSpec } from '../kinds/ledger/spec';
import { LineSpec } from '../kinds/line/spec';
import { PercentileSpec } from '../kinds/percentile/spec';
import { PeriodsSpec } from '../kinds/periods/spec';
import { RankingSpec } from '../kinds/ranking/spec';
import { SpreadSpec } from '../kinds/spread/spec';

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
