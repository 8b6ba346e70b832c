// What pins, sensors and senses of a board look like: the sketch says which ones there are.
#ifndef TROWEL_PINS_H
#define TROWEL_PINS_H

#include "engine.h"
#include "tell.h"

using namespace trowel;

#ifndef PROGMEM
#define PROGMEM
#define pgm_read_dword(at) (*(const uint32_t *)(at))
#endif

// Analog inputs give counts, contacts 0 and 1, a distance mm; of its two pins the first starts it and the second hears the echo. A 1-Wire thermometer gives
// hundredths of a degree, and a voltage mV at its pin. Of a probe on a bus, and of a part on I2C,
// the pin is its place among what is asked. What another board reads has none: its digits behind the point stand there.
const uint8_t READ_ANALOG = 0, READ_CONTACT = 1, READ_DISTANCE = 2, READ_ONE_WIRE = 3, READ_VOLTS = 4, READ_BUS = 5, READ_I2C = 6, READ_FAR = 7;
const uint8_t NO_PIN = 255;
const uint8_t ALWAYS_FED = 255;
struct InputPin {
  uint8_t reads;
  uint8_t pin, second;
  // Place of the pin that feeds it only to be read.
  uint8_t fedBy;
  const char *name;
};

// A pin that feeds probes only while they are read: seconds from switching on until a reading is good, seconds from one reading to the next.
struct PowerPin {
  uint8_t pin;
  int32_t waitS, everyS;
};

// A probe on a bus with what it is asked for, and a word of its answer.
struct BusProbe {
  uint8_t address, function;
  uint16_t first;
  uint8_t count;
};
const uint8_t WORD_PLAIN = 0, WORD_SIGNED = 1, WORDS_HIGH = 2, WORDS_LOW = 3, FLOAT_HIGH = 4, FLOAT_LOW = 5;
struct BusWord {
  uint8_t probe, word, kind;
  // Decimals that are printed; number * times / per + plus is a whole number of the last of them.
  uint8_t decimals;
  int32_t times, per, plus;
};

// A part on I2C. What it is told before it is asked: how many bytes and these bytes, until none.
struct I2cPart {
  uint8_t sda, scl, address;
  const uint8_t *begin;
};
// What it is asked: written, then waited; written right before reading; how many bytes are read, and whether each two have a check behind them; where the value
// stands in them. Value * times / per + plus, between least and most.
struct I2cAsk {
  uint8_t part, askBytes, ask[4], waitMs, fromBytes, from[4], read;
  bool isChecked;
  uint8_t at, bytes;
  bool isLowFirst, isSigned;
  int32_t times, per, plus;
  uint8_t decimals;
  int32_t least, most;
};

// Sensors of the engine: one input, or members that are put together.
const uint8_t BY_ONE = 0, BY_DRIEST = 1, BY_MEAN = 2, BY_MEDIAN = 3;
struct Source {
  uint8_t by, first, members;
};
struct Member {
  uint8_t input;
  const TablePoint *table;
  uint8_t points;
  int32_t lowRaw, highRaw;
};

// What a condition goes by: what the values of an input mean, in tenths of a degree, mV, light, or yes and no.
struct Sense {
  uint8_t input;
  const TablePoint *table;
  uint8_t points;
};

struct OutputPin {
  uint8_t pin;
  bool isActiveLow;
  const char *name;
#ifdef TROWEL_SERVOS
  // Of a servo its pulses, shut and open, in microseconds; 0: a level is enough.
  uint16_t shutUs, openUs;
#endif
#ifdef TROWEL_LATCHES
  // Of a latching valve the pin that shuts it, and how long a pulse on either lasts; 0: a level is enough.
  uint8_t shutPin;
  uint16_t pulseMs;
#endif
};

#ifdef TROWEL_WATCHES
#include "signals.h"
// A plot whose lamps this board switches: what they go by. Lines and tanks as bits.
struct Watch {
  int32_t sensor, lines, tanks, air, soil, light, darkBelow;
  // Something of it is known to another board only.
  bool isBlind;
  SignalLimits limits;
};

const uint8_t LAMP_ONE = 0, LAMP_THREE = 1, LAMP_BUZZER = 2;
struct LampPins {
  uint8_t kind, watch;
  OutputPin pin[3];
};
#endif

#ifdef TROWEL_DISPLAYS
// A small display of dots or of letters, its words from dry to flooded, where each but the last of them ends, and how it writes its percent. Places in the inputs, senses and tanks of what
// else its texts may name; NONE: nobody measures it here.
const uint8_t OF_DOTS = 0, OF_LETTERS = 1;
const uint8_t SHOWS_PERCENT = 0, SHOWS_TENSION = 1, SHOWS_COUNTS = 2, SHOWS_SIDE = 3;
struct Display {
  I2cPart part;
  uint8_t kind, watch, scale;
  const char *unit;
  const char *words[5];
  int32_t edges[4], raw, temperature, battery, tank;
};
#endif

#endif
