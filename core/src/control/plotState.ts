import { bandAt, type BandEdges, type BandName } from '../quantity/bands.ts';

/** Why nothing is known of a plot's moisture. */
export const UNKNOWNS = [
  'no-probe',
  'no-reading',
  'stale',
  'implausible',
  'out-of-soil',
  'not-calibrated',
  'void',
] as const;
export type Unknown = (typeof UNKNOWNS)[number];

/** How a plot stands, as one word: its band, or why there is none. */
export type PlotState = BandName | Unknown;

export const isUnknown = (state: PlotState): state is Unknown =>
  (UNKNOWNS as readonly PlotState[]).includes(state);

/** What is known of a plot's leading probe. */
export type PlotKnowledge =
  | { readonly kind: 'no-probe' }
  | { readonly kind: 'no-reading' }
  | {
      readonly kind: 'reading';
      readonly rawCounts: number;
      readonly ageS: number;
      /** Moisture, tenths of a percent; null without a calibration. */
      readonly tenths: number | null;
      /** Its calibration belongs elsewhere or would be refused. */
      readonly isVoid: boolean;
      /** It reads what it reads in air. */
      readonly isInAir: boolean;
    };

/**
 * The word for a plot. Doubt comes before moisture: a reading that is old or at the rail has no band, however it converts.
 * @param rules.staleAfterS older readings say nothing about now, s
 */
export function plotState(
  known: PlotKnowledge,
  rules: { staleAfterS: number; lowCounts: number; highCounts: number; edges: BandEdges },
): PlotState {
  if (known.kind !== 'reading') return known.kind;
  if (!(known.ageS <= rules.staleAfterS)) return 'stale';
  if (!(known.rawCounts >= rules.lowCounts && known.rawCounts <= rules.highCounts)) return 'implausible';
  if (known.isVoid) return 'void';
  if (known.tenths === null) return 'not-calibrated';
  if (known.isInAir) return 'out-of-soil';
  return bandAt(rules.edges, known.tenths);
}
