/**
 * The engine's step: decides for every water line of a board whether it runs, and says why.
 *
 * A pure reducer over whole numbers; a board's sketch computes the same in C++ and MicroPython. Decisions rest on times, never on the number of calls, so
 * a board that calls once a second and a rehearsal that calls when something happens reach the same end; `callAgainAtS` says when that must be.
 *
 * What comes in is cut off at the border where it cannot be (`border.ts`). Guards, which no setting switches off: (1) outputs are off at boot and whenever the clock makes no sense; (2) a run ends at the maximum run, a rolling
 * day never gets more than its maximum; (3) the minimum interval counts from the last start, and from boot; (4) nothing runs while a reservoir is low or
 * unknown; (5) nothing starts on a reading that is stale, implausible or unsettled; (6) doses that raise nothing lock the line; (7) an order by hand
 * obeys 1, 2, 4 and 6 too.
 */
import { unmetCondition } from '../conditions/conditions.ts';
import { countedMl, doseS, givenMl } from '../contract/dose.ts';
import { recordOf, usesProbe } from '../programs/programs.ts';
import type { Sight, Wish } from '../programs/record.ts';
import { DAY_S } from '../programs/settings.ts';
import { newRation, rationAt } from './ration.ts';
import { follows, isSoundOrder, soundInput, soundLines, soundMemory } from './border.ts';
import type { Reason } from '../contract/reasons.ts';
import { doubt, isUnsettled, nextSensor, tankTrouble } from './trust.ts';
import type { EngineConfig, LineConfig } from './settings.ts';
import type {
  EngineEvent,
  EngineInput,
  EngineState,
  EngineStep,
  LineState,
  Order,
  Remembered,
  RememberedLine,
  Run,
} from '../contract/types.ts';
import { FAULTY_S, wakeS } from './wake.ts';

/** State at boot: every output off, boot counts as a start. @param remembered what the board kept through the reboot */
export function bootEngine(config: EngineConfig, remembered: Remembered = [], nowS = 0): EngineState {
  return {
    nowS,
    sensors: config.sensors.map(() => null),
    tanks: config.tanks.map(() => null),
    lines: config.lines.map((line, at) => bootLine(nowS, soundMemory(remembered[at], line), line)),
  };
}

/** A round that was under way waits and rests from boot on, and so does a dose whose rise was watched for: no reboot brings water earlier. */
const bootLine = (nowS: number, kept: RememberedLine, { guards }: LineConfig): LineState => ({
  run: null,
  lastStartS: nowS,
  lastStopS: kept.pulses > 0 ? nowS : null,
  ration: newRation(nowS, kept.hoursMl),
  pulses: kept.pulses,
  served: [],
  watch: kept.watchTenths === null ? null : { fromTenths: kept.watchTenths, untilS: nowS + guards.responseS },
  noRise: kept.noRise,
  locked: kept.locked,
  runs: 0,
  lastRanS: 0,
  seenRuns: 0,
  owes: null,
  faultyS: null,
  reason: 'no-reading',
});

/**
 * What a board must keep, so that a reboot neither unlocks a line nor begins a new day. A run under way counts with all that it may still give, and as one that
 * was watched for its rise: nothing may be lost between two times of writing, and no reboot brings the next start earlier.
 */
export const rememberedOf = (state: EngineState, config: EngineConfig): Remembered =>
  state.lines.map(({ ration, run, locked, noRise, pulses, watch }, at) => {
    const line = config.lines[at];
    const mayStillMl =
      run && line
        ? countedMl(line, Math.min(run.plannedS, run.mostS, line.guards.maxRunS)) -
          countedMl(line, state.nowS - run.sinceS)
        : 0;
    const [newest = 0, ...older] = ration.ml;
    return {
      hoursMl: [newest + Math.max(0, mayStillMl), ...older],
      locked,
      noRise,
      pulses,
      watchTenths: watch?.fromTenths ?? (run && line ? provesFrom(run, line) : null),
    };
  });

/** Whether anything that a board keeps of a line is other than it was, apart from what a run under way has been counted with from its start. */
const mustWrite = (before: LineState, after: LineState): boolean =>
  (before.run === null) !== (after.run === null) ||
  before.run?.sinceS !== after.run?.sinceS ||
  before.locked !== after.locked ||
  before.noRise !== after.noRise ||
  before.pulses !== after.pulses ||
  before.watch?.fromTenths !== after.watch?.fromTenths ||
  (before.ration.hour !== after.ration.hour && after.ration.sumMl > 0);

