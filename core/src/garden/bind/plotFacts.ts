/** What is so in a garden at one moment: for the lamp of each plot, and for the alerts. */
import { AROUND_STALE_S } from '../../control/host/boardEngine.ts';
import type { Sense } from '../../control/conditions/conditions.ts';
import type { Unknown } from '../../control/plotState.ts';
import type { SignalFacts, SignalLimits } from '../../control/signals.ts';
import { volumeIn, reservoirOf } from '../../dosing/reservoir.ts';
import { byId } from '../../quantity/byId.ts';
import { plantGroup } from '../../plants/plantGroups.ts';
import { meantOf } from '../../temperature/correction.ts';
import { fullScaleOf } from './channels.ts';
import { decidedNow, unknownOf, type Dropped } from './decided.ts';
import { DEFAULT_STALE_S, plotParts, type PlotParts } from './plotParts.ts';
import { ambientOf, type Place } from './ambient.ts';
import { NOTHING_CHOSEN } from '../document/waterSchema.ts';
import { tankConfig } from './engineParts.ts';
import type { Channel, Garden, Plot, Reservoir, WaterLine } from '../document/schema.ts';

/** What was heard last. Times are ms since 1970. */
export type Heard = {
  readonly nowMs: number;
  readonly newest: (channelId: string) => { readonly raw: number; readonly timeMs: number } | null;
  /** Whether a line is locked; null while its engine is not heard. */
  readonly isLocked: (lineId: string) => boolean | null;
  /** Whether a line runs; missing where nobody hears of it. */
  readonly isOn?: (lineId: string) => boolean;
};

/** A channel's corrected value, if it is young enough to mean now; null otherwise. */
export function valueNow(garden: Garden, channel: Channel | null, heard: Heard): number | null {
  const one = channel && heard.newest(channel.id);
  if (!channel || !one || heard.nowMs - one.timeMs > AROUND_STALE_S * 1000) return null;
  const value = meantOf(channel, one.raw, fullScaleOf(garden, channel));
  return value !== null && Number.isFinite(value) ? value : null;
}

/** What a reservoir holds now, ml; for a float only whether it is above its minimum; null while nobody knows. */
export function tankNow(
  tank: Reservoir,
  heard: Heard,
): { readonly volumeMl: number | null; readonly isLow: boolean } | null {
  const one = tank.channelId === null ? null : heard.newest(tank.channelId);
  if (!one || heard.nowMs - one.timeMs > AROUND_STALE_S * 1000) return null;
  const { lowRaw, highRaw } = tankConfig(tank);
  if (!(one.raw >= lowRaw && one.raw <= highRaw)) return null;
  if (tank.kind === 'float') {
    const isHigh = one.raw >= tank.float.threshold;
    return { volumeMl: null, isLow: isHigh !== (tank.float.highIs === 'water') };
  }
  const curve = reservoirOf(tank.levels);
  if (!curve.ok) return null;
  const volumeMl = volumeIn(curve.value, one.raw);
  return { volumeMl, isLow: volumeMl < tank.minimumMl };
}

const tenthsOf = (value: number | null): number | null => (value === null ? null : Math.round(value * 10));

/** What decides a plot now, by the time after which its own line takes a reading for stale. */
export const decidedIn = (parts: PlotParts, heard: Heard) =>
  decidedNow(parts.garden, parts.plot, heard.newest, heard.nowMs, parts.line?.staleAfterS ?? DEFAULT_STALE_S);

const FAULTS: ReadonlySet<Dropped | null> = new Set(['silent', 'implausible']);

/** Moisture to trust, tenths; null while there is none, and whether that is a probe's fault; and whether one of several has dropped out by a fault. */
function moistureOf(
  parts: PlotParts,
  heard: Heard,
): {
  tenths: number | null;
  isFaulty: boolean;
  hasFault: boolean;
  isOutOfSoil: boolean;
  unknown: Unknown | null;
} {
  const { tenths, votes } = decidedIn(parts, heard);
  const hasFault = votes.some(({ dropped }) => FAULTS.has(dropped));
  const isOutOfSoil = votes.some(({ dropped }) => dropped === 'out of soil');
  const unknown = tenths === null ? unknownOf(votes) : null;
  return { tenths, isFaulty: tenths === null && (hasFault || isOutOfSoil), hasFault, isOutOfSoil, unknown };
}

/** Where a plot's surroundings are measured: as its first line says, else where its probe is read. */
const placeOf = ({ plot, board }: PlotParts, lines: readonly WaterLine[]): Place => ({
  boardId: lines[0]?.boardId ?? board?.id ?? '',
  plotId: plot.id,
  chosen: lines[0]?.around ?? NOTHING_CHOSEN,
});

/** A plot that waters from a reservoir of which nobody knows whether it still has water. */
const hasUnknownTank = (garden: Garden, lines: readonly WaterLine[], heard: Heard): boolean =>
  garden.reservoirs.some(
    (tank) => lines.some((one) => one.tankId === tank.id) && tankNow(tank, heard) === null,
  );

/** @returns also whether one of the plot's probes has dropped out by a fault or hangs in air, though the others still decide */
export function signalFacts(
  garden: Garden,
  plotId: string,
  heard: Heard,
): (SignalFacts & { readonly hasFault: boolean; readonly isOutOfSoil: boolean }) | null {
  const parts = plotParts(garden, plotId);
  if (!parts) return null;
  const lines = garden.waterLines.filter((one) => one.plotId === plotId);
  const place = placeOf(parts, lines);
  const told = (sense: Sense) => valueNow(garden, ambientOf(garden, place, sense), heard);
  const light = told('light');
  // Night is the board's; when a line may run by its own limit of light is another matter.
  const darkBelow = byId(garden.boards, place.boardId)?.watch.darkBelow ?? null;
  const moisture = moistureOf(parts, heard);
  return {
    ...moisture,
    unknown: moisture.unknown ?? (hasUnknownTank(garden, lines, heard) ? 'tank-unknown' : null),
    isLocked: lines.some((one) => heard.isLocked(one.id) === true),
    isWatering: lines.some((one) => heard.isOn?.(one.id) === true),
    isTankLow: garden.reservoirs.some(
      (tank) => lines.some((one) => one.tankId === tank.id) && tankNow(tank, heard)?.isLow === true,
    ),
    soilTenthsC: tenthsOf(told('soilTenthsC')),
    airTenthsC: tenthsOf(told('airTenthsC')),
    isDark: light === null || darkBelow === null ? null : light < darkBelow,
  };
}

/** A plant that stands in water is told nothing of it. */
const NEVER_TOO_WET = 1001;

/** A word that begins at the very end of the scale begins beyond it. */
const wetFrom = (edgeTenths: number): number => (edgeTenths < 1000 ? edgeTenths : NEVER_TOO_WET);

/** The lamp speaks the words of the plot: too dry is below "right", too wet is "flooded", or above a target range. */
export const signalLimits = ({ bandEdges, words, warmth, plantGroupId }: Plot): SignalLimits => ({
  dryTenths: bandEdges[1],
  wetTenths: plantGroup(plantGroupId)?.wetFeet ? NEVER_TOO_WET : wetFrom(bandEdges[words === 'five' ? 3 : 2]),
  soilLowTenthsC: tenthsOf(warmth.soilLowC),
  soilHighTenthsC: tenthsOf(warmth.soilHighC),
  airLowTenthsC: tenthsOf(warmth.airLowC),
  airHighTenthsC: tenthsOf(warmth.airHighC),
});
