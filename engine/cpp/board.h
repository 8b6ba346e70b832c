// What every board's program does alike: reads each second, asks the engine, switches, prints, and listens at the console. The sketch says before what is read and
// switched, and by what settings.
#ifndef TROWEL_BOARD_H
#define TROWEL_BOARD_H

static State state;
static Input input;
static Answer answer;
static uint32_t lastMs = 0;
static int32_t clockAtBoot = NONE;
static int32_t weekdayAtBoot = 0;
static int32_t shown = 0;
static char typed[40];
static uint8_t length = 0;

static void switchLine(int32_t line, bool isOn) {
  const OutputPin &one = OUTPUT_PINS[line];
  digitalWrite(one.pin, isOn != one.isActiveLow ? HIGH : LOW);
}

// Eight readings, for a steadier one.
static int32_t readInput(int32_t at) {
  const InputPin &one = INPUT_PINS[at];
  if (one.isContact) return digitalRead(one.pin) == HIGH ? 1 : 0;
  int32_t sum = 0;
  for (uint8_t turn = 0; turn < 8; turn += 1) sum += (int32_t)analogRead(one.pin);
  return (sum + 4) / 8;
}

void setup() {
  // Outputs off before anything else: first the level, then the direction.
  for (uint8_t at = 0; at < OUTPUTS; at += 1) {
    switchLine(at, false);
    pinMode(OUTPUT_PINS[at].pin, OUTPUT);
    switchLine(at, false);
  }
  // A contact is pulled up, so that an open one reads 1 and a loose wire does not float.
  for (uint8_t at = 0; at < INPUTS; at += 1)
    pinMode(INPUT_PINS[at].pin, INPUT_PINS[at].isContact ? INPUT_PULLUP : INPUT);
#ifdef TROWEL_ADC_BITS
  // Such boards give ten bits until they are asked for more.
  analogReadResolution(TROWEL_ADC_BITS);
#endif
  Serial.begin(115200);
  Remembered kept[TROWEL_LINES];
  for (int32_t at = 0; at < TROWEL_LINES; at += 1) kept[at] = nothingKept();
  boot(state, CONFIG, kept, 0);
  input.nowS = 0;
  input.orders = 0;
  lastMs = millis();
}

static void fill(Reading &reading, int32_t at) {
  reading.isNew = true;
  reading.raw = readInput(at);
  reading.atS = input.nowS;
  reading.unsettled = false;
}

static int32_t aboutOf(int32_t line, uint8_t which) {
  const int32_t at = AROUND_INPUTS[line][which];
  return at == NONE ? NONE : readInput(at);
}

// One look, each second: read, decide, switch.
static void look() {
  for (int32_t at = 0; at < CONFIG.sensors; at += 1) fill(input.sensor[at], SENSOR_INPUTS[at]);
  for (int32_t at = 0; at < CONFIG.tanks; at += 1) fill(input.tank[at], TANK_INPUTS[at]);
  input.daySecond = NONE;
  input.weekday = 0;
  if (clockAtBoot != NONE) {
    const int32_t local = clockAtBoot + input.nowS % DAY_S;
    input.daySecond = local % DAY_S;
    input.weekday = (weekdayAtBoot + input.nowS / DAY_S + local / DAY_S) % 7;
  }
  for (int32_t at = 0; at < CONFIG.lines; at += 1) {
    Around &about = input.around[at];
    about.airTenthsC = NONE;
    about.soilTenthsC = NONE;
    about.light = aboutOf(at, 0);
    about.rain = aboutOf(at, 1);
    about.skip = aboutOf(at, 2);
  }
  input.batteryMv = NONE;
  step(state, input, CONFIG, answer);
  input.orders = 0;
  for (int32_t at = 0; at < CONFIG.lines; at += 1) switchLine(at, answer.on[at]);
}

// "c2=1512 l1=2240": the names are those of the garden's channels.
static void printReadings() {
  for (uint8_t at = 0; at < INPUTS; at += 1) {
    if (at > 0) Serial.print(" ");
    Serial.print(INPUT_PINS[at].name);
    Serial.print("=");
    Serial.print(readInput(at));
  }
  if (INPUTS > 0) Serial.println();
}

static const char *reasonName(uint8_t reason) {
  switch (reason) {
    case 0: return "below-start";
    case 1: return "timer";
    case 2: return "dry-enough";
    case 3: return "follows";
    case 4: return "fallback";
    case 5: return "order";
    case 6: return "dose-done";
    case 7: return "above-stop";
    case 8: return "wet-veto";
    case 9: return "stop-order";
    case 10: return "max-run";
    case 11: return "daily-max";
    case 12: return "min-interval";
    case 13: return "tank-low";
    case 14: return "tank-unknown";
    case 15: return "stale";
    case 16: return "implausible";
    case 17: return "no-reading";
    case 18: return "unsettled";
    case 19: return "waiting-for-rise";
    case 20: return "locked";
    case 21: return "other-line-runs";
    case 22: return "clock-went-back";
    case 23: return "not-calibrated";
    case 24: return "not-below-start";
    case 25: return "soaking";
    case 26: return "pulses-used";
    case 27: return "dose-interval";
    case 28: return "not-due";
    case 29: return "too-wet";
    case 30: return "leader-rests";
    case 31: return "alert-only";
    case 32: return "switched-off";
    case 34: return "clock-unknown";
    case 35: return "outside-hours";
    case 36: return "not-dark";
    case 37: return "light-unknown";
    case 38: return "air-warm";
    case 39: return "air-unknown";
    case 40: return "soil-cold";
    case 41: return "soil-temperature-unknown";
    case 42: return "rain";
    case 43: return "rain-unknown";
    case 44: return "battery-low";
    case 45: return "battery-unknown";
    case 46: return "already-runs";
    case 48: return "below-stop";
    case 49: return "out-of-soil";
    case 50: return "bad-order";
    case 51: return "unsound-settings";
    case 52: return "contradiction";
    case 53: return "skip-switch";
    case 54: return "skip-unknown";
    default: return "unknown";
  }
}