export function stepEngine(state: EngineState, told: EngineInput, config: EngineConfig): EngineStep {
  if (!follows(told.nowS, state.nowS)) return afterClockWentWrong(state, told, config);
  const input = soundInput(told);
  const { nowS } = input;
  const sensors = config.sensors.map((one, at) =>
    nextSensor(state.sensors[at] ?? null, input.sensors[at] ?? null, one),
  );
  const tanks = config.tanks.map((_, at) => {
    const read = input.tanks[at];
    return read ? { raw: read.raw, atS: read.atS } : (state.tanks[at] ?? null);
  });
  const events: EngineEvent[] = [];
  const lines = state.lines.slice();
  const known: EngineState = { nowS, sensors, tanks, lines };
  const on: boolean[] = [];
  const sound = soundLines(config);
  let callAgainAtS: number | null = null;
  let write = false;
  for (let at = 0; at < config.lines.length; at += 1) {
    const line = lines[at];
    const settings = config.lines[at];
    if (!line || !settings) continue;
    if (sound[at] !== true) {
      // Numbers that cannot be gone by decide nothing, not even when to look again.
      const off = unsoundLine(at, line, nowS, events);
      write ||= mustWrite(line, off);
      lines[at] = off;
      on.push(false);
      continue;
    }
    const next = stepLine(turnOf(at, settings, line, state.nowS, known, input, config, events));
    lines[at] = next;
    write ||= mustWrite(line, next);
    on.push(next.run !== null);
    const sensor = settings.sensor === null ? null : (sensors[settings.sensor] ?? null);
    // A run that has just ended makes room for the next decision.
    const wake = next.run || line.run ? nowS + 1 : wakeS(next, settings, sensor, input, config);
    if (wake !== null && (callAgainAtS === null || wake < callAgainAtS)) callAgainAtS = wake;
  }
  return { state: known, on, events, callAgainAtS, write };
}

function unsoundLine(at: number, line: LineState, nowS: number, events: EngineEvent[]): LineState {
  const reason: Reason = 'unsound-settings';
  if (line.run)
    events.push({ kind: 'stopped', line: at, atS: nowS, reason, ranS: nowS - line.run.sinceS, volumeMl: 0 });
  else if (line.reason !== reason) events.push({ kind: 'held', line: at, atS: nowS, reason });
  return line.run || line.reason !== reason ? { ...line, run: null, reason } : line;
}

/** After a step back, or to where no board gets, nothing in the state can be compared with now: outputs off, and begin as after a boot. */
function afterClockWentWrong(state: EngineState, { nowS }: EngineInput, config: EngineConfig): EngineStep {
  const events = state.lines.flatMap((line, at): EngineEvent[] => {
    const settings = config.lines[at];
    if (!line.run || !settings) return [];
    const ranS = Math.max(0, state.nowS - line.run.sinceS);
    return [stopped(at, state.nowS, 'clock-went-back', ranS, settings)];
  });
  const fresh = bootEngine(config, rememberedOf(state, config), follows(nowS, 0) ? nowS : state.nowS);
  const lines = fresh.lines.map((line): LineState => ({ ...line, reason: 'clock-went-back' }));
  return {
    state: { ...fresh, lines },
    on: lines.map(() => false),
    events,
    callAgainAtS: null,
    write: true,
  };
}

const stopped = (
  line: number,
  atS: number,
  reason: Reason,
  ranS: number,
  config: LineConfig,
): EngineEvent => ({ kind: 'stopped', line, atS, reason, ranS, volumeMl: givenMl(config, ranS) });

type Draft = { -readonly [Key in keyof LineState]: LineState[Key] };

/** One line's turn in one step: what it may look at, and its state while it is being worked out. */
type Turn = Sight & {
  readonly at: number;
  readonly config: LineConfig;
  readonly before: LineState;
  readonly beforeS: number;
  readonly known: EngineState;
  readonly all: EngineConfig;
  readonly events: EngineEvent[];
  readonly draft: Draft;
  readonly nowS: number;
  /** Why the line's reservoir forbids running; null when it does not, or when there is none. */
  readonly tank: Reason | null;
};

function turnOf(
  at: number,
  config: LineConfig,
  before: LineState,
  beforeS: number,
  known: EngineState,
  input: EngineInput,
  all: EngineConfig,
  events: EngineEvent[],
): Turn {
  const { nowS } = input;
  const sensorConfig = config.sensor === null ? undefined : all.sensors[config.sensor];
  const sensor = config.sensor === null ? null : (known.sensors[config.sensor] ?? null);
  return {
    at,
    config,
    before,
    beforeS,
    known,
    input,
    all,
    events,
    draft: { ...before },
    nowS,
    sensor,
    doubt: sensorConfig ? doubt(sensor, nowS, sensorConfig) : 'not-calibrated',
    tank: config.tank === null ? null : tankOf(config.tank, known, all),
  };
}

