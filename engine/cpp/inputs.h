// How inputs are read, how several become one, and what conditions make of them.
#ifndef TROWEL_INPUTS_H
#define TROWEL_INPUTS_H

#ifdef TROWEL_BUS
#include "bus.h"
#endif
#ifdef TROWEL_I2C
#include "i2c.h"
#endif

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

#ifdef TROWEL_FAR
// What other boards have read, as the gateway tells it: it comes once, then they are silent until it is told again. What conditions go by holds for so long, s.
static int32_t farRaws[INPUTS], farAtS[INPUTS];
static int32_t farHoldsS = 180;

static int32_t readFar(uint8_t at) {
  const int32_t raw = farRaws[at];
  farRaws[at] = NONE;
  return raw;
}
#endif

#ifdef TROWEL_ONE_WIRE
// ---- The only 1-Wire thermometer on its pin. Times are those of the standard; the line is pulled up by a resistor and only ever pulled down.

static void pullDown(uint8_t pin, uint16_t us) {
  digitalWrite(pin, LOW);
  pinMode(pin, OUTPUT);
  delayMicroseconds(us);
}

// Whether anything answers a reset.
static bool resetWire(uint8_t pin) {
  pullDown(pin, 480);
  noInterrupts();
  pinMode(pin, INPUT);
  delayMicroseconds(70);
  const bool answers = digitalRead(pin) == LOW;
  interrupts();
  delayMicroseconds(410);
  return answers;
}

static void writeWire(uint8_t pin, uint8_t byte) {
  for (uint8_t bit = 0; bit < 8; bit += 1) {
    const bool isOne = ((byte >> bit) & 1u) != 0;
    noInterrupts();
    pullDown(pin, isOne ? 6 : 60);
    pinMode(pin, INPUT);
    interrupts();
    delayMicroseconds(isOne ? 64 : 10);
  }
}

static uint8_t readWire(uint8_t pin) {
  uint8_t byte = 0;
  for (uint8_t bit = 0; bit < 8; bit += 1) {
    noInterrupts();
    pullDown(pin, 3);
    pinMode(pin, INPUT);
    delayMicroseconds(8);
    if (digitalRead(pin) == HIGH) byte = (uint8_t)(byte | (1u << bit));
    interrupts();
    delayMicroseconds(55);
  }
  return byte;
}

static uint8_t checkedWire(uint8_t sum, uint8_t byte) {
  for (uint8_t bit = 0; bit < 8; bit += 1) {
    const bool isOne = ((sum ^ byte) & 1u) != 0;
    sum = (uint8_t)(sum >> 1);
    if (isOne) sum = (uint8_t)(sum ^ 0x8cu);
    byte = (uint8_t)(byte >> 1);
  }
  return sum;
}

// Hundredths of a degree of what it measured since the last look. NONE: no answer, or a damaged one.
static int32_t measuredOn(uint8_t pin) {
  if (!resetWire(pin)) return NONE;
  writeWire(pin, 0xcc);
  writeWire(pin, 0xbe);
  uint8_t answer[9];
  uint8_t sum = 0;
  for (uint8_t at = 0; at < 9; at += 1) {
    answer[at] = readWire(pin);
    sum = checkedWire(sum, answer[at]);
  }
  // Nine times nothing has a right check as well.
  if (sum != 0 || answer[4] == 0) return NONE;
  const int32_t sixteenths = (int32_t)(int16_t)(uint16_t)(answer[0] | (answer[1] << 8));
  return (sixteenths * 100 - (sixteenths < 0 ? 15 : 0)) / 16;
}

static int32_t readOneWire(uint8_t pin, uint8_t at) {
  // Before it was told to measure it has nothing to say.
  static bool wasTold[INPUTS > 0 ? INPUTS : 1];
  const int32_t value = wasTold[at] ? measuredOn(pin) : NONE;
  wasTold[at] = true;
  if (resetWire(pin)) {
    writeWire(pin, 0xcc);
    writeWire(pin, 0x44);
  }
  return value;
}
#endif

// Eight readings, for a steadier one.
static int32_t readCounts(uint8_t pin) {
  int32_t sum = 0;
  for (uint8_t turn = 0; turn < 8; turn += 1) sum += (int32_t)analogRead(pin);
  return (sum + 4) / 8;
}