static void printWhy() {
  for (int32_t at = 0; at < CONFIG.lines; at += 1) {
    const LineState &line = state.line[at];
    Serial.print("# line ");
    Serial.print(at + 1);
    Serial.print(line.run.on ? " runs: " : " rests: ");
    Serial.print(reasonName(line.run.on ? line.run.reason : line.reason));
    Serial.print(", ml of the day ");
    Serial.print((int32_t)line.ration.sumMl);
    Serial.println(line.locked ? ", locked" : "");
  }
}

static void printHelp() {
  Serial.println("# ? raw why version");
  Serial.println("# test pump LINE SECONDS, stop LINE, unlock LINE");
  Serial.println("# clock SECOND-OF-DAY WEEKDAY (Monday 0)");
}

static void orderLine(uint8_t kind, int32_t line, int32_t volumeMl) {
  if (line < 1 || line > CONFIG.lines || input.orders >= TROWEL_ORDERS) {
    Serial.println("# no such line");
    return;
  }
  Order &order = input.order[input.orders];
  order.kind = kind;
  order.line = line - 1;
  order.volumeMl = volumeMl;
  input.orders += 1;
}

// The next word of what was typed, as a number; NONE where there is none.
static int32_t nextNumber(const char *&at) {
  while (*at == ' ') at += 1;
  if (*at < '0' || *at > '9') return NONE;
  int32_t value = 0;
  while (*at >= '0' && *at <= '9') {
    if (value > 100000000) return NONE;
    value = value * 10 + (int32_t)(*at - '0');
    at += 1;
  }
  return value;
}

static bool begins(const char *&at, const char *word) {
  const char *here = at;
  while (*word != 0) {
    if (*here != *word) return false;
    here += 1;
    word += 1;
  }
  at = here;
  return true;
}

static void obeyConsole() {
  const char *at = typed;
  if (begins(at, "?")) {
    printHelp();
  } else if (begins(at, "raw")) {
    printReadings();
  } else if (begins(at, "why")) {
    printWhy();
  } else if (begins(at, "version")) {
    Serial.println("# engine 1");
  } else if (begins(at, "test pump")) {
    // An order by hand: the guards hold it, and it counts in the day's sum.
    const int32_t line = nextNumber(at);
    const int32_t seconds = nextNumber(at);
    if (line < 1 || line > CONFIG.lines || seconds < 1 || seconds > 3600)
      Serial.println("# test pump LINE SECONDS");
    else
      orderLine(ORDER_WATER, line, (int32_t)((int64_t)seconds * CONFIG.line[line - 1].flowMlPerMin / 60));
  } else if (begins(at, "stop")) {
    orderLine(ORDER_STOP, nextNumber(at), 0);
  } else if (begins(at, "unlock")) {
    orderLine(ORDER_UNLOCK, nextNumber(at), 0);
  } else if (begins(at, "clock")) {
    const int32_t second = nextNumber(at);
    const int32_t weekday = nextNumber(at);
    if (second < 0 || second >= DAY_S || weekday < 0 || weekday > 6) {
      Serial.println("# clock SECOND-OF-DAY WEEKDAY");
    } else {
      const int32_t sinceBoot = input.nowS % DAY_S;
      const int32_t days = input.nowS / DAY_S + (second < sinceBoot ? 1 : 0);
      clockAtBoot = (second - sinceBoot + DAY_S) % DAY_S;
      weekdayAtBoot = (weekday - days % 7 + 7) % 7;
    }
  } else {
    Serial.println("# not understood; ? for help");
  }
}

static void readConsole() {
  while (Serial.available() > 0) {
    const char one = (char)Serial.read();
    if (one == '\r') continue;
    if (one == '\n') {
      typed[length] = 0;
      if (length > 0) obeyConsole();
      length = 0;
    } else if (length < sizeof(typed) - 1) {
      typed[length] = one;
      length += 1;
    }
  }
}

void loop() {
  readConsole();
  const uint32_t nowMs = millis();
  // Whole seconds since boot; the difference is right also when the count of milliseconds begins anew.
  if (nowMs - lastMs < 1000) return;
  lastMs += 1000;
  input.nowS += 1;
  look();
  shown += 1;
  if (shown >= 2) {
    printReadings();
    shown = 0;
  }
}

#endif
