/** What is so in a garden at one moment: for the lamp of each plot, and for the alerts. */
import type { Watched } from '../control/alerts.ts';
import { AROUND_STALE_S } from '../control/host/boardEngine.ts';
import { plotState } from '../control/plotState.ts';
import type { SignalFacts, SignalLimits } from '../control/signals.ts';
import { plausibleWindow } from '../electrics/converter.ts';
import { readCurve } from '../calibration/curve.ts';
import { volumeIn, reservoirOf } from '../dosing/reservoir.ts';
import { corrected } from '../temperature/correction.ts';
import { fullScaleOf } from './channels.ts';
import { dueCalibrations } from './dueCalibrations.ts';
import { calibrationMismatch, DEFAULT_STALE_S, plotParts, type PlotParts } from './edit.ts';
import { around, soilThermometer, tankConfig } from './engineOf.ts';
import type { Channel, Garden, Plot, Reservoir } from './schema.ts';

/** What was heard last. Times are ms since 1970. */
export type Heard = {
  readonly nowMs: number;
  readonly newest: (channelId: string) => { readonly raw: number; readonly timeMs: number } | null;
  /** Whether a line is locked; null while its engine is not heard. */
  readonly isLocked: (lineId: string) => boolean | null;
};

/** A board that prints nothing for so long is silent, s. */
const SILENT_S = 900;

/** A channel's corrected value, if it is young enough to mean now; null otherwise. */
export function valueNow(garden: Garden, channel: Channel | null, heard: Heard): number | null {
  const one = channel && heard.newest(channel.id);
  if (!channel || !one || heard.nowMs - one.timeMs > AROUND_STALE_S * 1000) return null;
  const value = corrected(channel.correction, one.raw, fullScaleOf(garden, channel));
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
  if (tank.kind === 'float') return { volumeMl: null, isLow: one.raw < 1 };
  const curve = reservoirOf(tank.levels);
  if (!curve.ok) return null;
  const volumeMl = volumeIn(curve.value, one.raw);
  return { volumeMl, isLow: volumeMl < tank.minimumMl };
}

const tenthsOf = (value: number | null): number | null => (value === null ? null : Math.round(value * 10));

/** Moisture to trust, tenths; null while there is none, and whether that is the probe's fault. */
function moistureOf(parts: PlotParts, heard: Heard): { tenths: number | null; isFaulty: boolean } {
  const one = parts.channel && heard.newest(parts.channel.id);
  if (!parts.channel || !parts.board || !one) return { tenths: null, isFaulty: false };
  const holds = parts.fit && !calibrationMismatch(parts);
  const tenths = holds ? Math.round(readCurve(parts.fit, one.raw).percent * 10) : null;
  const state = plotState(
    { kind: 'reading', rawCounts: one.raw, ageS: (heard.nowMs - one.timeMs) / 1000, tenths },
    {
      ...plausibleWindow(parts.board.adcBits),
      staleAfterS: parts.line?.staleAfterS ?? DEFAULT_STALE_S,
      edges: parts.plot.bandEdges,
    },
  );
  const isFaulty = state === 'implausible' || state === 'stale';
  return { tenths: isFaulty ? null : tenths, isFaulty };
}

export function signalFacts(garden: Garden, plotId: string, heard: Heard): SignalFacts | null {
  const parts = plotParts(garden, plotId);
  if (!parts) return null;
  const lines = garden.waterLines.filter((one) => one.plotId === plotId);
  const boardId = parts.board?.id ?? '';
  // The plot's own lines say what dark is, else those of any other plot.
  const darkBelow = [...lines, ...garden.waterLines].find((one) => one.conditions.darkBelow !== null)
    ?.conditions.darkBelow;
  const light = valueNow(garden, around(garden, boardId, 'light'), heard);
  return {
    ...moistureOf(parts, heard),
    isLocked: lines.some((one) => heard.isLocked(one.id) === true),
    isTankLow: garden.reservoirs.some(
      (tank) => lines.some((one) => one.tankId === tank.id) && tankNow(tank, heard)?.isLow === true,
    ),
    soilTenthsC: tenthsOf(valueNow(garden, soilThermometer(garden, plotId), heard)),
    airTenthsC: tenthsOf(valueNow(garden, around(garden, boardId, 'air temperature'), heard)),
    isDark: light === null || darkBelow == null ? null : light < darkBelow,
  };
}

