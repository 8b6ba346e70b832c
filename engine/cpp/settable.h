// What of the settings may be changed while the program runs, within the guards: limits, doses, calibrations, what lamps go by. It is part of the console.
#ifndef TROWEL_SETTABLE_H
#define TROWEL_SETTABLE_H

// Closer together two limits would switch by noise.
const int32_t LEAST_GAP = 10;

static bool hasStart(uint8_t kind) { return kind == P_PULSE_SOAK || kind == P_UNTIL_WET || kind == P_SINGLE_DOSE; }
static bool hasStop(uint8_t kind) { return kind == P_PULSE_SOAK || kind == P_UNTIL_WET || kind == P_VETO; }
static bool hasDose(uint8_t kind) { return kind == P_PULSE_SOAK || kind == P_TIMER || kind == P_SINGLE_DOSE || kind == P_VETO; }

#ifndef TROWEL_SMALL
// ---- The calibration of a probe: raw values with their tenths of a percent, and between which raw values it is in the soil.

const int32_t MOST_POINTS = 8;
// A leap lets nothing start for a while; more than this no noise of a probe asks for.
const int32_t MOST_LEAP = 300;

static void printPair(int32_t one, int32_t other) {
  TELL.print(one);
  TELL.print(F(":"));
  TELL.print(other);
}

static void printProbe(int32_t at) {
  if (SOURCES[at].by != BY_ONE) return;
  const SensorConfig &sensor = CONFIG.sensor[at];
  TELL.print(F("# limits probe "));
  TELL.print(at + 1);
  TELL.print(F(" table "));
  for (int32_t point = 0; point < sensor.points; point += 1) {
    if (point > 0) TELL.print(F(","));
    printPair(sensor.table[point].raw, sensor.table[point].tenths);
  }
  TELL.print(F(" soil "));
  printPair(sensor.soilLowRaw, sensor.soilHighRaw);
  TELL.print(F(" leap "));
  printTenths(sensor.leapTenths);
  TELL.println();
}

// "-12:345", and what follows it; false for anything else.
static bool takePair(int32_t &one, int32_t &other) {
  int32_t *const into[2] = {&one, &other};
  for (uint8_t half = 0; half < 2; half += 1) {
    const bool isNegative = *rest == '-';
    if (isNegative) rest += 1;
    if (*rest < '0' || *rest > '9') return false;
    int32_t value = 0;
    while (*rest >= '0' && *rest <= '9') {
      if (value > 199999999) return false;
      value = value * 10 + (int32_t)(*rest - '0');
      rest += 1;
    }
    *into[half] = isNegative ? -value : value;
    if (half == 0) {
      if (*rest != ':') return false;
      rest += 1;
    }
  }
  return true;
}

// Raw values rise; the percent goes one way, from 0 to 100 at the most.
static bool setTable(SensorConfig &sensor) {
  TablePoint points[MOST_POINTS];
  int32_t count = 0;
  bool rises = false, falls = false;
  for (;;) {
    if (count == MOST_POINTS || !takePair(points[count].raw, points[count].tenths)) return false;
    const TablePoint &now = points[count];
    if (now.tenths < 0 || now.tenths > 1000) return false;
    if (count > 0) {
      if (now.raw <= points[count - 1].raw) return false;
      rises = rises || now.tenths > points[count - 1].tenths;
      falls = falls || now.tenths < points[count - 1].tenths;
    }
    count += 1;
    if (*rest == 0) break;
    if (*rest != ',') return false;
    rest += 1;
  }
  if (count < 2 || rises == falls) return false;
  for (int32_t at = 0; at < count; at += 1) sensor.table[at] = points[at];
  sensor.points = count;
  return true;
}

