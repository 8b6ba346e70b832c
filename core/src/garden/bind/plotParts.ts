/** What belongs together: a plot with its probe, channel, board, calibration and water line. */
import { byId } from '../../quantity/byId.ts';
import type { Curve } from '../../calibration/curve.ts';
import type { DecidedBy } from '../../control/host/combined.ts';
import { calibrationOf, candidatesOf, decidersOf, fitOf, mismatchOf, type Void } from './decided.ts';
import type { Board, Calibration, Channel, Garden, Plot, Probe, Run, WaterLine } from '../document/schema.ts';

/** Everything that belongs to one plot's leading probe, found once. */
export type PlotParts = {
  readonly garden: Garden;
  readonly plot: Plot;
  readonly probe: Probe | null;
  readonly channel: Channel | null;
  readonly board: Board | null;
  readonly calibration: Calibration | null;
  /** The curve of the calibration in use; of a probe with a scale of its own what that says, while it has none. */
  readonly fit: Curve | null;
  readonly line: WaterLine | null;
  /** What decides the plot: the leading probe alone, or several together. */
  readonly deciders: { readonly by: DecidedBy; readonly channels: readonly Channel[] };
};

/**
 * A plot with the probe that leads it, that probe's channel, board and calibration, and its water line; null for an unknown plot.
 * @param channelId another of its probes' channels that the sheet is about
 */
export function plotParts(garden: Garden, plotId: string, channelId?: string | null): PlotParts | null {
  const plot = byId(garden.plots, plotId);
  if (!plot) return null;
  const deciders = decidersOf(garden, plot);
  const channel =
    candidatesOf(garden, plotId).find((one) => one.id === channelId) ?? deciders.channels[0] ?? null;
  const probe =
    byId(garden.probes, channel?.probeId) ?? garden.probes.find((one) => one.plotId === plotId) ?? null;
  const board = byId(garden.boards, channel?.boardId) ?? null;
  return {
    garden,
    plot,
    probe,
    channel,
    board,
    calibration: channel && calibrationOf(garden, channel),
    fit: channel && fitOf(garden, channel),
    line: garden.waterLines.find((one) => one.plotId === plotId) ?? null,
    deciders,
  };
}

/** A reading older than this says nothing about now when the plot has no water line of its own to say otherwise, s. */
export const DEFAULT_STALE_S = 900;

/** Why the calibration of a sheet's channel is void; null when it holds. */
export const calibrationMismatch = ({ garden, channel }: PlotParts): Void | null =>
  channel && mismatchOf(garden, channel);

export const runOf = (garden: Garden, channelId: string): Run | null =>
  garden.runs.find((one) => one.channelId === channelId) ?? null;
