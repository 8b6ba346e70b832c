/**
 * Settings of a water line that contradict each other: each names the two fields that disagree and the numbers, so that the screen can say how to resolve it.
 * What contradicts is kept, for two settings may have to change, and its line waters nothing by itself until it is solved (`engineOf`), wherever it came from.
 */
import { byId } from '../../quantity/byId.ts';
import { countedMl, doseS } from '../../control/contract/dose.ts';
import { sensesOfConditions } from '../../control/conditions/conditions.ts';
import { found, type Contradiction, type LineField } from '../../control/programs/contradiction.ts';
import { recordOf, usesProbe, type SavedProgram } from '../../control/programs/programs.ts';
import { contactContradictions } from './contacts.ts';
import { limitContradictions } from './limitContradictions.ts';
import { ambientChoices, ambientOf } from './ambient.ts';
import { flowOf, noiseTenthsOf, tankConfig } from './engineParts.ts';
import { plotParts } from './plotParts.ts';
import type { Garden, WaterLine } from '../document/schema.ts';

export function contradictions(garden: Garden, line: WaterLine): readonly Contradiction[] {
  return [
    ...ofDoses(line),
    ...ofTimes(garden, line),
    ...ofHours(line),
    ...ofProgram(garden, line),
    ...ofSensors(garden, line),
    ...limitContradictions(usesProbe(line.program.kind) ? plotParts(garden, line.plotId) : null),
  ];
}

/** A contradiction, and the line or contact that has it: a change to a leader may strike its followers. */
export type OwnedContradiction = Contradiction & {
  readonly owner: { readonly is: 'line' | 'contact'; readonly id: string; readonly name: string };
};

const ofGarden = (garden: Garden): readonly OwnedContradiction[] => [
  ...garden.waterLines.flatMap((line) =>
    contradictions(garden, line).map((one) => ({
      ...one,
      owner: { is: 'line' as const, id: line.id, name: line.name },
    })),
  ),
  ...garden.contacts.flatMap((contact) =>
    contactContradictions(garden, contact).map((one) => ({
      ...one,
      owner: { is: 'contact' as const, id: contact.id, name: contact.name },
    })),
  ),
];

/** What a changed garden contradicts that it did not before, in any line or contact. */
export function broughtIn(before: Garden, after: Garden): readonly OwnedContradiction[] {
  const keyOf = ({ owner, kind, at }: OwnedContradiction) => `${owner.id} ${kind} ${at}`;
  const old = new Set(ofGarden(before).map(keyOf));
  return ofGarden(after).filter((one) => !old.has(keyOf(one)));
}

/** A single dose of the program, ml; null where the program has none. */
export const doseOf = (program: SavedProgram): number | null => recordOf(program.kind).doseMl(program);

/** What a program contradicts by its own times and volumes. */
function ofProgram(garden: Garden, line: WaterLine): readonly Contradiction[] {
  const { program, minIntervalS, dailyMaxMl, rise, conditions } = line;
  const beside = garden.waterLines.filter((one) => one.id !== line.id && one.boardId === line.boardId);
  const settings = { minIntervalS, dailyMaxMl, responseS: rise.responseS, hours: conditions.hours };
  const programOf = (id: string) => byId(beside, id)?.program.kind ?? null;
  return recordOf(program.kind).contradictions?.(program, { ...settings, programOf }) ?? [];
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
  return [
    ...(dose === null ? [] : one(dose, 'dose')),
    // Only what goes by a probe has a dose for a faulty one.
    ...(line.fallbackMl === 0 || !usesProbe(program.kind) ? [] : one(line.fallbackMl, 'fallback')),
  ];
}

function ofTimes(garden: Garden, line: WaterLine): Contradiction[] {
  const { program, minIntervalS, maxRunS, rise, staleAfterS } = line;
  const parts = plotParts(garden, line.plotId);
  const noise = parts?.fit ? Math.ceil(2 * noiseTenthsOf(parts.fit)) : 0;
  const goesByProbe = usesProbe(program.kind);
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
    ...found(goesByProbe && rise.tenths < noise, 'rise-under-noise', 'rise', 'noise', rise.tenths, noise).map(
      (one) => (parts?.fit ? { ...one, percentKind: parts.fit.percentKind } : one),
    ),
  ];
}

/** Conditions are of automatic starts: a program that only alerts has none. */
const hasConditions = ({ program }: WaterLine): boolean => program.kind !== 'alert-only';

function ofHours(line: WaterLine): Contradiction[] {
  const { hours } = line.conditions;
  if (!hasConditions(line)) return [];
  return found(hours !== null && hours.fromMinute === hours.toMinute, 'no-hours', 'hours', 'hours');
}

/** Lines that had a reservoir to watch and have none after a change: nothing stops them when it is empty. */
export const tanksLost = (before: Garden, after: Garden): readonly WaterLine[] =>
  after.waterLines.filter(
    (line) => line.tankId === null && (byId(before.waterLines, line.id)?.tankId ?? null) !== null,
  );

/** What a day may ask of a line beside what it allows, ml; null for a program that asks for nothing by itself. */
export function dayBudget(
  garden: Garden,
  line: WaterLine,
): { readonly askedMl: number; readonly allowedMl: number; readonly wholeRuns: number } | null {
  const { program, dailyMaxMl, minIntervalS, conditions, rise } = line;
  const dose = doseOf(program);
  const runs = recordOf(program.kind).runsADay?.(program, {
    minIntervalS,
    dailyMaxMl,
    responseS: rise.responseS,
    hours: conditions.hours,
    programOf: (id) => byId(garden.waterLines, id)?.program.kind ?? null,
  });
  if (runs === undefined || dose === null) return null;
  const flow = flowOf(line);
  const runS = doseS(flow, dose);
  // A dose longer than the maximum run is cut each time.
  const wholeRuns = runS > line.maxRunS ? 0 : Math.floor(dailyMaxMl / countedMl(flow, runS));
  return { askedMl: runs * dose, allowedMl: dailyMaxMl, wholeRuns };
}

/** Whatever a setting goes by must be measured. */
function ofSensors(garden: Garden, line: WaterLine): Contradiction[] {
  const place = { boardId: line.boardId, plotId: line.plotId, chosen: line.around };
  const probe = plotParts(garden, line.plotId)?.channel ?? null;
  const reservoir = byId(garden.reservoirs, line.tankId);
  const tank = reservoir && tankConfig(reservoir);
  const asked = hasConditions(line) ? sensesOfConditions(line.conditions) : [];
  const unheard = asked.flatMap(({ field, sense }) => {
    if (ambientOf(garden, place, sense)) return [];
    const near = ambientChoices(garden, place, sense).length;
    return found(true, near > 1 ? 'which-sensor' : 'no-sensor', field, 'sensor', near);
  });
  return [
    ...found(usesProbe(line.program.kind) && !probe, 'no-probe', 'program', 'probe'),
    ...unheard,
    ...found(tank !== undefined && tank.lowRaw > tank.highRaw, 'tank-unread', 'tank', 'sensor'),
  ];
}
