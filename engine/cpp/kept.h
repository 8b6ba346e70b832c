// What a board keeps through a reboot where it has memory for it: the day's water, the lock, the round, the watched dose. Records go round in sixteen places or
// more, so that one that is cut off leaves the one before it, and no place is written all the time.
#ifndef TROWEL_KEPT_H
#define TROWEL_KEPT_H

#ifdef E2END
#include <EEPROM.h>

// Whose program, which record, by line, check.
const uint16_t KEPT_LINE_BYTES = 5 + HOURS;
const uint16_t KEPT_BYTES = 2 + KEPT_LINE_BYTES * TROWEL_LINES + HOURS * TROWEL_CONTACTS + 2;
const uint16_t KEPT_SLOTS = (E2END + 1) / KEPT_BYTES < 64 ? (E2END + 1) / KEPT_BYTES : 64;
const uint16_t LEAST_SLOTS = 16;
const bool CAN_KEEP = KEPT_SLOTS >= LEAST_SLOTS;
static uint8_t keptNumber = 0;
static uint16_t keptSlot = 0;

static uint16_t checked(uint16_t sum, uint8_t byte) {
  sum = (uint16_t)(sum ^ ((uint16_t)byte << 8));
  for (uint8_t bit = 0; bit < 8; bit += 1)
    sum = (uint16_t)((sum & 0x8000u) != 0 ? (uint16_t)(sum << 1) ^ 0x1021u : sum << 1);
  return sum;
}

// Water of an hour in so many ml, so that a byte holds it; it is rounded up, towards less water.
static int64_t unitOf(int32_t line) {
  const int64_t most = CONFIG.line[line].guards.dailyMaxMl;
  return most / 240 + 1;
}

// False: damaged, or cut off while it was written.
static bool isRecord(uint16_t slot) {
  const uint16_t from = slot * KEPT_BYTES;
  uint16_t sum = 0xffffu;
  for (uint16_t at = 0; at < KEPT_BYTES - 2; at += 1) sum = checked(sum, EEPROM.read(from + at));
  return EEPROM.read(from + KEPT_BYTES - 2) == (uint8_t)(sum >> 8) && EEPROM.read(from + KEPT_BYTES - 1) == (uint8_t)(sum & 0xffu);
}

static void readLine(Remembered &kept, uint16_t from, int32_t line) {
  const uint8_t flags = EEPROM.read(from);
  kept = nothingKept();
  kept.locked = (flags & 1u) != 0;
  kept.noRise = EEPROM.read(from + 1);
  kept.pulses = EEPROM.read(from + 2);
  if ((flags & 2u) != 0) kept.watchTenths = (int32_t)EEPROM.read(from + 3) * 256 + EEPROM.read(from + 4);
  for (int8_t at = 0; at < HOURS; at += 1) kept.hoursMl[at] = EEPROM.read(from + 5 + at) * unitOf(line);
}

// Looks for the newest whole record. 1: found, 0: nothing was ever kept, -1: all that there is is damaged.
static int8_t findKept() {
  if (!CAN_KEEP) return 0;
  bool isFound = false, isDamaged = false;
  for (uint16_t slot = 0; slot < KEPT_SLOTS; slot += 1) {
    if (EEPROM.read(slot * KEPT_BYTES) != KEPT_AS) continue;
    if (!isRecord(slot)) {
      isDamaged = true;
      continue;
    }
    const uint8_t number = EEPROM.read(slot * KEPT_BYTES + 1);
    // Numbers go round as well: the newer one lies less than half a round ahead.
    if (isFound && (uint8_t)(number - keptNumber) >= 128) continue;
    isFound = true;
    keptNumber = number;
    keptSlot = slot;
  }
  return isFound ? 1 : isDamaged ? -1 : 0;
}

