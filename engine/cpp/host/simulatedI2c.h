// Parts on I2C, line by line in simulated time: "i SDA SCL ADDRESS WRITTEN ANSWER" (bytes as hexadecimal digits, "-" for none, "/" between two writes): once this was
// written to it since it was last read, the part answers with that. It holds the clock down for a while after its address. "o SDA SCL ADDRESS 1": a part that only listens; what is written to it is printed, a line a frame; with 0 it is
// unplugged.
#ifndef TROWEL_HOST_I2C_H
#define TROWEL_HOST_I2C_H

#include <map>
#include <string>
#include <vector>
#include <stdio.h>

struct SimulatedPart {
  int address;
  std::map<std::string, std::vector<uint8_t>> answers;
  bool listensOnly;
};
static std::vector<SimulatedPart> i2cParts;
static int i2cSda = -1, i2cScl = -1;
static bool masterSda = true, masterScl = true, partPullsSda = false, clockWaits = false;
static uint32_t stretchedToUs = 0;
// Who is spoken to, and in which direction.
static SimulatedPart *spokenTo = NULL;
static bool isInFrame = false, isReading = false, isAddress = false, isAckBit = false, wasTaken = false, hasRisen = false;
static int bitsIn = 0;
static uint8_t shifted = 0;
static std::map<int, std::string> writtenSince;
static std::vector<uint8_t> answering;
static size_t answeringAt = 0;

static bool isOfI2c(uint8_t pin) { return i2cSda >= 0 && (pin == i2cSda || pin == i2cScl); }

static void beginFrame() {
  isInFrame = isAddress = true;
  isReading = isAckBit = hasRisen = false;
  bitsIn = 0;
  shifted = 0;
  partPullsSda = false;
}

static void tookAddress() {
  spokenTo = NULL;
  for (SimulatedPart &one : i2cParts)
    if (one.address == shifted >> 1) spokenTo = &one;
  isReading = (shifted & 1) != 0;
  wasTaken = spokenTo != NULL;
  if (!spokenTo) return;
  stretchedToUs = nowUs + 40;
  std::string &written = writtenSince[spokenTo->address];
  if (!isReading) {
    if (!written.empty()) written += "/";
    return;
  }
  const auto found = spokenTo->answers.find(written);
  answering = found == spokenTo->answers.end() ? std::vector<uint8_t>() : found->second;
  answeringAt = 0;
  written.clear();
}

static void tookByte() {
  wasTaken = spokenTo != NULL;
  char text[3];
  snprintf(text, sizeof(text), "%02x", shifted);
  if (spokenTo) writtenSince[spokenTo->address] += text;
}

// The next bit that a part says; nothing more to say leaves the line up.
static bool saysOne() { return answeringAt >= answering.size() || ((answering[answeringAt] >> (7 - bitsIn)) & 1) != 0; }

static void clockRises() {
  if (!isInFrame) return;
  hasRisen = true;
  if (isAckBit) {
    // Read by the master: it says whether it wants more.
    if (isReading && !isAddress && masterSda) spokenTo = NULL;
    return;
  }
  if (isReading && !isAddress) return;
  shifted = (uint8_t)((shifted << 1) | (masterSda ? 1 : 0));
}

static void clockFalls() {
  // The first fall belongs to the start.
  if (!isInFrame || !hasRisen) return;
  hasRisen = false;
  if (isAckBit) {
    isAckBit = isAddress = false;
    bitsIn = 0;
    shifted = 0;
    partPullsSda = isReading && spokenTo && !saysOne();
    return;
  }
  bitsIn += 1;
  if (bitsIn < 8) {
    partPullsSda = isReading && !isAddress && spokenTo && !saysOne();
    return;
  }
  isAckBit = true;
  if (isAddress)
    tookAddress();
  else if (isReading)
    answeringAt += 1;
  else
    tookByte();
  partPullsSda = (isAddress || !isReading) && wasTaken;
}

static void moveClock(bool isUp) {
  if (isUp == masterScl && !clockWaits) return;
  masterScl = isUp;
  if (isUp && nowUs < stretchedToUs) {
    clockWaits = true;
    return;
  }
  // Taken down again while a part still held it: no pulse came about.
  if (!isUp && clockWaits) {
    clockWaits = false;
    return;
  }
  if (isUp)
    clockRises();
  else
    clockFalls();
}

static bool isClockUp() {
  if (clockWaits && nowUs >= stretchedToUs) {
    clockWaits = false;
    clockRises();
  }
  return masterScl && !clockWaits;
}

static void moveI2c(uint8_t pin, bool isUp) {
  if (pin == i2cScl) {
    moveClock(isUp);
    return;
  }
  if (isUp == masterSda) return;
  masterSda = isUp;
  if (!masterScl || clockWaits) return;
  if (!isUp) {
    beginFrame();
    return;
  }
  isInFrame = partPullsSda = false;
  if (!spokenTo || !spokenTo->listensOnly) return;
  std::string &written = writtenSince[spokenTo->address];
  printf("wrote %d %s\n", spokenTo->address, written.c_str());
  written.clear();
  spokenTo = NULL;
}

static uint8_t i2cLevel(uint8_t pin) { return pin == i2cScl ? (isClockUp() ? 1 : 0) : (masterSda && !partPullsSda ? 1 : 0); }

static std::vector<uint8_t> bytesOf(const char *digits) {
  std::vector<uint8_t> bytes;
  unsigned value = 0;
  for (; sscanf(digits, "%2x", &value) == 1; digits += 2) bytes.push_back((uint8_t)value);
  return bytes;
}

static void addI2cPart(const char *row) {
  int address = 0;
  char written[64], answer[64];
  if (sscanf(row, "%d %d %d %63s %63s", &i2cSda, &i2cScl, &address, written, answer) < 5) return;
  const std::string key = written[0] == '-' ? "" : written;
  for (SimulatedPart &one : i2cParts)
    if (one.address == address) {
      one.answers[key] = bytesOf(answer);
      return;
    }
  i2cParts.push_back({address, {{key, bytesOf(answer)}}, false});
}

static void addListener(const char *row) {
  int address = 0, isThere = 0;
  if (sscanf(row, "%d %d %d %d", &i2cSda, &i2cScl, &address, &isThere) < 4) return;
  for (size_t at = i2cParts.size(); at > 0; at -= 1)
    if (i2cParts[at - 1].address == address) i2cParts.erase(i2cParts.begin() + (long)at - 1);
  if (isThere) i2cParts.push_back({address, {}, true});
}

#endif
