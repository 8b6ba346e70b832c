// Probes on an RS-485 bus, asked in turn, one a second: Modbus RTU, functions 3 and 4, eight bits, no parity, one stop bit. The bits are timed here, so that any
// two pins will do; whatever disturbs them is found by the check of an answer, and then there is no reading.
#ifndef TROWEL_BUS_H
#define TROWEL_BUS_H

#include <string.h>

// A probe may think for so long before its first byte, and pause for so long between two.
const uint32_t THINKING_US = 300000, PAUSE_US = 20000;
const uint32_t BIT_US = 1000000 / BUS_BAUD;

// Whose turn it was, and the words that it answered; none: no answer, or a damaged one.
static uint8_t busTurn = 0;
static bool wasAsked = false, hasAnswered = false;
static uint16_t busWords[BUS_MOST_WORDS];

static uint16_t busCheck(uint16_t sum, uint8_t byte) {
  sum = (uint16_t)(sum ^ byte);
  for (uint8_t bit = 0; bit < 8; bit += 1) {
    const bool isOne = (sum & 1u) != 0;
    sum = (uint16_t)(sum >> 1);
    if (isOne) sum = (uint16_t)(sum ^ 0xa001u);
  }
  return sum;
}

static void waitUntil(uint32_t us) {
  while ((int32_t)(micros() - us) < 0) {
  }
}

static void sayByte(uint8_t byte) {
  uint32_t us = micros();
  digitalWrite(BUS_TX, LOW);
  for (uint8_t bit = 0; bit < 8; bit += 1) {
    us += BIT_US;
    waitUntil(us);
    digitalWrite(BUS_TX, ((byte >> bit) & 1u) != 0 ? HIGH : LOW);
  }
  us += BIT_US;
  waitUntil(us);
  digitalWrite(BUS_TX, HIGH);
  us += BIT_US;
  waitUntil(us);
}

// A byte, each bit looked at in its middle; -1: none came, or it had no stop bit.
static int16_t hearByte(uint32_t patienceUs) {
  const uint32_t since = micros();
  while (digitalRead(BUS_RX) == HIGH)
    if (micros() - since > patienceUs) return -1;
  uint32_t us = micros() + BIT_US / 2;
  uint8_t byte = 0;
  for (uint8_t bit = 0; bit < 8; bit += 1) {
    us += BIT_US;
    waitUntil(us);
    if (digitalRead(BUS_RX) == HIGH) byte = (uint8_t)(byte | (1u << bit));
  }
  us += BIT_US;
  waitUntil(us);
  return digitalRead(BUS_RX) == HIGH ? (int16_t)byte : (int16_t)-1;
}

static void turnBus(bool isSpeaking) {
  if (BUS_DIRECTION != NO_PIN) digitalWrite(BUS_DIRECTION, isSpeaking ? HIGH : LOW);
}

static void beginBus() {
  if (BUS_DIRECTION != NO_PIN) {
    digitalWrite(BUS_DIRECTION, LOW);
    pinMode(BUS_DIRECTION, OUTPUT);
  }
  // The line rests high.
  digitalWrite(BUS_TX, HIGH);
  pinMode(BUS_TX, OUTPUT);
  pinMode(BUS_RX, INPUT);
}

static void sayRequest(const BusProbe &probe) {
  const uint8_t request[6] = {probe.address, probe.function, (uint8_t)(probe.first >> 8), (uint8_t)(probe.first & 255u), 0, probe.count};
  uint16_t sum = 0xffffu;
  turnBus(true);
  for (uint8_t at = 0; at < 6; at += 1) {
    sayByte(request[at]);
    sum = busCheck(sum, request[at]);
  }
  sayByte((uint8_t)(sum & 255u));
  sayByte((uint8_t)(sum >> 8));
  turnBus(false);
}

// Whether the whole answer to what was asked came, undamaged.
static bool hearAnswer(const BusProbe &probe) {
  const uint8_t begun[3] = {probe.address, probe.function, (uint8_t)(2 * probe.count)};
  const uint8_t size = (uint8_t)(5 + 2 * probe.count);
  uint16_t sum = 0xffffu;
  for (uint8_t at = 0; at < size; at += 1) {
    const int16_t heard = hearByte(at == 0 ? THINKING_US : PAUSE_US);
    if (heard < 0 || (at < 3 && heard != begun[at])) return false;
    const uint8_t byte = (uint8_t)heard;
    sum = busCheck(sum, byte);
    if (at < 3 || at >= size - 2) continue;
    const uint8_t place = (uint8_t)((at - 3) / 2);
    busWords[place] = (at - 3) % 2 == 0 ? (uint16_t)((uint16_t)byte << 8) : (uint16_t)(busWords[place] | byte);
  }
  // With its own check behind it a frame comes to nothing.
  return sum == 0;
}

// The next probe, after everything has been switched; what it answers is read in the second that follows.
static void askBus() {
  busTurn = wasAsked ? (uint8_t)((busTurn + 1) % BUS_COUNT) : 0;
  wasAsked = true;
  sayRequest(BUS_PROBES[busTurn]);
  hasAnswered = hearAnswer(BUS_PROBES[busTurn]);
}

static bool isBusTurn(uint8_t place) { return wasAsked && BUS_WORDS[place].probe == busTurn; }

static uint32_t twoWords(const BusWord &one) {
  const bool isHighFirst = one.kind == WORDS_HIGH || one.kind == FLOAT_HIGH;
  const uint32_t first = busWords[one.word], second = busWords[one.word + 1];
  return isHighFirst ? (first << 16) | second : (second << 16) | first;
}

#ifdef TROWEL_BUS_FLOATS
// NONE: no number, or one beyond all that is read here.
static int32_t pointed(const BusWord &one) {
  const uint32_t bits = twoWords(one);
  float value = 0;
  memcpy(&value, &bits, sizeof(value));
  const float whole = value * (float)one.times / (float)one.per;
  return whole > -1e9f && whole < 1e9f ? (int32_t)whole + one.plus : NONE;
}
#endif

static int32_t readBus(uint8_t place) {
  const BusWord &one = BUS_WORDS[place];
  if (!isBusTurn(place) || !hasAnswered) return NONE;
#ifdef TROWEL_BUS_FLOATS
  if (one.kind >= FLOAT_HIGH) return pointed(one);
#endif
  const uint16_t word = busWords[one.word];
  const int32_t value = one.kind == WORD_PLAIN ? (int32_t)word : one.kind == WORD_SIGNED ? (int32_t)(int16_t)word : (int32_t)twoWords(one);
  const int64_t whole = (int64_t)value * one.times / one.per + one.plus;
  return whole > -2000000000 && whole < 2000000000 ? (int32_t)whole : NONE;
}

#endif
