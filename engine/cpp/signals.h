// What lamps and buzzers of a board say of their plots. It means the same as core/src/control/signals. Moisture and degrees in tenths; NONE: unknown, or not set.
#ifndef TROWEL_SIGNALS_H
#define TROWEL_SIGNALS_H

#include "engine.h"

namespace trowel {

// States that a plot can be in. Numbers never change.
const uint8_t CONTENT = 0, IS_LOCKED = 1, PROBE_FAULT = 2, TANK_IS_LOW = 3, TOO_COLD = 4, TOO_HOT = 5, TOO_DRY = 6, IS_TOO_WET = 7, NIGHT = 8, IS_UNKNOWN = 9,
              WATERING = 10, STATES = 11, NOTHING = 255;

const uint8_t STEADY = 0, SLOW_BLINK = 1, FAST_BLINK = 2;
// When a buzzer sounds: never, when a state begins, and again each minute, ten minutes, hour, second.
const uint8_t SILENT = 0, ONCE = 1, EVERY_MINUTE = 2, EVERY_TEN = 3, EVERY_HOUR = 4, WHILE_IT_LASTS = 5;

struct SignalRule {
  uint8_t state;
  // Bits: red, green, blue.
  uint8_t lamp;
  uint8_t rhythm, buzz;
};

struct SignalLimits {
  int32_t dry, wet, soilLow, soilHigh, airLow, airHigh;
};

struct SignalFacts {
  bool locked, watering, faulty, unknown, tankLow;
  int32_t tenths, soil, air;
  // NONE: nobody knows.
  int32_t dark;
};

inline bool isBelow(int32_t value, int32_t limit) { return value != NONE && limit != NONE && value < limit; }
inline bool isAbove(int32_t value, int32_t limit) { return value != NONE && limit != NONE && value > limit; }

inline bool holds(uint8_t state, const SignalFacts &f, const SignalLimits &limits) {
  switch (state) {
    case IS_LOCKED: return f.locked;
    case WATERING: return f.watering;
    case PROBE_FAULT: return f.faulty;
    case TANK_IS_LOW: return f.tankLow;
    case TOO_COLD: return isBelow(f.soil, limits.soilLow) || isBelow(f.air, limits.airLow);
    case TOO_HOT: return isAbove(f.soil, limits.soilHigh) || isAbove(f.air, limits.airHigh);
    case TOO_DRY: return isBelow(f.tenths, limits.dry);
    case IS_TOO_WET: return f.tenths != NONE && f.tenths >= limits.wet;
    case NIGHT: return f.dark == 1;
    case IS_UNKNOWN: return f.unknown;
    default: break;
  }
  // Content, only where nothing else holds but what does no harm, shown or not.
  for (uint8_t one = 1; one < STATES; one += 1)
    if (one != NIGHT && one != WATERING && holds(one, f, limits)) return false;
  return true;
}

// The rule that speaks: the first that holds. Its place, or NOTHING: the lamp is dark.
inline uint8_t ruleOf(const SignalRule *rules, uint8_t count, const SignalFacts &f, const SignalLimits &limits) {
  for (uint8_t at = 0; at < count; at += 1)
    if (holds(rules[at].state, f, limits)) return at;
  return NOTHING;
}

}  // namespace trowel

#endif