static int32_t readInput(uint8_t at) {
  const InputPin &one = INPUT_PINS[at];
  switch (one.reads) {
    case READ_CONTACT: return digitalRead(one.pin) == HIGH ? 1 : 0;
    case READ_DISTANCE: return readDistance(one);
#ifdef TROWEL_BUS
    case READ_BUS: return readBus(one.pin);
#endif
#ifdef TROWEL_I2C
    case READ_I2C: return readOverI2c(one.pin);
#endif
#ifdef TROWEL_ONE_WIRE
    case READ_ONE_WIRE: return readOneWire(one.pin, at);
#endif
#ifdef TROWEL_VOLTS
    case READ_VOLTS: return (int32_t)((int64_t)readCounts(one.pin) * TROWEL_REFERENCE_MV / TROWEL_FULL_SCALE);
#endif
#ifdef TROWEL_FAR
    case READ_FAR: return readFar(at);
#endif
    default: return readCounts(one.pin);
  }
}

// What is not read in every second holds for conditions, and beside other probes of its plot, until its next time.
#if defined(TROWEL_POWERS) || defined(TROWEL_BUS) || defined(TROWEL_FAR)
#define TROWEL_HOLDS
static int32_t lastRaws[INPUTS > 0 ? INPUTS : 1];
#else
#define lastRaws raws
#endif

#ifdef TROWEL_POWERS
// ---- Probes that are fed only to be read.
static int32_t fedSinceS[TROWEL_POWERS], readAtS[TROWEL_POWERS];

// Fed for long enough.
static bool isFed(uint8_t power) { return fedSinceS[power] != NONE && input.nowS - fedSinceS[power] >= POWER_PINS[power].waitS; }

static void beginFeeding() {
  for (uint8_t at = 0; at < TROWEL_POWERS; at += 1) {
    digitalWrite(POWER_PINS[at].pin, LOW);
    pinMode(POWER_PINS[at].pin, OUTPUT);
    fedSinceS[at] = NONE;
    readAtS[at] = 0;
  }
}

// Before reading: whose turn it is is switched on. The first reading comes as soon as it can.
static void feed() {
  for (uint8_t at = 0; at < TROWEL_POWERS; at += 1) {
    const PowerPin &one = POWER_PINS[at];
    if (fedSinceS[at] != NONE || (readAtS[at] != 0 && input.nowS - readAtS[at] < one.everyS - one.waitS)) continue;
    digitalWrite(one.pin, HIGH);
    fedSinceS[at] = input.nowS;
  }
}

// After reading: what has been read is switched off.
static void starve() {
  for (uint8_t at = 0; at < TROWEL_POWERS; at += 1) {
    if (!isFed(at)) continue;
    digitalWrite(POWER_PINS[at].pin, LOW);
    fedSinceS[at] = NONE;
    readAtS[at] = input.nowS;
  }
}
#endif

// Whether an input's time is now: what is not fed is not read, and of the probes on a bus one a second.
static bool isRead(uint8_t at) {
#ifdef TROWEL_BUS
  if (INPUT_PINS[at].reads == READ_BUS) return isBusTurn(INPUT_PINS[at].pin);
#endif
#ifdef TROWEL_FAR
  if (INPUT_PINS[at].reads == READ_FAR) return farRaws[at] != NONE;
#endif
#ifdef TROWEL_POWERS
  const uint8_t power = INPUT_PINS[at].fedBy;
  if (power != ALWAYS_FED) return isFed(power);
#endif
  (void)at;
  return true;
}

static void readInputs() {
  for (uint8_t at = 0; at < INPUTS; at += 1) {
    const bool isNow = isRead(at);
    raws[at] = isNow ? readInput(at) : NONE;
#ifdef TROWEL_HOLDS
    if (isNow) lastRaws[at] = raws[at];
#endif
#ifdef TROWEL_FAR
    if (INPUT_PINS[at].reads == READ_FAR && input.nowS - farAtS[at] > farHoldsS) lastRaws[at] = NONE;
#endif
  }
}

