// Parts on I2C, asked by the bytes that their sheets name.
#ifndef TROWEL_I2C_H
#define TROWEL_I2C_H

#include "wires.h"

// So long after it was begun a part has something to say.
const uint32_t BEGUN_MS = 500;

static bool wasBegun[I2C_COUNT];
static uint32_t begunAtMs[I2C_COUNT];

static bool readI2c(const I2cPart &part, uint8_t &byte, bool isLast) {
  byte = 0;
  for (uint8_t bit = 0; bit < 8; bit += 1) {
    bool isOne = false;
    if (!readBit(part, isOne)) return false;
    byte = (uint8_t)((byte << 1) | (isOne ? 1 : 0));
  }
  return writeBit(part, isLast);
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