/** A line that names a reservoir which is not there has one that is unknown. */
function tankOf(at: number, known: EngineState, all: EngineConfig): Reason | null {
  const config = all.tanks[at];
  return config ? tankTrouble(known.tanks[at] ?? null, known.nowS, config) : 'tank-unknown';
}

function isUnsettledNow({ config, all, sensor, nowS }: Turn): boolean {
  const settings = config.sensor === null ? undefined : all.sensors[config.sensor];
  return sensor !== null && settings !== undefined && isUnsettled(sensor, nowS, settings);
}

function tell(
  { events, at, nowS }: Turn,
  kind: 'held' | 'refused' | 'locked' | 'unlocked',
  reason: Reason,
): void {
  events.push({ kind, line: at, atS: nowS, reason });
}

function stepLine(turn: Turn): LineState {
  const { draft, input, nowS } = turn;
  countWater(turn);
  watchRise(turn);
  if (turn.doubt === null) draft.faultyS = null;
  else draft.faultyS ??= nowS;
  const { program } = turn.config;
  Object.assign(draft, recordOf(program.kind).notice?.(program, draft, turn, turn.known.lines));
  for (const order of input.orders) if (order.line === turn.at) obey(turn, order);
  if (draft.run) {
    const why = draft.run.sinceS === nowS ? null : whyStop(turn, draft.run);
    if (why) stop(turn, draft.run, why);
  } else if (turn.before.run === null) consider(turn);
  return draft;
}

/** What has run since the last step counts towards the day. */
function countWater({ draft, config, beforeS, nowS }: Turn): void {
  const { run } = draft;
  const ml = run ? countedMl(config, nowS - run.sinceS) - countedMl(config, beforeS - run.sinceS) : 0;
  draft.ration = rationAt(draft.ration, nowS, ml);
}

/** Guard 6: a dose that raised nothing counts, and enough of them in a row lock the line. */
function watchRise(turn: Turn): void {
  const { draft, config, sensor, nowS } = turn;
  if (!draft.watch) return;
  const tenths = turn.doubt === null ? (sensor?.tenths ?? null) : null;
  if (tenths !== null && tenths - draft.watch.fromTenths >= config.guards.riseTenths) {
    draft.watch = null;
    draft.noRise = 0;
  } else if (nowS >= draft.watch.untilS) {
    draft.watch = null;
    // A probe that cannot be read proves nothing, and guard 5 holds the line anyway.
    if (tenths === null) return;
    draft.noRise += 1;
    if (draft.noRise < config.guards.noRiseTimes) return;
    draft.locked = true;
    tell(turn, 'locked', 'locked');
  }
}

function obey(turn: Turn, order: Order): void {
  const { draft, config } = turn;
  switch (order.kind) {
    case 'stop':
      if (draft.run) stop(turn, draft.run, 'stop-order');
      return;
    case 'unlock':
      // Who unlocks has looked at a lock that stood; one that falls in this very step nobody has seen yet.
      if (!turn.before.locked) return;
      tell(turn, 'unlocked', 'order');
      draft.locked = false;
      draft.noRise = 0;
      draft.watch = null;
      return;
    case 'water': {
      const why: Reason | null = !isSoundOrder(order)
        ? 'bad-order'
        : draft.run
          ? 'already-runs'
          : draft.locked
            ? 'locked'
            : forbids(turn);
      if (why) tell(turn, 'refused', why);
      else begin(turn, { runS: doseS(config, order.volumeMl), reason: 'order', slot: null });
    }
  }
}

/** Guards that hold an order by hand as well as the program. */
function forbids({ draft, config, tank, known, all, at }: Turn): Reason | null {
  if (tank) return tank;
  if (draft.ration.sumMl + countedMl(config, 1) > config.guards.dailyMaxMl) return 'daily-max';
  let running = 0;
  for (let other = 0; other < known.lines.length; other += 1)
    if (other !== at && known.lines[other]?.run) running += 1;
  return running >= all.atOnce ? 'other-line-runs' : null;
}

/** Why the run must end now; null while it goes on. */
function whyStop(turn: Turn, run: Run): Reason | null {
  const { config, tank, nowS, draft } = turn;
  const { program, guards } = config;
  const ranS = nowS - run.sinceS;
  if (tank) return tank;
  if (run.reason !== 'order') {
    if (!config.enabled) return 'switched-off';
    if (config.contradicts) return 'contradiction';
  }
  if (ranS >= run.plannedS) return 'dose-done';
  if (ranS >= Math.min(run.mostS, guards.maxRunS)) return 'max-run';
  const nextMl = countedMl(config, ranS + 1) - countedMl(config, ranS);
  if (draft.ration.sumMl + nextMl > Math.min(run.dayMl, guards.dailyMaxMl)) return 'daily-max';
  // A dose that the probe had no part in goes on without it.
  const record = recordOf(program.kind);
  if (run.reason === 'order' || run.reason === 'fallback' || !record.usesProbe) return null;
  return turn.doubt ?? record.whyStop?.(program, turn.sensor?.tenths ?? 0) ?? null;
}

