// A board on a computer: pins that are numbers, a clock that is turned by hand, a serial line that is standard input and output.
#ifndef TROWEL_HOST_H
#define TROWEL_HOST_H

#include <stdint.h>
#include <stddef.h>
#include <stdlib.h>

const uint8_t HIGH = 1;
const uint8_t LOW = 0;
const uint8_t INPUT = 0;
const uint8_t OUTPUT = 1;
const uint8_t INPUT_PULLUP = 2;
const uint8_t A0 = 200, A1 = 201, A2 = 202, A3 = 203, A4 = 204, A5 = 205, A6 = 206, A7 = 207;

void pinMode(uint8_t pin, uint8_t mode);
void digitalWrite(uint8_t pin, uint8_t level);
uint8_t digitalRead(uint8_t pin);
int16_t analogRead(uint8_t pin);
void analogReadResolution(uint8_t bits);
uint32_t millis();
uint32_t micros();
inline void interrupts() {}
inline void noInterrupts() {}
void delayMicroseconds(uint32_t us);
uint32_t pulseIn(uint8_t pin, uint8_t level, uint32_t timeoutUs);

// Texts in program memory, and a memory that outlives a reboot.
struct __FlashStringHelper;
#define F(text) reinterpret_cast<const __FlashStringHelper *>(text)
typedef const char *PGM_P;
#define pgm_read_byte(at) (*(const uint8_t *)(at))
#ifndef NO_EEPROM
#define E2END 1023
#endif

// Whatever can be printed to.
class Print {
 public:
  virtual ~Print() {}
  virtual size_t write(uint8_t letter) = 0;
  virtual size_t write(const uint8_t *bytes, size_t count) {
    for (size_t at = 0; at < count; at += 1) write(bytes[at]);
    return count;
  }
  void print(const char *text) {
    for (; *text != 0; text += 1) write((uint8_t)*text);
  }
  void print(int32_t value);
  void print(const __FlashStringHelper *text) { print(reinterpret_cast<const char *>(text)); }
  void println(const char *text) {
    print(text);
    println();
  }
  void println(const __FlashStringHelper *text) { println(reinterpret_cast<const char *>(text)); }
  void println() { print("\r\n"); }
};

struct SerialPort : public Print {
  void begin(uint32_t speed);
  int16_t available();
  int16_t read();
  using Print::write;
  virtual size_t write(uint8_t letter);
};
extern SerialPort Serial;

void setup();
void loop();

#endif
