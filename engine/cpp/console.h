// The board's console: a line of words each, answered by lines that begin with "# ".
#ifndef TROWEL_CONSOLE_H
#define TROWEL_CONSOLE_H

#ifdef TROWEL_SMALL
const uint8_t MOST_TYPED = 60;
#else
const uint8_t MOST_TYPED = 160;
#endif
static char typed[MOST_TYPED + 1];
static uint8_t length = 0;

static void printVersion() {
  TELL.print(F("# version 0 "));
  TELL.print(F(TROWEL_PROGRAM));
  TELL.println(F(" engine 1"));
  // Which lines of the garden its numbers mean.
  TELL.println(F("# lines" TROWEL_LINE_IDS));
#if TROWEL_CONTACTS > 0
  TELL.println(F("# contacts" TROWEL_CONTACT_IDS));
#endif
}

static void printWhy() {
  for (int32_t at = 0; at < linesOf(CONFIG); at += 1) {
    const LineState &line = state.line[at];
    TELL.print(F("# line "));
    TELL.print(at + 1);
    if (line.run.on)
      TELL.print(F(" runs "));
    else
      TELL.print(F(" rests "));
    printReason(line.run.on ? line.run.reason : line.reason);
    TELL.print(F(" today "));
    TELL.print((int32_t)line.ration.sumMl);
    TELL.print(F(" ml"));
    if (line.locked) TELL.print(F(" locked"));
    TELL.println();
#if !defined(TROWEL_SMALL) && !defined(TROWEL_NO_LINES)
    if (isSkipped(at)) {
      TELL.print(F("# skip "));
      TELL.print(at + 1);
      TELL.print(F(" "));
      TELL.print(skipUntilS[at] - input.nowS);
      TELL.println(F(" s"));
    }
#endif
  }
#if TROWEL_CONTACTS > 0
  for (int32_t at = 0; at < TROWEL_CONTACTS; at += 1) {
    const ContactState &one = contacts.contact[at];
    TELL.print(F("# contact "));
    TELL.print(at + 1);
    TELL.print(one.isResting ? F(" rests ") : F(" is "));
    TELL.print(one.isOn ? F("on ") : F("off "));
    printReason(one.reason);
    TELL.print(F(" today "));
    TELL.print((int32_t)one.day.sumMl);
    TELL.println(F(" s"));
  }
#endif
#ifdef TROWEL_WATCHES
  printLamps();
#endif
}

static void printPercent() {
  for (int32_t at = 0; at < CONFIG.sensors; at += 1) {
    const SensorState &sensor = state.sensor[at];
    // Before its first reading there is nothing to say.
    if (!sensor.known) continue;
    TELL.print(F("# percent "));
    // Of several together the first lends its name.
    const Source &source = SOURCES[at];
    TELL.print(INPUT_PINS[source.by == BY_ONE ? source.first : MEMBERS[source.first].input].name);
    TELL.print(F(" "));
    if (sensor.tenths != NONE)
      printTenths(sensor.tenths);
    else
      TELL.print(F("unknown"));
    TELL.println();
  }
}

// ---- What is typed: words between blanks

static const char *rest;

static bool takeWord(const __FlashStringHelper *word) {
  const char *here = rest;
  PGM_P letter = reinterpret_cast<PGM_P>(word);
  while (pgm_read_byte(letter) != 0) {
    if (*here != (char)pgm_read_byte(letter)) return false;
    here += 1;
    letter += 1;
  }
  if (*here != ' ' && *here != 0) return false;
  while (*here == ' ') here += 1;
  rest = here;
  return true;
}

// The next word as a whole number; NONE where it is none.
static int32_t takeNumber() {
  if (*rest < '0' || *rest > '9') return NONE;
  int32_t value = 0;
  while (*rest >= '0' && *rest <= '9') {
    if (value > 99999999) return NONE;
    value = value * 10 + (int32_t)(*rest - '0');
    rest += 1;
  }
  if (*rest != ' ' && *rest != 0) return NONE;
  while (*rest == ' ') rest += 1;
  return value;
}

