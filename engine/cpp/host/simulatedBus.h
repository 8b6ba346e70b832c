// Probes on a bus, bit by bit in simulated time: "b TX RX DIRECTION BAUD ADDRESS THINKS_US SKEW FLIPS REGISTER …". The clock of a probe is off by SKEW thousandths,
// a bit of byte FLIPS of its answer is turned (-1: none), and a transceiver that is still told to speak (DIRECTION; 255: it turns by itself) hears nothing.
#ifndef TROWEL_HOST_BUS_H
#define TROWEL_HOST_BUS_H

#include <stdio.h>
#include <vector>

struct SimulatedProbe {
  int address, thinksUs, skew, flips;
  std::vector<int> registers;
};
static std::vector<SimulatedProbe> busProbes;
static int busTx = -1, busRx = -1, busDirection = 255;
static double busBitUs = 104;
static uint8_t busDirectionLevel = 0;
struct Edge {
  uint32_t us;
  uint8_t level;
};
static std::vector<Edge> heardEdges;
static std::vector<uint8_t> saidBytes;
static double saidFromUs = 0, saidBitUs = 104;

static bool isOfBus(uint8_t pin) { return busTx >= 0 && (pin == busTx || pin == busRx || pin == busDirection); }

static void hearLevel(uint8_t pin, uint8_t level) {
  if (pin == busDirection) busDirectionLevel = level;
  if (pin == busTx && (busDirection == 255 || busDirectionLevel != 0)) heardEdges.push_back({nowUs, level});
}

// The line as it was at a time, from its edges; it rests high.
static uint8_t heardAt(double us) {
  uint8_t level = 1;
  for (const Edge &one : heardEdges)
    if (one.us <= us) level = one.level;
  return level;
}

// Bytes as a probe's own clock finds them.
static std::vector<uint8_t> heardBytes(double bitUs) {
  std::vector<uint8_t> bytes;
  double from = -1;
  for (const Edge &one : heardEdges) {
    if (one.level != 0 || one.us < from) continue;
    uint8_t byte = 0;
    for (int bit = 0; bit < 8; bit += 1)
      if (heardAt(one.us + (1.5 + bit) * bitUs) != 0) byte = (uint8_t)(byte | (1 << bit));
    if (heardAt(one.us + 9.5 * bitUs) != 0) bytes.push_back(byte);
    from = one.us + 9.5 * bitUs;
  }
  return bytes;
}

// Worked out bit by bit, by the polynomial 0x8005 with its bits turned round.
static unsigned modbusCheck(const std::vector<uint8_t> &bytes) {
  unsigned sum = 0xffff;
  for (const uint8_t byte : bytes)
    for (int bit = 0; bit < 8; bit += 1) {
      const unsigned carry = (sum ^ (byte >> bit)) & 1;
      sum = (sum >> 1) ^ (carry != 0 ? 0xa001 : 0);
    }
  return sum;
}

static void answerRequest() {
  for (const SimulatedProbe &probe : busProbes) {
    const double bitUs = busBitUs * (1000 + probe.skew) / 1000;
    const std::vector<uint8_t> request = heardBytes(bitUs);
    if (request.size() != 8 || modbusCheck(request) != 0 || request[0] != probe.address) continue;
    const int first = request[2] * 256 + request[3], count = request[4] * 256 + request[5];
    if ((request[1] != 3 && request[1] != 4) || first + count > (int)probe.registers.size()) continue;
    saidBytes = {request[0], request[1], (uint8_t)(2 * count)};
    for (int at = first; at < first + count; at += 1) {
      saidBytes.push_back((uint8_t)((probe.registers[at] >> 8) & 255));
      saidBytes.push_back((uint8_t)(probe.registers[at] & 255));
    }
    const unsigned sum = modbusCheck(saidBytes);
    saidBytes.push_back((uint8_t)(sum & 255));
    saidBytes.push_back((uint8_t)(sum >> 8));
    if (probe.flips >= 0 && probe.flips < (int)saidBytes.size()) saidBytes[probe.flips] ^= 16;
    saidFromUs = nowUs + probe.thinksUs;
    saidBitUs = bitUs;
  }
  heardEdges.clear();
}

// What the board hears.
static uint8_t busLevel() {
  if (!heardEdges.empty() && nowUs > heardEdges.back().us + 35 * busBitUs) answerRequest();
  const double bit = (nowUs - saidFromUs) / saidBitUs;
  const size_t byte = (size_t)(bit / 10);
  if (saidBytes.empty() || bit < 0 || byte >= saidBytes.size()) return 1;
  if (busDirection != 255 && busDirectionLevel != 0) return 1;
  const int at = (int)bit % 10;
  return at == 0 ? 0 : at == 9 ? 1 : (uint8_t)((saidBytes[byte] >> (at - 1)) & 1);
}

static void addBusProbe(const char *row) {
  SimulatedProbe probe;
  int baud = 9600, read = 0;
  if (sscanf(row, "%d %d %d %d %d %d %d %d%n", &busTx, &busRx, &busDirection, &baud, &probe.address, &probe.thinksUs, &probe.skew, &probe.flips, &read) < 8) return;
  busBitUs = 1e6 / baud;
  row += read;
  int value = 0;
  while (sscanf(row, "%d%n", &value, &read) == 1) {
    probe.registers.push_back(value);
    row += read;
  }
  for (SimulatedProbe &one : busProbes)
    if (one.address == probe.address) {
      one = probe;
      return;
    }
  busProbes.push_back(probe);
}

#endif
