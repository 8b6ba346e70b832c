// Small displays on I2C: the text of the state that their plot is in, with places for what is measured, in pages that turn. It means the same as
// core/src/control/display.
#ifndef TROWEL_SCREEN_H
#define TROWEL_SCREEN_H

#include "wires.h"

const uint8_t LETTERS = 16, TEXT_LINES = 2;
const int32_t PAGE_S = 4;
// More of a page than this stands in no line.
const uint8_t PAGE_SIZE = 200;
const uint8_t PLACES = 6;
static const char *const PLACE_NAMES[PLACES] = {"percent}", "raw}", "word}", "temperature}", "battery}", "tank}"};

class PageText : public Print {
 public:
  char letters[PAGE_SIZE];
  uint8_t count;
  PageText() : count(0) { letters[0] = 0; }
  using Print::write;
  virtual size_t write(uint8_t letter) {
    if (count + 1 >= PAGE_SIZE) return 0;
    letters[count] = (char)letter;
    count = (uint8_t)(count + 1);
    letters[count] = 0;
    return 1;
  }
};

// ---- What stands for a place. False: not known.

static bool isKnown(const Watch &watch) {
  return watch.sensor != NONE && doubtOf(state.sensor[watch.sensor], input.nowS, CONFIG.sensor[watch.sensor]) == FREE;
}

static bool putRaw(Print &to, const Display &one) {
  if (one.raw == NONE || raws[one.raw] == NONE) return false;
  printRaw(to, INPUT_PINS[one.raw], raws[one.raw]);
  return true;
}

static bool putPercent(Print &to, const Display &one, const Watch &watch) {
  if (!isKnown(watch)) return false;
  const int32_t tenths = state.sensor[watch.sensor].tenths;
  switch (one.scale) {
    case SHOWS_COUNTS:
      if (!putRaw(to, one)) return false;
      to.print(F(" counts"));
      return true;
    case SHOWS_TENSION:
      printDecimal(to, 1000 - tenths, 1);
      to.print(F(" kPa"));
      return true;
    case SHOWS_SIDE: to.print(tenths < 500 ? F("dry side") : F("wet side")); return true;
    default: break;
  }
  printDecimal(to, tenths, 1);
  to.print(F(" "));
  to.print(one.unit);
  return true;
}

static void putWord(Print &to, const Display &one, const Watch &watch) {
  if (!isKnown(watch)) {
    to.print(F("unknown"));
    return;
  }
  const int32_t tenths = state.sensor[watch.sensor].tenths;
  uint8_t at = 0;
  while (at < 4 && tenths >= one.edges[at]) at = (uint8_t)(at + 1);
  to.print(one.words[at]);
}

static bool putTemperature(Print &to, const Display &one) {
  const int32_t tenths = senseOf(one.temperature);
  if (tenths == NONE) return false;
  printDecimal(to, tenths, 1);
  to.print(F(" C"));
  return true;
}

static bool putBattery(Print &to, const Display &one) {
  const int32_t mv = senseOf(one.battery);
  if (mv == NONE) return false;
  printDecimal(to, mv / 10, 2);
  to.print(F(" V"));
  return true;
}

static bool putTank(Print &to, const Display &one) {
  if (one.tank == NONE) return false;
  const uint8_t trouble = tankTrouble(state.tank[one.tank], input.nowS, CONFIG.tank[one.tank]);
  if (trouble != TANK_LOW && trouble != FREE) return false;
  to.print(trouble == TANK_LOW ? F("low") : F("has water"));
  return true;
}

static void putPlace(Print &to, const Display &one, uint8_t place) {
  const Watch &watch = WATCHES[one.watch];
  bool isPut = true;
  switch (place) {
    case 0: isPut = putPercent(to, one, watch); break;
    case 1: isPut = putRaw(to, one); break;
    case 2: putWord(to, one, watch); break;
    case 3: isPut = putTemperature(to, one); break;
    case 4: isPut = putBattery(to, one); break;
    default: isPut = putTank(to, one); break;
  }
  if (!isPut) to.print(F("?"));
}

// ---- Pages and lines.

static uint8_t pagesIn(const char *text) {
  uint8_t pages = 1;
  for (; *text != 0; text += 1)
    if (*text == '|') pages = (uint8_t)(pages + 1);
  return pages;
}

// The place whose name stands here, and what follows it; PLACES: none does.
static uint8_t placeAt(const char *&text) {
  for (uint8_t place = 0; place < PLACES; place = (uint8_t)(place + 1)) {
    const char *name = PLACE_NAMES[place];
    const char *here = text;
    while (*name != 0 && *here == *name) {
      name += 1;
      here += 1;
    }
    if (*name != 0) continue;
    text = here;
    return place;
  }
  return PLACES;
}