// "40" and "40.5" in tenths; NONE for anything else.
static int32_t takeTenths(int32_t most) {
  int32_t value = 0;
  if (*rest < '0' || *rest > '9') return NONE;
  while (*rest >= '0' && *rest <= '9') {
    if (value > 10000) return NONE;
    value = value * 10 + (int32_t)(*rest - '0');
    rest += 1;
  }
  value *= 10;
  if (*rest == '.') {
    if (rest[1] < '0' || rest[1] > '9') return NONE;
    value += (int32_t)(rest[1] - '0');
    rest += 2;
  }
  return *rest == 0 && value <= most ? value : NONE;
}

static int32_t takeLine() {
  const int32_t number = takeNumber();
  return number >= 1 && number <= linesOf(CONFIG) ? number - 1 : NONE;
}

static void refuse(const __FlashStringHelper *why) {
  TELL.print(F("# no: "));
  TELL.println(why);
}

// ---- Orders by hand: the guards hold them, and they count in the day's sum.

static void orderLine(uint8_t kind, int32_t line, int32_t volumeMl) {
  if (line == NONE) {
    refuse(F("no such line"));
  } else if (input.orders >= TROWEL_ORDERS) {
    refuse(F("one order after the other"));
  } else {
    Order &order = input.order[input.orders];
    order.kind = kind;
    order.line = line;
    order.volumeMl = volumeMl;
    input.orders += 1;
    TELL.println(F("# taken"));
  }
}

static void give() {
  const int32_t line = takeLine();
  const int32_t volumeMl = takeNumber();
  if (volumeMl < 1 || volumeMl > MOST_ORDER_ML)
    refuse(F("give LINE ML"));
  else
    orderLine(ORDER_WATER, line, volumeMl);
}

#if !defined(TROWEL_SMALL) && !defined(TROWEL_NO_LINES)
static void skipLine() {
  const int32_t line = takeLine();
  const int32_t seconds = takeNumber();
  if (line == NONE || seconds == NONE || seconds > MOST_SKIP_S) {
    refuse(F("skip LINE SECONDS, at most 2764800"));
    return;
  }
  skipUntilS[line] = input.nowS + seconds;
  TELL.println(F("# taken"));
}
#endif

static void testPump() {
  const int32_t line = takeLine();
  // "3" and "3s".
  int32_t seconds = 0;
  while (*rest >= '0' && *rest <= '9' && seconds < 10000) {
    seconds = seconds * 10 + (int32_t)(*rest - '0');
    rest += 1;
  }
  if (*rest == 's') rest += 1;
  if (line == NONE || seconds < 1 || seconds > 3600 || *rest != 0) {
    refuse(F("test pump LINE SECONDS"));
    return;
  }
  const int64_t ml = givenMl(CONFIG.line[line], seconds);
  orderLine(ORDER_WATER, line, ml < 1 ? 1 : ml > MOST_ORDER_ML ? MOST_ORDER_ML : (int32_t)ml);
}

static void tellClock(int32_t second, int32_t weekday) {
  const int32_t sinceBoot = input.nowS % DAY_S;
  const int32_t days = input.nowS / DAY_S + (second < sinceBoot ? 1 : 0);
  clockAtBoot = (second - sinceBoot + DAY_S) % DAY_S;
  weekdayAtBoot = (weekday - days % 7 + 7) % 7;
}

static void setClock() {
  const int32_t second = takeNumber();
  const int32_t weekday = takeNumber();
  if (second < 0 || second >= DAY_S || weekday < 0 || weekday > 6) {
    refuse(F("clock SECOND-OF-DAY WEEKDAY"));
    return;
  }
  tellClock(second, weekday);
  TELL.println(F("# taken"));
}

#if TROWEL_CONTACTS > 0
static void tellSun(int32_t rise, int32_t set) {
  aboutContacts.riseS = rise;
  aboutContacts.setS = set;
  sunToldS = input.nowS;
}

