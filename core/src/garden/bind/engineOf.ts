/** A board's engine settings, made from the garden: what its sketch will carry, in whole numbers. */
import { byId } from '../../quantity/byId.ts';
import { boundConditions, type Sense } from '../../control/conditions/conditions.ts';
import { recordOf } from '../../control/programs/programs.ts';
import type { LineConfig, SensorConfig } from '../../control/engine/settings.ts';
import type { AroundIds, BoardEngine } from '../../control/host/boardEngine.ts';
import { ambientOf } from './ambient.ts';
import { NOTHING_CHOSEN } from '../document/waterSchema.ts';
import { combine, TENTHS_TABLE, type SensorSource } from '../../control/host/combined.ts';
import { fitOf, mismatchOf, soilWindow, speaksAlike } from './decided.ts';
import { contactConfig } from './contacts.ts';
import { contradictions } from './contradictions.ts';
import { flowOf, noiseTenthsOf, tankConfig } from './engineParts.ts';
import { plotParts, type PlotParts } from './plotParts.ts';
import { engineScale } from './scale.ts';
import type { Garden, WaterLine } from '../document/schema.ts';

/** A probe pulled out of its soil leaps by more than this at least, tenths; noise does so by six times itself. */
const LEAST_LEAP_TENTHS = 50;
const LEAP_NOISES = 6;
/** After a leap nothing starts for this long, s. */
export const LEAP_SETTLE_S = 600;
/** Only one line of a board runs at a time, so that the currents of two pumps never add up. */
const AT_ONCE = 1;

export function engineOf(garden: Garden, boardId: string): BoardEngine {
  const lines = garden.waterLines.filter((one) => one.boardId === boardId);
  const tanks = garden.reservoirs.filter((tank) => lines.some((one) => one.tankId === tank.id));
  const sensors: { source: SensorSource; config: SensorConfig }[] = [];
  const contacts = garden.contacts.filter((one) => one.boardId === boardId);
  const sensorOf = (of: { readonly plotId: string; readonly staleAfterS: number }): number | null => {
    const parts = plotParts(garden, of.plotId);
    const sensor = parts && sensorOfPlot(parts, of.staleAfterS);
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
      contradicts: contradictions(garden, line).length > 0,
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
        provesBelowTenths: limits.stopTenths,
      },
    };
  });
  const contactConfigs = contacts.map((one) =>
    contactConfig(garden, one, one.rule.kind === 'permit' ? sensorOf(one) : null),
  );
  const aroundOf = (of: Pick<WaterLine, 'plotId' | 'around'>): AroundIds => {
    const place = { boardId, plotId: of.plotId, chosen: of.around };
    const idOf = (sense: Sense) => ambientOf(garden, place, sense)?.id ?? null;
    return {
      airId: idOf('airTenthsC'),
      lightId: idOf('light'),
      rainId: idOf('rain'),
      soilId: idOf('soilTenthsC'),
      skipId: idOf('skip'),
    };
  };
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
    around: lines.map(aroundOf),
    batteryId: ambientOf(garden, { boardId, plotId: '', chosen: NOTHING_CHOSEN }, 'battery')?.id ?? null,
    contacts: contactConfigs,
    contactIds: contacts.map((one) => one.id),
    contactsAround: contacts.map(aroundOf),
  };
}

/** Null while no probe of the plot has a calibration that holds here and now: then nothing that goes by it can be decided. */
export function sensorOfPlot(
  { garden, deciders: { by, channels } }: PlotParts,
  staleAfterS: number,
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
    staleAfterS,
    // A switch leaps from one end to the other as a matter of course.
    leapTenths:
      first.curve.percentKind === 'switch'
        ? 1001
        : Math.max(LEAST_LEAP_TENTHS, Math.ceil(LEAP_NOISES * noisiest)),
    settleS: LEAP_SETTLE_S,
  };
  const members = alike.map(({ channel, scale: { table, lowRaw, highRaw, factor } }) => {
    const soil = soilWindow(garden, channel);
    // One of several that hangs in air drops out like one at the rail.
    return {
      channelId: channel.id,
      factor,
      table,
      lowRaw: Math.max(lowRaw, soil.lowRaw),
      highRaw: Math.min(highRaw, soil.highRaw),
    };
  });
  const { table, lowRaw, highRaw } = first.scale;
  const soil = soilWindow(garden, first.channel);
  return {
    source: { by, members },
    config:
      by === 'one'
        ? { table, lowRaw, highRaw, soilLowRaw: soil.lowRaw, soilHighRaw: soil.highRaw, ...common }
        : {
            table: TENTHS_TABLE,
            lowRaw: 0,
            highRaw: 1000,
            soilLowRaw: 0,
            soilHighRaw: 1000,
            ...common,
          },
  };
}
