/** A board's engine settings, made from the garden: what its sketch will carry, in whole numbers. */
import { remembered } from '../../quantity/remembered.ts';
import { byId } from '../../quantity/byId.ts';
import { percentPerCount, type Curve } from '../../calibration/curve.ts';
import { boundConditions, type Sense } from '../../control/conditions/conditions.ts';
import { recordOf } from '../../control/programs/programs.ts';
import type { LineConfig, SensorConfig, TankConfig } from '../../control/engine/settings.ts';
import { AROUND_STALE_S, type BoardEngine } from '../../control/host/boardEngine.ts';
import { rawAtVolume, reservoirOf } from '../../dosing/reservoir.ts';
import { ambientOf } from './ambient.ts';
import { NOTHING_CHOSEN } from '../document/waterSchema.ts';
import { combine, TENTHS_TABLE, type SensorSource } from '../../control/host/combined.ts';
import { fitOf, mismatchOf, speaksAlike } from './decided.ts';
import { plotParts, type PlotParts } from './plotParts.ts';
import { engineScale } from './scale.ts';
import type { Garden, Reservoir, WaterLine } from '../document/schema.ts';

/** A probe pulled out of its soil leaps by more than this at least, tenths; noise does so by six times itself. */
const LEAST_LEAP_TENTHS = 50;
const LEAP_NOISES = 6;
/** After a leap nothing starts for this long, s. */
export const LEAP_SETTLE_S = 600;
/** Only one line of a board runs at a time, so that the currents of two pumps never add up. */
const AT_ONCE = 1;

/** Noise of single readings in the middle of a calibration, tenths of a percent. */
export const noiseTenthsOf = (curve: Curve): number =>
  percentPerCount(curve, (curve.dryCounts + curve.wetCounts) / 2) * curve.noiseCounts * 10;

/** A line's flow as its engine reckons with it. */
export const flowOf = ({ flowMlPerS, tubeS }: Pick<WaterLine, 'flowMlPerS' | 'tubeS'>) => ({
  flowMlPerMin: Math.max(1, Math.round(flowMlPerS * 60)),
  tubeMs: Math.round(tubeS * 1000),
});

export function engineOf(garden: Garden, boardId: string): BoardEngine {
  const lines = garden.waterLines.filter((one) => one.boardId === boardId);
  const tanks = garden.reservoirs.filter((tank) => lines.some((one) => one.tankId === tank.id));
  const sensors: { source: SensorSource; config: SensorConfig }[] = [];
  const sensorOf = (line: WaterLine): number | null => {
    const parts = plotParts(garden, line.plotId);
    const sensor = parts && sensorOfPlot(parts, line);
    if (!sensor) return null;
    sensors.push(sensor);
    return sensors.length - 1;
  };
  const configs = lines.map((line): LineConfig => {
    const sensor = sensorOf(line);
    const limits = byId(garden.plots, line.plotId)?.limits ?? {
      startTenths: 0,
      stopTenths: 1000,
    };
    return {
      enabled: line.automatic,
      sensor,
      tank: line.tankId === null ? null : tanks.findIndex((one) => one.id === line.tankId),
      ...flowOf(line),
      program: recordOf(line.program.kind).bind(line.program, limits, (id) =>
        lines.findIndex((one) => one.id === id),
      ),
      fallbackMl: line.fallbackMl,
      conditions: boundConditions(line.conditions),
      guards: {
        maxRunS: line.maxRunS,
        dailyMaxMl: line.dailyMaxMl,
        minIntervalS: line.minIntervalS,
        riseTenths: line.rise.tenths,
        responseS: line.rise.responseS,
        noRiseTimes: line.rise.times,
      },
    };
  });
  return {
    boardId,
    config: {
      sensors: sensors.map((one) => one.config),
      tanks: tanks.map((one) => tankConfig(one)),
      lines: configs,
      atOnce: AT_ONCE,
    },
    lineIds: lines.map((one) => one.id),
    sensors: sensors.map((one) => one.source),
    tankChannelIds: tanks.map((one) => one.channelId),
    tankIds: tanks.map((one) => one.id),
    around: lines.map((line) => {
      const place = { boardId, plotId: line.plotId, chosen: line.around };
      const idOf = (sense: Sense) => ambientOf(garden, place, sense)?.id ?? null;
      return {
        airId: idOf('airTenthsC'),
        lightId: idOf('light'),
        rainId: idOf('rain'),
        soilId: idOf('soilTenthsC'),
      };
    }),
    batteryId: ambientOf(garden, { boardId, plotId: '', chosen: NOTHING_CHOSEN }, 'battery')?.id ?? null,
  };
}

