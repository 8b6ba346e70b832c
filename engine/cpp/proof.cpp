// Runs the engine on a computer: settings and calls come in as numbers, answers go out as numbers. One trace after another.
#define TROWEL_SENSORS 4
#define TROWEL_TANKS 4
#define TROWEL_LINES 4
#define TROWEL_SLOTS 8
#define TROWEL_ORDERS 4
#define TROWEL_CONTACTS 4
#include "contacts.h"
#include "signals.h"

#include <stdio.h>
#include <stdlib.h>

using namespace trowel;

static Config config;
static State state;
static Input input;
static Answer answer;

static bool readWord(char *word) { return scanf("%31s", word) == 1; }

static int32_t number() {
  char word[32];
  if (!readWord(word)) exit(3);
  if (word[0] == '-' && word[1] == 0) return NONE;
  return (int32_t)strtoll(word, 0, 10);
}
static int64_t large() {
  char word[32];
  if (!readWord(word)) exit(3);
  return strtoll(word, 0, 10);
}

static void readSensor(SensorConfig &one) {
  one.points = number();
  for (int32_t at = 0; at < 8; at += 1) {
    one.table[at].raw = 0;
    one.table[at].tenths = 0;
  }
  for (int32_t at = 0; at < one.points; at += 1) {
    one.table[at].raw = number();
    one.table[at].tenths = number();
  }
  one.lowRaw = number();
  one.highRaw = number();
  one.soilLowRaw = number();
  one.soilHighRaw = number();
  one.staleAfterS = number();
  one.leapTenths = number();
  one.settleS = number();
}

static void readTank(TankConfig &one) {
  one.minimumRaw = number();
  one.fallsWithWater = number() != 0;
  one.lowRaw = number();
  one.highRaw = number();
  one.staleAfterS = number();
}

static void readProgram(Program &one) {
  one.kind = (uint8_t)number();
  one.startTenths = number();
  one.stopTenths = number();
  one.doseMl = number();
  one.soakS = number();
  one.mostPulses = number();
  one.restS = number();
  one.intervalS = number();
  one.interrupts = number() != 0;
  one.leader = number();
  one.sharePercent = number();
  one.everyNth = number();
  one.slots = number();
  for (int32_t at = 0; at < one.slots; at += 1) {
    one.slot[at].daySecond = number();
    one.slot[at].days = number();
  }
}

static void readConditions(Conditions &c) {
  c.fromS = number();
  c.toS = number();
  c.hours = c.fromS != NONE;
  c.darkBelow = number();
  c.airBelowTenthsC = number();
  c.soilAboveTenthsC = number();
  c.noRain = number() != 0;
  c.batteryAboveMv = number();
  c.noSkip = number() != 0;
}

static void readLine(LineConfig &one) {
  one.enabled = number() != 0;
  one.contradicts = number() != 0;
  one.sensor = number();
  one.tank = number();
  one.flowMlPerMin = number();
  one.tubeMs = number();
  readProgram(one.program);
  one.fallbackMl = number();
  readConditions(one.conditions);
  Guards &g = one.guards;
  g.maxRunS = number();
  g.dailyMaxMl = number();
  g.minIntervalS = number();
  g.riseTenths = number();
  g.responseS = number();
  g.noRiseTimes = number();
  g.provesBelowTenths = number();
}

static void readTrace() {
  config.sensors = number();
  for (int32_t at = 0; at < config.sensors; at += 1) readSensor(config.sensor[at]);
  config.tanks = number();
  for (int32_t at = 0; at < config.tanks; at += 1) readTank(config.tank[at]);
  config.lines = number();
  for (int32_t at = 0; at < config.lines; at += 1) readLine(config.line[at]);
  config.atOnce = number();
}

static void readBoot() {
  Remembered kept[TROWEL_LINES];
  for (int32_t at = 0; at < config.lines; at += 1) {
    kept[at] = nothingKept();
    kept[at].locked = number() != 0;
    kept[at].noRise = number();
    kept[at].pulses = number();
    kept[at].watchTenths = number();
    const int32_t hours = number();
    for (int32_t hour = 0; hour < hours; hour += 1) kept[at].hoursMl[hour] = large();
  }
  boot(state, config, kept, 0);
}

static void readSensors() {
  for (int32_t at = 0; at < config.sensors; at += 1) {
    const int32_t raw = number();
    input.sensor[at].isNew = raw != NONE;
    input.sensor[at].raw = raw;
    input.sensor[at].atS = input.nowS;
    input.sensor[at].unsettled = number() != 0;
  }
}

static void readAround(Around &about) {
  about.airTenthsC = number();
  about.light = number();
  about.rain = number();
  about.soilTenthsC = number();
  about.skip = number();
}

static void readCall() {
  input.nowS = number();
  readSensors();
  for (int32_t at = 0; at < config.tanks; at += 1) {
    const int32_t raw = number();
    input.tank[at].isNew = raw != NONE;
    input.tank[at].raw = raw;
    input.tank[at].atS = input.nowS;
    input.tank[at].unsettled = false;
  }
  input.daySecond = number();
  input.weekday = number();
  for (int32_t at = 0; at < config.lines; at += 1) readAround(input.around[at]);
  input.batteryMv = number();
  input.orders = number();
  for (int32_t at = 0; at < input.orders; at += 1) {
    input.order[at].kind = (uint8_t)number();
    input.order[at].line = number();
    input.order[at].volumeMl = number();
  }
}

static void print(int32_t value) {
  if (value == NONE)
    printf(" -");
  else
    printf(" %ld", (long)value);
}

