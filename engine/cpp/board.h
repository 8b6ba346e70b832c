// What every board's program does alike: reads each second, asks the engine, keeps, switches, prints, and listens at the console. The sketch says before what is
// read and switched, and by what settings.
#ifndef TROWEL_BOARD_H
#define TROWEL_BOARD_H

#ifdef __AVR__
#include <avr/wdt.h>
#endif

static State state;
static Input input;
static Answer answer;
static uint32_t lastMs = 0;
static int32_t clockAtBoot = NONE;
static int32_t weekdayAtBoot = 0;

#if TROWEL_CONTACTS > 0
static ContactsState contacts;
static ContactsInput aboutContacts;
static ContactsAnswer contactsAnswer;
// Sunrise and sunset are told by whoever listens; they move by a few minutes a day, so after two weeks without news they are not known.
const int32_t SUN_HOLDS_S = 1209600;
static int32_t sunToldS = 0;
#endif

#include "inputs.h"
#include "kept.h"

#ifdef TROWEL_SERVOS
// ---- Servos: a pulse fifty times a second holds each where it is told.
const uint32_t PULSE_EVERY_MS = 20;
static uint8_t servoPins[TROWEL_SERVOS];
static uint16_t servoUs[TROWEL_SERVOS];
static uint8_t servoCount = 0;
static uint32_t pulsedAtMs = 0;

static void turnServo(uint8_t pin, uint16_t us) {
  uint8_t at = 0;
  while (at < servoCount && servoPins[at] != pin) at += 1;
  if (at == servoCount) servoCount += 1;
  servoPins[at] = pin;
  servoUs[at] = us;
}

// Each turn of the program.
static void pulseServos() {
  const uint32_t nowMs = millis();
  if (nowMs - pulsedAtMs < PULSE_EVERY_MS) return;
  pulsedAtMs = nowMs;
  for (uint8_t at = 0; at < servoCount; at += 1) {
    digitalWrite(servoPins[at], HIGH);
    delayMicroseconds(servoUs[at]);
    digitalWrite(servoPins[at], LOW);
  }
}
#endif

#ifdef TROWEL_LATCHES
// ---- Latching valves stay where their last pulse left them: each is told to shut at the start, again a little later, for the first pulse may have found its driver
// without charge, and then each hour.
const int32_t SHUT_SOON_S = 10, SHUT_EVERY_S = 3600;
static uint8_t latchPins[TROWEL_LATCHES];
static bool isLatchOpen[TROWEL_LATCHES];
static int32_t shutAgainS[TROWEL_LATCHES];
static uint8_t latchCount = 0;

static void pulsePin(const OutputPin &one, uint8_t pin) {
  digitalWrite(pin, one.isActiveLow ? LOW : HIGH);
  for (uint16_t ms = 0; ms < one.pulseMs; ms = (uint16_t)(ms + 1)) delayMicroseconds(1000);
  digitalWrite(pin, one.isActiveLow ? HIGH : LOW);
}

// Its place among them; one that is seen for the first time counts as open.
static uint8_t placeOfLatch(const OutputPin &one) {
  uint8_t at = 0;
  while (at < latchCount && latchPins[at] != one.pin) at = (uint8_t)(at + 1);
  if (at < latchCount) return at;
  const uint8_t pins[2] = {one.pin, one.shutPin};
  for (uint8_t each = 0; each < 2; each = (uint8_t)(each + 1)) {
    // First the level, then the direction.
    digitalWrite(pins[each], one.isActiveLow ? HIGH : LOW);
    pinMode(pins[each], OUTPUT);
    digitalWrite(pins[each], one.isActiveLow ? HIGH : LOW);
  }
  latchPins[at] = one.pin;
  isLatchOpen[at] = true;
  latchCount = (uint8_t)(latchCount + 1);
  return at;
}

static void switchLatch(const OutputPin &one, bool isOn) {
  const uint8_t at = placeOfLatch(one);
  if (isOn) {
    if (!isLatchOpen[at]) pulsePin(one, one.pin);
    isLatchOpen[at] = true;
  } else if (isLatchOpen[at] || input.nowS >= shutAgainS[at]) {
    pulsePin(one, one.shutPin);
    shutAgainS[at] = input.nowS + (isLatchOpen[at] ? SHUT_SOON_S : SHUT_EVERY_S);
    isLatchOpen[at] = false;
  }
}
#endif

