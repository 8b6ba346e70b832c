// A kilobyte that outlives a reboot: it lies in the file that TROWEL_EEPROM names, and every write is counted.
#ifndef TROWEL_HOST_EEPROM_H
#define TROWEL_HOST_EEPROM_H

struct EepromMemory {
  uint8_t read(uint16_t at);
  void update(uint16_t at, uint8_t value);
};
extern EepromMemory EEPROM;

#endif
