import type { Component } from 'svelte';
import type { FigurePlace } from '../../core/tally/answer/result';
import type { Tally } from '../../core/tally/spec/specs';
import type { Row, Shape } from '../../engine/protocol';
import type { BenchState } from '../bench/bench.svelte';
import type { TallyPage } from '../bench/tallyFigures.svelte';
import type { Source, SourceTable } from './source';

/** What the view of a kind is drawn from. */
export interface ViewProps {
  readonly tally: Tally;
  readonly source: Source;
  readonly width: number;
  /** In small, on a card. */
  readonly small?: boolean;
  /** How it is drawn, where its kind knows several ways. */
  readonly drawn?: string | undefined;
  readonly chosen?: FigurePlace | null;
  readonly onopen?: ((place: FigurePlace) => void) | undefined;
  /** Opens a single record. */
  readonly onrecord?: ((record: number) => void) | undefined;
  /** Another spec: an edge or a percentile that was dragged. */
  readonly onchange?: ((label: string, tally: Tally) => void) | undefined;
}

/** The ways a kind's chart can be drawn: the first is the usual one. */
export type Ways = readonly { readonly value: string; readonly label: string }[];

/** What stands below a kind's tables. */
export interface BelowProps {
  readonly bench: BenchState;
  readonly tally: Tally;
}

/** What stands among the controls of a kind. */
export interface BesideProps {
  readonly bench: BenchState;
  readonly page: TallyPage | null;
}

/** A column whose figures are changes, drawn as steps to either side beside them. */
export interface Strip {
  readonly in: string;
}

export interface View {
  readonly load: () => Promise<{ readonly default: Component<ViewProps> }>;
  readonly ways?: Ways;
  /** What must be known of the column for it to be drawn in several ways; nothing unless given. */
  readonly waysNeed?: Shape['kind'];
  /** What the levels of its first table are called, from the outermost. */
  /** How strongly the cells of a table are shaded and to which side, from −1 to 1. */
  readonly shade?: (table: SourceTable) => ((row: Row, column: number) => number) | null;
  readonly strip?: Strip;
  readonly below?: () => Promise<{ readonly default: Component<BelowProps> }>;
  readonly beside?: () => Promise<{ readonly default: Component<BesideProps> }>;
  readonly levels?: (tally: Tally, names: ReadonlyMap<string, string>) => readonly string[];
}