static void switchPin(const OutputPin &one, bool isOn) {
#ifdef TROWEL_LATCHES
  if (one.pulseMs > 0) {
    switchLatch(one, isOn);
    return;
  }
#endif
#ifdef TROWEL_SERVOS
  if (one.openUs > 0) {
    turnServo(one.pin, isOn ? one.openUs : one.shutUs);
    return;
  }
#endif
  digitalWrite(one.pin, isOn != one.isActiveLow ? HIGH : LOW);
}
static void switchLine(int32_t line, bool isOn) { switchPin(OUTPUT_PINS[line], isOn); }

static void switchOff(const OutputPin &one) {
#ifdef TROWEL_LATCHES
  if (one.pulseMs > 0) {
    switchLatch(one, false);
    return;
  }
#endif
  // First the level, then the direction.
  switchPin(one, false);
  pinMode(one.pin, OUTPUT);
  switchPin(one, false);
}

// Words of a board stay in its program memory: small boards have little other.
static void printReason(uint8_t reason) {
  switch (reason) {
    case 0: TELL.print(F("below-start")); break;
    case 1: TELL.print(F("timer")); break;
    case 2: TELL.print(F("dry-enough")); break;
    case 3: TELL.print(F("follows")); break;
    case 4: TELL.print(F("fallback")); break;
    case 5: TELL.print(F("order")); break;
    case 6: TELL.print(F("dose-done")); break;
    case 7: TELL.print(F("above-stop")); break;
    case 8: TELL.print(F("wet-veto")); break;
    case 9: TELL.print(F("stop-order")); break;
    case 10: TELL.print(F("max-run")); break;
    case 11: TELL.print(F("daily-max")); break;
    case 12: TELL.print(F("min-interval")); break;
    case 13: TELL.print(F("tank-low")); break;
    case 14: TELL.print(F("tank-unknown")); break;
    case 15: TELL.print(F("stale")); break;
    case 16: TELL.print(F("implausible")); break;
    case 17: TELL.print(F("no-reading")); break;
    case 18: TELL.print(F("unsettled")); break;
    case 19: TELL.print(F("waiting-for-rise")); break;
    case 20: TELL.print(F("locked")); break;
    case 21: TELL.print(F("other-line-runs")); break;
    case 22: TELL.print(F("clock-went-back")); break;
    case 23: TELL.print(F("not-calibrated")); break;
    case 24: TELL.print(F("not-below-start")); break;
    case 25: TELL.print(F("soaking")); break;
    case 26: TELL.print(F("pulses-used")); break;
    case 27: TELL.print(F("dose-interval")); break;
    case 28: TELL.print(F("not-due")); break;
    case 29: TELL.print(F("too-wet")); break;
    case 30: TELL.print(F("leader-rests")); break;
    case 31: TELL.print(F("alert-only")); break;
    case 32: TELL.print(F("switched-off")); break;
    case 34: TELL.print(F("clock-unknown")); break;
    case 35: TELL.print(F("outside-hours")); break;
    case 36: TELL.print(F("not-dark")); break;
    case 37: TELL.print(F("light-unknown")); break;
    case 38: TELL.print(F("air-warm")); break;
    case 39: TELL.print(F("air-unknown")); break;
    case 40: TELL.print(F("soil-cold")); break;
    case 41: TELL.print(F("soil-temperature-unknown")); break;
    case 42: TELL.print(F("rain")); break;
    case 43: TELL.print(F("rain-unknown")); break;
    case 44: TELL.print(F("battery-low")); break;
    case 45: TELL.print(F("battery-unknown")); break;
    case 46: TELL.print(F("already-runs")); break;
    case 48: TELL.print(F("below-stop")); break;
    case 49: TELL.print(F("out-of-soil")); break;
    case 50: TELL.print(F("bad-order")); break;
    case 51: TELL.print(F("unsound-settings")); break;
    case 52: TELL.print(F("contradiction")); break;
    case 53: TELL.print(F("skip-switch")); break;
    case 54: TELL.print(F("skip-unknown")); break;
#if TROWEL_CONTACTS > 0
    case 55: TELL.print(F("in-hours")); break;
    case 56: TELL.print(F("dark")); break;
    case 57: TELL.print(F("sun-unknown")); break;
    case 58: TELL.print(F("max-on")); break;
    case 59: TELL.print(F("min-off")); break;
    case 60: TELL.print(F("day-max-on")); break;
#endif
    default: TELL.print(F("unknown")); break;
  }
}

