// Two lines of I2C that are only ever pulled down, and let up by their pull-ups; the clock is given here, so that any two pins will do.
#ifndef TROWEL_WIRES_H
#define TROWEL_WIRES_H

const uint8_t I2C_HALF_US = 5;
// A part may hold the clock down for so long.
const uint16_t STRETCH_US = 3000;

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

// Its address and these bytes; whoever calls it ends with stopI2c.
static bool sendI2c(const I2cPart &part, const uint8_t *bytes, uint8_t count) {
  if (!startI2c(part) || !writeI2c(part, (uint8_t)(part.address << 1))) return false;
  for (uint8_t at = 0; at < count; at += 1)
    if (!writeI2c(part, bytes[at])) return false;
  return true;
}

#endif