static void setProbe(const char *begun) {
  const int32_t number = takeNumber();
  if (number < 1 || number > CONFIG.sensors || SOURCES[number - 1].by != BY_ONE) {
    refuse(F("no such probe"));
    return;
  }
  SensorConfig &sensor = CONFIG.sensor[number - 1];
  int32_t low = 0, high = 0;
  if (takeWord(F("table"))) {
    if (!setTable(sensor)) {
      refuse(F("raw:tenths, two to eight, raw values rising, tenths one way from 0 to 1000"));
      return;
    }
  } else if (takeWord(F("soil")) && takePair(low, high) && *rest == 0 && low <= high) {
    sensor.soilLowRaw = low;
    sensor.soilHighRaw = high;
  } else if (takeWord(F("leap"))) {
    const int32_t tenths = takeTenths(MOST_LEAP);
    if (tenths < LEAST_GAP) {
      refuse(F("a percent from 1 to 30"));
      return;
    }
    sensor.leapTenths = tenths;
  } else {
    refuse(F("table, soil LOW:HIGH, or leap PERCENT"));
    return;
  }
  TELL.print(F("# taken "));
  TELL.println(begun);
}
#endif

#if TROWEL_CONTACTS > 0
static void printContact(int32_t at) {
  const ContactConfig &one = CONTACTS[at];
  TELL.print(F("# limits contact "));
  TELL.print(at + 1);
  if (one.kind == C_PERMIT) {
    TELL.print(F(" start "));
    printTenths(one.startTenths);
    TELL.print(F(" stop "));
    printTenths(one.stopTenths);
  }
  TELL.println(one.enabled ? F(" switch on") : F(" switch off"));
}

static bool setContactLimit(ContactConfig &one, bool isStart) {
  const int32_t tenths = takeTenths(1000);
  if (tenths == NONE) {
    refuse(F("a percent from 0 to 100 with at most one decimal"));
    return false;
  }
  const int32_t start = isStart ? tenths : one.startTenths;
  const int32_t stop = isStart ? one.stopTenths : tenths;
  if (stop - start < LEAST_GAP) {
    refuse(F("start must lie at least 1 below stop"));
    return false;
  }
  one.startTenths = start;
  one.stopTenths = stop;
  return true;
}

static void setContact(const char *begun) {
  const int32_t number = takeNumber();
  if (number < 1 || number > TROWEL_CONTACTS) {
    refuse(F("no such contact"));
    return;
  }
  ContactConfig &one = CONTACTS[number - 1];
  const bool isPermit = one.kind == C_PERMIT;
  if (takeWord(F("switch"))) {
    const bool isOn = takeWord(F("on"));
    if (!isOn && !takeWord(F("off"))) {
      refuse(F("on or off"));
      return;
    }
    one.enabled = isOn;
  } else if (isPermit && takeWord(F("start"))) {
    if (!setContactLimit(one, true)) return;
  } else if (isPermit && takeWord(F("stop"))) {
    if (!setContactLimit(one, false)) return;
  } else {
    refuse(F("a contact has no such setting"));
    return;
  }
  TELL.print(F("# taken "));
  TELL.println(begun);
}
#endif

static void printLimits() {
  for (int32_t at = 0; at < linesOf(CONFIG); at += 1) {
    const LineConfig &line = CONFIG.line[at];
    TELL.print(F("# limits "));
    TELL.print(at + 1);
    if (hasStart(line.program.kind)) {
      TELL.print(F(" start "));
      printTenths(line.program.startTenths);
    }
    if (hasStop(line.program.kind)) {
      TELL.print(F(" stop "));
      printTenths(line.program.stopTenths);
    }
    if (hasDose(line.program.kind)) {
      TELL.print(F(" dose "));
      TELL.print(line.program.doseMl);
    }
    TELL.println(line.enabled ? F(" water on") : F(" water off"));
  }
#ifdef TROWEL_WATCHES
  for (int32_t at = 0; at < TROWEL_WATCHES; at += 1) {
    TELL.print(F("# limits lamp "));
    TELL.print(at + 1);
    TELL.print(F(" dry "));
    printTenths(WATCHES[at].limits.dry);
    TELL.print(F(" wet "));
    printTenths(WATCHES[at].limits.wet);
    TELL.println();
  }
#endif
#if TROWEL_CONTACTS > 0
  for (int32_t at = 0; at < TROWEL_CONTACTS; at += 1) printContact(at);
#endif
#ifndef TROWEL_SMALL
  for (int32_t at = 0; at < CONFIG.sensors; at += 1) printProbe(at);
#endif
}

