/**
 * The engine's step: decides for one plot whether its water line runs and what its lamp shows.
 *
 * A pure reducer over whole numbers. Decisions rest on times, never on the number of calls, so a board that calls once a
 * second and a rehearsal that calls when something happens reach the same end. Here are the first program (threshold until wet)
 * and the first guards; whatever cannot be decided leaves the outputs off.
 */
import { tenthsFromTable, type BoardTable } from '../calibration/boardTable.ts';

export type EngineConfig = {
  readonly table: BoardTable;
  /** Water starts below this, tenths of a percent. */
  readonly startTenths: number;
  /** Water stops at or above this, tenths of a percent. */
  readonly stopTenths: number;
  /** Raw readings outside this window are implausible (shorted, open, unplugged), counts. */
  readonly lowCounts: number;
  readonly highCounts: number;
  /** A reading older than this counts for nothing, s. */
  readonly staleAfterS: number;
  /** Longest single run, s. */
  readonly maxRunS: number;
  /** Least time from one start to the next, s; after a reboot it counts from boot. */
  readonly minIntervalS: number;
  /** `alert`: no water line or switched off by the person; the lamp still answers. */
  readonly waters: 'automatic' | 'switched-off' | 'no-line';
};

/** Why the engine does what it does: one closed list for every start, stop and refusal. */
export const REASONS = [
  'below-start',
  'above-stop',
  'not-below-start',
  'max-run',
  'min-interval',
  'stale',
  'implausible',
  'no-reading',
  'switched-off',
  'no-line',
  'clock-went-back',
  'not-calibrated',
] as const;
export type Reason = (typeof REASONS)[number];

export type EngineState = {
  /** Time of the last step, s since boot. */
  readonly nowS: number;
  /** Start of the present run; null when the line is off. */
  readonly runningSinceS: number | null;
  /** Last start, s since boot. Boot itself counts as one: a board that reboots over and over must not water each time. */
  readonly lastStartS: number;
  readonly reading: EngineReading | null;
  readonly reason: Reason;
};

export type EngineReading = { readonly raw: number; readonly atS: number };

export type EngineInput = {
  /** Monotonic whole seconds since boot. */
  readonly nowS: number;
  /** A new reading, or null when none came since the last step. */
  readonly reading: EngineReading | null;
};

export type EngineOutputs = {
  readonly pumpOn: boolean;
  /** `on`: below the start limit. `blink`: no reading to trust. */
  readonly lamp: 'off' | 'on' | 'blink';
};

export type EngineEvent =
  | { readonly kind: 'started'; readonly atS: number; readonly reason: Reason; readonly tenths: number }
  | { readonly kind: 'stopped'; readonly atS: number; readonly reason: Reason; readonly ranS: number }
  | { readonly kind: 'held'; readonly atS: number; readonly reason: Reason };

export type EngineStep = {
  readonly state: EngineState;
  readonly outputs: EngineOutputs;
  readonly events: readonly EngineEvent[];
  /** The next time at which the engine must be called even if no reading comes; null when only a reading can change anything. */
  readonly callAgainAtS: number | null;
};

/** State at boot: outputs off, and the boot counts as the last start. */
export const initialEngine: EngineState = {
  nowS: 0,
  runningSinceS: null,
  lastStartS: 0,
  reading: null,
  reason: 'no-reading',
};

export function stepEngine(state: EngineState, input: EngineInput, config: EngineConfig): EngineStep {
  // Every comparison below is written so that a time or a reading that is no number ends with the outputs off.
  const clockWentBack = !(input.nowS >= state.nowS);
  // After a step back of the clock nothing held in the state can be compared with "now": begin again as after a boot.
  const known: EngineState = clockWentBack
    ? { ...initialEngine, runningSinceS: state.runningSinceS, lastStartS: input.nowS }
    : { ...state, reading: input.reading ?? state.reading };
  const trust = judge(known.reading, input.nowS, config);
  const decision: Decision = clockWentBack
    ? { on: false, reason: 'clock-went-back' }
    : decide(known, input.nowS, trust, config);
  return settle(state, known, decision, input.nowS, trust, config);
}

