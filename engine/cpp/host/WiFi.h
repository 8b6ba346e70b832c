// A radio and a connection of the board on a computer; what is at the other end says simulatedNet.h.
#ifndef TROWEL_HOST_WIFI_H
#define TROWEL_HOST_WIFI_H

#include "host.h"

const uint8_t WL_CONNECTED = 3;

struct Radio {
  void begin(const char *name, const char *password);
  uint8_t status();
};
extern Radio WiFi;

class WiFiClient : public Print {
 public:
  using Print::write;
  virtual size_t write(uint8_t letter) { return write(&letter, 1); }
  size_t write(const uint8_t *bytes, size_t count);
  int16_t connect(const char *host, uint16_t port);
  int16_t available();
  int16_t read();
  uint8_t connected();
  void stop();
};

#endif
