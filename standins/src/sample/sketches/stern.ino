// The Marigold Hare, Stern board: its program, with guards that no setting switches off.
// Written on 2026-05-01 for: 5 V board with a display, 10-bit inputs; drawn as 8-bit 5 V board, six 10-bit inputs.
// IN0: reads M1, printed as m1
// IN1: reads S1, printed as s1
// IN2: reads T1, printed as t1
// P2: feeds M1 only to be read, 1 s before, every 300 s
// P3: switches Galley light, on when high
// These files belong together: this one, engine_size.h, engine.h, pins.h, contacts.h, inputs.h, kept.h, console.h and board.h. No library is needed.
#include "engine_size.h"
#include "pins.h"
#include "contacts.h"

// The name of this program: the same settings have the same one.
#define TROWEL_PROGRAM "b8bd9ab8bd9a"
#define TROWEL_LINE_IDS ""
#define TROWEL_CONTACT_IDS " galley-light"

// ---- What is read.
const uint8_t INPUTS = 3;
static const InputPin INPUT_PINS[3] = {
  {READ_ANALOG, A0, A0, 0, "m1"},  // M1
  {READ_ANALOG, A1, A1, ALWAYS_FED, "s1"},  // S1
  {READ_ANALOG, A2, A2, ALWAYS_FED, "t1"},  // T1
};
static const Member MEMBERS[] = {
  {0, 0, 0, 0, 0}
};
static const Source SOURCES[] = {
  {BY_ONE, 0, 0}
};
// Pins that feed probes only to be read: seconds from switching on until a reading is good, seconds from one reading to the next.
static const PowerPin POWER_PINS[] = {{2, 1, 300}};
static const int32_t TANK_INPUTS[] = {0};
static const Sense SENSES[] = {
  {0, 0, 0}
};
// By line: air, light cell, rain switch, soil, skip switch.
static const int32_t AROUND[][5] = {{NONE, NONE, NONE, NONE, NONE}};
const int32_t BATTERY = NONE;

// ---- What is switched.
const uint8_t OUTPUTS = 0;
static const OutputPin OUTPUT_PINS[1] = {
  {0, false, ""}
};

// ---- Settings of the engine. The tables are the calibrations: raw value, tenths of a percent.
static Config CONFIG = {
  0, 0, 0, 1,
  {
    { { {0, 0}, {1, 1000}, {0, 0}, {0, 0}, {0, 0}, {0, 0}, {0, 0}, {0, 0} }, 2,
      0, 0, 0, 0,
      0, 0, 0 }
  },
  {
    { 0, false, 0, 0, 0 }
  },
  {
    { false, true, NONE, NONE, 1, 0,
      // Program: kind, start and stop limit (tenths), dose (ml), soak (s), pulses, rest (s), interval (s), probe ends it, leader, share, every n-th, times
      { P_ALERT_ONLY, 0, 0, 0, 0, 0, 0, 0,
        false, 0, 0, 0, 0, { {0, 0} } },
      0,
      // Conditions: hours, from, to (s of the day), dark below, air below, soil above, battery above, no rain, skip switch
      { false, 0, 0, NONE, NONE, NONE, NONE, false, false },
      // Guards: maximum run (s), daily maximum (ml), minimum interval (s), rise (tenths) within (s), doses to a lock, proves below (tenths)
      { 0, 0, 0, 0, 0, 1, 0 } }
  }
};

// ---- Outputs that hold a state.
static const OutputPin CONTACT_PINS[] = {
  {3, false, "Galley light"},  // Galley light
};
static const int32_t CONTACTS_AROUND[][5] = {{NONE, NONE, NONE, NONE, NONE}};
static const ContactConfig CONTACTS[] = {
  // Galley light: enabled, contradicts, sensor, kind, start and stop limit (tenths), permits at rest
  { true, false, NONE, C_LIGHT, 0, 0, false,
    // From, to (s), and the values of its cell
    {BY_SUNSET, -3600}, {BY_CLOCK, 75600}, NONE, NONE,
    // Conditions: hours, from, to (s of the day), dark below, air below, soil above, battery above, no rain, skip switch
    { false, 0, 0, NONE, NONE, NONE, NONE, false, false },
    // Guards: at a stretch, between two, in a day (s)
    36000, 600, 36000 },
};

// What it keeps through a reboot belongs to these lines.
const uint8_t KEPT_AS = 162;

#include "board.h"