type Trust =
  | { readonly kind: 'trusted'; readonly tenths: number; readonly staleAtS: number }
  | { readonly kind: 'not'; readonly reason: 'no-reading' | 'stale' | 'implausible' };

function judge(reading: EngineReading | null, nowS: number, config: EngineConfig): Trust {
  if (!reading) return { kind: 'not', reason: 'no-reading' };
  if (!(nowS - reading.atS <= config.staleAfterS && reading.atS <= nowS))
    return { kind: 'not', reason: 'stale' };
  if (!(reading.raw >= config.lowCounts && reading.raw <= config.highCounts))
    return { kind: 'not', reason: 'implausible' };
  return {
    kind: 'trusted',
    tenths: tenthsFromTable(config.table, reading.raw),
    staleAtS: reading.atS + config.staleAfterS + 1,
  };
}

type Decision = { readonly on: boolean; readonly reason: Reason };

function decide(state: EngineState, nowS: number, trust: Trust, config: EngineConfig): Decision {
  const off = (reason: Reason): Decision => ({ on: false, reason });
  // Doubt comes first: a plot without a line also wants to know that its probe cannot be trusted.
  if (trust.kind === 'not') return off(trust.reason);
  if (config.waters !== 'automatic') return off(config.waters);
  if (state.runningSinceS !== null) {
    if (trust.tenths >= config.stopTenths) return off('above-stop');
    if (!(nowS - state.runningSinceS < config.maxRunS)) return off('max-run');
    return { on: true, reason: 'below-start' };
  }
  if (!(trust.tenths < config.startTenths)) return off('not-below-start');
  if (!(nowS - state.lastStartS >= config.minIntervalS)) return off('min-interval');
  return { on: true, reason: 'below-start' };
}

function settle(
  before: EngineState,
  known: EngineState,
  decision: Decision,
  nowS: number,
  trust: Trust,
  config: EngineConfig,
): EngineStep {
  const starts = decision.on && known.runningSinceS === null;
  const runningSinceS = decision.on ? (known.runningSinceS ?? nowS) : null;
  const lastStartS = starts ? nowS : known.lastStartS;
  const events: EngineEvent[] = [];
  if (starts && trust.kind === 'trusted')
    events.push({ kind: 'started', atS: nowS, reason: decision.reason, tenths: trust.tenths });
  if (!decision.on && before.runningSinceS !== null)
    events.push({
      kind: 'stopped',
      atS: nowS,
      reason: decision.reason,
      ranS: Math.max(0, nowS - before.runningSinceS),
    });
  else if (!decision.on && decision.reason !== before.reason)
    events.push({ kind: 'held', atS: nowS, reason: decision.reason });
  return {
    state: { nowS, runningSinceS, lastStartS, reading: known.reading, reason: decision.reason },
    outputs: { pumpOn: decision.on, lamp: lampOf(trust, config) },
    events,
    callAgainAtS: nextCall(decision, runningSinceS, lastStartS, trust, config),
  };
}

function lampOf(trust: Trust, config: EngineConfig): EngineOutputs['lamp'] {
  if (trust.kind === 'not') return 'blink';
  return trust.tenths < config.startTenths ? 'on' : 'off';
}

function nextCall(
  decision: Decision,
  runningSinceS: number | null,
  lastStartS: number,
  trust: Trust,
  config: EngineConfig,
): number | null {
  const due: number[] = trust.kind === 'trusted' ? [trust.staleAtS] : [];
  if (runningSinceS !== null) due.push(runningSinceS + config.maxRunS);
  if (decision.reason === 'min-interval') due.push(lastStartS + config.minIntervalS);
  return due.length > 0 ? Math.min(...due) : null;
}
