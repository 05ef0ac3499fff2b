import type { Component } from 'svelte';
import type { FigurePlace } from '../../core/tally/result';
import type { Tally } from '../../core/tally/specs';
import type { Source } from './source';

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
  readonly onchange?: ((says: string, tally: Tally) => void) | undefined;
}

/** The ways a kind's chart can be drawn: the first is the usual one. */
export type Ways = readonly { readonly value: string; readonly label: string }[];

export interface View {
  readonly load: () => Promise<{ readonly default: Component<ViewProps> }>;
  readonly ways?: Ways;
  /** What the levels of its first table are called, from the outermost. */
  readonly levels?: (tally: Tally, names: ReadonlyMap<string, string>) => readonly string[];
}
