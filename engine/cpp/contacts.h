// What a board's contacts do: outputs that hold a state, a permit in series with somebody else's timer and a grow light. It means the same as
// core/src/control/contacts: engine/contacts holds what it must answer. Whole numbers only, of stated width; times in s since boot.
#ifndef TROWEL_CONTACTS_H
#define TROWEL_CONTACTS_H

#include "engine.h"

namespace trowel {

const uint8_t C_PERMIT = 0, C_LIGHT = 1;
// The moments of a light: by the clock, or so long after the sun rises or sets.
const uint8_t BY_CLOCK = 0, BY_SUNRISE = 1, BY_SUNSET = 2;
const uint8_t WENT_ON = 0, WENT_OFF = 1;
const int32_t MOST_KEPT_S = 90000;

struct Edge {
  uint8_t by;
  int32_t s;
};

// What a kind of contact does not use stays 0.
struct ContactConfig {
  bool enabled, contradicts;
  // Place in the list of sensors; NONE without one.
  int32_t sensor;
  uint8_t kind;
  int32_t startTenths, stopTenths;
  bool restPermits;
  Edge from, to;
  // Within the hours it is lit from below the one value of the light cell until above the other; NONE: throughout.
  int32_t darkBelow, brightAbove;
  Conditions conditions;
  int32_t mostOnS, leastOffS, dayMaxS;
};

struct ContactState {
  bool isOn, isResting;
  int32_t sinceS;
  // Seconds on in the rolling day.
  Ration day;
  // Between two limits, what was seen last: wet soil, a dark cell. NONE: not seen yet.
  int32_t held;
  uint8_t reason;
};

struct ContactEvent {
  uint8_t kind, contact;
  int32_t atS;
  uint8_t reason;
  // Of an end: how long it was on.
  int32_t onS;
};

struct ContactsState {
  int32_t nowS;
  ContactState contact[TROWEL_CONTACTS];
};

// What contacts are told beside what the engine is: by contact its surroundings, and when the sun rises and sets, s of the day; NONE: unknown.
struct ContactsInput {
  Around around[TROWEL_CONTACTS];
  int32_t riseS, setS;
};

struct ContactsAnswer {
  // By contact: whether its coil is driven.
  bool driven[TROWEL_CONTACTS];
  int32_t events;
  ContactEvent event[TROWEL_CONTACTS];
  bool write;
};

struct RememberedContact {
  Volume hoursS[HOURS];
};

// What it does by itself, without current.
inline bool restsOn(const ContactConfig &config) { return config.kind == C_PERMIT && config.restPermits; }

inline bool isSoundContact(const ContactConfig &one) {
  const Conditions &c = one.conditions;
  if (one.mostOnS < 0 || one.leastOffS < 0 || one.dayMaxS < 0) return false;
  if (one.kind == C_PERMIT && (one.startTenths < 0 || one.stopTenths < 0)) return false;
  if (one.sensor != NONE && one.sensor < 0) return false;
  if (c.hours && (c.fromS < 0 || c.toS < 0)) return false;
  return c.batteryAboveMv == NONE || c.batteryAboveMv >= 0;
}

// What is not known leaves a contact at rest, in place of switching it off.
inline bool isUnknown(uint8_t reason) {
  return reason == CLOCK_UNKNOWN || reason == LIGHT_UNKNOWN || reason == SUN_UNKNOWN || reason == AIR_UNKNOWN ||
         reason == SOIL_TEMPERATURE_UNKNOWN || reason == RAIN_UNKNOWN || reason == BATTERY_UNKNOWN || reason == SKIP_UNKNOWN;
}

inline void bootContact(ContactState &one, const RememberedContact &kept, const ContactConfig &config, int32_t nowS) {
  RememberedContact sound = kept;
  bool isSound = true;
  for (int8_t at = 0; at < HOURS; at += 1)
    if (!isWithin(kept.hoursS[at], 0, MOST_KEPT_S)) isSound = false;
  if (!isSound)
    for (int8_t at = 0; at < HOURS; at += 1) sound.hoursS[at] = at == 0 && config.dayMaxS > 0 ? config.dayMaxS : 0;
  one.isOn = restsOn(config);
  one.isResting = true;
  one.sinceS = nowS;
  one.day = newRation(nowS, sound.hoursS);
  one.held = NONE;
  one.reason = NO_READING;
}

inline void bootContacts(ContactsState &state, const ContactConfig *configs, int32_t contacts, const RememberedContact *kept, int32_t nowS) {
  state.nowS = nowS;
  for (int32_t at = 0; at < contacts; at += 1) bootContact(state.contact[at], kept[at], configs[at], nowS);
}

// One that is on counts to the end of its hour, so that a reboot forgets nothing.
inline RememberedContact rememberedOf(const ContactState &one) {
  RememberedContact kept;
  for (int8_t at = 0; at < HOURS; at += 1) kept.hoursS[at] = one.day.ml[at];
  if (one.isOn && kept.hoursS[0] < HOUR_S) kept.hoursS[0] = HOUR_S;
  return kept;
}

// The second of the day that a moment falls on; NONE while the sun is not known.
inline int32_t edgeSecond(const Edge &edge, int32_t riseS, int32_t setS) {
  if (edge.by == BY_CLOCK) return edge.s;
  if (riseS == NONE) return NONE;
  return (((edge.by == BY_SUNRISE ? riseS : setS) + edge.s) % DAY_S + DAY_S) % DAY_S;
}

// On, off or at rest, and why.
struct Verdict {
  bool isOn, isResting;
  uint8_t reason;
};
inline Verdict verdictOn(uint8_t reason) {
  const Verdict verdict = {true, false, reason};
  return verdict;
}
inline Verdict verdictOff(uint8_t reason) {
  const Verdict verdict = {false, false, reason};
  return verdict;
}
inline Verdict verdictRest(uint8_t reason) {
  const Verdict verdict = {false, true, reason};
  return verdict;
}

inline Verdict wantsLight(ContactState &one, const ContactConfig &config, const Input &input, int32_t light, int32_t riseS, int32_t setS) {
  if (input.daySecond == NONE) return verdictRest(CLOCK_UNKNOWN);
  const int32_t from = edgeSecond(config.from, riseS, setS);
  const int32_t to = edgeSecond(config.to, riseS, setS);
  if (from == NONE || to == NONE) return verdictRest(SUN_UNKNOWN);
  // An edge that moves with the sun may pass the other one: hours longer than a stretch are taken for turned round.
  const bool moves = config.from.by != BY_CLOCK || config.to.by != BY_CLOCK;
  if (moves && ((to - from) % DAY_S + DAY_S) % DAY_S > config.mostOnS) return verdictOff(OUTSIDE_HOURS);
  if (!isBetween(from, to, input.daySecond)) {
    // What the cell said yesterday does not tell of today.
    one.held = NONE;
    return verdictOff(OUTSIDE_HOURS);
  }
  if (config.darkBelow == NONE) {
    one.held = NONE;
    return verdictOn(IN_HOURS);
  }
  if (light == NONE) return verdictRest(LIGHT_UNKNOWN);
  if (light < config.darkBelow)
    one.held = 1;
  else if (light > config.brightAbove || one.held == NONE)
    one.held = 0;
  return one.held == 1 ? verdictOn(DARK) : verdictOff(NOT_DARK);
}

inline Verdict wantsPermit(ContactState &one, const ContactConfig &config, int32_t nowS, const State &known, const Config &engine) {
  if (config.sensor == NONE || config.sensor >= engine.sensors) return verdictRest(NOT_CALIBRATED);
  const SensorConfig &settings = engine.sensor[config.sensor];
  const SensorState &sensor = known.sensor[config.sensor];
  const uint8_t why = doubtOf(sensor, nowS, settings);
  if (why != FREE) return verdictRest(why);
  const bool isLow = sensor.tenths < config.startTenths;
  const bool isHigh = sensor.tenths >= config.stopTenths;
  // Between the limits, with nothing seen before, it is taken for wet: a reboot lets nothing through that was forbidden.
  const bool isWet = isHigh || (!isLow && one.held != 0);
  if (isWet) {
    one.held = 1;
    return verdictOff(isHigh ? ABOVE_STOP : NOT_BELOW_START);
  }
  // A plug just pulled may look like dry soil.
  if (!(one.isOn && !one.isResting) && isUnsettled(sensor, nowS, settings)) return verdictOff(UNSETTLED);
  one.held = 0;
  return verdictOn(isLow ? BELOW_START : BELOW_STOP);
}

// Why it may not be on, or not any longer; FREE when it may.
inline uint8_t contactGuard(const ContactState &one, const ContactConfig &config, int32_t nowS) {
  const int32_t forS = nowS - one.sinceS;
  if (one.isOn && !one.isResting && forS >= config.mostOnS) return MAX_ON;
  if (one.day.sumMl >= config.dayMaxS) return DAY_MAX_ON;
  // What permits at rest was not off before.
  return !one.isOn && forS < config.leastOffS ? MIN_OFF : FREE;
}

inline Verdict decideContact(ContactState &one, const ContactConfig &config, const Input &input, const Around &about, int32_t riseS, int32_t setS, const State &known,
                             const Config &engine) {
  if (!config.enabled) return verdictRest(SWITCHED_OFF);
  if (config.contradicts) return verdictRest(CONTRADICTION);
  const Verdict wanted = config.kind == C_LIGHT ? wantsLight(one, config, input, about.light, riseS, setS) : wantsPermit(one, config, input.nowS, known, engine);
  if (!wanted.isOn) return wanted;
  const uint8_t unmet = unmetCondition(config.conditions, about, input);
  if (unmet != FREE) return isUnknown(unmet) ? verdictRest(unmet) : verdictOff(unmet);
  const uint8_t guard = contactGuard(one, config, input.nowS);
  return guard == FREE ? wanted : verdictOff(guard);
}

inline void tellContact(ContactsAnswer &answer, int32_t at, int32_t atS, const ContactState &one, bool wasOn, int32_t onS) {
  ContactEvent &event = answer.event[answer.events];
  event.kind = wasOn ? WENT_OFF : WENT_ON;
  event.contact = (uint8_t)at;
  event.atS = atS;
  event.reason = one.reason;
  event.onS = onS;
  answer.events += 1;
}

// Nothing can be compared with now: at rest, and begin as after a boot.
inline void afterContactsClockWentWrong(ContactsState &state, int32_t nowS, const ContactConfig *configs, int32_t contacts, ContactsAnswer &answer) {
  const int32_t bootS = follows(nowS, 0) ? nowS : state.nowS;
  for (int32_t at = 0; at < contacts; at += 1) {
    ContactState &one = state.contact[at];
    const bool wasOn = one.isOn;
    const int32_t onS = state.nowS - one.sinceS;
    bootContact(one, rememberedOf(one), configs[at], bootS);
    one.reason = CLOCK_WENT_BACK;
    if (wasOn != one.isOn) tellContact(answer, at, state.nowS, one, wasOn, onS);
    answer.driven[at] = false;
  }
  state.nowS = bootS;
  answer.write = true;
}

// One look, after the engine's own at this second.
inline void stepContacts(ContactsState &state, Input &input, const ContactsInput &about, const State &known, const Config &engine, const ContactConfig *configs,
                         int32_t contacts, ContactsAnswer &answer) {
  answer.events = 0;
  answer.write = false;
  if (!follows(input.nowS, state.nowS)) return afterContactsClockWentWrong(state, input.nowS, configs, contacts, answer);
  if (!isWithin(input.daySecond, 0, DAY_S - 1) || !isWithin(input.weekday, 0, 6)) input.daySecond = NONE;
  const bool isSun = isWithin(about.riseS, 0, DAY_S - 1) && isWithin(about.setS, 0, DAY_S - 1);
  const int32_t passedS = input.nowS - state.nowS;
  state.nowS = input.nowS;
  for (int32_t at = 0; at < contacts; at += 1) {
    ContactState &one = state.contact[at];
    const ContactConfig &config = configs[at];
    const bool wasOn = one.isOn, wasResting = one.isResting;
    const int32_t sinceS = one.sinceS, hour = one.day.hour;
    countIn(one.day, input.nowS, wasOn ? passedS : 0);
    const Verdict verdict = isSoundContact(config)
                                ? decideContact(one, config, input, about.around[at], isSun ? about.riseS : NONE, isSun ? about.setS : NONE, known, engine)
                                : verdictRest(UNSOUND_SETTINGS);
    one.isOn = verdict.isResting ? restsOn(config) : verdict.isOn;
    one.isResting = verdict.isResting;
    one.reason = verdict.reason;
    // A stretch of ours begins where one at rest ends.
    if (one.isOn != wasOn || (one.isOn && one.isResting != wasResting)) one.sinceS = input.nowS;
    if (one.isOn != wasOn) tellContact(answer, at, input.nowS, one, wasOn, input.nowS - sinceS);
    // A coil is driven only where the contact must do other than it does by itself.
    answer.driven[at] = one.isOn != restsOn(config);
    if (one.isOn != wasOn || (one.day.hour != hour && one.day.sumMl > 0)) answer.write = true;
  }
}

}  // namespace trowel

#endif