/** Null while no probe of the plot has a calibration that holds here and now: then nothing that goes by it can be decided. */
function sensorOfPlot(
  { garden, deciders: { by, channels } }: PlotParts,
  line: WaterLine,
): { source: SensorSource; config: SensorConfig } | null {
  const usable = channels.flatMap((channel) => {
    const curve = mismatchOf(garden, channel) === null ? fitOf(garden, channel) : null;
    return curve ? [{ channel, curve, scale: engineScale(garden, channel, curve) }] : [];
  });
  const [first] = usable;
  // Of several only those that speak of one kind of percent can be put together; where they are too few, nothing is decided.
  const alike = usable.filter((one) =>
    speaksAlike(one.curve.percentKind, first?.curve.percentKind, one === first),
  );
  if (
    !first ||
    combine(by, [...alike.map(() => 0), ...channels.slice(alike.length).map(() => null)]) === null
  )
    return null;
  const noisiest = Math.max(...alike.map(({ curve }) => noiseTenthsOf(curve)));
  const common = {
    staleAfterS: line.staleAfterS,
    // A switch leaps from one end to the other as a matter of course.
    leapTenths:
      first.curve.percentKind === 'switch'
        ? 1001
        : Math.max(LEAST_LEAP_TENTHS, Math.ceil(LEAP_NOISES * noisiest)),
    settleS: LEAP_SETTLE_S,
  };
  const members = alike.map(({ channel, scale: { table, lowRaw, highRaw, factor } }) => ({
    channelId: channel.id,
    factor,
    table,
    lowRaw,
    highRaw,
  }));
  const { table, lowRaw, highRaw } = first.scale;
  return {
    source: { by, members },
    config:
      by === 'one'
        ? { table, lowRaw, highRaw, ...common }
        : { table: TENTHS_TABLE, lowRaw: 0, highRaw: 1000, ...common },
  };
}

/** A reservoir that is not fully described is unknown at every level, and its lines do not run. */
const UNKNOWN_TANK: TankConfig = {
  minimumRaw: 0,
  fallsWithWater: false,
  lowRaw: 1,
  highRaw: 0,
  staleAfterS: AROUND_STALE_S,
};
/** How far a level may lie beyond the known ones before it is taken for a fault, as a share of their span. */
const BEYOND_LEVELS = 0.3;

export const tankConfig = remembered((tank: Reservoir): TankConfig => {
  if (tank.channelId === null) return UNKNOWN_TANK;
  if (tank.kind === 'float')
    return { minimumRaw: 1, fallsWithWater: false, lowRaw: 0, highRaw: 1, staleAfterS: AROUND_STALE_S };
  const curve = reservoirOf(tank.levels);
  if (!curve.ok) return UNKNOWN_TANK;
  const { knots } = curve.value;
  const [first, last] = [knots[0], knots.at(-1)];
  if (!first || !last) return UNKNOWN_TANK;
  const falls = last.percent < first.percent;
  const beyond = BEYOND_LEVELS * (last.counts - first.counts);
  // To six decimals, so that halving does not push a whole number over its edge.
  const minimum = Math.round(1e6 * rawAtVolume(curve.value, tank.minimumMl)) / 1e6;
  return {
    // Rounded towards more water, so that the minimum is never undercut.
    minimumRaw: falls ? Math.floor(minimum) : Math.ceil(minimum),
    fallsWithWater: falls,
    lowRaw: Math.floor(first.counts - beyond),
    highRaw: Math.ceil(last.counts + beyond),
    staleAfterS: AROUND_STALE_S,
  };
});