function stop(turn: Turn, run: Run, reason: Reason): void {
  const { draft, config, nowS } = turn;
  const ranS = nowS - run.sinceS;
  const { guards } = config;
  draft.run = null;
  draft.lastStopS = nowS;
  draft.reason = reason;
  turn.events.push(stopped(turn.at, nowS, reason, ranS, config));
  const isWhole = reason === 'dose-done' || reason === 'max-run' || reason === 'above-stop';
  if (isWhole && run.reason !== 'order') {
    draft.runs += 1;
    draft.lastRanS = ranS;
  }
  if (reason === 'above-stop' || reason === 'wet-veto') draft.noRise = 0;
  else {
    const fromTenths = isWhole ? provesFrom(run, config) : null;
    if (fromTenths !== null) draft.watch = { fromTenths, untilS: nowS + guards.responseS };
  }
}

/** The moisture that a run must raise; null for one that proves nothing: what was as wet as it should become, or nearly full, need not rise. */
const provesFrom = ({ fromTenths }: Run, { guards: { provesBelowTenths, riseTenths } }: LineConfig) =>
  fromTenths !== null && fromTenths < provesBelowTenths && fromTenths + riseTenths <= 1000
    ? fromTenths
    : null;

function begin(turn: Turn, wish: Exclude<Wish, Reason>): void {
  const { draft, config, nowS } = turn;
  const fromTenths = turn.doubt === null ? (turn.sensor?.tenths ?? null) : null;
  const { maxRunS, dailyMaxMl } = config.guards;
  const plannedS = Math.min(wish.runS, maxRunS);
  draft.run = {
    sinceS: nowS,
    reason: wish.reason,
    plannedS: wish.runS,
    fromTenths,
    mostS: maxRunS,
    dayMl: dailyMaxMl,
  };
  draft.lastStartS = nowS;
  draft.reason = wish.reason;
  draft.watch = null;
  if (wish.reason !== 'order' && wish.reason !== 'fallback')
    Object.assign(draft, recordOf(config.program.kind).began?.(draft));
  if (wish.slot !== null) {
    const served = draft.served.slice();
    while (served.length <= wish.slot) served.push(null);
    served[wish.slot] = nowS;
    draft.served = served;
  }
  turn.events.push({
    kind: 'started',
    line: turn.at,
    atS: nowS,
    reason: wish.reason,
    plannedS,
    tenths: fromTenths,
  });
}

/** An idle line: starts, or says why not. */
function consider(turn: Turn): void {
  const { draft } = turn;
  const outcome = decide(turn);
  if (typeof outcome === 'object') begin(turn, outcome);
  else {
    if (outcome !== draft.reason) tell(turn, 'held', outcome);
    draft.reason = outcome;
  }
}

function decide(turn: Turn): Wish {
  const { draft, config, nowS, input } = turn;
  if (!config.enabled) return 'switched-off';
  if (config.contradicts) return 'contradiction';
  if (draft.locked) return 'locked';
  const wish = withFallback(turn, wishOf(turn));
  if (typeof wish !== 'object') return wish;
  if (nowS - draft.lastStartS < config.guards.minIntervalS) return 'min-interval';
  if (draft.watch) return 'waiting-for-rise';
  if (wish.reason !== 'fallback' && usesProbe(config.program.kind) && isUnsettledNow(turn))
    return 'unsettled';
  return unmetCondition(config.conditions, input, turn.at) ?? forbids(turn) ?? wish;
}

function wishOf(turn: Turn): Wish {
  const { config, draft } = turn;
  const record = recordOf(config.program.kind);
  if (record.usesProbe && turn.doubt) return turn.doubt;
  return record.wants(config.program, draft, config, turn);
}

/** While the probe is faulty: nothing, or a small dose once a day that the person has chosen and that no reading has a part in. */
function withFallback({ draft, config, nowS, doubt: why }: Turn, wish: Wish): Wish {
  if (why === null || config.fallbackMl === 0 || !usesProbe(config.program.kind)) return wish;
  const isDue =
    draft.faultyS !== null && nowS - draft.faultyS >= FAULTY_S && nowS - draft.lastStartS >= DAY_S;
  return isDue ? { runS: doseS(config, config.fallbackMl), reason: 'fallback', slot: null } : wish;
}