/** Too dry is below the start limit, too wet is where the plot's word becomes "flooded". */
export const signalLimits = ({ limits, bandEdges, warmth }: Plot): SignalLimits => ({
  dryTenths: limits.startTenths,
  wetTenths: bandEdges[3],
  soilLowTenthsC: tenthsOf(warmth.soilLowC),
  soilHighTenthsC: tenthsOf(warmth.soilHighC),
  airLowTenthsC: tenthsOf(warmth.airLowC),
  airHighTenthsC: tenthsOf(warmth.airHighC),
});

/** Whether a plot is watered by a line that runs by itself, so that falling below the start limit is no news. */
const isWatered = (garden: Garden, plotId: string): boolean =>
  garden.waterLines.some(
    (one) => one.plotId === plotId && one.automatic && one.program.kind !== 'alert-only',
  );

/** Everything that alerts watch. Keys stay the same from one moment to the next. */
export function watchedOf(garden: Garden, heard: Heard): readonly Watched[] {
  return [
    ...garden.plots.flatMap((plot) => ofPlot(garden, plot, heard)),
    ...garden.boards.flatMap((board): Watched[] => {
      const heardMs = garden.channels
        .filter((one) => one.boardId === board.id)
        .flatMap((one) => heard.newest(one.id)?.timeMs ?? []);
      const lastMs = Math.max(...heardMs, -Infinity);
      const isSilent = heardMs.length === 0 ? null : heard.nowMs - lastMs > SILENT_S * 1000;
      const minimum = garden.waterLines.find(
        (one) => one.boardId === board.id && one.conditions.batteryAboveV !== null,
      );
      const volts = valueNow(garden, around(garden, board.id, 'battery voltage'), heard);
      return [
        { key: `silent-board ${board.id}`, kind: 'silent-board', subjectId: board.id, holds: isSilent },
        ...(minimum?.conditions.batteryAboveV == null
          ? []
          : [
              {
                key: `battery-low ${board.id}`,
                kind: 'battery-low' as const,
                subjectId: board.id,
                value: volts === null ? null : Math.round(volts * 1000),
                limit: Math.round(minimum.conditions.batteryAboveV * 1000),
                side: 'below' as const,
              },
            ]),
      ];
    }),
    ...garden.reservoirs.map((tank): Watched => ({
      key: `tank-low ${tank.id}`,
      kind: 'tank-low',
      subjectId: tank.id,
      holds: tankNow(tank, heard)?.isLow ?? null,
    })),
    ...garden.waterLines.map((line): Watched => ({
      key: `line-locked ${line.id}`,
      kind: 'line-locked',
      subjectId: line.id,
      holds: heard.isLocked(line.id),
    })),
    ...recalibrations(garden, heard.nowMs),
  ];
}

function recalibrations(garden: Garden, nowMs: number): Watched[] {
  const due = new Set(
    dueCalibrations(garden, nowMs)
      .filter((one) => one.isNow)
      .map((one) => one.channel.id),
  );
  return garden.channels
    .filter((one) => one.calibrationId !== null)
    .map((one) => ({
      key: `recalibrate ${one.id}`,
      kind: 'recalibrate',
      subjectId: one.id,
      holds: due.has(one.id),
    }));
}

function ofPlot(garden: Garden, plot: Plot, heard: Heard): Watched[] {
  const facts = signalFacts(garden, plot.id, heard);
  const parts = plotParts(garden, plot.id);
  if (!facts || !parts?.channel) return [];
  const limits = signalLimits(plot);
  const isBoardHeard = heard.newest(parts.channel.id) !== null;
  const about = (kind: Watched['kind'], rest: '' | ' air' = '') =>
    ({ key: `${kind}${rest} ${plot.id}`, kind, subjectId: plot.id }) as const;
  const warm = (
    kind: 'hot' | 'cold',
    rest: '' | ' air',
    value: number | null,
    limit: number | null,
  ): Watched[] =>
    limit === null ? [] : [{ ...about(kind, rest), value, limit, side: kind === 'hot' ? 'above' : 'below' }];
  return [
    {
      ...about('dry'),
      value: facts.tenths,
      limit: isWatered(garden, plot.id) ? plot.bandEdges[0] : plot.limits.startTenths,
      side: 'below',
    },
    // A word begins at its edge, an alert above its limit: a tenth apart.
    { ...about('wet'), value: facts.tenths, limit: limits.wetTenths - 1, side: 'above' },
    ...warm('hot', '', facts.soilTenthsC, limits.soilHighTenthsC),
    ...warm('hot', ' air', facts.airTenthsC, limits.airHighTenthsC),
    ...warm('cold', '', facts.soilTenthsC, limits.soilLowTenthsC),
    ...warm('cold', ' air', facts.airTenthsC, limits.airLowTenthsC),
    { ...about('probe-fault'), holds: isBoardHeard ? facts.isFaulty : null },
  ];
}