#ifdef TROWEL_WATCHES
// What lamps say goes with the words of the plot: too dry below, too wet from; from beyond the scale: never.
static void setLamp(const char *begun) {
  const int32_t number = takeNumber();
  const bool isDry = takeWord(F("dry"));
  if (number < 1 || number > TROWEL_WATCHES) {
    refuse(F("no such lamp"));
    return;
  }
  if (!isDry && !takeWord(F("wet"))) {
    refuse(F("dry or wet"));
    return;
  }
  const int32_t tenths = takeTenths(1001);
  if (tenths == NONE) {
    refuse(F("a percent from 0 to 100 with at most one decimal"));
    return;
  }
  SignalLimits &limits = WATCHES[number - 1].limits;
  (isDry ? limits.dry : limits.wet) = tenths;
  TELL.print(F("# taken "));
  TELL.println(begun);
}
#endif

static bool setDose(LineConfig &line) {
  const int32_t doseMl = takeNumber();
  if (doseMl < 1 || *rest != 0)
    refuse(F("a whole number of ml"));
  else if (doseMl > line.guards.dailyMaxMl)
    refuse(F("more than the daily maximum"));
  else if (doseS(line, doseMl) > line.guards.maxRunS)
    refuse(F("takes longer than the maximum run"));
  else {
    line.program.doseMl = doseMl;
    return true;
  }
  return false;
}

static bool setLimit(LineConfig &line, bool isStart) {
  const int32_t tenths = takeTenths(1000);
  const uint8_t kind = line.program.kind;
  const int32_t start = isStart ? tenths : line.program.startTenths;
  const int32_t stop = isStart ? line.program.stopTenths : tenths;
  if (tenths == NONE) {
    refuse(F("a percent from 0 to 100 with at most one decimal"));
    return false;
  }
  if (hasStart(kind) && hasStop(kind) && stop - start < LEAST_GAP) {
    refuse(F("start must lie at least 1 below stop"));
    return false;
  }
  line.program.startTenths = start;
  line.program.stopTenths = stop;
  if (!isStart) line.guards.provesBelowTenths = stop;
  return true;
}

static bool setWater(LineConfig &line) {
  if (takeWord(F("on")))
    line.enabled = true;
  else if (takeWord(F("off")))
    line.enabled = false;
  else {
    refuse(F("on or off"));
    return false;
  }
  return true;
}

static void set() {
  const char *begun = rest;
#ifdef TROWEL_WATCHES
  if (takeWord(F("lamp"))) {
    setLamp(begun);
    return;
  }
#endif
#if TROWEL_CONTACTS > 0
  if (takeWord(F("contact"))) {
    setContact(begun);
    return;
  }
#endif
#ifndef TROWEL_SMALL
  if (takeWord(F("probe"))) {
    setProbe(begun);
    return;
  }
#endif
  const int32_t at = takeLine();
  if (at == NONE) {
    refuse(F("set LINE NAME VALUE"));
    return;
  }
  LineConfig &line = CONFIG.line[at];
  const uint8_t kind = line.program.kind;
  bool isTaken = false;
  if (takeWord(F("water")))
    isTaken = setWater(line);
  else if (hasDose(kind) && takeWord(F("dose")))
    isTaken = setDose(line);
  else if (hasStart(kind) && takeWord(F("start")))
    isTaken = setLimit(line, true);
  else if (hasStop(kind) && takeWord(F("stop")))
    isTaken = setLimit(line, false);
  else
    refuse(F("its program has no such setting"));
  if (!isTaken) return;
  TELL.print(F("# taken "));
  TELL.println(begun);
}

#endif
