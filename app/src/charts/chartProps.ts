/** What a line over time shows. */
import type { BandName } from '@plain-trowel/core/quantity/bands';
import type { TracePoint } from '@plain-trowel/core/records/trace';

export type TimeChartProps = {
  /** What the picture shows, for those who cannot see it. */
  readonly label: string;
  readonly height: number;
  readonly timeZone: string;
  readonly fromMs: number;
  readonly toMs: number;
  readonly yMin: number;
  readonly yMax: number;
  readonly yUnit: string;
  readonly points: readonly TracePoint[];
  /** Further traces on the same scale, each dashed in its own way and named at its end. */
  readonly others?: readonly { readonly label: string; readonly points: readonly TracePoint[] }[];
  /** Drawn paler than the first trace: what is of lesser worth. */
  readonly pale?: readonly TracePoint[];
  /** The same, as points that nothing joins. */
  readonly dots?: readonly TracePoint[];
  /** Name of the first trace, where there are others. */
  readonly name?: string;
  readonly lines?: readonly {
    readonly at: number;
    readonly label: string;
    readonly side: 'above' | 'below';
  }[];
  readonly washes?: readonly { readonly from: number; readonly to: number; readonly band: BandName }[];
  /** Nights, shaded behind everything. */
  readonly nights?: readonly { readonly fromMs: number; readonly toMs: number }[];
  readonly marks?: readonly { readonly atMs: number; readonly label: string }[];
  /** Under somebody’s hand: it follows at once. */
  readonly quick?: boolean;
  /** Changes when the sheet turns from day to night, so that the inks are read again. */
  readonly tone: string;
};
