// Plays a board: "a PIN VALUE" lets a pin read a value, "t PIN SIXTEENTHS [1]" hangs a 1-Wire thermometer on it (1: its answers are damaged), "w N" turns the clock
// by N seconds ("W N" by tenths of them), "s PIN" hangs a servo on it, "c TEXT" types a line at the console, "b …" and "i …" put a part on a bus (simulatedBus.h, simulatedI2c.h), "n …" says how the network is (simulatedNet.h). It prints "> " before what the
// board prints, and "SECOND PIN LEVEL" whenever an output changes.
#include "host.h"
#include "EEPROM.h"

#include <stdio.h>
#include <string.h>

static int32_t values[256];
static uint8_t levels[256];
static uint8_t modes[256];
static bool wasSet[256];
// As most boards begin.
static uint8_t bits = 10;
static uint32_t nowMs = 4294900000u;
static uint32_t bootMs = 4294900000u;
static char typed[256];
static size_t typedAt = 0;
static bool atLineStart = true;
SerialPort Serial;
EepromMemory EEPROM;
static uint8_t memory[1024];

static const char *memoryFile() { return getenv("TROWEL_EEPROM"); }
static void loadMemory() {
  memset(memory, 255, sizeof(memory));
  FILE *file = memoryFile() ? fopen(memoryFile(), "rb") : NULL;
  if (!file) return;
  if (fread(memory, 1, sizeof(memory), file) != sizeof(memory)) fprintf(stderr, "short memory");
  fclose(file);
}
static void saveMemory() {
  FILE *file = memoryFile() ? fopen(memoryFile(), "wb") : NULL;
  if (!file) return;
  fwrite(memory, 1, sizeof(memory), file);
  fclose(file);
}
uint8_t EepromMemory::read(uint16_t at) { return memory[at & 1023]; }
void EepromMemory::update(uint16_t at, uint8_t value) { memory[at & 1023] = value; }

static uint32_t nowUs = 0;
// Of a servo since when its pulse stands, and how long the last one was; it is told when that changes.
static bool isServo[256];
static uint32_t pulseFromUs[256], pulseUs[256];
#include "simulatedBus.h"
#include "simulatedI2c.h"
#include "simulatedNet.h"

// A 1-Wire thermometer: what it measures in sixteenths of a degree, what it was told to do, and what it answers bit by bit.
struct Thermometer {
  bool is, isDamaged;
  int32_t sixteenths, measured;
  uint8_t told, bits;
  bool isAnswering;
  uint8_t answer[9];
  uint8_t at;
};
static Thermometer thermometers[256];
static uint32_t lowSinceUs = 0, heldFromUs = 0, heldToUs = 0;

static uint8_t checkOf(const uint8_t *bytes, uint8_t count) {
  uint8_t sum = 0;
  for (uint8_t at = 0; at < count; at += 1)
    for (uint8_t bit = 0; bit < 8; bit += 1) {
      const bool isOne = (((uint8_t)(bytes[at] >> bit) ^ sum) & 1) != 0;
      sum = (uint8_t)(sum >> 1);
      if (isOne) sum = (uint8_t)(sum ^ 0x8c);
    }
  return sum;
}

static void obeyWire(Thermometer &one) {
  if (one.told == 0x44) one.measured = one.sixteenths;
  if (one.told == 0xbe) {
    const uint16_t value = (uint16_t)one.measured;
    const uint8_t bytes[8] = {(uint8_t)(value & 255), (uint8_t)(value >> 8), 0x4b, 0x46, 0x7f, 0xff, 0x0c, 0x10};
    for (uint8_t at = 0; at < 8; at += 1) one.answer[at] = bytes[at];
    one.answer[8] = (uint8_t)(checkOf(bytes, 8) ^ (one.isDamaged ? 1 : 0));
    one.isAnswering = true;
    one.at = 0;
  }
  one.told = 0;
  one.bits = 0;
}

// The line is let go after it was held down for so long.
static void letGo(Thermometer &one, uint32_t us) {
  if (us >= 400) {
    heldFromUs = nowUs + 15;
    heldToUs = nowUs + 135;
    one.told = one.bits = 0;
    one.isAnswering = false;
  } else if (one.isAnswering) {
    const bool isOne = one.at < 72 && ((one.answer[one.at / 8] >> (one.at % 8)) & 1) != 0;
    heldFromUs = lowSinceUs;
    heldToUs = isOne ? lowSinceUs : lowSinceUs + 30;
    one.at = (uint8_t)(one.at + 1);
  } else {
    if (us < 15) one.told = (uint8_t)(one.told | (1 << one.bits));
    one.bits = (uint8_t)(one.bits + 1);
    if (one.bits == 8) obeyWire(one);
  }
}

