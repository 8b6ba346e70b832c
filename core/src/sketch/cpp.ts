/** The board's program in C++: settings, what is read and switched, the console; the engine comes with it in a file of its own. */
import type { ProgramKind } from '../control/programs/programs.ts';
import type { LineConfig, SensorConfig, TankConfig } from '../control/engine/settings.ts';
import type { BoardPlan, SketchInput } from './boardPlan.ts';
import { flatProgram } from './flatProgram.ts';
import type { Pin } from './pins.ts';
import { forComment, forString } from './safeText.ts';

const PROGRAM_NAMES: Readonly<Record<ProgramKind, string>> = {
  'alert-only': 'P_ALERT_ONLY',
  timer: 'P_TIMER',
  'pulse-soak': 'P_PULSE_SOAK',
  'until-wet': 'P_UNTIL_WET',
  'single-dose': 'P_SINGLE_DOSE',
  veto: 'P_VETO',
  follower: 'P_FOLLOWER',
};

const pinText = ({ kind, number }: Pin): string => (kind === 'input' ? `A${number}` : String(number));
const orNone = (value: number | null): string => (value === null ? 'NONE' : whole(value));
/** The least number of 32 bits cannot be written as one literal. */
const whole = (value: number): string => (value === -2_147_483_648 ? 'INT32_MIN' : String(value));
const bool = (is: boolean): string => (is ? 'true' : 'false');

function sensorText({ table, ...one }: SensorConfig): string {
  const points = Array.from({ length: 8 }, (_, at) => {
    const point = table[at];
    return point ? `{${whole(point.raw)}, ${point.tenths}}` : '{0, 0}';
  });
  return [
    `    { { ${points.join(', ')} }, ${table.length},`,
    `      ${whole(one.lowRaw)}, ${whole(one.highRaw)}, ${whole(one.soilLowRaw)}, ${whole(one.soilHighRaw)},`,
    `      ${one.staleAfterS}, ${one.leapTenths}, ${one.settleS} }`,
  ].join('\n');
}

const tankText = (one: TankConfig): string =>
  `    { ${whole(one.minimumRaw)}, ${bool(one.fallsWithWater)}, ${whole(one.lowRaw)}, ${whole(one.highRaw)}, ${one.staleAfterS} }`;

function lineText({ program, conditions: c, guards: g, ...line }: LineConfig, slots: number): string {
  const flat = flatProgram(program);
  const times = Array.from({ length: slots }, (_, at) => {
    const slot = flat.slots[at];
    return slot ? `{${slot.daySecond}, ${slot.days}}` : '{0, 0}';
  });
  return [
    `    { ${bool(line.enabled)}, ${bool(line.contradicts)}, ${orNone(line.sensor)}, ${orNone(line.tank)}, ${line.flowMlPerMin}, ${line.tubeMs},`,
    `      // Program: kind, start and stop limit (tenths), dose (ml), soak (s), pulses, rest (s), interval (s), probe ends it, leader, share, every n-th, times`,
    `      { ${PROGRAM_NAMES[program.kind]}, ${flat.startTenths}, ${flat.stopTenths}, ${flat.doseMl}, ${flat.soakS}, ${flat.mostPulses}, ${flat.restS}, ${flat.intervalS},`,
    `        ${bool(flat.interrupts)}, ${flat.leader}, ${flat.sharePercent}, ${flat.everyNth}, ${flat.slots.length}, { ${times.join(', ')} } },`,
    `      ${line.fallbackMl},`,
    `      // Conditions: hours, from, to (s of the day), dark below, air below, soil above, battery above, no rain, skip switch`,
    `      { ${bool(c.hours !== null)}, ${c.hours?.fromS ?? 0}, ${c.hours?.toS ?? 0}, ${orNone(c.darkBelow)}, ${orNone(c.airBelowTenthsC)}, ${orNone(c.soilAboveTenthsC)}, ${orNone(c.batteryAboveMv)}, ${bool(c.noRain)}, ${bool(c.noSkip)} },`,
    `      // Guards: maximum run (s), daily maximum (ml), minimum interval (s), rise (tenths) within (s), doses to a lock, proves below (tenths)`,
    `      { ${g.maxRunS}, ${g.dailyMaxMl}, ${g.minIntervalS}, ${g.riseTenths}, ${g.responseS}, ${g.noRiseTimes}, ${g.provesBelowTenths} } }`,
  ].join('\n');
}

const listed = (items: readonly string[], none: string): string =>
  items.length === 0 ? none : items.join(',\n');

const EMPTY_SENSOR: SensorConfig = {
  table: [
    { raw: 0, tenths: 0 },
    { raw: 1, tenths: 1000 },
  ],
  lowRaw: 0,
  highRaw: 0,
  soilLowRaw: 0,
  soilHighRaw: 0,
  staleAfterS: 0,
  leapTenths: 0,
  settleS: 0,
};
const EMPTY_TANK: TankConfig = {
  minimumRaw: 0,
  fallsWithWater: false,
  lowRaw: 0,
  highRaw: 0,
  staleAfterS: 0,
};

const inputRow = ({ name, pin, reads, label }: SketchInput): string =>
  `  {${pinText(pin)}, ${bool(reads === 'digital')}, "${forString(name)}"},  // ${forComment(label)}`;