static void fillPage(PageText &to, const Display &one, const char *text, uint8_t page) {
  for (; page > 0; text += 1)
    if (*text == '|') page = (uint8_t)(page - 1);
  while (*text != 0 && *text != '|') {
    const char letter = *text;
    text += 1;
    const uint8_t place = letter == '{' ? placeAt(text) : PLACES;
    if (place < PLACES)
      putPlace(to, one, place);
    else
      to.write((uint8_t)letter);
  }
}

// Words over the lines of a page; a word longer than a line is broken. The line that begins here, without its blanks; then the next begins here.
static void layLine(const char *&left, char *line) {
  while (*left == ' ') left += 1;
  uint8_t end = 0, lastBlank = 0;
  while (end < LETTERS && left[end] != 0) {
    if (left[end] == ' ') lastBlank = end;
    end = (uint8_t)(end + 1);
  }
  if (left[end] != 0 && left[end] != ' ' && lastBlank > 0) end = lastBlank;
  for (uint8_t at = 0; at < end; at = (uint8_t)(at + 1)) line[at] = left[at];
  left += end;
  while (end > 0 && line[end - 1] == ' ') end = (uint8_t)(end - 1);
  line[end] = 0;
}

static char shownLines[DISPLAYS][TEXT_LINES][LETTERS + 1];
static bool wasScreenBegun[DISPLAYS], isShown[DISPLAYS];

static bool tellScreen(const I2cPart &part, const uint8_t *bytes, uint8_t count) {
  const bool isTaken = sendI2c(part, bytes, count);
  stopI2c(part);
  return isTaken;
}

#ifdef TROWEL_DOTS
#include "dots.h"
#endif
#ifdef TROWEL_LETTERS
#include "letters.h"
#endif

// How a display that was just plugged in begins, and how a line comes onto it. False: nobody took it.
static bool beginScreen(const Display &one) {
#ifdef TROWEL_LETTERS
  if (one.kind == OF_LETTERS) return beginLetters(one.part);
#endif
#ifdef TROWEL_DOTS
  if (one.kind == OF_DOTS) return beginDots(one.part);
#endif
  return false;
}

static bool putLine(const Display &one, uint8_t row, const char *line) {
#ifdef TROWEL_LETTERS
  if (one.kind == OF_LETTERS) return writeLetters(one.part, row, line);
#endif
#ifdef TROWEL_DOTS
  if (one.kind == OF_DOTS) return drawDots(one.part, row, line);
#endif
  return false;
}

// Whether it took them: a display that was unplugged is begun anew.
static bool draw(uint8_t at, const char lines[TEXT_LINES][LETTERS + 1]) {
  const Display &one = DISPLAY_PARTS[at];
  if (!wasScreenBegun[at]) wasScreenBegun[at] = beginScreen(one);
  for (uint8_t row = 0; wasScreenBegun[at] && row < TEXT_LINES; row = (uint8_t)(row + 1)) wasScreenBegun[at] = putLine(one, row, lines[row]);
  return wasScreenBegun[at];
}

static bool isSame(const char *one, const char *other) {
  while (*one != 0 && *one == *other) {
    one += 1;
    other += 1;
  }
  return *one == *other;
}

// Each second, after the lamps know what state speaks.
static void lookAtScreens() {
  for (uint8_t at = 0; at < DISPLAYS; at = (uint8_t)(at + 1)) {
    const Display &one = DISPLAY_PARTS[at];
    const uint8_t rule = ruleNow[one.watch];
    PageText page;
    if (rule != NOTHING)
      fillPage(page, one, TEXTS[rule], (uint8_t)((input.nowS - ruleSinceS[one.watch]) / PAGE_S % pagesIn(TEXTS[rule])));
    const char *left = page.letters;
    char lines[TEXT_LINES][LETTERS + 1];
    for (uint8_t row = 0; row < TEXT_LINES; row = (uint8_t)(row + 1)) layLine(left, lines[row]);
    bool isNew = !isShown[at];
    for (uint8_t row = 0; row < TEXT_LINES; row = (uint8_t)(row + 1)) isNew = isNew || !isSame(lines[row], shownLines[at][row]);
    if (!isNew) continue;
    for (uint8_t row = 0; row < TEXT_LINES; row = (uint8_t)(row + 1))
      for (uint8_t letter = 0; letter <= LETTERS; letter = (uint8_t)(letter + 1)) {
        shownLines[at][row][letter] = lines[row][letter];
        if (lines[row][letter] == 0) break;
      }
    // What could not be shown is tried again.
    isShown[at] = draw(at, shownLines[at]);
  }
}

#endif