static void printTenths(int32_t tenths) {
  TELL.print(tenths / 10);
  TELL.print(F("."));
  TELL.print(tenths % 10);
}

static void printEvent(const Event &event) {
  TELL.print(F("# "));
  switch (event.kind) {
    case STARTED: TELL.print(F("started ")); break;
    case STOPPED: TELL.print(F("stopped ")); break;
    case HELD: TELL.print(F("held ")); break;
    case REFUSED: TELL.print(F("refused ")); break;
    case WAS_LOCKED: TELL.print(F("locked ")); break;
    default: TELL.print(F("unlocked ")); break;
  }
  TELL.print((int32_t)event.line + 1);
  TELL.print(F(" "));
  printReason(event.reason);
  if (event.kind == STARTED || event.kind == STOPPED) {
    TELL.print(F(" "));
    TELL.print(event.a);
    TELL.print(F(" s"));
  }
  if (event.kind == STARTED && event.b != NONE) {
    TELL.print(F(" at "));
    printTenths((int32_t)event.b);
  }
  if (event.kind == STOPPED) {
    TELL.print(F(" "));
    TELL.print((int32_t)event.b);
    TELL.print(F(" ml"));
  }
  TELL.println();
}

#if defined(TROWEL_ONE_WIRE) || defined(TROWEL_VOLTS) || defined(TROWEL_BUS) || defined(TROWEL_I2C) || defined(TROWEL_DISPLAYS)
// 2144 hundredths are 21.44.
static void printDecimal(Print &to, int32_t value, uint8_t decimals) {
  int32_t unit = 1;
  for (uint8_t at = 0; at < decimals; at += 1) unit *= 10;
  if (value < 0) to.print(F("-"));
  const int32_t size = value < 0 ? -value : value;
  to.print(size / unit);
  if (decimals > 0) to.print(F("."));
  for (int32_t digit = unit / 10; digit > 0; digit /= 10) to.print(size / digit % 10);
}
#endif

#if defined(TROWEL_ONE_WIRE) || defined(TROWEL_VOLTS) || defined(TROWEL_BUS) || defined(TROWEL_I2C)
// Digits behind the point of what an input gives.
static uint8_t decimalsOf(const InputPin &one) {
#ifdef TROWEL_BUS
  if (one.reads == READ_BUS) return BUS_WORDS[one.pin].decimals;
#endif
#ifdef TROWEL_I2C
  if (one.reads == READ_I2C) return I2C_ASKS[one.pin].decimals;
#endif
#ifdef TROWEL_FAR
  if (one.reads == READ_FAR) return one.pin;
#endif
  return one.reads == READ_ONE_WIRE ? 2 : one.reads == READ_VOLTS ? 3 : 0;
}
#endif

static void printRaw(Print &to, const InputPin &one, int32_t raw) {
#if defined(TROWEL_ONE_WIRE) || defined(TROWEL_VOLTS) || defined(TROWEL_BUS) || defined(TROWEL_I2C)
  printDecimal(to, raw, decimalsOf(one));
#else
  (void)one;
  to.print(raw);
#endif
}

#ifdef TROWEL_WATCHES
#include "lamps.h"
#endif
#ifdef TROWEL_DISPLAYS
#include "screen.h"
#endif

static void fill(Reading &reading, int32_t raw) {
  reading.isNew = raw != NONE;
  reading.raw = raw;
  reading.atS = input.nowS;
  reading.unsettled = false;
}

