/** Which calibrations are due again: on their date, or because something they belong to has changed. */
import { byId } from '../../quantity/byId.ts';
import { calibrationOf, SUPPLY_V } from './decided.ts';
import type { Calibration, Channel, Garden } from '../document/schema.ts';

export type DueReason = 'date' | 'supply' | 'board' | 'depth' | 'soil' | 'guess';
export type Due = {
  readonly channel: Channel;
  readonly calibration: Calibration;
  readonly reason: DueReason;
  /** A date in the future is a reminder, everything else is due now. */
  readonly isNow: boolean;
};

const DEPTH_CM = 1;

/** Every calibration in use with what speaks for doing it again; those due now first, then by date. */
export function dueCalibrations(garden: Garden, nowMs: number): readonly Due[] {
  const found = garden.channels.flatMap((channel): Due[] => {
    const calibration = calibrationOf(garden, channel);
    if (!calibration) return [];
    const of = (reason: DueReason, isNow: boolean): Due => ({ channel, calibration, reason, isNow });
    const board = byId(garden.boards, channel.boardId);
    const probe = byId(garden.probes, channel.probeId);
    const plot = byId(garden.plots, probe?.plotId);
    const { place, recalibrateBy, guessOf } = calibration;
    return [
      ...(place.boardId !== channel.boardId ? [of('board', true)] : []),
      ...(board && Math.abs(board.supplyV - place.supplyV) > SUPPLY_V ? [of('supply', true)] : []),
      ...(probe && Math.abs(probe.depthCm - place.depthCm) > DEPTH_CM ? [of('depth', true)] : []),
      ...(plot && place.soil !== '' && plot.soil.name !== place.soil ? [of('soil', true)] : []),
      ...(guessOf !== null ? [of('guess', true)] : []),
      ...(recalibrateBy !== null ? [of('date', Date.parse(recalibrateBy) <= nowMs)] : []),
    ];
  });
  const when = (one: Due) => (one.isNow ? 0 : Date.parse(one.calibration.recalibrateBy ?? ''));
  return found.sort((a, b) => when(a) - when(b));
}