void pinMode(uint8_t pin, uint8_t mode) {
  const bool wasDown = modes[pin] == OUTPUT && levels[pin] == LOW;
  modes[pin] = mode;
  if (isOfI2c(pin)) {
    moveI2c(pin, mode != OUTPUT || levels[pin] != LOW);
    return;
  }
  if (thermometers[pin].is) {
    if (mode == OUTPUT && levels[pin] == LOW) lowSinceUs = nowUs;
    if (mode == INPUT && wasDown) letGo(thermometers[pin], nowUs - lowSinceUs);
    return;
  }
  if (isOfBus(pin)) return;
  if (mode == OUTPUT) printf("0 %d %d\n", (int)pin, (int)levels[pin]);
}
void digitalWrite(uint8_t pin, uint8_t level) {
  const bool isNew = levels[pin] != level;
  levels[pin] = level;
  if (isOfI2c(pin)) {
    moveI2c(pin, modes[pin] != OUTPUT || level != LOW);
    return;
  }
  if (isOfBus(pin)) {
    hearLevel(pin, level);
    return;
  }
  if (isServo[pin]) {
    if (isNew && level == HIGH) pulseFromUs[pin] = nowUs;
    if (isNew && level == LOW && nowUs - pulseFromUs[pin] != pulseUs[pin]) {
      pulseUs[pin] = nowUs - pulseFromUs[pin];
      printf("%u %d %u\n", (unsigned)((nowMs - bootMs) / 1000), (int)pin, (unsigned)pulseUs[pin]);
    }
    return;
  }
  if (isNew && modes[pin] == OUTPUT) printf("%u %d %d\n", (unsigned)((nowMs - bootMs) / 1000), (int)pin, (int)level);
}
// Nothing connected: high where it is pulled up, and who knows what else.
uint8_t digitalRead(uint8_t pin) {
  if (isOfBus(pin)) return busLevel();
  if (isOfI2c(pin)) return i2cLevel(pin);
  if (thermometers[pin].is) return nowUs >= heldFromUs && nowUs < heldToUs ? LOW : HIGH;
  if (!wasSet[pin]) return modes[pin] == INPUT_PULLUP ? HIGH : (uint8_t)((nowMs / 1000) % 2);
  return values[pin] != 0 ? HIGH : LOW;
}
// Values are given with twelve bits.
int16_t analogRead(uint8_t pin) { return (int16_t)(values[pin] >> (12 - bits)); }
void analogReadResolution(uint8_t asked) { bits = asked; }
uint32_t millis() { return nowMs; }
// Asking takes its time.
uint32_t micros() { return nowUs += 3; }
void delayMicroseconds(uint32_t us) { nowUs += us; }
// The time of an echo is given in microseconds; longer than asked for is none.
uint32_t pulseIn(uint8_t pin, uint8_t, uint32_t timeoutUs) {
  const uint32_t us = (uint32_t)values[pin];
  return us > timeoutUs ? 0 : us;
}

void SerialPort::begin(uint32_t) {}
int16_t SerialPort::available() { return (int16_t)(strlen(typed) - typedAt); }
int16_t SerialPort::read() {
  const char one = typed[typedAt];
  typedAt += 1;
  return (int16_t)one;
}
void Print::print(int32_t value) {
  char text[16];
  sprintf(text, "%ld", (long)value);
  print(text);
}
size_t SerialPort::write(uint8_t letter) {
  if (letter == '\r') return 1;
  if (atLineStart) printf("> ");
  atLineStart = letter == '\n';
  putchar((int)letter);
  return 1;
}

int main() {
  loadMemory();
  setup();
  static char row[131072];
  while (fgets(row, sizeof(row), stdin)) {
    if (row[0] == 'a') {
      int pin = 0, value = 0;
      if (sscanf(row + 1, "%d %d", &pin, &value) == 2) {
        values[pin & 255] = value;
        wasSet[pin & 255] = true;
      }
    } else if (row[0] == 't') {
      int pin = 0, sixteenths = 0, damaged = 0;
      if (sscanf(row + 1, "%d %d %d", &pin, &sixteenths, &damaged) >= 2) {
        Thermometer &one = thermometers[pin & 255];
        if (!one.is) one.measured = 1360;
        one.is = true;
        one.isDamaged = damaged != 0;
        one.sixteenths = sixteenths;
      }
    } else if (row[0] == 'b') {
      addBusProbe(row + 1);
    } else if (row[0] == 's') {
      isServo[atoi(row + 1) & 255] = true;
    } else if (row[0] == 'i') {
      addI2cPart(row + 1);
    } else if (row[0] == 'o') {
      addListener(row + 1);
    } else if (row[0] == 'n') {
      obeyNet(row + 1);
    } else if (row[0] == 'w') {
      for (int32_t left = atoi(row + 1); left > 0; left -= 1) {
        nowMs += 1000;
        loop();
      }
    } else if (row[0] == 'W') {
      for (int32_t left = atoi(row + 1) * 10; left > 0; left -= 1) {
        nowMs += 100;
        loop();
      }
    } else if (row[0] == 'c') {
      strncpy(typed, row + 2, sizeof(typed) - 1);
      typedAt = 0;
      loop();
    }
  }
  saveMemory();
  return 0;
}
