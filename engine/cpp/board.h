// What every board's program does alike: reads each second, asks the engine, keeps, switches, prints, and listens at the console. The sketch says before what is
// read and switched, and by what settings.
#ifndef TROWEL_BOARD_H
#define TROWEL_BOARD_H

#include "kept.h"
#ifdef __AVR__
#include <avr/wdt.h>
#endif

static State state;
static Input input;
static Answer answer;
static uint32_t lastMs = 0;
static int32_t clockAtBoot = NONE;
static int32_t weekdayAtBoot = 0;

static void switchLine(int32_t line, bool isOn) {
  const OutputPin &one = OUTPUT_PINS[line];
  digitalWrite(one.pin, isOn != one.isActiveLow ? HIGH : LOW);
}

// What was read in this second; NONE: nothing came back.
static int32_t raws[INPUTS > 0 ? INPUTS : 1];

// Sound goes there and back, 343 m/s at 20 degrees.
static int32_t readDistance(const InputPin &one) {
  digitalWrite(one.pin, LOW);
  delayMicroseconds(3);
  digitalWrite(one.pin, HIGH);
  delayMicroseconds(10);
  digitalWrite(one.pin, LOW);
  const uint32_t us = pulseIn(one.second, HIGH, 30000);
  return us == 0 ? NONE : (int32_t)(us * 343 / 2000);
}

// Eight readings, for a steadier one.
static int32_t readInput(uint8_t at) {
  const InputPin &one = INPUT_PINS[at];
  if (one.reads == READ_CONTACT) return digitalRead(one.pin) == HIGH ? 1 : 0;
  if (one.reads == READ_DISTANCE) return readDistance(one);
  int32_t sum = 0;
  for (uint8_t turn = 0; turn < 8; turn += 1) sum += (int32_t)analogRead(one.pin);
  return (sum + 4) / 8;
}

static void readInputs() {
  for (uint8_t at = 0; at < INPUTS; at += 1) raws[at] = readInput(at);
}

// Words of a board stay in its program memory: small boards have little other.
static void printReason(uint8_t reason) {
  switch (reason) {
    case 0: Serial.print(F("below-start")); break;
    case 1: Serial.print(F("timer")); break;
    case 2: Serial.print(F("dry-enough")); break;
    case 3: Serial.print(F("follows")); break;
    case 4: Serial.print(F("fallback")); break;
    case 5: Serial.print(F("order")); break;
    case 6: Serial.print(F("dose-done")); break;
    case 7: Serial.print(F("above-stop")); break;
    case 8: Serial.print(F("wet-veto")); break;
    case 9: Serial.print(F("stop-order")); break;
    case 10: Serial.print(F("max-run")); break;
    case 11: Serial.print(F("daily-max")); break;
    case 12: Serial.print(F("min-interval")); break;
    case 13: Serial.print(F("tank-low")); break;
    case 14: Serial.print(F("tank-unknown")); break;
    case 15: Serial.print(F("stale")); break;
    case 16: Serial.print(F("implausible")); break;
    case 17: Serial.print(F("no-reading")); break;
    case 18: Serial.print(F("unsettled")); break;
    case 19: Serial.print(F("waiting-for-rise")); break;
    case 20: Serial.print(F("locked")); break;
    case 21: Serial.print(F("other-line-runs")); break;
    case 22: Serial.print(F("clock-went-back")); break;
    case 23: Serial.print(F("not-calibrated")); break;
    case 24: Serial.print(F("not-below-start")); break;
    case 25: Serial.print(F("soaking")); break;
    case 26: Serial.print(F("pulses-used")); break;
    case 27: Serial.print(F("dose-interval")); break;
    case 28: Serial.print(F("not-due")); break;
    case 29: Serial.print(F("too-wet")); break;
    case 30: Serial.print(F("leader-rests")); break;
    case 31: Serial.print(F("alert-only")); break;
    case 32: Serial.print(F("switched-off")); break;
    case 34: Serial.print(F("clock-unknown")); break;
    case 35: Serial.print(F("outside-hours")); break;
    case 36: Serial.print(F("not-dark")); break;
    case 37: Serial.print(F("light-unknown")); break;
    case 38: Serial.print(F("air-warm")); break;
    case 39: Serial.print(F("air-unknown")); break;
    case 40: Serial.print(F("soil-cold")); break;
    case 41: Serial.print(F("soil-temperature-unknown")); break;
    case 42: Serial.print(F("rain")); break;
    case 43: Serial.print(F("rain-unknown")); break;
    case 44: Serial.print(F("battery-low")); break;
    case 45: Serial.print(F("battery-unknown")); break;
    case 46: Serial.print(F("already-runs")); break;
    case 48: Serial.print(F("below-stop")); break;
    case 49: Serial.print(F("out-of-soil")); break;
    case 50: Serial.print(F("bad-order")); break;
    case 51: Serial.print(F("unsound-settings")); break;
    case 52: Serial.print(F("contradiction")); break;
    case 53: Serial.print(F("skip-switch")); break;
    case 54: Serial.print(F("skip-unknown")); break;
    default: Serial.print(F("unknown")); break;
  }
}

static void printTenths(int32_t tenths) {
  Serial.print(tenths / 10);
  Serial.print(F("."));
  Serial.print(tenths % 10);
}

