/**
 * Numbers that boards print and files of vectors hold, for reasons, kinds and states. Frozen: a number is never given to anything else, not even when its
 * word goes out of use; new ones are added at the end.
 */
import type { AlertKind } from './alerts.ts';
import { REASONS, type Reason } from './contract/reasons.ts';
import type { EngineEvent } from './contract/types.ts';
import type { ProgramKind } from './programs/programs.ts';
import type { SignalState } from './signals.ts';

export const PROGRAM_CODES: Readonly<Record<ProgramKind, number>> = {
  'alert-only': 0,
  timer: 1,
  'pulse-soak': 2,
  'until-wet': 3,
  'single-dose': 4,
  veto: 5,
  follower: 6,
};

export const SIGNAL_CODES: Readonly<Record<SignalState, number>> = {
  content: 0,
  locked: 1,
  'probe-fault': 2,
  'tank-low': 3,
  'too-cold': 4,
  'too-hot': 5,
  'too-dry': 6,
  'too-wet': 7,
  night: 8,
  unknown: 9,
  watering: 10,
};

export const ALERT_CODES: Readonly<Record<AlertKind, number>> = {
  dry: 0,
  wet: 1,
  hot: 2,
  cold: 3,
  'probe-fault': 4,
  'silent-board': 5,
  'tank-low': 6,
  'battery-low': 7,
  'line-locked': 8,
  recalibrate: 9,
  'out-of-soil': 10,
  'frozen-charge': 11,
};

export const EVENT_CODES: Readonly<Record<EngineEvent['kind'], number>> = {
  started: 0,
  stopped: 1,
  held: 2,
  refused: 3,
  locked: 4,
  unlocked: 5,
};

/** A reason's number is its place in the list. */
export const REASON_CODES = Object.fromEntries(REASONS.map((reason, at) => [reason, at])) as Readonly<
  Record<Reason, number>
>;
