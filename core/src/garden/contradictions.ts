/**
 * Settings of a water line that contradict each other: each names the two fields that disagree and the numbers, so that the screen can say how to resolve it.
 * What stands here cannot be saved from a form; a file or an earlier version may bring it, and then it is shown until it is put right.
 */
import { countedMl, doseS } from '../control/engine/dose.ts';
import { isMoistureLed } from '../control/engine/programs.ts';
import { isBetween } from '../control/hours.ts';
import { around, flowOf, noiseTenthsOf, soilThermometer, tankConfig } from './engineOf.ts';
import { plotParts, setWaterLine } from './edit.ts';
import type { Garden, WaterLine } from './schema.ts';
import type { GardenProgram } from './waterSchema.ts';

export type LineField =
  | 'dose'
  | 'fallback'
  | 'pulses'
  | 'soak'
  | 'rest'
  | 'interval'
  | 'slots'
  | 'leader'
  | 'maxRun'
  | 'dailyMax'
  | 'minInterval'
  | 'stale'
  | 'rise'
  | 'response'
  | 'hours'
  | 'dark'
  | 'air'
  | 'soilTemperature'
  | 'rain'
  | 'battery'
  | 'tank'
  | 'program';

export type Contradiction = {
  readonly kind:
    | 'dose-over-run'
    | 'dose-over-day'
    | 'pulses-over-day'
    | 'run-over-interval'
    | 'soak-under-interval'
    | 'soak-under-response'
    | 'rest-under-soak'
    | 'interval-under-interval'
    | 'slots-too-close'
    | 'slot-outside-hours'
    | 'no-hours'
    | 'stale-under-logging'
    | 'rise-under-noise'
    | 'leader-missing'
    | 'leader-follows'
    | 'leader-never-runs'
    | 'no-probe'
    | 'no-sensor'
    | 'tank-unread';
  /** The field that is at fault first, and the one it disagrees with. */
  readonly at: LineField;
  readonly against: LineField | 'logging' | 'noise' | 'probe' | 'sensor';
  /** What stands at both, in the unit of the fields. */
  readonly value: number;
  readonly limit: number;
};

export function contradictions(garden: Garden, line: WaterLine): readonly Contradiction[] {
  return [
    ...ofDoses(line),
    ...ofTimes(garden, line),
    ...ofSlots(line),
    ...ofLeader(garden, line),
    ...ofSensors(garden, line),
  ];
}

/** A contradiction, and the line that has it: a change to a leader may strike its followers. */
export type LineContradiction = Contradiction & { readonly line: WaterLine };

const ofGarden = (garden: Garden): readonly LineContradiction[] =>
  garden.waterLines.flatMap((line) => contradictions(garden, line).map((one) => ({ ...one, line })));

/** What a changed garden contradicts that it did not before, in any line: the reason to refuse the change. */
export function broughtIn(before: Garden, after: Garden): readonly LineContradiction[] {
  const keyOf = ({ line, kind, at }: LineContradiction) => `${line.id} ${kind} ${at}`;
  const old = new Set(ofGarden(before).map(keyOf));
  return ofGarden(after).filter((one) => !old.has(keyOf(one)));
}

/** What a change of one line would bring in. */
export const newContradictions = (
  garden: Garden,
  lineId: string,
  change: Partial<Omit<WaterLine, 'id'>>,
): readonly LineContradiction[] => broughtIn(garden, setWaterLine(garden, lineId, change));

const found = (
  isSo: boolean,
  kind: Contradiction['kind'],
  at: LineField,
  against: Contradiction['against'],
  value = 0,
  limit = 0,
): Contradiction[] => (isSo ? [{ kind, at, against, value, limit }] : []);

/** A single dose of the program, ml; null where the program has none. */
export function doseOf(program: GardenProgram): number | null {
  switch (program.kind) {
    case 'timer':
    case 'veto':
    case 'single-dose':
      return program.doseMl;
    case 'pulse-soak':
      return program.pulseMl;
    case 'until-wet':
      return program.capMl;
    default:
      return null;
  }
}

function ofDoses(line: WaterLine): Contradiction[] {
  const { program, maxRunS, dailyMaxMl } = line;
  const flow = flowOf(line);
  const one = (ml: number, field: LineField) => {
    const runS = doseS(flow, ml);
    return [
      ...found(runS > maxRunS, 'dose-over-run', field, 'maxRun', runS, maxRunS),
      ...found(
        countedMl(flow, runS) > dailyMaxMl && ml > dailyMaxMl,
        'dose-over-day',
        field,
        'dailyMax',
        ml,
        dailyMaxMl,
      ),
    ];
  };
  const dose = doseOf(program);
  const allMl = program.kind === 'pulse-soak' ? program.mostPulses * program.pulseMl : 0;
  return [
    ...(dose === null ? [] : one(dose, 'dose')),
    ...(line.fallbackMl === 0 ? [] : one(line.fallbackMl, 'fallback')),
    ...found(allMl > dailyMaxMl, 'pulses-over-day', 'pulses', 'dailyMax', allMl, dailyMaxMl),
  ];
}

