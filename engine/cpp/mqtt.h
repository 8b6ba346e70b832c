// Reports over one connection that stays open: MQTT 3.1.1, as much of it as reports and answers want. Numbers of packets and flags are those of the standard.
#ifndef TROWEL_MQTT_H
#define TROWEL_MQTT_H

const uint16_t KEEP_ALIVE_S = 90;
// Beyond such a rest the connection is made anew.
const int32_t MOST_REST_S = 45;
const uint8_t CONNACK = 2, PUBLISH = 3, SUBACK = 9;
// As over HTTP: a wrong key, and a report that nobody takes.
const int32_t NOT_LET_IN = 401, NOT_TAKEN = 400, TAKEN = 200, BROKEN = 0;
static bool isOpen = false;
static uint16_t packetNumber = 0;

static void letGo() {
  client.stop();
  isOpen = false;
}
static void restFor(int32_t seconds) {
  if (seconds > MOST_REST_S) letGo();
}

static void writeTwo(Print &to, uint16_t value) {
  to.write((uint8_t)(value >> 8));
  to.write((uint8_t)(value & 255));
}

static void writeNamed(Print &to, const char *text) {
  writeTwo(to, (uint16_t)strlen(text));
  to.print(text);
}

// Seven bits of the length in a byte, the lowest first.
static void writeHead(Print &to, uint8_t kind, uint16_t length) {
  to.write(kind);
  while (length >= 128) {
    to.write((uint8_t)((length & 127) | 128));
    length = (uint16_t)(length >> 7);
  }
  to.write((uint8_t)length);
}

// A clean session with user and password, and the topic of its answers.
static void writeHello(Print &to) {
  const uint16_t key = (uint16_t)(2 + strlen(TROWEL_KEY)), name = (uint16_t)(2 + strlen(TROWEL_BOARD_ID));
  writeHead(to, 0x10, (uint16_t)(10 + 2 * name + key));
  writeNamed(to, "MQTT");
  to.write((uint8_t)4);
  to.write((uint8_t)0xc2);
  writeTwo(to, KEEP_ALIVE_S);
  writeNamed(to, TROWEL_BOARD_ID);
  writeNamed(to, TROWEL_BOARD_ID);
  writeNamed(to, TROWEL_KEY);
  writeHead(to, 0x82, (uint16_t)(2 + 2 + strlen(TROWEL_TOPIC "answer") + 1));
  writeTwo(to, 65535);
  writeNamed(to, TROWEL_TOPIC "answer");
  to.write((uint8_t)1);
}

// Connects where it must, and sends: this may hold the board up, so it is done only while every pump rests.
static bool beginReport(int32_t bootNumber, int32_t seq, int32_t revision) {
  Bundled out(client);
  if (!isOpen) {
    heardLength = 0;
    if (!client.connect(TROWEL_GATEWAY_HOST, TROWEL_GATEWAY_PORT)) return false;
    isOpen = true;
    writeHello(out);
  }
  Counting counting;
  counting.length = 0;
  writeReport(counting, bootNumber, seq, revision);
  packetNumber = (uint16_t)(packetNumber % 65000 + 1);
  // At least once: it is sent again by whoever reports, not by this connection.
  writeHead(out, 0x32, (uint16_t)(2 + strlen(TROWEL_TOPIC "report") + 2 + counting.length));
  writeNamed(out, TROWEL_TOPIC "report");
  writeTwo(out, packetNumber);
  writeReport(out, bootNumber, seq, revision);
  out.pass();
  return true;
}

// Drops so many bytes from the front of what was heard.
static void drop(uint16_t count) {
  heardLength = (uint16_t)(heardLength - count);
  memmove(heard, heard + count, (size_t)heardLength + 1);
}

// Of the first packet: where its body begins, and its length; 0: not all of that has come. A length of five bytes is none.
static uint16_t bodyOf(int32_t &length) {
  length = 0;
  for (uint16_t at = 1; at < heardLength && at < 5; at = (uint16_t)(at + 1)) {
    const uint8_t byte = (uint8_t)heard[at];
    length += (int32_t)(byte & 127) << (7 * (at - 1));
    if (byte < 128) return (uint16_t)(at + 1);
  }
  if (heardLength >= 5) length = MOST_HEARD;
  return 0;
}

static char answerText[MOST_HEARD + 1];

// An answer has come: its text is laid aside, and the packet acknowledged where it asks for that. Nothing rests on it: the report is what is kept or not.
static const char *takeAnswer(uint16_t from, uint16_t length, uint8_t flags, int32_t &status) {
  const uint16_t topic = (uint16_t)(2 + ((uint8_t)heard[from] << 8 | (uint8_t)heard[from + 1]));
  const bool isAsked = (flags & 6) != 0;
  const uint32_t before = (uint32_t)topic + (isAsked ? 2 : 0);
  if (length < 2 || before > length) {
    status = BROKEN;
    return "";
  }
  if (isAsked) {
    const uint8_t ack[4] = {0x40, 2, (uint8_t)heard[from + topic], (uint8_t)heard[from + topic + 1]};
    client.write(ack, 4);
  }
  const uint16_t left = (uint16_t)(length - before);
  memcpy(answerText, heard + from + before, left);
  answerText[left] = 0;
  status = strncmp(answerText, "{\"error\"", 8) == 0 ? NOT_TAKEN : TAKEN;
  return answerText;
}

// What can be done at once. The text of the answer and a status as over HTTP; NULL until then.
static const char *stepReport(int32_t &status) {
  status = BROKEN;
  const bool isOver = !client.connected();
  const uint8_t passed = hear();
  if (passed == HEARD_TOO_MUCH) return "";
  while (true) {
    int32_t length = 0;
    const uint16_t from = bodyOf(length);
    if (length >= MOST_HEARD) return "";
    if (from == 0 || heardLength < from + length) break;
    const uint8_t kind = (uint8_t)((uint8_t)heard[0] >> 4), flags = (uint8_t)((uint8_t)heard[0] & 15);
    const uint16_t bytes = (uint16_t)length;
    if (kind == CONNACK && (bytes < 2 || heard[from + 1] != 0)) status = NOT_LET_IN;
    if (kind == SUBACK && (bytes < 3 || (uint8_t)heard[from + 2] == 0x80)) status = NOT_LET_IN;
    if (status == NOT_LET_IN) return "";
    const char *text = kind == PUBLISH ? takeAnswer(from, bytes, flags, status) : NULL;
    drop((uint16_t)(from + bytes));
    if (text != NULL) return text;
  }
  // The other end has let go: no room there, or a key that is none.
  return isOver && passed == HEARD_NOTHING ? "" : NULL;
}

#endif
