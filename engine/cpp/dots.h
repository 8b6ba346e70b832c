// Small displays of dots on I2C: letters are drawn. It is part of screen.h.
#ifndef TROWEL_DOTS_H
#define TROWEL_DOTS_H

#include "font.h"

// How they begin, as the sheets of most of them have it: asleep, size, supply of its own, direction, contrast, and awake.
static const uint8_t SCREEN_BEGIN[] = {0x00, 0xae, 0xd5, 0x80, 0xa8, 0x3f, 0xd3, 0x00, 0x40, 0x8d, 0x14, 0x20, 0x00,
                                       0xa1, 0xc8, 0xda, 0x12, 0x81, 0xcf, 0xd9, 0xf1, 0xdb, 0x40, 0xa4, 0xa6, 0xaf};
const uint8_t SCREEN_WIDTH = 128, SCREEN_PAGES = 8, LETTER_WIDTH = 8;
// Lines of letters stand twice as high as the font, the first below the top.
static const uint8_t LINE_PAGES[TEXT_LINES] = {1, 5};

// From here on: all columns, from one page to another.
static bool windowOf(const I2cPart &part, uint8_t first, uint8_t last) {
  const uint8_t window[] = {0x00, 0x21, 0, SCREEN_WIDTH - 1, 0x22, first, last};
  return tellScreen(part, window, sizeof(window));
}

// Each of four bits twice.
static uint8_t doubled(uint8_t bits) {
  uint8_t value = 0;
  for (uint8_t at = 0; at < 4; at = (uint8_t)(at + 1))
    if (((bits >> at) & 1u) != 0) value = (uint8_t)(value | (3u << (2 * at)));
  return value;
}

// A page of columns: the upper or the lower halves of the letters of a line, nothing behind its end.
static bool drawHalf(const I2cPart &part, const char *line, bool isLower) {
  const uint8_t begin = 0x40;
  bool isTaken = sendI2c(part, &begin, 1);
  for (uint8_t column = 0; isTaken && column < SCREEN_WIDTH; column = (uint8_t)(column + 1)) {
    if (column % LETTER_WIDTH == 0 && column > 0 && *line != 0) line += 1;
    const uint8_t bits = fontColumn(*line, column % LETTER_WIDTH);
    isTaken = writeI2c(part, doubled(isLower ? bits >> 4 : bits & 15u));
  }
  stopI2c(part);
  return isTaken;
}

static bool drawDots(const I2cPart &part, uint8_t row, const char *line) {
  const uint8_t page = LINE_PAGES[row];
  return windowOf(part, page, (uint8_t)(page + 1)) && drawHalf(part, line, false) && drawHalf(part, line, true);
}

static bool clearScreen(const I2cPart &part) {
  if (!windowOf(part, 0, SCREEN_PAGES - 1)) return false;
  for (uint8_t page = 0; page < SCREEN_PAGES; page = (uint8_t)(page + 1))
    if (!drawHalf(part, "", false)) return false;
  return true;
}

static bool beginDots(const I2cPart &part) { return tellScreen(part, SCREEN_BEGIN, sizeof(SCREEN_BEGIN)) && clearScreen(part); }

#endif
