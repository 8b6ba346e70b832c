// The Marigold Hare, Stern board: its program, with guards that no setting switches off.
// Written on 2026-05-01 for: 5 V board with a display, 10-bit inputs; drawn as 8-bit 5 V board, six 10-bit inputs.
// IN0: reads M1, printed as m1
// IN1: reads S1, printed as s1
// IN2: reads T1, printed as t1
// P2: feeds M1 only to be read, 1 s before, every 300 s
// P3: switches Galley light, on when high
// These files belong together: this one, engine_size.h, engine.h, pins.h, tell.h, contacts.h, inputs.h, kept.h, settable.h, console.h and board.h. No library is needed.
#include "engine_size.h"
#include "pins.h"
#include "contacts.h"

// The name of this program: the same settings have the same one.
#define TROWEL_PROGRAM "ede9c54064d5"
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

// ---- Settings of the engine. The tables are the calibrations: raw value, tenths of a percent. Percent in tenths, times in seconds, volumes in ml.
static Config CONFIG = {
  0, 0, 0, 1,
  {
    {
      // none: raw value, tenths of a percent
      { {0, 0}, {1, 1000}, {0, 0}, {0, 0}, {0, 0}, {0, 0}, {0, 0}, {0, 0} },
      2,  // points
      // Outside of these the plug is out or the cable broken.
      0,  // low_raw
      0,  // high_raw
      // Outside of these it is out of the soil.
      0,  // soil_low_raw
      0,  // soil_high_raw
      0,  // stale_after_s
      0,  // leap_tenths
      0,  // settle_s
    },
  },
  {
    {
      0,  // minimum_raw
      false,  // falls_with_water
      0,  // low_raw
      0,  // high_raw
      0,  // stale_after_s
    },
  },
  {
    {
      // none
      false,  // enabled
      true,  // contradicts
      NONE,  // sensor
      NONE,  // tank
      1,  // flow_ml_per_min
      0,  // tube_ms
      {
        P_ALERT_ONLY,  // kind
        0,  // start_tenths
        0,  // stop_tenths
        0,  // dose_ml
        0,  // soak_s
        0,  // most_pulses
        0,  // rest_s
        0,  // interval_s
        false,  // interrupts
        0,  // leader
        0,  // share_percent
        0,  // every_nth
        0,  // slots
        // Times: second of the day, weekdays as bits from Monday on.
        { {0, 0} },
      },
      0,  // fallback_ml
      // Conditions; NONE: off.
      {
        false,  // has hours
        0,  // hours from, s of the day
        0,  // hours to
        NONE,  // dark_below
        NONE,  // air_below_tenths_c
        NONE,  // soil_above_tenths_c
        NONE,  // battery_above_mv
        false,  // no_rain
        false,  // no_skip
      },
      // Guards: nothing that is typed or sent changes them.
      {
        0,  // max_run_s
        0,  // daily_max_ml
        0,  // min_interval_s
        0,  // rise_tenths
        0,  // response_s
        1,  // no_rise_times
        0,  // proves_below_tenths
      },
    },
  },
};

// ---- Outputs that hold a state.
static const OutputPin CONTACT_PINS[] = {
  {3, false, "Galley light"},  // Galley light
};
static const int32_t CONTACTS_AROUND[][5] = {{NONE, NONE, NONE, NONE, NONE}};
static ContactConfig CONTACTS[] = {
  {
    // Galley light: a light, from one moment of the day to another
    true,  // enabled
    false,  // contradicts
    NONE,  // sensor
    C_LIGHT,  // kind
    0,  // start_tenths
    0,  // stop_tenths
    false,  // rest_permits
    {BY_SUNSET, -3600},  // begins, s
    {BY_CLOCK, 75600},  // ends, s
    NONE,  // dark_below
    NONE,  // bright_above
    // Conditions; NONE: off.
    {
      false,  // has hours
      0,  // hours from, s of the day
      0,  // hours to
      NONE,  // dark_below
      NONE,  // air_below_tenths_c
      NONE,  // soil_above_tenths_c
      NONE,  // battery_above_mv
      false,  // no_rain
      false,  // no_skip
    },
    // Guards: nothing that is typed or sent changes them.
    36000,  // most_on_s
    600,  // least_off_s
    36000,  // day_max_s
  },
};

// What it keeps through a reboot belongs to these lines.
const uint8_t KEPT_AS = 162;

#include "board.h"