/** @param dateIso when it was written */
export function cppSketch(plan: BoardPlan, dateIso: string): string {
  const { engine, inputs, lines } = plan;
  const slots = Math.max(1, ...engine.lines.map(({ program }) => flatProgram(program).slots.length));
  const at = (place: number | null) => orNone(place);
  return `// ${forComment(plan.garden)}, ${forComment(plan.board)}: waters by itself, with guards that no setting switches off.
// Written on ${forComment(dateIso)} for: ${forComment(plan.traits)}.
// Two files belong together: this one and engine.h. No library is needed.
//
// It keeps nothing through a reboot: after each one it waits for its minimum interval, and the day's sum begins anew.
#include "engine_size.h"
#include "engine.h"

using namespace trowel;

// ---- What is read. Analog inputs give counts, contacts 0 and 1.
struct Pin {
  uint8_t pin;
  bool isContact;
  const char *name;
};
const uint8_t INPUTS = ${inputs.length};
static const Pin INPUT_PINS[${Math.max(1, inputs.length)}] = {
${listed(inputs.map(inputRow), '  {0, true, ""},').replace(/,(  \/\/[^\n]*)?,\n/g, ',$1\n')}
};
static const int32_t SENSOR_INPUTS[] = {${plan.sensorInputs.join(', ') || '0'}};
static const int32_t TANK_INPUTS[] = {${plan.tankInputs.join(', ') || '0'}};
// By line: light cell, rain switch, skip switch.
static const int32_t AROUND_INPUTS[][3] = {${
    plan.around.map(({ light, rain, skip }) => `{${at(light)}, ${at(rain)}, ${at(skip)}}`).join(', ') ||
    '{NONE, NONE, NONE}'
  }};

// ---- What is switched.
struct Output {
  uint8_t pin;
  bool isActiveLow;
  const char *name;
};
const uint8_t OUTPUTS = ${lines.length};
static const Output OUTPUT_PINS[${Math.max(1, lines.length)}] = {
${
  lines.length === 0
    ? '  {0, false, ""}'
    : lines
        .map(
          ({ name, output }) =>
            `  {${pinText(output.pin)}, ${bool(output.activeLow)}, "${forString(name)}"},  // ${forComment(name)}`,
        )
        .join('\n')
}
};

// ---- Settings of the engine. The tables are the calibrations: raw value, tenths of a percent.
static const Config CONFIG = {
  ${engine.sensors.length}, ${engine.tanks.length}, ${engine.lines.length}, ${engine.atOnce},
  {
${listed((engine.sensors.length === 0 ? [EMPTY_SENSOR] : engine.sensors).map(sensorText), '')}
  },
  {
${listed((engine.tanks.length === 0 ? [EMPTY_TANK] : engine.tanks).map(tankText), '')}
  },
  {
${listed(
  engine.lines.map((line) => lineText(line, slots)),
  EMPTY_LINE(slots),
)}
  }
};
${BODY}`;
}

const EMPTY_LINE = (slots: number): string =>
  lineText(
    {
      enabled: false,
      contradicts: true,
      sensor: null,
      tank: null,
      flowMlPerMin: 1,
      tubeMs: 0,
      program: { kind: 'alert-only' },
      fallbackMl: 0,
      conditions: {
        hours: null,
        darkBelow: null,
        airBelowTenthsC: null,
        soilAboveTenthsC: null,
        noRain: false,
        batteryAboveMv: null,
        noSkip: false,
      },
      guards: {
        maxRunS: 0,
        dailyMaxMl: 0,
        minIntervalS: 0,
        riseTenths: 0,
        responseS: 0,
        noRiseTimes: 1,
        provesBelowTenths: 0,
      },
    },
    slots,
  );

/** How many of each the engine must hold. */
export function cppSize({ engine }: BoardPlan): string {
  const slots = Math.max(1, ...engine.lines.map(({ program }) => flatProgram(program).slots.length));
  return `// How many of each this board has.
#define TROWEL_SENSORS ${Math.max(1, engine.sensors.length)}
#define TROWEL_TANKS ${Math.max(1, engine.tanks.length)}
#define TROWEL_LINES ${Math.max(1, engine.lines.length)}
#define TROWEL_SLOTS ${slots}
#define TROWEL_ORDERS 2
`;
}

/** What every board's program does alike. */
const BODY = `
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
  const Output &one = OUTPUT_PINS[line];
  digitalWrite(one.pin, isOn != one.isActiveLow ? HIGH : LOW);
}

// Eight readings, for a steadier one.
static int32_t readInput(int32_t at) {
  const Pin &one = INPUT_PINS[at];
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
  for (uint8_t at = 0; at < INPUTS; at += 1) pinMode(INPUT_PINS[at].pin, INPUT);
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

static void printWhy() {
  for (int32_t at = 0; at < CONFIG.lines; at += 1) {
    const LineState &line = state.line[at];
    Serial.print("# line ");
    Serial.print(at + 1);
    Serial.print(line.run.on ? " runs, reason " : " rests, reason ");
    Serial.print((int32_t)(line.run.on ? line.run.reason : line.reason));
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
    if (one == '\\r') continue;
    if (one == '\\n') {
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
`;