// Something was read that is not read in every second.
static bool hasNews() {
#ifdef TROWEL_BUS
  return true;
#else
#ifdef TROWEL_POWERS
  for (uint8_t at = 0; at < TROWEL_POWERS; at += 1)
    if (isFed(at)) return true;
#endif
  return false;
#endif
}

static void beginInputs() {
#ifdef TROWEL_HOLDS
  for (uint8_t at = 0; at < INPUTS; at += 1) lastRaws[at] = NONE;
#endif
#ifdef TROWEL_FAR
  for (uint8_t at = 0; at < INPUTS; at += 1) farRaws[at] = NONE;
#endif
#ifdef TROWEL_POWERS
  beginFeeding();
#endif
#ifdef TROWEL_BUS
  beginBus();
#endif
}

// ---- What inputs mean

#if defined(TROWEL_SENSES) || defined(TROWEL_MOST_MEMBERS)
static int32_t rawOf(const TablePoint *table, uint8_t at) { return (int32_t)pgm_read_dword(&table[at].raw); }
static int32_t meantAt(const TablePoint *table, uint8_t at) { return (int32_t)pgm_read_dword(&table[at].tenths); }

// Linear between the points of a table, at its ends beyond them.
static int32_t meantBy(const TablePoint *table, uint8_t points, int32_t raw) {
  if (raw <= rawOf(table, 0)) return meantAt(table, 0);
  for (uint8_t at = 1; at < points; at += 1) {
    const int32_t right = rawOf(table, at);
    if (raw > right) continue;
    const int32_t left = rawOf(table, at - 1);
    const int32_t from = meantAt(table, at - 1);
    return from + (int32_t)(((int64_t)raw - left) * (meantAt(table, at) - from) / ((int64_t)right - left));
  }
  return meantAt(table, points - 1);
}
#endif

// What a condition goes by. NONE: not asked for, or not known.
static int32_t senseOf(int32_t place) {
#ifdef TROWEL_SENSES
  if (place == NONE) return NONE;
  const Sense &one = SENSES[place];
  const int32_t raw = lastRaws[one.input];
  if (raw == NONE || raw < rawOf(one.table, 0) || raw > rawOf(one.table, one.points - 1)) return NONE;
  return meantBy(one.table, one.points, raw);
#else
  (void)place;
  return NONE;
#endif
}

static void fillAround(Around &about, const int32_t *senses) {
  about.airTenthsC = senseOf(senses[0]);
  about.light = senseOf(senses[1]);
  about.rain = senseOf(senses[2]);
  about.soilTenthsC = senseOf(senses[3]);
  about.skip = senseOf(senses[4]);
}

#ifdef TROWEL_MOST_MEMBERS
// Several probes as one, in tenths: the driest of them, their mean, their median. NONE where too few of them can be read, and where none of
// them was read in this second.
static int32_t combined(const Source &source) {
  int32_t votes[TROWEL_MOST_MEMBERS];
  uint8_t counted = 0;
  int32_t sum = 0;
  bool isNew = false;
  for (uint8_t at = 0; at < source.members; at += 1) {
    const Member &one = MEMBERS[source.first + at];
    if (raws[one.input] != NONE) isNew = true;
    const int32_t raw = lastRaws[one.input];
    if (raw == NONE || raw < one.lowRaw || raw > one.highRaw) continue;
    const int32_t tenths = meantBy(one.table, one.points, raw);
    uint8_t place = counted;
    for (; place > 0 && votes[place - 1] > tenths; place -= 1) votes[place] = votes[place - 1];
    votes[place] = tenths;
    counted += 1;
    sum += tenths;
  }
  if (counted == 0 || !isNew) return NONE;
  if (source.by == BY_DRIEST) return votes[0];
  if (source.members > 1 && 2 * counted <= source.members) return NONE;
  if (source.by == BY_MEAN) return sum / counted;
  const uint8_t middle = (uint8_t)((counted - 1) / 2);
  return counted % 2 == 1 ? votes[middle] : (votes[middle] + votes[middle + 1]) / 2;
}
#endif

static int32_t readSensor(int32_t at) {
  const Source &source = SOURCES[at];
#ifdef TROWEL_MOST_MEMBERS
  if (source.by != BY_ONE) return combined(source);
#endif
  return raws[source.first];
}

#endif