static void say() {
  for (int32_t at = 0; at < config.lines; at += 1) printf(" %d", answer.on[at] ? 1 : 0);
  for (int32_t at = 0; at < config.lines; at += 1) {
    const LineState &line = state.line[at];
    printf(" %d", (int)(line.run.on ? line.run.reason : line.reason));
  }
  print(answer.callAgainAtS);
  printf(" %d", answer.write ? 1 : 0);
  for (int32_t at = 0; at < answer.events; at += 1) {
    const Event &event = answer.event[at];
    printf(" : %d %d", (int)event.kind, (int)event.line);
    print(event.atS);
    printf(" %d", (int)event.reason);
    if (event.kind == STARTED || event.kind == STOPPED) print(event.a);
    if (event.kind == STARTED) print((int32_t)event.b);
    if (event.kind == STOPPED) printf(" %lld", (long long)event.b);
  }
  printf("\n");
}

// ---- Contacts

static int32_t contacts = 0;
static ContactConfig contact[TROWEL_CONTACTS];
static ContactsState contactsState;
static ContactsInput contactsInput;
static ContactsAnswer contactsAnswer;

static void readContact(ContactConfig &one) {
  one.enabled = number() != 0;
  one.contradicts = number() != 0;
  one.sensor = number();
  one.kind = (uint8_t)number();
  one.startTenths = one.stopTenths = 0;
  one.restPermits = false;
  one.darkBelow = one.brightAbove = NONE;
  one.from.by = one.to.by = BY_CLOCK;
  one.from.s = one.to.s = 0;
  if (one.kind == C_PERMIT) {
    one.startTenths = number();
    one.stopTenths = number();
    one.restPermits = number() != 0;
  } else {
    one.from.by = (uint8_t)number();
    one.from.s = number();
    one.to.by = (uint8_t)number();
    one.to.s = number();
    one.darkBelow = number();
    one.brightAbove = number();
  }
  readConditions(one.conditions);
  one.mostOnS = number();
  one.leastOffS = number();
  one.dayMaxS = number();
}

static void readContacts() {
  config.sensors = number();
  for (int32_t at = 0; at < config.sensors; at += 1) readSensor(config.sensor[at]);
  config.tanks = config.lines = 0;
  config.atOnce = 1;
  contacts = number();
  for (int32_t at = 0; at < contacts; at += 1) readContact(contact[at]);
}

static void bootAllContacts() {
  RememberedContact kept[TROWEL_CONTACTS];
  for (int32_t at = 0; at < contacts; at += 1) {
    const int32_t hours = number();
    for (int32_t hour = 0; hour < HOURS; hour += 1) kept[at].hoursS[hour] = hour < hours ? number() : 0;
  }
  boot(state, config, 0, 0);
  bootContacts(contactsState, contact, contacts, kept, 0);
}

static void readContactCall() {
  input.nowS = number();
  readSensors();
  input.daySecond = number();
  input.weekday = number();
  contactsInput.riseS = number();
  contactsInput.setS = number();
  input.batteryMv = number();
  input.orders = 0;
  for (int32_t at = 0; at < contacts; at += 1) readAround(contactsInput.around[at]);
  step(state, input, config, answer);
  stepContacts(contactsState, input, contactsInput, state, config, contact, contacts, contactsAnswer);
}

static void sayContacts() {
  for (int32_t at = 0; at < contacts; at += 1) {
    const ContactState &one = contactsState.contact[at];
    printf(" %d", (one.isOn ? 1 : 0) + (one.isResting ? 2 : 0));
  }
  for (int32_t at = 0; at < contacts; at += 1) printf(" %d", contactsAnswer.driven[at] ? 1 : 0);
  for (int32_t at = 0; at < contacts; at += 1) printf(" %d", (int)contactsState.contact[at].reason);
  printf(" %d", contactsAnswer.write ? 1 : 0);
  for (int32_t at = 0; at < contactsAnswer.events; at += 1) {
    const ContactEvent &event = contactsAnswer.event[at];
    printf(" : %d %d", (int)event.kind, (int)event.contact);
    print(event.atS);
    printf(" %d", (int)event.reason);
    if (event.kind == WENT_OFF) print(event.onS);
  }
  printf("\n");
}

// ---- Signals

static uint8_t signalRules = 0;
static SignalRule signalRule[STATES];
static SignalLimits signalLimits;

static void readSignals() {
  signalRules = (uint8_t)number();
  for (uint8_t at = 0; at < signalRules; at += 1) {
    signalRule[at].state = (uint8_t)number();
    signalRule[at].lamp = (uint8_t)number();
    signalRule[at].rhythm = (uint8_t)number();
    signalRule[at].buzz = (uint8_t)number();
  }
  signalLimits.dry = number();
  signalLimits.wet = number();
  signalLimits.soilLow = number();
  signalLimits.soilHigh = number();
  signalLimits.airLow = number();
  signalLimits.airHigh = number();
}

static void saySignal() {
  SignalFacts f;
  f.locked = number() != 0;
  f.watering = number() != 0;
  f.faulty = number() != 0;
  f.unknown = number() != 0;
  f.tankLow = number() != 0;
  f.tenths = number();
  f.soil = number();
  f.air = number();
  f.dark = number();
  const uint8_t rule = ruleOf(signalRule, signalRules, f, signalLimits);
  print(rule == NOTHING ? NONE : signalRule[rule].state);
  printf("\n");
}

int main() {
  char word[32];
  while (readWord(word)) {
    if (word[0] == 'T') readTrace();
    if (word[0] == 'B') readBoot();
    if (word[0] == 'C') {
      readCall();
      step(state, input, config, answer);
      say();
    }
    if (word[0] == 'L') readSignals();
    if (word[0] == 'F') saySignal();
    if (word[0] == 'U') readContacts();
    if (word[0] == 'D') bootAllContacts();
    if (word[0] == 'E') {
      readContactCall();
      sayContacts();
    }
  }
  return 0;
}
