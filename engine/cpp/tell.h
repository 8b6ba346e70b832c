// Where a program speaks: at its serial line. With a network each line goes as well to whoever wants to hear it (net.h).
#ifndef TROWEL_TELL_H
#define TROWEL_TELL_H

#ifdef TROWEL_NET
// The radio's own library comes with the board's package. Some name it otherwise: then this is the line to change.
#include <WiFi.h>
#include "secrets.h"

class Teller : public Print {
 public:
  using Print::write;
  virtual size_t write(uint8_t letter);
};
static Teller TELL;
static void keepNewest();
#else
#define TELL Serial
#endif

#endif