static int8_t readKept(Remembered *kept) {
  const int8_t found = findKept();
  for (int32_t at = 0; at < TROWEL_LINES; at += 1) kept[at] = nothingKept();
  for (int32_t at = 0; at < linesOf(CONFIG); at += 1) {
    if (found > 0) readLine(kept[at], keptSlot * KEPT_BYTES + 2 + at * KEPT_LINE_BYTES, at);
    // Cannot have been kept: the engine takes it for a day that has had all it may.
    if (found < 0) kept[at].hoursMl[0] = -1;
  }
  return found;
}

#if TROWEL_CONTACTS > 0
// Seconds of an hour in so many, so that a byte holds them; rounded up.
const int32_t KEPT_SECONDS = 15;
static void readKept(Remembered *kept, RememberedContact *hours) {
  const int8_t found = readKept(kept);
  const uint16_t from = keptSlot * KEPT_BYTES + 2 + KEPT_LINE_BYTES * TROWEL_LINES;
  for (uint8_t one = 0; one < TROWEL_CONTACTS; one += 1)
    for (int8_t at = 0; at < HOURS; at += 1)
      hours[one].hoursS[at] = found > 0 ? (int32_t)EEPROM.read(from + one * HOURS + at) * KEPT_SECONDS : found < 0 ? -1 : 0;
}
#endif

static uint16_t keptAt = 0;
static uint16_t keptSum = 0;
static void keepByte(uint8_t byte) {
  EEPROM.update(keptAt, byte);
  keptSum = checked(keptSum, byte);
  keptAt += 1;
}
static uint8_t capped(int64_t value) { return value < 0 ? 0 : value > 255 ? 255 : (uint8_t)value; }

static void writeKept() {
  if (!CAN_KEEP) return;
  keptSlot = (keptSlot + 1) % KEPT_SLOTS;
  keptNumber = (uint8_t)(keptNumber + 1);
  keptAt = keptSlot * KEPT_BYTES;
  keptSum = 0xffffu;
  keepByte(KEPT_AS);
  keepByte(keptNumber);
  for (int32_t line = 0; line < TROWEL_LINES; line += 1) {
    const Remembered kept = line < linesOf(CONFIG) ? rememberedOf(state.line[line], CONFIG.line[line], state.nowS) : nothingKept();
    keepByte((uint8_t)((kept.locked ? 1 : 0) | (kept.watchTenths == NONE ? 0 : 2)));
    keepByte(capped(kept.noRise));
    keepByte(capped(kept.pulses));
    const int32_t watch = kept.watchTenths == NONE ? 0 : kept.watchTenths;
    keepByte((uint8_t)(watch / 256));
    keepByte((uint8_t)(watch % 256));
    const int64_t unit = line < linesOf(CONFIG) ? unitOf(line) : 1;
    for (int8_t at = 0; at < HOURS; at += 1) keepByte(capped((kept.hoursMl[at] + unit - 1) / unit));
  }
#if TROWEL_CONTACTS > 0
  for (uint8_t one = 0; one < TROWEL_CONTACTS; one += 1) {
    const RememberedContact kept = rememberedOf(contacts.contact[one]);
    for (int8_t at = 0; at < HOURS; at += 1) keepByte(capped((kept.hoursS[at] + KEPT_SECONDS - 1) / KEPT_SECONDS));
  }
#endif
  const uint16_t sum = keptSum;
  keepByte((uint8_t)(sum >> 8));
  keepByte((uint8_t)(sum & 0xffu));
}

#else
// This board has no memory of the kind: after a reboot its minimum interval holds, and the day begins anew.
const bool CAN_KEEP = false;
static void readKept(Remembered *kept) {
  for (int32_t at = 0; at < TROWEL_LINES; at += 1) kept[at] = nothingKept();
}
#if TROWEL_CONTACTS > 0
static void readKept(Remembered *kept, RememberedContact *hours) {
  readKept(kept);
  for (uint8_t one = 0; one < TROWEL_CONTACTS; one += 1)
    for (int8_t at = 0; at < HOURS; at += 1) hours[one].hoursS[at] = 0;
}
#endif
static void writeKept() {}
#endif

#endif