#if TROWEL_CONTACTS > 0
static void printContactEvent(const ContactEvent &event) {
  TELL.print(F("# contact "));
  TELL.print((int32_t)event.contact + 1);
  TELL.print(event.kind == WENT_ON ? F(" on ") : F(" off "));
  printReason(event.reason);
  if (event.kind == WENT_OFF) {
    TELL.print(F(" "));
    TELL.print(event.onS);
    TELL.print(F(" s"));
  }
  TELL.println();
}

// After the engine's own step; true: what is kept must be written down.
static bool lookAtContacts() {
  if (input.nowS - sunToldS > SUN_HOLDS_S) aboutContacts.riseS = aboutContacts.setS = NONE;
  for (int32_t at = 0; at < TROWEL_CONTACTS; at += 1) fillAround(aboutContacts.around[at], CONTACTS_AROUND[at]);
  stepContacts(contacts, input, aboutContacts, state, CONFIG, CONTACTS, TROWEL_CONTACTS, contactsAnswer);
  for (int32_t at = 0; at < TROWEL_CONTACTS; at += 1)
    if (!contactsAnswer.driven[at]) switchPin(CONTACT_PINS[at], false);
  return contactsAnswer.write;
}

static void switchContactsOn() {
  for (int32_t at = 0; at < TROWEL_CONTACTS; at += 1)
    if (contactsAnswer.driven[at]) switchPin(CONTACT_PINS[at], true);
  for (int32_t at = 0; at < contactsAnswer.events; at += 1) printContactEvent(contactsAnswer.event[at]);
}
#endif

#if defined(TROWEL_SMALL) || defined(TROWEL_NO_LINES)
static void stepLines() { step(state, input, CONFIG, answer); }
#else
// ---- Lines that a person has told to water nothing by themselves for so long: to the engine they are switched off. A restart ends it.
const int32_t MOST_SKIP_S = 2764800;
static int32_t skipUntilS[TROWEL_LINES];

static bool isSkipped(int32_t line) { return skipUntilS[line] > input.nowS; }

static void stepLines() {
  bool isHeld[TROWEL_LINES];
  for (int32_t at = 0; at < linesOf(CONFIG); at += 1) {
    isHeld[at] = isSkipped(at) && CONFIG.line[at].enabled;
    if (isHeld[at]) CONFIG.line[at].enabled = false;
  }
  step(state, input, CONFIG, answer);
  for (int32_t at = 0; at < linesOf(CONFIG); at += 1)
    if (isHeld[at]) CONFIG.line[at].enabled = true;
}
#endif

// One look, each second: read, decide, keep, switch, tell.
static void look() {
#ifdef TROWEL_POWERS
  feed();
#endif
  readInputs();
  for (int32_t at = 0; at < CONFIG.sensors; at += 1) fill(input.sensor[at], readSensor(at));
  for (int32_t at = 0; at < CONFIG.tanks; at += 1) fill(input.tank[at], raws[TANK_INPUTS[at]]);
  input.daySecond = NONE;
  input.weekday = 0;
  if (clockAtBoot != NONE) {
    const int32_t local = clockAtBoot + input.nowS % DAY_S;
    input.daySecond = local % DAY_S;
    input.weekday = (weekdayAtBoot + input.nowS / DAY_S + local / DAY_S) % 7;
  }
  for (int32_t at = 0; at < linesOf(CONFIG); at += 1) fillAround(input.around[at], AROUND[at]);
  input.batteryMv = senseOf(BATTERY);
  stepLines();
  input.orders = 0;
  // Off at once; on only after the run has been written down, so that a pump whose start pulls the board down is counted.
  for (int32_t at = 0; at < linesOf(CONFIG); at += 1)
    if (!answer.on[at]) switchLine(at, false);
#if TROWEL_CONTACTS > 0
  if (lookAtContacts()) answer.write = true;
#endif
  if (answer.write) writeKept();
  for (int32_t at = 0; at < linesOf(CONFIG); at += 1)
    if (answer.on[at]) switchLine(at, true);
  for (int32_t at = 0; at < answer.events; at += 1) printEvent(answer.event[at]);
#if TROWEL_CONTACTS > 0
  switchContactsOn();
#endif
#ifdef TROWEL_WATCHES
  lookAtLamps();
#endif
#ifdef TROWEL_DISPLAYS
  lookAtScreens();
#endif
#ifdef TROWEL_BUS
  // Last, for an answer may take its time; it is read in the next second.
  askBus();
#endif
}

