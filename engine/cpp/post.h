// One report, one connection: HTTP.
#ifndef TROWEL_POST_H
#define TROWEL_POST_H

static void letGo() { client.stop(); }
static void restFor(int32_t) {}

// Connects and sends: this may hold the board up, so it is done only while every pump rests.
static bool beginReport(int32_t bootNumber, int32_t seq, int32_t revision) {
  heardLength = 0;
  if (!client.connect(TROWEL_GATEWAY_HOST, TROWEL_GATEWAY_PORT)) return false;
  Counting counting;
  counting.length = 0;
  writeReport(counting, bootNumber, seq, revision);
  Bundled out(client);
  out.print(F("POST /api/readings HTTP/1.1\r\nHost: " TROWEL_GATEWAY_HOST ":"));
  out.print((int32_t)TROWEL_GATEWAY_PORT);
  out.print(F("\r\nAuthorization: Bearer " TROWEL_KEY "\r\nContent-Type: application/json\r\nContent-Length: "));
  out.print((int32_t)counting.length);
  out.print(F("\r\nConnection: close\r\n\r\n"));
  writeReport(out, bootNumber, seq, revision);
  out.pass();
  return true;
}

// As far as the head says; without its length, when nothing more comes.
static bool isWhole(const char *body) {
  for (const char *at = heard; at < body; at += 1) {
    if ((at[0] | 32) != 'c' || strncasecmp(at, "content-length:", 15) != 0) continue;
    return heardLength - (int32_t)(body - heard) >= (int32_t)atol(at + 15);
  }
  return false;
}

// What can be done at once. Where the body of the answer begins, and its status; NULL until then.
static const char *stepReport(int32_t &status) {
  const bool isOver = !client.connected();
  const uint8_t passed = hear();
  const char *body = strstr(heard, "\r\n\r\n");
  if (body != NULL) body += 4;
  const bool isTooLong = passed == HEARD_TOO_MUCH;
  if (!isTooLong && !(body != NULL && isWhole(body)) && !(isOver && passed == HEARD_NOTHING)) return NULL;
  letGo();
  status = heardLength > 12 ? (int32_t)atol(heard + 9) : 0;
  return body == NULL || isTooLong ? "" : body;
}

#endif