static void printEvent(const Event &event) {
  Serial.print(F("# "));
  switch (event.kind) {
    case STARTED: Serial.print(F("started ")); break;
    case STOPPED: Serial.print(F("stopped ")); break;
    case HELD: Serial.print(F("held ")); break;
    case REFUSED: Serial.print(F("refused ")); break;
    case WAS_LOCKED: Serial.print(F("locked ")); break;
    default: Serial.print(F("unlocked ")); break;
  }
  Serial.print((int32_t)event.line + 1);
  Serial.print(F(" "));
  printReason(event.reason);
  if (event.kind == STARTED || event.kind == STOPPED) {
    Serial.print(F(" "));
    Serial.print(event.a);
    Serial.print(F(" s"));
  }
  if (event.kind == STARTED && event.b != NONE) {
    Serial.print(F(" at "));
    printTenths((int32_t)event.b);
  }
  if (event.kind == STOPPED) {
    Serial.print(F(" "));
    Serial.print((int32_t)event.b);
    Serial.print(F(" ml"));
  }
  Serial.println();
}

static void fill(Reading &reading, int32_t at) {
  reading.isNew = raws[at] != NONE;
  reading.raw = raws[at];
  reading.atS = input.nowS;
  reading.unsettled = false;
}

static int32_t aboutOf(int32_t line, uint8_t which) {
  const int32_t at = AROUND_INPUTS[line][which];
  return at == NONE ? NONE : raws[at];
}

// One look, each second: read, decide, keep, switch, tell.
static void look() {
  readInputs();
  for (int32_t at = 0; at < CONFIG.sensors; at += 1) fill(input.sensor[at], SENSOR_INPUTS[at]);
  for (int32_t at = 0; at < CONFIG.tanks; at += 1) fill(input.tank[at], TANK_INPUTS[at]);
  input.daySecond = NONE;
  input.weekday = 0;
  if (clockAtBoot != NONE) {
    const int32_t local = clockAtBoot + input.nowS % DAY_S;
    input.daySecond = local % DAY_S;
    input.weekday = (weekdayAtBoot + input.nowS / DAY_S + local / DAY_S) % 7;
  }
  for (int32_t at = 0; at < CONFIG.lines; at += 1) {
    Around &about = input.around[at];
    about.airTenthsC = NONE;
    about.soilTenthsC = NONE;
    about.light = aboutOf(at, 0);
    about.rain = aboutOf(at, 1);
    about.skip = aboutOf(at, 2);
  }
  input.batteryMv = NONE;
  step(state, input, CONFIG, answer);
  input.orders = 0;
  // Off at once; on only after the run has been written down, so that a pump whose start pulls the board down is counted.
  for (int32_t at = 0; at < CONFIG.lines; at += 1)
    if (!answer.on[at]) switchLine(at, false);
  if (answer.write) writeKept(state, CONFIG);
  for (int32_t at = 0; at < CONFIG.lines; at += 1)
    if (answer.on[at]) switchLine(at, true);
  for (int32_t at = 0; at < answer.events; at += 1) printEvent(answer.event[at]);
}

// "c2=1512 l1=2240": the names are those of the garden's channels. What did not answer is left out.
static void printReadings() {
  bool isFirst = true;
  for (uint8_t at = 0; at < INPUTS; at += 1) {
    if (raws[at] == NONE) continue;
    if (!isFirst) Serial.print(F(" "));
    isFirst = false;
    Serial.print(INPUT_PINS[at].name);
    Serial.print(F("="));
    Serial.print(raws[at]);
  }
  if (!isFirst) Serial.println();
}

#include "console.h"

void setup() {
#ifdef __AVR__
  // After a restart by the watchdog it still runs, at its shortest.
  MCUSR = 0;
  wdt_disable();
#endif
  // Outputs off before anything else: first the level, then the direction.
  for (uint8_t at = 0; at < OUTPUTS; at += 1) {
    switchLine(at, false);
    pinMode(OUTPUT_PINS[at].pin, OUTPUT);
    switchLine(at, false);
  }
  // A contact is pulled up, so that an open one reads 1 and a loose wire does not float.
  for (uint8_t at = 0; at < INPUTS; at += 1) {
    const InputPin &one = INPUT_PINS[at];
    pinMode(one.second, INPUT);
    pinMode(one.pin, one.reads == READ_CONTACT ? INPUT_PULLUP : one.reads == READ_DISTANCE ? OUTPUT : INPUT);
  }
#ifdef TROWEL_ADC_BITS
  // Such boards give ten bits until they are asked for more.
  analogReadResolution(TROWEL_ADC_BITS);
#endif
  Serial.begin(115200);
  Remembered kept[TROWEL_LINES];
  readKept(kept);
  boot(state, CONFIG, kept, 0);
  input.nowS = 0;
  input.orders = 0;
  lastMs = millis();
  printVersion();
#ifdef __AVR__
  // A board that hangs is restarted.
  wdt_enable(WDTO_8S);
#endif
}

void loop() {
#ifdef __AVR__
  wdt_reset();
#endif
  readConsole();
  const uint32_t nowMs = millis();
  // Whole seconds since boot; the difference is right also when the count of milliseconds begins anew.
  if (nowMs - lastMs < 1000) return;
  lastMs += 1000;
  input.nowS += 1;
  look();
  if (input.nowS % 2 == 0) printReadings();
  // Whoever begins to listen learns which program this is.
  if (input.nowS % 60 == 0) printVersion();
}

#endif
