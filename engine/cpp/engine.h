// The engine that decides when water lines run. It means the same as core/src/control/engine: engine/vectors holds what it must answer.
// Whole numbers only, of stated width; division truncates toward zero. Times in s since boot, moisture and degrees in tenths, volumes in ml, volts in mV.
#ifndef TROWEL_ENGINE_H
#define TROWEL_ENGINE_H

#include <stdint.h>

// How many of each a board has. A sketch sets them to what its garden needs.
#ifndef TROWEL_SENSORS
#define TROWEL_SENSORS 4
#endif
#ifndef TROWEL_TANKS
#define TROWEL_TANKS 2
#endif
#ifndef TROWEL_LINES
#define TROWEL_LINES 4
#endif
#ifndef TROWEL_SLOTS
#define TROWEL_SLOTS 8
#endif
#ifndef TROWEL_ORDERS
#define TROWEL_ORDERS 2
#endif

namespace trowel {

// No value: a reading that never came, a time that has not been.
const int32_t NONE = INT32_MIN;
const int32_t MOST = 2147483647;
const int32_t MOST_LEAP_S = 34560000;
const int32_t MOST_ORDER_ML = 100000;
const int32_t MOST_KEPT = 1000;
const int32_t DAY_S = 86400;
const int32_t HOUR_S = 3600;
const int8_t HOURS = 25;
const int32_t SLOT_WINDOW_S = 3600;
const int32_t SERVED_S = 72000;
const int32_t OWED_S = 3600;
// A faulty probe is given this long to come back before the fallback waters.
const int32_t FAULTY_S = 3600;

#ifdef TROWEL_SMALL
// Small boards reckon volumes with 32 bits; who writes their program sees to it that no day reaches that far.
typedef int32_t Volume;
const int32_t MOST_VOLUME = 80000000;
#else
typedef int64_t Volume;
const int32_t MOST_VOLUME = MOST;
#endif
// By bits the kinds of programs that the board has: what no line has takes no room.
#ifndef TROWEL_PROGRAMS
#define TROWEL_PROGRAMS 127
#endif

// Why the engine does what it does. Numbers never change.
enum Reason : uint8_t {
  BELOW_START = 0,
  TIMER = 1,
  DRY_ENOUGH = 2,
  FOLLOWS = 3,
  FALLBACK = 4,
  BY_ORDER = 5,
  DOSE_DONE = 6,
  ABOVE_STOP = 7,
  WET_VETO = 8,
  STOP_ORDER = 9,
  MAX_RUN = 10,
  DAILY_MAX = 11,
  MIN_INTERVAL = 12,
  TANK_LOW = 13,
  TANK_UNKNOWN = 14,
  STALE = 15,
  IMPLAUSIBLE = 16,
  NO_READING = 17,
  UNSETTLED = 18,
  WAITING_FOR_RISE = 19,
  LOCKED = 20,
  OTHER_LINE_RUNS = 21,
  CLOCK_WENT_BACK = 22,
  NOT_CALIBRATED = 23,
  NOT_BELOW_START = 24,
  SOAKING = 25,
  PULSES_USED = 26,
  DOSE_INTERVAL = 27,
  NOT_DUE = 28,
  TOO_WET = 29,
  LEADER_RESTS = 30,
  ALERT_ONLY = 31,
  SWITCHED_OFF = 32,
  CLOCK_UNKNOWN = 34,
  OUTSIDE_HOURS = 35,
  NOT_DARK = 36,
  LIGHT_UNKNOWN = 37,
  AIR_WARM = 38,
  AIR_UNKNOWN = 39,
  SOIL_COLD = 40,
  SOIL_TEMPERATURE_UNKNOWN = 41,
  RAIN = 42,
  RAIN_UNKNOWN = 43,
  BATTERY_LOW = 44,
  BATTERY_UNKNOWN = 45,
  ALREADY_RUNS = 46,
  BELOW_STOP = 48,
  OUT_OF_SOIL = 49,
  BAD_ORDER = 50,
  UNSOUND_SETTINGS = 51,
  CONTRADICTION = 52,
  SKIP_SWITCH = 53,
  SKIP_UNKNOWN = 54,
  // Of contacts.
  IN_HOURS = 55,
  DARK = 56,
  SUN_UNKNOWN = 57,
  MAX_ON = 58,
  MIN_OFF = 59,
  DAY_MAX_ON = 60,
  // No reason at all: nothing stands against it.
  FREE = 255
};

enum ProgramKind : uint8_t {
  P_ALERT_ONLY = 0,
  P_TIMER = 1,
  P_PULSE_SOAK = 2,
  P_UNTIL_WET = 3,
  P_SINGLE_DOSE = 4,
  P_VETO = 5,
  P_FOLLOWER = 6
};

enum EventKind : uint8_t { STARTED = 0, STOPPED = 1, HELD = 2, REFUSED = 3, WAS_LOCKED = 4, UNLOCKED = 5 };
enum OrderKind : uint8_t { ORDER_WATER = 0, ORDER_STOP = 1, ORDER_UNLOCK = 2 };

// ---- Settings

struct TablePoint {
  int32_t raw;
  int32_t tenths;
};

struct SensorConfig {
  TablePoint table[8];
  int32_t points;
  // Outside of this window a raw value is implausible, outside of the narrower one it is that of a probe in air.
  int32_t lowRaw, highRaw, soilLowRaw, soilHighRaw;
  int32_t staleAfterS, leapTenths, settleS;
};

struct TankConfig {
  int32_t minimumRaw;
  bool fallsWithWater;
  int32_t lowRaw, highRaw, staleAfterS;
};

struct Slot {
  int32_t daySecond;
  // Weekdays as bits, Monday lowest.
  int32_t days;
};

// What a kind of program does not use stays 0.
struct Program {
  uint8_t kind;
  int32_t startTenths, stopTenths;
  // The dose, the pulse or the cap.
  int32_t doseMl;
  int32_t soakS, mostPulses, restS, intervalS;
  bool interrupts;
  int32_t leader, sharePercent, everyNth;
  int32_t slots;
  Slot slot[TROWEL_SLOTS];
};

struct Conditions {
  bool hours;
  int32_t fromS, toS;
  // NONE: off.
  int32_t darkBelow, airBelowTenthsC, soilAboveTenthsC, batteryAboveMv;
  bool noRain, noSkip;
};

struct Guards {
  int32_t maxRunS, dailyMaxMl, minIntervalS, riseTenths, responseS, noRiseTimes, provesBelowTenths;
};

struct LineConfig {
  bool enabled, contradicts;
  // Places in the lists of sensors and tanks; NONE without one.
  int32_t sensor, tank;
  int32_t flowMlPerMin, tubeMs;
  Program program;
  int32_t fallbackMl;
  Conditions conditions;
  Guards guards;
};

struct Config {
  int32_t sensors, tanks, lines, atOnce;
  SensorConfig sensor[TROWEL_SENSORS];
  TankConfig tank[TROWEL_TANKS];
  LineConfig line[TROWEL_LINES];
};

// On a board without any the compiler leaves out what is only for lines.
inline int32_t linesOf(const Config &config) {
#ifdef TROWEL_NO_LINES
  (void)config;
  return 0;
#else
  return config.lines;
#endif
}

// ---- What it is told

struct Reading {
  bool isNew;
  int32_t raw, atS;
  bool unsettled;
};

// NONE: unknown. Rain and the switch are 0 or 1.
struct Around {
  int32_t airTenthsC, light, rain, soilTenthsC, skip;
};

struct Order {
  uint8_t kind;
  int32_t line, volumeMl;
};

struct Input {
  int32_t nowS;
  Reading sensor[TROWEL_SENSORS];
  Reading tank[TROWEL_TANKS];
  // Local second of the day and weekday, Monday 0; NONE while the clock is unknown.
  int32_t daySecond, weekday;
  Around around[TROWEL_LINES];
  int32_t batteryMv;
  int32_t orders;
  Order order[TROWEL_ORDERS];
};

// ---- What it remembers

struct SensorState {
  bool known;
  int32_t raw, atS;
  bool unsettled;
  // NONE: outside of its range; no leap seen.
  int32_t tenths, leapS;
};

struct TankState {
  bool known;
  int32_t raw, atS;
};

// The volume of a rolling day by clock hours since boot, the newest first.
struct Ration {
  int32_t hour;
  Volume ml[HOURS];
  Volume sumMl;
};

struct Run {
  bool on;
  int32_t sinceS;
  uint8_t reason;
  int32_t plannedS, fromTenths, mostS, dayMl;
};

struct LineState {
  Run run;
  int32_t lastStartS, lastStopS;
  Ration ration;
  int32_t pulses;
  int32_t served[TROWEL_SLOTS];
  // A dose whose rise is being watched for; NONE: none.
  int32_t watchTenths, watchUntilS;
  int32_t noRise;
  bool locked;
  int32_t runs, lastRanS, seenRuns;
  // A run that a follower owes; 0: none.
  int32_t owesRunS, owesUntilS;
  int32_t faultyS;
  uint8_t reason;
};

struct State {
  int32_t nowS;
  SensorState sensor[TROWEL_SENSORS];
  TankState tank[TROWEL_TANKS];
  LineState line[TROWEL_LINES];
};

// What a board keeps of a line through a reboot. It is written whenever a step asks for it.
struct Remembered {
  Volume hoursMl[HOURS];
  bool locked;
  int32_t noRise, pulses, watchTenths;
};

// Whether a program is of a kind.
inline bool is(uint8_t kind, uint8_t which) { return ((TROWEL_PROGRAMS >> which) & 1) != 0 && kind == which; }

// ---- What it answers

struct Event {
  uint8_t kind, line;
  int32_t atS;
  uint8_t reason;
  // A start: planned seconds and tenths (NONE without). A stop: seconds run and ml.
  int32_t a;
  Volume b;
};

const int32_t MOST_EVENTS = TROWEL_LINES * 4 + TROWEL_ORDERS * 2;

struct Answer {
  bool on[TROWEL_LINES];
  int32_t events;
  Event event[MOST_EVENTS];
  // NONE: only a reading can change anything.
  int32_t callAgainAtS;
  bool write;
};

// ---- Run time and volume

inline int32_t doseS(const LineConfig &line, int32_t volumeMl) {
  const int64_t ms = (int64_t)volumeMl * 60000 / line.flowMlPerMin + line.tubeMs;
  const int64_t s = (ms + 500) / 1000;
  return s < 1 ? 1 : (int32_t)s;
}

// What a run really gives: nothing comes before the tube is full.
inline Volume givenMl(const LineConfig &line, int32_t ranS) {
  const int64_t ms = (int64_t)ranS * 1000 - line.tubeMs;
  return (ms < 0 ? 0 : ms) * line.flowMlPerMin / 60000;
}

// What it counts towards the day: as if the tube were full, rounded up.
inline Volume countedMl(const LineConfig &line, int32_t ranS) {
  return ((int64_t)ranS * line.flowMlPerMin + 59) / 60;
}

// ---- The border: what cannot be is cut off, towards less water

inline bool isWithin(int64_t value, int64_t least, int64_t most) { return value >= least && value <= most; }

inline bool follows(int32_t nowS, int32_t beforeS) {
  return nowS >= 0 && nowS >= beforeS && (int64_t)nowS - beforeS <= MOST_LEAP_S;
}

inline bool isSoundSensor(const SensorConfig &one) {
  if (one.points < 2 || one.points > 8) return false;
  for (int32_t at = 0; at < one.points; at += 1) {
    if (!isWithin(one.table[at].tenths, 0, 1000)) return false;
    if (at > 0 && one.table[at].raw <= one.table[at - 1].raw) return false;
  }
  return one.staleAfterS >= 0 && one.leapTenths >= 0 && one.settleS >= 0;
}

inline bool isSoundProgram(const Program &one) {
  if (one.slots < 0 || one.slots > TROWEL_SLOTS) return false;
  for (int32_t at = 0; at < one.slots; at += 1)
    if (one.slot[at].daySecond < 0 || one.slot[at].days < 0) return false;
  return one.startTenths >= 0 && one.stopTenths >= 0 && one.doseMl >= 0 && one.soakS >= 0 &&
         one.mostPulses >= 0 && one.restS >= 0 && one.intervalS >= 0 && one.sharePercent >= 0 &&
         one.everyNth >= 0;
}

inline bool isSoundLine(const LineConfig &line, const Config &config) {
  const Guards &g = line.guards;
  const Conditions &c = line.conditions;
  if (line.flowMlPerMin < 1 || line.tubeMs < 0 || line.fallbackMl < 0 || config.atOnce < 1) return false;
  if (g.maxRunS < 0 || g.dailyMaxMl < 0 || g.minIntervalS < 0 || g.riseTenths < 0 || g.responseS < 0 ||
      g.noRiseTimes < 1 || g.provesBelowTenths < 0)
    return false;
  if (c.hours && (c.fromS < 0 || c.toS < 0)) return false;
  if (c.batteryAboveMv != NONE && c.batteryAboveMv < 0) return false;
  if (line.sensor != NONE && line.sensor < 0) return false;
  if (line.tank != NONE && line.tank < 0) return false;
  if (!isSoundProgram(line.program)) return false;
  if (line.sensor != NONE && line.sensor < config.sensors && !isSoundSensor(config.sensor[line.sensor]))
    return false;
  return !(line.tank != NONE && line.tank < config.tanks && config.tank[line.tank].staleAfterS < 0);
}

inline Remembered nothingKept() {
  Remembered kept;
  for (int8_t at = 0; at < HOURS; at += 1) kept.hoursMl[at] = 0;
  kept.locked = false;
  kept.noRise = 0;
  kept.pulses = 0;
  kept.watchTenths = NONE;
  return kept;
}

// What cannot have been kept is taken for the worst: a day that has had all it may, a dose that raised nothing.
inline Remembered soundMemory(const Remembered &kept, const LineConfig &line) {
  Remembered sound = kept;
  bool areHoursSound = true;
  for (int8_t at = 0; at < HOURS; at += 1)
    if (!isWithin(kept.hoursMl[at], 0, MOST_VOLUME)) areHoursSound = false;
  if (!areHoursSound) {
    sound = nothingKept();
    sound.hoursMl[0] = line.guards.dailyMaxMl > 0 ? line.guards.dailyMaxMl : 0;
    sound.locked = kept.locked;
    sound.watchTenths = kept.watchTenths;
    sound.noRise = kept.noRise;
    sound.pulses = kept.pulses;
  }
  const int32_t worstRise = line.guards.noRiseTimes - 1;
  if (!isWithin(sound.noRise, 0, MOST_KEPT)) sound.noRise = worstRise > 0 ? worstRise : 0;
  if (!isWithin(sound.pulses, 0, MOST_KEPT)) sound.pulses = MOST_KEPT;
  if (!isWithin(sound.watchTenths, 0, MOST_KEPT)) sound.watchTenths = NONE;
  return sound;
}

// ---- The volume of a rolling day

inline Ration newRation(int32_t nowS, const Volume *hoursMl) {
  Ration ration;
  ration.hour = nowS / HOUR_S;
  ration.sumMl = 0;
  for (int8_t at = 0; at < HOURS; at += 1) {
    ration.ml[at] = hoursMl[at];
    ration.sumMl += hoursMl[at];
  }
  return ration;
}

inline void countIn(Ration &ration, int32_t nowS, Volume moreMl) {
  const int32_t hour = nowS / HOUR_S;
  const int32_t passed = hour - ration.hour;
  if (passed <= 0 && moreMl == 0) return;
  const int8_t fresh = passed <= 0 ? 0 : passed > HOURS ? HOURS : (int8_t)passed;
  ration.sumMl = 0;
  for (int8_t at = HOURS - 1; at >= 0; at -= 1) {
    ration.ml[at] = (at < fresh ? 0 : ration.ml[at - fresh]) + (at == 0 ? moreMl : 0);
    ration.sumMl += ration.ml[at];
  }
  ration.hour = hour;
}

// ---- Which readings may be acted on

inline int32_t tenthsOf(const SensorConfig &one, int32_t raw) {
  if (raw <= one.table[0].raw) return one.table[0].tenths;
  for (int32_t at = 1; at < one.points; at += 1) {
    const TablePoint &left = one.table[at - 1];
    const TablePoint &right = one.table[at];
    if (raw <= right.raw)
      return left.tenths + (int32_t)(((int64_t)raw - left.raw) * (right.tenths - left.tenths) /
                                     ((int64_t)right.raw - left.raw));
  }
  return one.table[one.points - 1].tenths;
}

inline bool isInSoil(const SensorConfig &one, int32_t raw) {
  return raw >= one.lowRaw && raw <= one.highRaw && raw >= one.soilLowRaw && raw <= one.soilHighRaw;
}

inline void takeReading(SensorState &state, const Reading &reading, const SensorConfig &one) {
  const bool canRead = one.points >= 2 && one.points <= 8;
  const int32_t tenths = canRead && isInSoil(one, reading.raw) ? tenthsOf(one, reading.raw) : NONE;
  const bool isNext = state.known && (int64_t)reading.atS - state.atS <= one.staleAfterS;
  bool leapt = false;
  if (isNext) {
    if (state.tenths == NONE || tenths == NONE)
      // Coming back from the rail is a leap as well: somebody has just put the plug in.
      leapt = state.tenths != tenths;
    else {
      const int32_t step = tenths - state.tenths;
      leapt = (step < 0 ? -step : step) > one.leapTenths;
    }
  }
  state.leapS = leapt ? reading.atS : state.known ? state.leapS : NONE;
  state.known = true;
  state.raw = reading.raw;
  state.atS = reading.atS;
  state.unsettled = reading.unsettled;
  state.tenths = tenths;
}

// Why a reading cannot be acted on at all; FREE when it can.
inline uint8_t doubtOf(const SensorState &state, int32_t nowS, const SensorConfig &one) {
  if (!state.known) return NO_READING;
  if (!((int64_t)nowS - state.atS <= one.staleAfterS && state.atS <= nowS)) return STALE;
  if (state.tenths != NONE) return FREE;
  return state.raw >= one.lowRaw && state.raw <= one.highRaw ? OUT_OF_SOIL : IMPLAUSIBLE;
}

inline bool isUnsettled(const SensorState &state, int32_t nowS, const SensorConfig &one) {
  return state.unsettled || (state.leapS != NONE && (int64_t)nowS - state.leapS < one.settleS);
}

inline uint8_t tankTrouble(const TankState &state, int32_t nowS, const TankConfig &one) {
  if (!state.known || !((int64_t)nowS - state.atS <= one.staleAfterS && state.atS <= nowS)) return TANK_UNKNOWN;
  if (state.raw < one.lowRaw || state.raw > one.highRaw) return TANK_UNKNOWN;
  const bool holds = one.fallsWithWater ? state.raw <= one.minimumRaw : state.raw >= one.minimumRaw;
  return holds ? FREE : TANK_LOW;
}

// ---- Conditions

inline bool isBetween(int32_t from, int32_t to, int32_t at) {
  return from <= to ? at >= from && at < to : at >= from || at < to;
}

// The first condition that is not met; FREE when all are. What nobody knows is not met.
inline uint8_t unmetCondition(const Conditions &c, const Around &about, const Input &input) {
  if (c.hours) {
    if (input.daySecond == NONE) return CLOCK_UNKNOWN;
    if (!isBetween(c.fromS, c.toS, input.daySecond)) return OUTSIDE_HOURS;
  }
  if (c.darkBelow != NONE) {
    if (about.light == NONE) return LIGHT_UNKNOWN;
    if (about.light >= c.darkBelow) return NOT_DARK;
  }
  if (c.airBelowTenthsC != NONE) {
    if (about.airTenthsC == NONE) return AIR_UNKNOWN;
    if (about.airTenthsC >= c.airBelowTenthsC) return AIR_WARM;
  }
  if (c.soilAboveTenthsC != NONE) {
    if (about.soilTenthsC == NONE) return SOIL_TEMPERATURE_UNKNOWN;
    if (about.soilTenthsC <= c.soilAboveTenthsC) return SOIL_COLD;
  }
  if (c.noRain) {
    if (about.rain == NONE) return RAIN_UNKNOWN;
    if (about.rain != 0) return RAIN;
  }
  if (c.batteryAboveMv != NONE) {
    if (input.batteryMv == NONE) return BATTERY_UNKNOWN;
    if (input.batteryMv < c.batteryAboveMv) return BATTERY_LOW;
  }
  if (c.noSkip) {
    if (about.skip == NONE) return SKIP_UNKNOWN;
    if (about.skip != 0) return SKIP_SWITCH;
  }
  return FREE;
}

// ---- One line's turn

struct Wish {
  // FREE: it wants to run.
  uint8_t rest;
  int32_t runS;
  uint8_t reason;
  int32_t slot;
};

inline Wish restFor(uint8_t reason) {
  Wish wish = {reason, 0, reason, NONE};
  return wish;
}
inline Wish runFor(int32_t runS, uint8_t reason, int32_t slot) {
  Wish wish = {FREE, runS, reason, slot};
  return wish;
}

struct Turn {
  int32_t at;
  const Config *all;
  const LineConfig *config;
  const Input *input;
  State *known;
  LineState *line;
  bool ranBefore, wasLocked;
  int32_t beforeS, nowS;
  uint8_t doubt, tank;
  int32_t tenths;
  Answer *answer;
};

inline bool usesProbe(uint8_t kind) {
  return is(kind, P_PULSE_SOAK) || is(kind, P_UNTIL_WET) || is(kind, P_SINGLE_DOSE) || is(kind, P_VETO);
}

inline void tell(const Turn &turn, uint8_t kind, uint8_t reason, int32_t a, Volume b) {
  Answer &answer = *turn.answer;
  if (answer.events >= MOST_EVENTS) return;
  Event &event = answer.event[answer.events];
  event.kind = kind;
  event.line = (uint8_t)turn.at;
  event.atS = turn.nowS;
  event.reason = reason;
  event.a = a;
  event.b = b;
  answer.events += 1;
}

// The moisture that a run must raise; NONE for one that proves nothing.
inline int32_t provesFrom(const Run &run, const Guards &guards) {
  return run.fromTenths != NONE && run.fromTenths < guards.provesBelowTenths &&
                 run.fromTenths + guards.riseTenths <= 1000
             ? run.fromTenths
             : NONE;
}

inline void stopRun(Turn &turn, uint8_t reason) {
  LineState &line = *turn.line;
  const Run run = line.run;
  const int32_t ranS = turn.nowS - run.sinceS;
  line.run.on = false;
  line.lastStopS = turn.nowS;
  line.reason = reason;
  tell(turn, STOPPED, reason, ranS, givenMl(*turn.config, ranS));
  const bool isWhole = reason == DOSE_DONE || reason == MAX_RUN || reason == ABOVE_STOP;
  if (isWhole && run.reason != BY_ORDER) {
    line.runs += 1;
    line.lastRanS = ranS;
  }
  if (reason == ABOVE_STOP || reason == WET_VETO)
    line.noRise = 0;
  else {
    const int32_t from = isWhole ? provesFrom(run, turn.config->guards) : NONE;
    if (from != NONE) {
      line.watchTenths = from;
      line.watchUntilS = turn.nowS + turn.config->guards.responseS;
    }
  }
}

inline void beginRun(Turn &turn, const Wish &wish) {
  LineState &line = *turn.line;
  const Guards &guards = turn.config->guards;
  const int32_t from = turn.doubt == FREE ? turn.tenths : NONE;
  line.run.on = true;
  line.run.sinceS = turn.nowS;
  line.run.reason = wish.reason;
  line.run.plannedS = wish.runS;
  line.run.fromTenths = from;
  line.run.mostS = guards.maxRunS;
  line.run.dayMl = guards.dailyMaxMl;
  line.lastStartS = turn.nowS;
  line.reason = wish.reason;
  line.watchTenths = NONE;
  if (wish.reason != BY_ORDER && wish.reason != FALLBACK) {
    if (is(turn.config->program.kind, P_PULSE_SOAK)) line.pulses += 1;
    if (is(turn.config->program.kind, P_FOLLOWER)) line.owesRunS = 0;
  }
  if (wish.slot != NONE) line.served[wish.slot] = turn.nowS;
  tell(turn, STARTED, wish.reason, wish.runS < guards.maxRunS ? wish.runS : guards.maxRunS, from);
}

// Guards that hold an order by hand as well as the program; FREE when none does.
inline uint8_t forbids(const Turn &turn) {
  if (turn.tank != FREE) return turn.tank;
  if (turn.line->ration.sumMl + countedMl(*turn.config, 1) > turn.config->guards.dailyMaxMl) return DAILY_MAX;
  int32_t running = 0;
  for (int32_t other = 0; other < linesOf(*turn.all); other += 1)
    if (other != turn.at && turn.known->line[other].run.on) running += 1;
  return running >= turn.all->atOnce ? OTHER_LINE_RUNS : FREE;
}

// Guard 6: a dose that raised nothing counts, and enough of them in a row lock the line.
inline void watchRise(Turn &turn) {
  LineState &line = *turn.line;
  if (line.watchTenths == NONE) return;
  const int32_t tenths = turn.doubt == FREE ? turn.tenths : NONE;
  if (tenths != NONE && tenths - line.watchTenths >= turn.config->guards.riseTenths) {
    line.watchTenths = NONE;
    line.noRise = 0;
  } else if (turn.nowS >= line.watchUntilS) {
    line.watchTenths = NONE;
    // A probe that cannot be read proves nothing.
    if (tenths == NONE) return;
    line.noRise += 1;
    if (line.noRise < turn.config->guards.noRiseTimes) return;
    line.locked = true;
    tell(turn, WAS_LOCKED, LOCKED, 0, 0);
  }
}

inline void notice(Turn &turn) {
  LineState &line = *turn.line;
  const Program &program = turn.config->program;
  if (is(program.kind, P_PULSE_SOAK)) {
    if (line.pulses == 0 || line.run.on || line.lastStopS == NONE) return;
    const int32_t sinceS = turn.nowS - line.lastStopS;
    const bool isWet = turn.doubt == FREE && turn.tenths >= program.stopTenths;
    if (sinceS >= program.restS || (isWet && sinceS >= program.soakS)) line.pulses = 0;
  }
  if (is(program.kind, P_FOLLOWER)) {
    if (program.leader >= 0 && program.leader < linesOf(*turn.all)) {
      const LineState &leader = turn.known->line[program.leader];
      if (leader.runs != line.seenRuns) {
        const int32_t runS = (int32_t)((int64_t)leader.lastRanS * program.sharePercent / 100);
        if (program.everyNth > 0 && leader.runs % program.everyNth == 0 && runS > 0) {
          line.owesRunS = runS;
          line.owesUntilS = turn.nowS + OWED_S;
        }
      }
      line.seenRuns = leader.runs;
    }
    if (line.owesRunS > 0 && turn.nowS >= line.owesUntilS) line.owesRunS = 0;
  }
}

inline void obey(Turn &turn, const Order &order) {
  LineState &line = *turn.line;
  if (order.kind == ORDER_STOP) {
    if (line.run.on) stopRun(turn, STOP_ORDER);
    return;
  }
  if (order.kind == ORDER_UNLOCK) {
    // Who unlocks has looked at a lock that stood; one that falls in this very step nobody has seen yet.
    if (!turn.wasLocked) return;
    tell(turn, UNLOCKED, BY_ORDER, 0, 0);
    line.locked = false;
    line.noRise = 0;
    line.watchTenths = NONE;
    return;
  }
  uint8_t why = FREE;
  if (!isWithin(order.volumeMl, 1, MOST_ORDER_ML))
    why = BAD_ORDER;
  else if (line.run.on)
    why = ALREADY_RUNS;
  else if (line.locked)
    why = LOCKED;
  else
    why = forbids(turn);
  if (why != FREE)
    tell(turn, REFUSED, why, 0, 0);
  else
    beginRun(turn, runFor(doseS(*turn.config, order.volumeMl), BY_ORDER, NONE));
}

// Why the run must end now; FREE while it goes on.
inline uint8_t whyStop(const Turn &turn) {
  const LineState &line = *turn.line;
  const Run &run = line.run;
  const LineConfig &config = *turn.config;
  const int32_t ranS = turn.nowS - run.sinceS;
  if (turn.tank != FREE) return turn.tank;
  if (run.reason != BY_ORDER) {
    if (!config.enabled) return SWITCHED_OFF;
    if (config.contradicts) return CONTRADICTION;
  }
  if (ranS >= run.plannedS) return DOSE_DONE;
  if (ranS >= run.mostS || ranS >= config.guards.maxRunS) return MAX_RUN;
  const Volume nextMl = countedMl(config, ranS + 1) - countedMl(config, ranS);
  const int32_t dayMl = run.dayMl < config.guards.dailyMaxMl ? run.dayMl : config.guards.dailyMaxMl;
  if (line.ration.sumMl + nextMl > dayMl) return DAILY_MAX;
  // A dose that the probe had no part in goes on without it.
  if (run.reason == BY_ORDER || run.reason == FALLBACK || !usesProbe(config.program.kind)) return FREE;
  if (turn.doubt != FREE) return turn.doubt;
  const Program &program = config.program;
  if (is(program.kind, P_UNTIL_WET) && turn.tenths >= program.stopTenths) return ABOVE_STOP;
  if (is(program.kind, P_VETO) && program.interrupts && turn.tenths >= program.stopTenths) return WET_VETO;
  return FREE;
}

inline Wish dueSlot(const Turn &turn, uint8_t reason) {
  const Input &input = *turn.input;
  const Program &program = turn.config->program;
  if (input.daySecond == NONE) return restFor(CLOCK_UNKNOWN);
  for (int32_t slot = 0; slot < program.slots; slot += 1) {
    const int32_t served = turn.line->served[slot];
    if (served != NONE && turn.nowS - served < SERVED_S) continue;
    const int32_t sinceS = input.daySecond - program.slot[slot].daySecond;
    const int32_t passedS = sinceS < 0 ? sinceS + DAY_S : sinceS;
    // A time before boot may have been served before boot: better missed than watered twice.
    if (passedS >= SLOT_WINDOW_S || passedS > turn.nowS) continue;
    const int32_t weekday = sinceS < 0 ? (input.weekday + 6) % 7 : input.weekday;
    if (((program.slot[slot].days >> weekday) & 1) == 1)
      return runFor(doseS(*turn.config, program.doseMl), reason, slot);
  }
  return restFor(NOT_DUE);
}

inline Wish wants(const Turn &turn) {
  const LineConfig &config = *turn.config;
  const Program &program = config.program;
  const LineState &line = *turn.line;
  if (usesProbe(program.kind) && turn.doubt != FREE) return restFor(turn.doubt);
  switch (program.kind) {
    case P_TIMER:
      return dueSlot(turn, TIMER);
    case P_VETO: {
      const Wish wish = dueSlot(turn, DRY_ENOUGH);
      return wish.rest == FREE && turn.tenths >= program.stopTenths ? restFor(TOO_WET) : wish;
    }
    case P_UNTIL_WET:
      return turn.tenths < program.startTenths ? runFor(doseS(config, program.doseMl), BELOW_START, NONE)
                                               : restFor(NOT_BELOW_START);
    case P_SINGLE_DOSE:
      if (turn.tenths >= program.startTenths) return restFor(NOT_BELOW_START);
      return turn.nowS - line.lastStartS < program.intervalS
                 ? restFor(DOSE_INTERVAL)
                 : runFor(doseS(config, program.doseMl), BELOW_START, NONE);
    case P_PULSE_SOAK:
      if (line.pulses == 0 || line.lastStopS == NONE)
        return turn.tenths < program.startTenths ? runFor(doseS(config, program.doseMl), BELOW_START, NONE)
                                                 : restFor(NOT_BELOW_START);
      if (turn.nowS - line.lastStopS < program.soakS) return restFor(SOAKING);
      if (turn.tenths >= program.stopTenths) return restFor(NOT_BELOW_START);
      return line.pulses < program.mostPulses ? runFor(doseS(config, program.doseMl), BELOW_STOP, NONE)
                                              : restFor(PULSES_USED);
    case P_FOLLOWER:
      return line.owesRunS > 0 ? runFor(line.owesRunS, FOLLOWS, NONE) : restFor(LEADER_RESTS);
    default:
      return restFor(ALERT_ONLY);
  }
}

// While the probe is faulty: nothing, or a small dose once a day that the person has chosen.
inline Wish withFallback(const Turn &turn, const Wish &wish) {
  const LineConfig &config = *turn.config;
  const LineState &line = *turn.line;
  if (turn.doubt == FREE || config.fallbackMl == 0 || !usesProbe(config.program.kind)) return wish;
  const bool isDue = line.faultyS != NONE && turn.nowS - line.faultyS >= FAULTY_S &&
                     turn.nowS - line.lastStartS >= DAY_S;
  return isDue ? runFor(doseS(config, config.fallbackMl), FALLBACK, NONE) : wish;
}

inline Wish decide(const Turn &turn) {
  const LineConfig &config = *turn.config;
  const LineState &line = *turn.line;
  if (!config.enabled) return restFor(SWITCHED_OFF);
  if (config.contradicts) return restFor(CONTRADICTION);
  if (line.locked) return restFor(LOCKED);
  const Wish wish = withFallback(turn, wants(turn));
  if (wish.rest != FREE) return wish;
  if (turn.nowS - line.lastStartS < config.guards.minIntervalS) return restFor(MIN_INTERVAL);
  if (line.watchTenths != NONE) return restFor(WAITING_FOR_RISE);
  if (wish.reason != FALLBACK && usesProbe(config.program.kind) && config.sensor != NONE &&
      config.sensor < turn.all->sensors && turn.known->sensor[config.sensor].known &&
      isUnsettled(turn.known->sensor[config.sensor], turn.nowS, turn.all->sensor[config.sensor]))
    return restFor(UNSETTLED);
  const uint8_t unmet = unmetCondition(config.conditions, turn.input->around[turn.at], *turn.input);
  if (unmet != FREE) return restFor(unmet);
  const uint8_t guard = forbids(turn);
  return guard != FREE ? restFor(guard) : wish;
}

inline void stepLine(Turn &turn) {
  LineState &line = *turn.line;
  const LineConfig &config = *turn.config;
  // What has run since the last step counts towards the day.
  const Volume ranMl = line.run.on ? countedMl(config, turn.nowS - line.run.sinceS) -
                                          countedMl(config, turn.beforeS - line.run.sinceS)
                                    : 0;
  countIn(line.ration, turn.nowS, ranMl);
  watchRise(turn);
  if (turn.doubt == FREE)
    line.faultyS = NONE;
  else if (line.faultyS == NONE)
    line.faultyS = turn.nowS;
  notice(turn);
  for (int32_t at = 0; at < turn.input->orders; at += 1)
    if (turn.input->order[at].line == turn.at) obey(turn, turn.input->order[at]);
  if (line.run.on) {
    const uint8_t why = line.run.sinceS == turn.nowS ? (uint8_t)FREE : whyStop(turn);
    if (why != FREE) stopRun(turn, why);
  } else if (!turn.ranBefore) {
    const Wish wish = decide(turn);
    if (wish.rest == FREE)
      beginRun(turn, wish);
    else {
      if (wish.rest != line.reason) tell(turn, HELD, wish.rest, 0, 0);
      line.reason = wish.rest;
    }
  }
}

// ---- When it must be called again; who calls it each second does without

#ifndef TROWEL_EACH_SECOND
inline int32_t sooner(int32_t next, int32_t nowS, int64_t timeS) {
  return timeS > nowS && timeS <= MOST && (next == NONE || timeS < next) ? (int32_t)timeS : next;
}

inline int32_t wakeOf(const LineState &line, const LineConfig &config, const Input &input, const State &known,
                      const Config &all) {
  const int32_t nowS = input.nowS;
  const Program &program = config.program;
  int32_t next = sooner(NONE, nowS, (int64_t)line.lastStartS + config.guards.minIntervalS);
  if (line.watchTenths != NONE) next = sooner(next, nowS, line.watchUntilS);
  if (config.sensor != NONE && config.sensor < all.sensors && known.sensor[config.sensor].known) {
    const SensorState &sensor = known.sensor[config.sensor];
    const SensorConfig &settings = all.sensor[config.sensor];
    next = sooner(next, nowS, (int64_t)sensor.atS + settings.staleAfterS + 1);
    if (sensor.leapS != NONE) next = sooner(next, nowS, (int64_t)sensor.leapS + settings.settleS);
  }
  if (line.faultyS != NONE && config.fallbackMl > 0) {
    next = sooner(next, nowS, (int64_t)line.faultyS + FAULTY_S);
    next = sooner(next, nowS, (int64_t)line.lastStartS + DAY_S);
  }
  if (config.conditions.hours && input.daySecond != NONE) {
    const int32_t aheadS = config.conditions.fromS - input.daySecond;
    next = sooner(next, nowS, (int64_t)nowS + (aheadS > 0 ? aheadS : aheadS + DAY_S));
  }
  // The oldest hour of the day is forgotten at a full hour.
  if (line.ration.sumMl > 0) next = sooner(next, nowS, ((int64_t)nowS / HOUR_S + 1) * HOUR_S);
  switch (program.kind) {
    case P_TIMER:
    case P_VETO:
      if (input.daySecond != NONE) {
        int64_t first = 0;
        for (int32_t slot = 0; slot < program.slots; slot += 1) {
          const int32_t aheadS = program.slot[slot].daySecond - input.daySecond;
          const int64_t atS = (int64_t)nowS + (aheadS > 0 ? aheadS : aheadS + DAY_S);
          if (first == 0 || atS < first) first = atS;
        }
        next = sooner(next, nowS, first);
      }
      break;
    case P_PULSE_SOAK:
      if (line.pulses > 0 && line.lastStopS != NONE) {
        next = sooner(next, nowS, (int64_t)line.lastStopS + program.soakS);
        next = sooner(next, nowS, (int64_t)line.lastStopS + program.restS);
      }
      break;
    case P_SINGLE_DOSE:
      next = sooner(next, nowS, (int64_t)line.lastStartS + program.intervalS);
      break;
    case P_FOLLOWER:
      if (line.owesRunS > 0) next = sooner(next, nowS, line.owesUntilS);
      break;
    default:
      break;
  }
  return next;
}
#endif

// ---- The board

// Every output off; boot counts as a start.
inline void bootLine(LineState &line, const Remembered &told, const LineConfig &config, int32_t nowS) {
  const Remembered kept = soundMemory(told, config);
  line.run.on = false;
  line.run.sinceS = 0;
  line.run.reason = FREE;
  line.run.plannedS = 0;
  line.run.fromTenths = NONE;
  line.run.mostS = 0;
  line.run.dayMl = 0;
  line.lastStartS = nowS;
  line.lastStopS = kept.pulses > 0 ? nowS : NONE;
  line.ration = newRation(nowS, kept.hoursMl);
  line.pulses = kept.pulses;
  for (int32_t slot = 0; slot < TROWEL_SLOTS; slot += 1) line.served[slot] = NONE;
  line.watchTenths = kept.watchTenths;
  line.watchUntilS = kept.watchTenths == NONE ? 0 : nowS + config.guards.responseS;
  line.noRise = kept.noRise;
  line.locked = kept.locked;
  line.runs = 0;
  line.lastRanS = 0;
  line.seenRuns = 0;
  line.owesRunS = 0;
  line.owesUntilS = 0;
  line.faultyS = NONE;
  line.reason = NO_READING;
}

inline void boot(State &state, const Config &config, const Remembered *kept, int32_t nowS) {
  state.nowS = nowS;
  for (int32_t at = 0; at < config.sensors; at += 1) {
    SensorState none = {false, 0, 0, false, NONE, NONE};
    state.sensor[at] = none;
  }
  for (int32_t at = 0; at < config.tanks; at += 1) {
    TankState none = {false, 0, 0};
    state.tank[at] = none;
  }
  for (int32_t at = 0; at < linesOf(config); at += 1) bootLine(state.line[at], kept[at], config.line[at], nowS);
}

// What a board must keep. A run under way counts with all that it may still give, and as one that was watched for its rise.
inline Remembered rememberedOf(const LineState &line, const LineConfig &config, int32_t nowS) {
  Remembered kept = nothingKept();
  for (int8_t at = 0; at < HOURS; at += 1) kept.hoursMl[at] = line.ration.ml[at];
  if (line.run.on) {
    int32_t mostS = line.run.plannedS < line.run.mostS ? line.run.plannedS : line.run.mostS;
    if (config.guards.maxRunS < mostS) mostS = config.guards.maxRunS;
    const Volume mayStill = countedMl(config, mostS) - countedMl(config, nowS - line.run.sinceS);
    if (mayStill > 0) kept.hoursMl[0] += mayStill;
  }
  kept.locked = line.locked;
  kept.noRise = line.noRise;
  kept.pulses = line.pulses;
  kept.watchTenths = line.watchTenths != NONE ? line.watchTenths
                     : line.run.on            ? provesFrom(line.run, config.guards)
                                              : NONE;
  return kept;
}

// What a step may change of what is kept, as it was before.
struct Kept {
  bool on, locked;
  int32_t sinceS, noRise, pulses, watchTenths, hour;
};

inline Kept keptNow(const LineState &line) {
  Kept kept = {line.run.on, line.locked, line.run.sinceS, line.noRise, line.pulses, line.watchTenths, line.ration.hour};
  return kept;
}

inline bool mustWrite(const Kept &before, const LineState &line) {
  return before.on != line.run.on || (before.on && before.sinceS != line.run.sinceS) ||
         before.locked != line.locked || before.noRise != line.noRise || before.pulses != line.pulses ||
         before.watchTenths != line.watchTenths || (before.hour != line.ration.hour && line.ration.sumMl > 0);
}

// After a step back, or to where no board gets: outputs off, and begin as after a boot.
inline void afterClockWentWrong(State &state, const Input &input, const Config &config, Answer &answer) {
  Remembered kept[TROWEL_LINES];
  for (int32_t at = 0; at < linesOf(config); at += 1) {
    const LineState &line = state.line[at];
    if (line.run.on && answer.events < MOST_EVENTS) {
      const int32_t ranS = state.nowS > line.run.sinceS ? state.nowS - line.run.sinceS : 0;
      Event event = {STOPPED, (uint8_t)at, state.nowS, CLOCK_WENT_BACK, ranS, givenMl(config.line[at], ranS)};
      answer.event[answer.events] = event;
      answer.events += 1;
    }
    kept[at] = rememberedOf(line, config.line[at], state.nowS);
  }
  boot(state, config, kept, follows(input.nowS, 0) ? input.nowS : state.nowS);
  for (int32_t at = 0; at < linesOf(config); at += 1) state.line[at].reason = CLOCK_WENT_BACK;
  answer.write = true;
}

// One look: what runs from now on, what happened, and when to look again although nothing is read.
inline void step(State &state, const Input &told, const Config &config, Answer &answer) {
  answer.events = 0;
  answer.callAgainAtS = NONE;
  answer.write = false;
  for (int32_t at = 0; at < linesOf(config); at += 1) answer.on[at] = false;
  if (!follows(told.nowS, state.nowS)) {
    afterClockWentWrong(state, told, config, answer);
    return;
  }
  Input input = told;
  if (!isWithin(input.daySecond, 0, DAY_S - 1) || !isWithin(input.weekday, 0, 6)) input.daySecond = NONE;
  const int32_t beforeS = state.nowS;
  state.nowS = input.nowS;
  for (int32_t at = 0; at < config.sensors; at += 1) {
    Reading &reading = input.sensor[at];
    if (!reading.isNew) continue;
    if (reading.atS > input.nowS) reading.atS = -MOST;
    takeReading(state.sensor[at], reading, config.sensor[at]);
  }
  for (int32_t at = 0; at < config.tanks; at += 1) {
    Reading &reading = input.tank[at];
    if (!reading.isNew) continue;
    TankState read = {true, reading.raw, reading.atS > input.nowS ? -MOST : reading.atS};
    state.tank[at] = read;
  }
  for (int32_t at = 0; at < linesOf(config); at += 1) {
    LineState &line = state.line[at];
    const LineConfig &settings = config.line[at];
    Turn turn;
    turn.at = at;
    turn.all = &config;
    turn.config = &settings;
    turn.input = &input;
    turn.known = &state;
    turn.line = &line;
    turn.ranBefore = line.run.on;
    turn.wasLocked = line.locked;
    turn.beforeS = beforeS;
    turn.nowS = input.nowS;
    turn.answer = &answer;
    const Kept before = keptNow(line);
    if (!isSoundLine(settings, config)) {
      // Numbers that cannot be gone by decide nothing, not even when to look again.
      if (line.run.on)
        tell(turn, STOPPED, UNSOUND_SETTINGS, input.nowS - line.run.sinceS, 0);
      else if (line.reason != UNSOUND_SETTINGS)
        tell(turn, HELD, UNSOUND_SETTINGS, 0, 0);
      line.run.on = false;
      line.reason = UNSOUND_SETTINGS;
      answer.write = answer.write || mustWrite(before, line);
      continue;
    }
    const bool hasSensor = settings.sensor != NONE && settings.sensor < config.sensors;
    turn.doubt = hasSensor ? doubtOf(state.sensor[settings.sensor], input.nowS, config.sensor[settings.sensor])
                           : (uint8_t)NOT_CALIBRATED;
    turn.tenths = hasSensor ? state.sensor[settings.sensor].tenths : NONE;
    turn.tank = settings.tank == NONE ? (uint8_t)FREE
                : settings.tank >= config.tanks
                    ? (uint8_t)TANK_UNKNOWN
                    : tankTrouble(state.tank[settings.tank], input.nowS, config.tank[settings.tank]);
    stepLine(turn);
    answer.on[at] = line.run.on;
    answer.write = answer.write || mustWrite(before, line);
#ifndef TROWEL_EACH_SECOND
    const int32_t wake = line.run.on || turn.ranBefore ? input.nowS + 1
                                                       : wakeOf(line, settings, input, state, config);
    if (wake != NONE && (answer.callAgainAtS == NONE || wake < answer.callAgainAtS)) answer.callAgainAtS = wake;
#endif
  }
}

}  // namespace trowel

#endif