static void setSun() {
  const int32_t rise = takeNumber();
  const int32_t set = takeNumber();
  if (rise < 0 || rise >= DAY_S || set < 0 || set >= DAY_S) {
    refuse(F("sun RISE SET"));
    return;
  }
  tellSun(rise, set);
  TELL.println(F("# taken"));
}
#endif

#include "settable.h"

#ifdef TROWEL_NET
static void printNet();
#endif

static void printHelp() {
#ifdef TROWEL_WATCHES
  TELL.println(F("# test lamp (each colour for a second) - set lamp PLOT dry|wet PERCENT"));
#endif
  TELL.println(F("# ? raw all why limits version"));
  TELL.println(F("# give LINE ML - test pump LINE SECONDS - stop LINE - unlock LINE"));
#if !defined(TROWEL_SMALL) && !defined(TROWEL_NO_LINES)
  TELL.println(F("# skip LINE SECONDS (0 ends it)"));
#endif
  TELL.println(F("# set LINE start|stop PERCENT - set LINE dose ML - set LINE water on|off"));
#ifndef TROWEL_SMALL
  TELL.println(F("# set probe N table RAW:TENTHS,... - set probe N soil LOW:HIGH (raw) - set probe N leap PERCENT"));
#endif
#if TROWEL_CONTACTS > 0
  TELL.println(F("# set contact N start|stop PERCENT - set contact N switch on|off"));
  TELL.println(F("# clock SECOND-OF-DAY WEEKDAY (Monday 0) - sun RISE SET (seconds of the day)"));
#else
  TELL.println(F("# clock SECOND-OF-DAY WEEKDAY (Monday 0)"));
#endif
}

static void obeyConsole(const char *text) {
  rest = text;
  while (*rest == ' ') rest += 1;
  if (takeWord(F("?"))) {
    printHelp();
  } else if (takeWord(F("raw"))) {
    readInputs();
    printReadings();
  } else if (takeWord(F("all"))) {
    readInputs();
    printReadings();
    printPercent();
    printWhy();
  } else if (takeWord(F("why"))) {
    printWhy();
  } else if (takeWord(F("limits"))) {
    printLimits();
  } else if (takeWord(F("version"))) {
    printVersion();
  } else if (takeWord(F("give"))) {
    give();
#ifdef TROWEL_WATCHES
  } else if (takeWord(F("test lamp"))) {
    testLamps();
    TELL.println(F("# taken"));
#endif
  } else if (takeWord(F("test pump"))) {
    testPump();
  } else if (takeWord(F("stop"))) {
    orderLine(ORDER_STOP, takeLine(), 0);
  } else if (takeWord(F("unlock"))) {
    orderLine(ORDER_UNLOCK, takeLine(), 0);
#if !defined(TROWEL_SMALL) && !defined(TROWEL_NO_LINES)
  } else if (takeWord(F("skip"))) {
    skipLine();
#endif
  } else if (takeWord(F("clock"))) {
    setClock();
#if TROWEL_CONTACTS > 0
  } else if (takeWord(F("sun"))) {
    setSun();
#endif
  } else if (takeWord(F("set"))) {
    set();
#ifdef TROWEL_NET
  } else if (takeWord(F("net"))) {
    printNet();
#endif
  } else if (takeWord(F("save"))) {
    refuse(F("this program keeps what was compiled in"));
  } else {
    refuse(F("not understood - ? for help"));
  }
}

static void readConsole() {
  while (Serial.available() > 0) {
    const char one = (char)Serial.read();
    if (one == '\n') {
      // Blanks at the end are none.
      while (length > 0 && typed[length - 1] == ' ') length -= 1;
      typed[length] = 0;
      if (length > 0) obeyConsole(typed);
      length = 0;
    } else if (one >= ' ' && one <= '~' && length < MOST_TYPED) {
      typed[length] = one;
      length += 1;
    }
  }
}

#endif
