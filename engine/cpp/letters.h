// Text displays behind a port on I2C, as most of them are wired: four lines of data, the light, a strobe, and whether it is a letter or an order. It is part of
// screen.h.
#ifndef TROWEL_LETTERS_H
#define TROWEL_LETTERS_H

const uint8_t IS_LETTER = 0x01, STROBE = 0x04, LIGHT = 0x08;
// Where its lines begin.
static const uint8_t LINE_STARTS[TEXT_LINES] = {0x80, 0xc0};

static void waitMs(uint8_t ms) {
  for (uint8_t at = 0; at < ms; at = (uint8_t)(at + 1)) delayMicroseconds(1000);
}

// Half a byte: it is taken when the strobe falls.
static bool sendHalf(const I2cPart &part, uint8_t bits) {
  const uint8_t bytes[] = {(uint8_t)(bits | LIGHT | STROBE), (uint8_t)(bits | LIGHT)};
  return tellScreen(part, bytes, sizeof(bytes));
}

static bool sendByte(const I2cPart &part, uint8_t byte, uint8_t how) {
  return sendHalf(part, (uint8_t)((byte & 0xf0u) | how)) && sendHalf(part, (uint8_t)((byte << 4) | how));
}

// Whatever it was in the middle of: three times eight lines, then four; two lines of letters, no cursor, from left to right, empty.
static bool beginLetters(const I2cPart &part) {
  for (uint8_t at = 0; at < 3; at = (uint8_t)(at + 1)) {
    if (!sendHalf(part, 0x30)) return false;
    waitMs(5);
  }
  const uint8_t orders[] = {0x28, 0x0c, 0x06, 0x01};
  if (!sendHalf(part, 0x20)) return false;
  for (uint8_t at = 0; at < sizeof(orders); at = (uint8_t)(at + 1))
    if (!sendByte(part, orders[at], 0)) return false;
  // To empty it takes its time.
  waitMs(3);
  return true;
}

static bool writeLetters(const I2cPart &part, uint8_t row, const char *line) {
  if (!sendByte(part, LINE_STARTS[row], 0)) return false;
  for (uint8_t at = 0; at < LETTERS; at = (uint8_t)(at + 1)) {
    const char letter = *line == 0 ? ' ' : *line;
    if (*line != 0) line += 1;
    if (!sendByte(part, (uint8_t)letter, IS_LETTER)) return false;
  }
  return true;
}

#endif