function ofTimes(garden: Garden, line: WaterLine): Contradiction[] {
  const { program, minIntervalS, maxRunS, rise, staleAfterS } = line;
  const parts = plotParts(garden, line.plotId);
  const noise = parts?.fit ? Math.ceil(2 * noiseTenthsOf(parts.fit)) : 0;
  const goesByProbe = isMoistureLed(program.kind);
  return [
    ...found(maxRunS > minIntervalS, 'run-over-interval', 'maxRun', 'minInterval', maxRunS, minIntervalS),
    ...found(
      goesByProbe && staleAfterS < garden.logEveryS,
      'stale-under-logging',
      'stale',
      'logging',
      staleAfterS,
      garden.logEveryS,
    ),
    ...found(goesByProbe && rise.tenths < noise, 'rise-under-noise', 'rise', 'noise', rise.tenths, noise),
    ...(program.kind === 'pulse-soak'
      ? [
          ...found(
            program.soakS < minIntervalS,
            'soak-under-interval',
            'soak',
            'minInterval',
            program.soakS,
            minIntervalS,
          ),
          ...found(
            program.soakS < rise.responseS,
            'soak-under-response',
            'soak',
            'response',
            program.soakS,
            rise.responseS,
          ),
          ...found(
            program.restS < program.soakS,
            'rest-under-soak',
            'rest',
            'soak',
            program.restS,
            program.soakS,
          ),
        ]
      : []),
    ...(program.kind === 'single-dose'
      ? found(
          program.intervalS < minIntervalS,
          'interval-under-interval',
          'interval',
          'minInterval',
          program.intervalS,
          minIntervalS,
        )
      : []),
  ];
}

const DAY_MINUTES = 1440;

function ofSlots(line: WaterLine): Contradiction[] {
  const { program, conditions, minIntervalS } = line;
  const empty = conditions.hours && conditions.hours.fromMinute === conditions.hours.toMinute;
  const noHours = found(empty === true, 'no-hours', 'hours', 'hours');
  if (program.kind !== 'timer' && program.kind !== 'veto') return noHours;
  const sorted = [...program.slots].sort((a, b) => a.minute - b.minute);
  const gaps = sorted.flatMap((slot, at) => {
    const next = sorted[(at + 1) % sorted.length];
    // Two times on days that never meet are no neighbours.
    if (!next || next === slot || (slot.days & next.days) === 0) return [];
    return [(next.minute - slot.minute + DAY_MINUTES) % DAY_MINUTES];
  });
  const closest = Math.min(...gaps, Infinity) * 60;
  const { hours } = conditions;
  const outside =
    hours && !empty
      ? sorted.find((slot) => !isBetween(hours.fromMinute, hours.toMinute, slot.minute))
      : undefined;
  return [
    ...noHours,
    ...found(closest < minIntervalS, 'slots-too-close', 'slots', 'minInterval', closest, minIntervalS),
    ...(outside
      ? found(true, 'slot-outside-hours', 'slots', 'hours', outside.minute, hours?.fromMinute ?? 0)
      : []),
  ];
}

function ofLeader(garden: Garden, line: WaterLine): Contradiction[] {
  const { program } = line;
  if (program.kind !== 'follower') return [];
  const leader = garden.waterLines.find((one) => one.id === program.leaderId);
  if (!leader || leader.id === line.id || leader.boardId !== line.boardId)
    return found(true, 'leader-missing', 'leader', 'program');
  return [
    ...found(leader.program.kind === 'follower', 'leader-follows', 'leader', 'program'),
    ...found(leader.program.kind === 'alert-only', 'leader-never-runs', 'leader', 'program'),
  ];
}

/** Whatever a setting goes by must be measured. */
function ofSensors(garden: Garden, line: WaterLine): Contradiction[] {
  const { conditions, boardId } = line;
  const lacks = (isAsked: boolean, field: LineField, has: boolean) =>
    found(isAsked && !has, 'no-sensor', field, 'sensor');
  const probe = plotParts(garden, line.plotId)?.channel ?? null;
  const reservoir = garden.reservoirs.find((one) => one.id === line.tankId);
  const tank = reservoir && tankConfig(reservoir);
  return [
    ...found(isMoistureLed(line.program.kind) && !probe, 'no-probe', 'program', 'probe'),
    ...lacks(conditions.darkBelow !== null, 'dark', around(garden, boardId, 'light') !== null),
    ...lacks(conditions.airBelowC !== null, 'air', around(garden, boardId, 'air temperature') !== null),
    ...lacks(
      conditions.soilAboveC !== null,
      'soilTemperature',
      soilThermometer(garden, line.plotId) !== null,
    ),
    ...lacks(conditions.noRain, 'rain', around(garden, boardId, 'rain') !== null),
    ...lacks(
      conditions.batteryAboveV !== null,
      'battery',
      around(garden, boardId, 'battery voltage') !== null,
    ),
    ...found(tank !== undefined && tank.lowRaw > tank.highRaw, 'tank-unread', 'tank', 'sensor'),
  ];
}
