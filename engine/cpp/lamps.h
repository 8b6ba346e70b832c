// Lamps and buzzers of a board: by the states of the plots that they speak for.
#ifndef TROWEL_LAMPS_H
#define TROWEL_LAMPS_H

const uint32_t SLOW_MS = 1000, FAST_MS = 250, BEEP_MS = 200;
// So long each colour stands in a test.
const uint32_t TEST_MS = 1000;

// By watch the rule that speaks, and since when, s.
static uint8_t ruleNow[TROWEL_WATCHES];
static int32_t ruleSinceS[TROWEL_WATCHES];
static uint32_t beepFromMs[TROWEL_WATCHES];
static bool isBeeping[TROWEL_WATCHES];
static bool isTesting = false;
static uint32_t testFromMs = 0;

static SignalFacts factsOf(const Watch &watch) {
  SignalFacts f;
  f.locked = f.watering = f.tankLow = false;
  f.unknown = watch.isBlind || watch.sensor == NONE;
  f.faulty = false;
  f.tenths = NONE;
  if (watch.sensor != NONE) {
    const SensorState &sensor = state.sensor[watch.sensor];
    const uint8_t why = doubtOf(sensor, input.nowS, CONFIG.sensor[watch.sensor]);
    if (why == FREE) f.tenths = sensor.tenths;
    f.unknown = f.unknown || why != FREE;
    f.faulty = why == STALE || why == IMPLAUSIBLE || why == OUT_OF_SOIL;
  }
  for (int32_t at = 0; at < linesOf(CONFIG); at += 1) {
    if (((watch.lines >> at) & 1) == 0) continue;
    f.locked = f.locked || state.line[at].locked;
    f.watering = f.watering || state.line[at].run.on;
  }
  for (int32_t at = 0; at < CONFIG.tanks; at += 1) {
    if (((watch.tanks >> at) & 1) == 0) continue;
    const uint8_t trouble = tankTrouble(state.tank[at], input.nowS, CONFIG.tank[at]);
    f.tankLow = f.tankLow || trouble == TANK_LOW;
    f.unknown = f.unknown || trouble == TANK_UNKNOWN;
  }
  f.soil = senseOf(watch.soil);
  f.air = senseOf(watch.air);
  const int32_t light = senseOf(watch.light);
  f.dark = light == NONE || watch.darkBelow == NONE ? NONE : light < watch.darkBelow ? 1 : 0;
  return f;
}

static int32_t buzzEveryS(uint8_t buzz) {
  switch (buzz) {
    case EVERY_MINUTE: return 60;
    case EVERY_TEN: return 600;
    case EVERY_HOUR: return 3600;
    case WHILE_IT_LASTS: return 1;
    default: return NONE;
  }
}

static void beginLamps() {
  for (uint8_t at = 0; at < TROWEL_WATCHES; at += 1) {
    ruleNow[at] = NOTHING;
    isBeeping[at] = false;
  }
}

// Each second, after the engine.
static void lookAtLamps() {
  for (uint8_t at = 0; at < TROWEL_WATCHES; at += 1) {
    const uint8_t rule = ruleOf(SIGNALS, SIGNAL_RULES, factsOf(WATCHES[at]), WATCHES[at].limits);
    const bool begins = rule != NOTHING && rule != ruleNow[at];
    if (begins) ruleSinceS[at] = input.nowS;
    ruleNow[at] = rule;
    if (rule == NOTHING || SIGNALS[rule].buzz == SILENT) continue;
    const int32_t everyS = buzzEveryS(SIGNALS[rule].buzz);
    if (!begins && (everyS == NONE || (input.nowS - ruleSinceS[at]) % everyS != 0)) continue;
    isBeeping[at] = true;
    beepFromMs[at] = millis();
  }
}

static uint8_t coloursOf(uint8_t rule, uint32_t ms) {
  if (rule == NOTHING) return 0;
  const SignalRule &one = SIGNALS[rule];
  const uint32_t halfMs = one.rhythm == SLOW_BLINK ? SLOW_MS : FAST_MS;
  return one.rhythm == STEADY || (ms / halfMs) % 2 == 0 ? one.lamp : 0;
}

static bool soundsNow(uint8_t watch, uint32_t ms) {
  if (isBeeping[watch] && ms - beepFromMs[watch] >= BEEP_MS) isBeeping[watch] = false;
  return isBeeping[watch];
}

// Each turn of the program.
static void showLamps() {
  const uint32_t ms = millis();
  const uint32_t tested = (ms - testFromMs) / TEST_MS;
  if (isTesting && tested > 3) isTesting = false;
  for (uint8_t at = 0; at < LAMP_COUNT; at += 1) {
    const LampPins &lamp = LAMPS[at];
    const uint8_t rule = ruleNow[lamp.watch];
    if (lamp.kind == LAMP_BUZZER) {
      switchPin(lamp.pin[0], soundsNow(lamp.watch, ms) || (isTesting && ms - testFromMs < BEEP_MS));
      continue;
    }
    const uint8_t colours = isTesting ? (tested == 3 ? 7 : (uint8_t)(1u << tested)) : coloursOf(rule, ms);
    if (lamp.kind == LAMP_ONE) {
      // One colour lights for everything but content and the night.
      switchPin(lamp.pin[0], colours != 0 && (isTesting || SIGNALS[rule].state != CONTENT));
    } else {
      for (uint8_t bit = 0; bit < 3; bit += 1) switchPin(lamp.pin[bit], ((colours >> bit) & 1u) != 0);
    }
  }
}

static void testLamps() {
  isTesting = true;
  testFromMs = millis();
}

static void printLamps() {
  for (uint8_t at = 0; at < TROWEL_WATCHES; at += 1) {
    TELL.print(F("# lamp "));
    TELL.print((int32_t)at + 1);
    TELL.print(F(" "));
    switch (ruleNow[at] == NOTHING ? NOTHING : SIGNALS[ruleNow[at]].state) {
      case CONTENT: TELL.println(F("content")); break;
      case IS_LOCKED: TELL.println(F("locked")); break;
      case PROBE_FAULT: TELL.println(F("probe-fault")); break;
      case TANK_IS_LOW: TELL.println(F("tank-low")); break;
      case TOO_COLD: TELL.println(F("too-cold")); break;
      case TOO_HOT: TELL.println(F("too-hot")); break;
      case TOO_DRY: TELL.println(F("too-dry")); break;
      case IS_TOO_WET: TELL.println(F("too-wet")); break;
      case NIGHT: TELL.println(F("night")); break;
      case IS_UNKNOWN: TELL.println(F("unknown")); break;
      case WATERING: TELL.println(F("watering")); break;
      default: TELL.println(F("nothing")); break;
    }
  }
}

#endif
