/** What belongs together: a plot with its probe, channel, board, calibration and water line. */
import { byId } from '../../quantity/byId.ts';
import type { Curve } from '../../calibration/curve.ts';
import { curveOf } from './curveOf.ts';
import type { Board, Calibration, Channel, Garden, Plot, Probe, Run, WaterLine } from '../document/schema.ts';

/** The calibration that a channel uses, or null. */
export const calibrationOf = (garden: Garden, channel: Channel): Calibration | null =>
  byId(garden.calibrations, channel.calibrationId) ?? null;

/** Everything that belongs to one plot's leading probe, found once. */
export type PlotParts = {
  readonly plot: Plot;
  readonly probe: Probe | null;
  readonly channel: Channel | null;
  readonly board: Board | null;
  readonly calibration: Calibration | null;
  /** The curve of the calibration in use. */
  readonly fit: Curve | null;
  readonly line: WaterLine | null;
};

/** A plot with its first probe, that probe's channel, board and calibration, and its water line; null for an unknown plot. */
export function plotParts(garden: Garden, plotId: string): PlotParts | null {
  const plot = byId(garden.plots, plotId);
  if (!plot) return null;
  const moistureOf = (probe: Probe) =>
    garden.channels.find((one) => one.probeId === probe.id && one.quantity === 'moisture');
  const probes = garden.probes.filter((one) => one.plotId === plotId);
  // A thermometer may stand before the probe that decides.
  const probe = probes.find(moistureOf) ?? probes[0] ?? null;
  const channel = (probe && moistureOf(probe)) ?? null;
  const board = byId(garden.boards, channel?.boardId) ?? null;
  const calibration = channel && calibrationOf(garden, channel);
  return {
    plot,
    probe,
    channel,
    board,
    calibration,
    fit: calibration && curveOf(calibration),
    line: garden.waterLines.find((one) => one.plotId === plotId) ?? null,
  };
}

/** A reading older than this says nothing about now when the plot has no water line of its own to say otherwise, s. */
export const DEFAULT_STALE_S = 900;

/** Supplies that differ by less are one, V. */
export const SUPPLY_V = 0.05;

/** A calibration belongs to a supply and a board; elsewhere it is void. Null when it fits, else what differs. */
export function calibrationMismatch(parts: PlotParts): 'supply' | 'board' | null {
  if (!parts.calibration || !parts.board) return null;
  const { boardId, supplyV } = parts.calibration.place;
  if (boardId !== parts.board.id) return 'board';
  return Math.abs(supplyV - parts.board.supplyV) > SUPPLY_V ? 'supply' : null;
}

export const runOf = (garden: Garden, channelId: string): Run | null =>
  garden.runs.find((one) => one.channelId === channelId) ?? null;
