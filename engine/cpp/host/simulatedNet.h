// A network with a gateway in it: "n up|down" it is in reach or not, "n listen|deaf" the gateway takes connections or not, "n slow S" so long it takes to connect, and for the
// board nothing else goes on meanwhile, "n quiet|speak" it takes what comes and says nothing, or speaks again, "n status N" with that status; "n say HEX" is its answer to every report from now on, the bytes with "@@" where the
// number of the report stands, and "n raw HEX" are bytes that come unasked. What it was sent is printed after "^ ", as hexadecimal digits, whenever an answer is due; connections after "^connect HOST:PORT SECOND".
#ifndef TROWEL_SIMULATED_NET_H
#define TROWEL_SIMULATED_NET_H

#include "WiFi.h"
#include <stdio.h>
#include <string.h>

Radio WiFi;
static bool isInReach = false, wasJoined = false, isDeaf = false, isQuiet = false, isConnected = false, isMqtt = false;
static int slowS = 0, status_ = 200;
static char sentBytes[65536], givenBytes[65536], template_[65536];
static size_t sentLength = 0, givenLength = 0, givenAt = 0, templateLength = 0;

void Radio::begin(const char *name, const char *password) {
  wasJoined = true;
  printf("^join %s %s\n", name, password);
}
uint8_t Radio::status() { return isInReach && wasJoined ? WL_CONNECTED : 6; }

int16_t WiFiClient::connect(const char *host, uint16_t port) {
  nowMs += (uint32_t)slowS * 1000;
  printf("^connect %s:%u %u\n", host, (unsigned)port, (unsigned)((nowMs - bootMs) / 1000));
  sentLength = givenLength = givenAt = 0;
  isConnected = isInReach && !isDeaf;
  return isConnected ? 1 : 0;
}

static void giveBytes(const char *bytes, size_t count) {
  if (givenLength + count > sizeof(givenBytes)) return;
  memcpy(givenBytes + givenLength, bytes, count);
  givenLength += count;
}

// Answers with the number of the report in place of each "@@".
static void answerReport() {
  static char text[65536];
  const char *number = NULL;
  for (size_t at = 0; at + 6 < sentLength; at += 1)
    if (memcmp(sentBytes + at, "\"seq\":", 6) == 0) number = sentBytes + at + 6;
  size_t length = 0;
  for (size_t at = 0; at < templateLength; at += 1) {
    if (number != NULL && at + 1 < templateLength && template_[at] == '@' && template_[at + 1] == '@') {
      length += (size_t)sprintf(text + length, "%ld", atol(number));
      at += 1;
    } else {
      text[length] = template_[at];
      length += 1;
    }
  }
  if (!isMqtt) {
    char head[120];
    giveBytes(head, (size_t)sprintf(head, "HTTP/1.1 %d so\r\nContent-Type: application/json\r\ncontent-length: %u\r\n\r\n", status_, (unsigned)length));
    giveBytes(text, length);
    return;
  }
  // The answers' topic, at least once, number 7.
  const char topic[] = "trowel/g/b/answer";
  const size_t all = 2 + strlen(topic) + 2 + length;
  char head[8] = {0x32};
  size_t bytes = 1;
  for (size_t left = all; bytes == 1 || left > 0; left /= 128, bytes += 1) head[bytes] = (char)(left % 128 | (left >= 128 ? 128 : 0));
  giveBytes(head, bytes);
  const char name[2] = {0, (char)strlen(topic)};
  giveBytes(name, 2);
  giveBytes(topic, strlen(topic));
  giveBytes("\0\7", 2);
  giveBytes(text, length);
}

static void printSent() {
  printf("^ ");
  for (size_t at = 0; at < sentLength; at += 1) printf("%02x", (unsigned)(uint8_t)sentBytes[at]);
  printf("\n");
  sentLength = 0;
}

