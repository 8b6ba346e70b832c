// Parts on I2C, asked by the bytes that their sheets name. The two lines are only ever pulled down, and let up by their pull-ups; the clock is given here, so that
// any two pins will do.
#ifndef TROWEL_I2C_H
#define TROWEL_I2C_H

const uint8_t I2C_HALF_US = 5;
// A part may hold the clock down for so long.
const uint16_t STRETCH_US = 3000;
// So long after it was begun a part has something to say.
const uint32_t BEGUN_MS = 500;

static bool wasBegun[I2C_COUNT];
static uint32_t begunAtMs[I2C_COUNT];

static void holdLow(uint8_t pin) {
  digitalWrite(pin, LOW);
  pinMode(pin, OUTPUT);
}
static void letUp(uint8_t pin) { pinMode(pin, INPUT); }

// False: the clock stays down.
static bool clockUp(const I2cPart &part) {
  letUp(part.scl);
  for (uint16_t us = 0; digitalRead(part.scl) != HIGH; us += 1) {
    if (us >= STRETCH_US) return false;
    delayMicroseconds(1);
  }
  delayMicroseconds(I2C_HALF_US);
  return true;
}
static void clockDown(const I2cPart &part) {
  holdLow(part.scl);
  delayMicroseconds(I2C_HALF_US);
}

static bool writeBit(const I2cPart &part, bool isOne) {
  if (isOne)
    letUp(part.sda);
  else
    holdLow(part.sda);
  delayMicroseconds(I2C_HALF_US);
  const bool isUp = clockUp(part);
  clockDown(part);
  return isUp;
}

static bool readBit(const I2cPart &part, bool &isOne) {
  letUp(part.sda);
  delayMicroseconds(I2C_HALF_US);
  const bool isUp = clockUp(part);
  isOne = digitalRead(part.sda) == HIGH;
  clockDown(part);
  return isUp;
}

// A part that was cut off in the middle of a byte holds its line down until it is clocked out of it.
static void freeLine(const I2cPart &part) {
  letUp(part.sda);
  for (uint8_t turn = 0; turn < 9 && digitalRead(part.sda) != HIGH; turn += 1) {
    clockDown(part);
    clockUp(part);
  }
}

static bool startI2c(const I2cPart &part) {
  letUp(part.sda);
  delayMicroseconds(I2C_HALF_US);
  if (!clockUp(part)) return false;
  freeLine(part);
  if (digitalRead(part.sda) != HIGH) return false;
  holdLow(part.sda);
  delayMicroseconds(I2C_HALF_US);
  clockDown(part);
  return true;
}

static void stopI2c(const I2cPart &part) {
  holdLow(part.sda);
  delayMicroseconds(I2C_HALF_US);
  clockUp(part);
  letUp(part.sda);
  delayMicroseconds(I2C_HALF_US);
}

// True: somebody took it.
static bool writeI2c(const I2cPart &part, uint8_t byte) {
  for (uint8_t bit = 8; bit > 0; bit -= 1)
    if (!writeBit(part, ((byte >> (bit - 1)) & 1u) != 0)) return false;
  bool isLeft = true;
  return readBit(part, isLeft) && !isLeft;
}

static bool readI2c(const I2cPart &part, uint8_t &byte, bool isLast) {
  byte = 0;
  for (uint8_t bit = 0; bit < 8; bit += 1) {
    bool isOne = false;
    if (!readBit(part, isOne)) return false;
    byte = (uint8_t)((byte << 1) | (isOne ? 1 : 0));
  }
  return writeBit(part, isLast);
}

static bool sendI2c(const I2cPart &part, const uint8_t *bytes, uint8_t count) {
  if (!startI2c(part) || !writeI2c(part, (uint8_t)(part.address << 1))) return false;
  for (uint8_t at = 0; at < count; at += 1)
    if (!writeI2c(part, bytes[at])) return false;
  return true;
}

static uint8_t checkOfTwo(uint8_t first, uint8_t second) {
  uint8_t sum = 0xff;
  for (uint8_t turn = 0; turn < 2; turn += 1) {
    sum = (uint8_t)(sum ^ (turn == 0 ? first : second));
    for (uint8_t bit = 0; bit < 8; bit += 1) sum = (uint8_t)((sum & 0x80u) != 0 ? (uint8_t)(sum << 1) ^ 0x31u : sum << 1);
  }
  return sum;
}

// Its bytes, undamaged.
static bool answerOf(const I2cPart &part, const I2cAsk &ask, uint8_t *answer) {
  if (ask.askBytes > 0) {
    if (!sendI2c(part, ask.ask, ask.askBytes)) return false;
    stopI2c(part);
    for (uint8_t ms = 0; ms < ask.waitMs; ms += 1) delayMicroseconds(1000);
  }
  // The bus is held between the two, so that nobody comes between.
  if (ask.fromBytes > 0 && !sendI2c(part, ask.from, ask.fromBytes)) return false;
  if (!startI2c(part) || !writeI2c(part, (uint8_t)((part.address << 1) | 1u))) return false;
  for (uint8_t at = 0; at < ask.read; at += 1)
    if (!readI2c(part, answer[at], at + 1 == ask.read)) return false;
  if (ask.isChecked)
    for (uint8_t at = 0; at + 2 < ask.read; at += 3)
      if (checkOfTwo(answer[at], answer[at + 1]) != answer[at + 2]) return false;
  return true;
}

static int32_t valueOf(const I2cAsk &ask, const uint8_t *answer) {
  uint16_t word = answer[ask.at];
  if (ask.bytes == 2) {
    const uint8_t next = answer[ask.at + 1];
    word = ask.isLowFirst ? (uint16_t)(((uint16_t)next << 8) | word) : (uint16_t)((word << 8) | next);
  }
  const int32_t value = !ask.isSigned ? (int32_t)word : ask.bytes == 1 ? (int32_t)(int8_t)(uint8_t)word : (int32_t)(int16_t)word;
  return value * ask.times / ask.per + ask.plus;
}

// A part that was just fed is told how to work before it is asked; false: not ready, or nobody there.
static bool isReady(uint8_t at) {
  const I2cPart &part = I2C_PARTS[at];
  if (wasBegun[at]) return millis() - begunAtMs[at] >= BEGUN_MS;
  const uint8_t *here = part.begin;
  for (; *here > 0; here += 1 + *here) {
    const bool isTaken = sendI2c(part, here + 1, *here);
    stopI2c(part);
    if (!isTaken) return false;
  }
  wasBegun[at] = true;
  begunAtMs[at] = millis();
  // What needs no telling is ready at once.
  return *part.begin == 0;
}

// A whole number of the last of its decimals. NONE: no answer, a damaged one, or one that cannot be.
static int32_t readOverI2c(uint8_t place) {
  const I2cAsk &ask = I2C_ASKS[place];
  const I2cPart &part = I2C_PARTS[ask.part];
  if (*part.begin > 0 && !isReady(ask.part)) return NONE;
  uint8_t answer[9];
  const bool isWhole = answerOf(part, ask, answer);
  stopI2c(part);
  if (!isWhole) {
    wasBegun[ask.part] = false;
    return NONE;
  }
  const int32_t value = valueOf(ask, answer);
  return value < ask.least || value > ask.most ? NONE : value;
}

#endif
