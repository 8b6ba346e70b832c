/** Settings and worlds that the engine's tests start from. */
import { bootEngine, stepEngine } from './engine.ts';
import type { Program } from '../programs/programs.ts';
import type { Conditions } from '../conditions/conditions.ts';
import type { EngineConfig, Guards, LineConfig, SensorConfig } from './settings.ts';
import type { EngineEvent, EngineInput, EngineState } from '../contract/types.ts';

/** Raw 3000 is 0 %, raw 1000 is 100 %: 20 counts a percent. */
export const SENSOR: SensorConfig = {
  table: [
    { raw: 1000, tenths: 1000 },
    { raw: 3000, tenths: 0 },
  ],
  lowRaw: 20,
  highRaw: 4075,
  soilLowRaw: 20,
  soilHighRaw: 4075,
  staleAfterS: 30,
  leapTenths: 1000,
  settleS: 600,
};
export const rawOf = (tenths: number): number => 3000 - 2 * tenths;
export const DRY = 250;
export const MIDDLE = 400;
export const WET = 605;

export const NO_CONDITIONS: Conditions = {
  hours: null,
  darkBelow: null,
  airBelowTenthsC: null,
  soilAboveTenthsC: null,
  noRain: false,
  batteryAboveMv: null,
  noSkip: false,
};
export const GUARDS: Guards = {
  maxRunS: 20,
  dailyMaxMl: 5000,
  minIntervalS: 600,
  riseTenths: 20,
  responseS: 900,
  noRiseTimes: 3,
  provesBelowTenths: 1000,
};
/** Starts below 30 %, stops at 60 %. */
export const UNTIL_WET: Program = { kind: 'until-wet', startTenths: 300, stopTenths: 600, capMl: 1000 };

/** Ten ml a second, no tube to fill. */
export const LINE: LineConfig = {
  enabled: true,
  contradicts: false,
  sensor: 0,
  tank: null,
  flowMlPerMin: 600,
  tubeMs: 0,
  program: UNTIL_WET,
  fallbackMl: 0,
  conditions: NO_CONDITIONS,
  guards: GUARDS,
};

export const configOf = (line: Partial<LineConfig> = {}, rest: Partial<EngineConfig> = {}): EngineConfig => ({
  sensors: [SENSOR],
  tanks: [],
  lines: [{ ...LINE, ...line }],
  atOnce: 1,
  ...rest,
});

/** Nothing read, nothing ordered, nothing known. */
export const inputAt = (nowS: number, change: Partial<EngineInput> = {}): EngineInput => ({
  nowS,
  sensors: [null],
  tanks: [],
  clock: null,
  around: [],
  batteryMv: null,
  orders: [],
  ...change,
});

/** A fresh reading of the first probe. */
export const reads = (nowS: number, tenths: number, change: Partial<EngineInput> = {}): EngineInput =>
  inputAt(nowS, { sensors: [{ raw: rawOf(tenths), atS: nowS }], ...change });

/** Feeds the inputs in order and gives every step's result. States are frozen: a step that changed one would throw. */
export function run(
  inputs: readonly EngineInput[],
  config: EngineConfig = configOf(),
  from: EngineState = bootEngine(config),
) {
  let state = from;
  return inputs.map((input) => {
    const result = stepEngine(deepFrozen(state), input, config);
    state = result.state;
    return result;
  });
}

const deepFrozen = <T>(value: T): T => {
  if (typeof value === 'object' && value !== null && !Object.isFrozen(value)) {
    Object.freeze(value);
    Object.values(value).forEach(deepFrozen);
  }
  return value;
};

/** Calls the engine every second from one time to another, the probe reading what is asked for. */
export function seconds(
  config: EngineConfig,
  fromS: number,
  toS: number,
  tenthsAt: (nowS: number) => number,
  more: (nowS: number) => Partial<EngineInput> = () => ({}),
  from: EngineState = bootEngine(config),
): { readonly events: readonly EngineEvent[]; readonly state: EngineState } {
  let state = from;
  const events: EngineEvent[] = [];
  for (let nowS = fromS; nowS <= toS; nowS += 1) {
    const result = stepEngine(state, reads(nowS, tenthsAt(nowS), more(nowS)), config);
    state = result.state;
    events.push(...result.events);
  }
  return { events, state };
}

/** Events as one line each: "600 started below-start", without what only tells why nothing runs. */
export const told = (events: readonly EngineEvent[]): string[] =>
  events
    .filter((event) => event.kind !== 'held')
    .map((event) => `${event.atS} ${event.kind} ${event.reason}`);