// "c2=1512 l1=2240": the names are those of the garden's channels. What did not answer is left out.
static void printReadings() {
  bool isFirst = true;
  for (uint8_t at = 0; at < INPUTS; at += 1) {
    if (raws[at] == NONE || INPUT_PINS[at].reads == READ_FAR) continue;
    if (!isFirst) TELL.print(F(" "));
    isFirst = false;
    TELL.print(INPUT_PINS[at].name);
    TELL.print(F("="));
    printRaw(TELL, INPUT_PINS[at], raws[at]);
  }
  if (!isFirst) TELL.println();
#ifdef TROWEL_NET
  keepNewest();
#endif
}

#include "console.h"
#ifdef TROWEL_NET
#include "net.h"
#endif

void setup() {
#ifdef __AVR__
  // After a restart by the watchdog it still runs, at its shortest.
  MCUSR = 0;
  wdt_disable();
#endif
  // Outputs off before anything else.
  for (uint8_t at = 0; at < OUTPUTS; at += 1) switchOff(OUTPUT_PINS[at]);
#if TROWEL_CONTACTS > 0
  for (uint8_t at = 0; at < TROWEL_CONTACTS; at += 1) switchOff(CONTACT_PINS[at]);
#endif
#ifdef TROWEL_WATCHES
  for (uint8_t at = 0; at < LAMP_COUNT; at += 1)
    for (uint8_t bit = 0; bit < (LAMPS[at].kind == LAMP_THREE ? 3 : 1); bit += 1) switchOff(LAMPS[at].pin[bit]);
  beginLamps();
#endif
  beginInputs();
  // A contact is pulled up, so that an open one reads 1 and a loose wire does not float.
  for (uint8_t at = 0; at < INPUTS; at += 1) {
    const InputPin &one = INPUT_PINS[at];
    if (one.reads == READ_BUS || one.reads == READ_I2C || one.reads == READ_FAR) continue;
    pinMode(one.second, INPUT);
    pinMode(one.pin, one.reads == READ_CONTACT ? INPUT_PULLUP : one.reads == READ_DISTANCE ? OUTPUT : INPUT);
  }
#ifdef TROWEL_ADC_BITS
  // Such boards give ten bits until they are asked for more.
  analogReadResolution(TROWEL_ADC_BITS);
#endif
  Serial.begin(115200);
  Remembered kept[TROWEL_LINES];
#if TROWEL_CONTACTS > 0
  RememberedContact hours[TROWEL_CONTACTS];
  readKept(kept, hours);
  bootContacts(contacts, CONTACTS, TROWEL_CONTACTS, hours, 0);
  aboutContacts.riseS = aboutContacts.setS = NONE;
#else
  readKept(kept);
#endif
  boot(state, CONFIG, kept, 0);
  input.nowS = 0;
  input.orders = 0;
  lastMs = millis();
  printVersion();
#ifdef TROWEL_NET
  // Whoever listens from afar learns its limits unasked.
  obeyFromAfar("limits", HEAR_ALL);
#endif
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
#ifdef TROWEL_SERVOS
  pulseServos();
#endif
#ifdef TROWEL_WATCHES
  showLamps();
#endif
#ifdef TROWEL_NET
  turnNet();
#endif
  const uint32_t nowMs = millis();
  // Whole seconds since boot; the difference is right also when the count of milliseconds begins anew.
  if (nowMs - lastMs < 1000) return;
  lastMs += 1000;
  input.nowS += 1;
  look();
#ifdef TROWEL_NET
  settleOrders();
#endif
  // What is read rarely is printed when it is read.
  if (input.nowS % 2 == 0 || hasNews()) printReadings();
#ifdef TROWEL_POWERS
  starve();
#endif
  // Whoever begins to listen learns which program this is.
  if (input.nowS % 60 == 0) printVersion();
}

#endif
