// The Marigold Hare, Roof board: its program, with guards that no setting switches off.
// Written on 2026-05-01 for: 3.3 V Wi-Fi board, 12-bit inputs; drawn as 3.3 V Wi-Fi board, 12-bit, two converter groups.
// C2: calibrated 2026-04-11 with 2 points, ±2.1 % span at its start limit of 45.0 % span
// P34: reads L1, printed as l1
// P35: reads C2, printed as c2
// P13: reads Air under the hatch, printed as air
// P36: reads Battery, printed as bat
// P26 and P27: reads Rain tank, mm, printed as tank
// P16 and P17, the bus: reads B1, factory moisture, printed as b1.moisture
// P16 and P17, the bus: reads B1, soil temperature, printed as b1.temperature
// P16 and P17, the bus: reads B1, conductivity, printed as b1.ec
// P18: switches Roof pump, on when high
// P19: lights Dry lamp
// These files belong together: this one, engine_size.h, engine.h, pins.h, tell.h, signals.h, lamps.h, bus.h, inputs.h, kept.h, settable.h, console.h, json.h, report.h, post.h, net.h, board.h and secrets.h. The only library is that of the radio, which comes with the package of the board.
#include "engine_size.h"
#include "pins.h"

// The name of this program: the same settings have the same one.
#define TROWEL_PROGRAM "e16cd6be3bc6"
#define TROWEL_LINE_IDS " line-roof"
#define TROWEL_CONTACT_IDS ""

// ---- Who it is to the gateway, and how often it reports at first, s. Where the gateway is, and its key, stand in secrets.h.
#define TROWEL_BOARD_ID "roof"
#define TROWEL_TOPIC "trowel/marigold-hare/roof/"
#define TROWEL_REPORT_EVERY_S 10

// ---- What is read.
const uint8_t INPUTS = 8;
static const InputPin INPUT_PINS[8] = {
  {READ_ANALOG, 34, 34, ALWAYS_FED, "l1"},  // L1
  {READ_ANALOG, 35, 35, ALWAYS_FED, "c2"},  // C2
  {READ_ONE_WIRE, 13, 13, ALWAYS_FED, "air"},  // Air under the hatch
  {READ_VOLTS, 36, 36, ALWAYS_FED, "bat"},  // Battery
  {READ_DISTANCE, 26, 27, ALWAYS_FED, "tank"},  // Rain tank, mm
  {READ_BUS, 0, NO_PIN, ALWAYS_FED, "b1.moisture"},  // B1, factory moisture
  {READ_BUS, 1, NO_PIN, ALWAYS_FED, "b1.temperature"},  // B1, soil temperature
  {READ_BUS, 2, NO_PIN, ALWAYS_FED, "b1.ec"},  // B1, conductivity
};
static const Member MEMBERS[] = {
  {0, 0, 0, 0, 0}
};
static const Source SOURCES[] = {
  {BY_ONE, 1, 0},
};

// ---- Probes on a bus: the pins of the transceiver, and the one that lets it speak; NO_PIN: it does so by itself. Bits a second, as the probes are set.
const uint8_t BUS_TX = 16, BUS_RX = 17, BUS_DIRECTION = NO_PIN;
const uint32_t BUS_BAUD = 9600;
// By probe: address, function, first register, how many.
const uint8_t BUS_COUNT = 1, BUS_MOST_WORDS = 3;
static const BusProbe BUS_PROBES[] = {{1, 3, 0, 3}};
// Which word of which answer is read: probe, word, kind (0 and 1 without and with sign, 2 and 3 two words, 4 and 5 two words with a point; high or low word first),
// decimals, times, per, plus.
static const BusWord BUS_WORDS[] = {{0, 0, 0, 1, 1, 1, 0}, {0, 1, 1, 1, 1, 1, 0}, {0, 2, 0, 0, 1, 1, 0}};
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

// ---- Settings of the engine. The tables are the calibrations: raw value, tenths of a percent. Percent in tenths, times in seconds, volumes in ml.
static Config CONFIG = {
  1, 1, 1, 1,
  {
    {
      // C2: raw value, tenths of a percent
      { {1144, 1000}, {2934, 0}, {0, 0}, {0, 0}, {0, 0}, {0, 0}, {0, 0}, {0, 0} },
      2,  // points
      // Outside of these the plug is out or the cable broken.
      20,  // low_raw
      4075,  // high_raw
      // Outside of these it is out of the soil.
      -2000000000,  // soil_low_raw
      2880,  // soil_high_raw
      900,  // stale_after_s
      50,  // leap_tenths
      600,  // settle_s
    },
  },
  {
    {
      323,  // minimum_raw
      true,  // falls_with_water
      -36,  // low_raw
      476,  // high_raw
      900,  // stale_after_s
    },
  },
  {
    {
      // Roof pump
      true,  // enabled
      false,  // contradicts
      0,  // sensor
      0,  // tank
      540,  // flow_ml_per_min
      1200,  // tube_ms
      {
        P_PULSE_SOAK,  // kind
        450,  // start_tenths
        580,  // stop_tenths
        120,  // dose_ml
        900,  // soak_s
        4,  // most_pulses
        14400,  // rest_s
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
        15,  // max_run_s
        600,  // daily_max_ml
        900,  // min_interval_s
        20,  // rise_tenths
        900,  // response_s
        3,  // no_rise_times
        580,  // proves_below_tenths
      },
    },
  },
};

// ---- Lamps, by the plots that they speak for.
static Watch WATCHES[] = {
  {
    // Chilli crate
    0,  // sensor
    // Lines and tanks as bits.
    1,  // lines
    1,  // tanks
    // Places in the senses above; NONE: nobody measures it here.
    0,  // air
    NONE,  // soil
    NONE,  // light
    NONE,  // dark_below
    // Something of it is known to another board only.
    false,  // blind
    {
      450,  // dry
      790,  // wet
      NONE,  // soil_low
      NONE,  // soil_high
      20,  // air_low
      350,  // air_high
    },
  },
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
