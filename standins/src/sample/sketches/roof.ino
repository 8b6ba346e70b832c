// The Marigold Hare, Roof board: its program, with guards that no setting switches off.
// Written on 2026-05-01 for: 3.3 V Wi-Fi board, 12-bit inputs; drawn as 3.3 V Wi-Fi board, 12-bit, two converter groups.
// C2: calibrated 2026-04-11 with 2 points, ±2.1 % span at its start limit of 45.0 % span
// P34: reads L1, printed as l1
// P35: reads C2, printed as c2
// P13: reads Air under the hatch, printed as air
// P36: reads Battery, printed as bat
// P26 and P27: reads Rain tank, mm, printed as tank
// P18: switches Roof pump, on when high
// P19: lights Dry lamp
// These files belong together: this one, engine_size.h, engine.h, pins.h, signals.h, lamps.h, inputs.h, kept.h, console.h and board.h. No library is needed.
#include "engine_size.h"
#include "pins.h"

// The name of this program: the same settings have the same one.
#define TROWEL_PROGRAM "d7138e9bdeff"
#define TROWEL_LINE_IDS " line-roof"
#define TROWEL_CONTACT_IDS ""

// ---- What is read.
const uint8_t INPUTS = 5;
static const InputPin INPUT_PINS[5] = {
  {READ_ANALOG, 34, 34, ALWAYS_FED, "l1"},  // L1
  {READ_ANALOG, 35, 35, ALWAYS_FED, "c2"},  // C2
  {READ_ONE_WIRE, 13, 13, ALWAYS_FED, "air"},  // Air under the hatch
  {READ_VOLTS, 36, 36, ALWAYS_FED, "bat"},  // Battery
  {READ_DISTANCE, 26, 27, ALWAYS_FED, "tank"},  // Rain tank, mm
};
static const Member MEMBERS[] = {
  {0, 0, 0, 0, 0}
};
static const Source SOURCES[] = {
  {BY_ONE, 1, 0},
};
static const int32_t TANK_INPUTS[] = {4};
static const TablePoint SENSE_0[] PROGMEM = {{-5499, -550}, {8499, 850}};
static const Sense SENSES[] = {
  {2, SENSE_0, 2},
};
// By line: air, light cell, rain switch, soil, skip switch.
static const int32_t AROUND[][5] = {{NONE, NONE, NONE, NONE, NONE}};
const int32_t BATTERY = NONE;

// ---- What is switched.
const uint8_t OUTPUTS = 1;
static const OutputPin OUTPUT_PINS[1] = {
  {18, false, "Roof pump"},  // Roof pump
};

// ---- Settings of the engine. The tables are the calibrations: raw value, tenths of a percent.
static Config CONFIG = {
  1, 1, 1, 1,
  {
    { { {1144, 1000}, {2934, 0}, {0, 0}, {0, 0}, {0, 0}, {0, 0}, {0, 0}, {0, 0} }, 2,
      20, 4075, -2000000000, 2880,
      900, 50, 600 }
  },
  {
    { 323, true, -36, 476, 900 }
  },
  {
    { true, false, 0, 0, 540, 1200,
      // Program: kind, start and stop limit (tenths), dose (ml), soak (s), pulses, rest (s), interval (s), probe ends it, leader, share, every n-th, times
      { P_PULSE_SOAK, 450, 580, 120, 900, 4, 14400, 0,
        false, 0, 0, 0, 0, { {0, 0} } },
      0,
      // Conditions: hours, from, to (s of the day), dark below, air below, soil above, battery above, no rain, skip switch
      { false, 0, 0, NONE, NONE, NONE, NONE, false, false },
      // Guards: maximum run (s), daily maximum (ml), minimum interval (s), rise (tenths) within (s), doses to a lock, proves below (tenths)
      { 15, 600, 900, 20, 900, 3, 580 } }
  }
};

// ---- Lamps. Plots: sensor, lines and tanks as bits, air, soil, light, dark below, and whether something of it is known to another board only;
// too dry below, too wet from, soil too cold and too hot, air too cold and too hot (tenths).
static const Watch WATCHES[] = {
  // Chilli crate
  {0, 1, 1, 0, NONE, NONE, NONE, false,
    {450, 790, NONE, NONE, 20, 350}},
};
const uint8_t LAMP_COUNT = 1;
static const LampPins LAMPS[] = {
  {LAMP_ONE, 0, {{19, false, "Dry lamp"}, {19, false, "Dry lamp"}, {19, false, "Dry lamp"}}},  // Dry lamp
};
// What they say, by priority: state, colours (1 red, 2 green, 4 blue), rhythm, buzz.
const uint8_t SIGNAL_RULES = 11;
static const SignalRule SIGNALS[] = {{1, 1, 2, 0}, {10, 4, 2, 0}, {2, 7, 1, 0}, {3, 3, 1, 0}, {4, 4, 1, 0}, {5, 1, 1, 0}, {6, 1, 0, 0}, {7, 4, 0, 0}, {9, 7, 0, 0}, {8, 0, 0, 0}, {0, 2, 0, 0}};

// What it keeps through a reboot belongs to these lines.
const uint8_t KEPT_AS = 78;

#include "board.h"