// Whether a whole request has come: head and as much as it says.
static bool isRequest() {
  sentBytes[sentLength] = 0;
  const char *body = strstr(sentBytes, "\r\n\r\n"), *length = strstr(sentBytes, "Content-Length: ");
  return body != NULL && length != NULL && sentLength - (size_t)(body + 4 - sentBytes) >= (size_t)atol(length + 16);
}

// Takes one packet off the front of what was sent; false: none is whole.
static bool takePacket() {
  size_t length = 0, at = 1;
  for (; at < sentLength && at < 5; at += 1) {
    length += (size_t)(sentBytes[at] & 127) << (7 * (at - 1));
    if (((uint8_t)sentBytes[at] & 128) == 0) break;
  }
  if (at >= sentLength || sentLength < at + 1 + length) return false;
  const size_t all = at + 1 + length, rest = sentLength - all;
  static char kept[65536];
  memcpy(kept, sentBytes + all, rest);
  const uint8_t kind = (uint8_t)((uint8_t)sentBytes[0] >> 4);
  sentLength = all;
  if (!isQuiet) {
    if (kind == 1) giveBytes("\x20\2\0\0", 4);
    if (kind == 8) giveBytes("\x90\3\xff\xff\1", 5);
    if (kind == 3) {
      const char ack[4] = {0x40, 2, sentBytes[at + 1 + 2 + strlen("trowel/g/b/report")], sentBytes[at + 1 + 2 + strlen("trowel/g/b/report") + 1]};
      giveBytes(ack, 4);
      answerReport();
    }
  }
  printSent();
  memcpy(sentBytes, kept, rest);
  sentLength = rest;
  return true;
}

size_t WiFiClient::write(const uint8_t *bytes, size_t count) {
  if (!isConnected || sentLength + count >= sizeof(sentBytes)) return 0;
  memcpy(sentBytes + sentLength, bytes, count);
  sentLength += count;
  if (isMqtt) {
    while (takePacket()) {
    }
  } else if (isRequest()) {
    if (!isQuiet) answerReport();
    printSent();
  }
  return count;
}
int16_t WiFiClient::available() { return isConnected && givenAt < givenLength ? 1 : 0; }
int16_t WiFiClient::read() {
  if (givenAt >= givenLength) return -1;
  givenAt += 1;
  return (int16_t)(uint8_t)givenBytes[givenAt - 1];
}
uint8_t WiFiClient::connected() { return isConnected && isInReach ? 1 : 0; }
void WiFiClient::stop() { isConnected = false; }

static void obeyNet(char *row) {
  char word[16] = "";
  int at = 0, number = 0;
  sscanf(row, " %15s%n", word, &at);
  if (strcmp(word, "up") == 0) isInReach = true;
  if (strcmp(word, "down") == 0) isInReach = false;
  if (strcmp(word, "listen") == 0) isDeaf = false;
  if (strcmp(word, "deaf") == 0) isDeaf = true;
  if (strcmp(word, "quiet") == 0) isQuiet = true;
  if (strcmp(word, "speak") == 0) isQuiet = false;
  if (strcmp(word, "mqtt") == 0) isMqtt = true;
  if (strcmp(word, "drop") == 0) isConnected = false;
  if (strcmp(word, "slow") == 0 && sscanf(row + at, "%d", &number) == 1) slowS = number;
  if (strcmp(word, "status") == 0 && sscanf(row + at, "%d", &number) == 1) status_ = number;
  if (strcmp(word, "say") != 0 && strcmp(word, "raw") != 0) return;
  char bytes[sizeof(template_)];
  size_t length = 0;
  unsigned byte = 0;
  for (const char *here = row + at + 1; length < sizeof(bytes) && sscanf(here, "%2x", &byte) == 1; here += 2) {
    bytes[length] = (char)byte;
    length += 1;
  }
  if (word[0] == 'r') {
    giveBytes(bytes, length);
    return;
  }
  memcpy(template_, bytes, length);
  templateLength = length;
}

#endif
