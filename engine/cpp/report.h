// What a board tells of itself over the network: its readings, its news and what became of orders, kept until somebody has answered for it.
#ifndef TROWEL_REPORT_H
#define TROWEL_REPORT_H

// How much is kept, and how much of it goes into one report: what is on its way stays as it is until it has been answered for.
const uint8_t MOST_ROWS = 60, ROWS_AT_ONCE = 10;
const uint8_t MOST_SAID = 30, SAID_AT_ONCE = 20;
const uint8_t MOST_BECAME = 12, BECAME_AT_ONCE = 8;
const uint8_t LINE_SIZE = 161, ID_SIZE = 61, WHY_SIZE = 101;
// Without an answer for so long the board counts as alone, and keeps a row only so often, s.
const int32_t ALONE_AFTER_S = 120, ALONE_EVERY_S = 300;

// What was read since the row before, each so many seconds older than its row.
const uint16_t NOT_READ = 65535;
const uint8_t ROW_INPUTS = INPUTS > 0 ? INPUTS : 1;
struct Row {
  int32_t atS;
  int32_t raw[ROW_INPUTS];
  uint16_t ageS[ROW_INPUTS];
};
struct Said {
  int32_t atS;
  char text[LINE_SIZE];
};
struct Became {
  char id[ID_SIZE];
  bool isTaken;
  char why[WHY_SIZE];
};

// The oldest first; `sent` of them are on their way.
template <typename One, uint8_t most>
struct Queue {
  One one[most];
  uint8_t count, sent;

  // Room for one more: where there is none, the oldest that is not on its way is forgotten.
  One &add() {
    if (count == most) forget(sent, 1);
    count = (uint8_t)(count + 1);
    return one[count - 1];
  }
  void forget(uint8_t from, uint8_t howMany) {
    count = (uint8_t)(count - howMany);
    for (uint8_t at = from; at < count; at = (uint8_t)(at + 1)) one[at] = one[at + howMany];
  }
  void send(uint8_t atOnce) { sent = count < atOnce ? count : atOnce; }
  void answered() {
    forget(0, sent);
    sent = 0;
  }
};

static Queue<Row, MOST_ROWS> rows;
static Queue<Said, MOST_SAID> said;
static Queue<Became, MOST_BECAME> became;

static void copyText(char *into, const char *text, uint16_t size) {
  uint16_t at = 0;
  for (; text[at] != 0 && at + 1 < size; at = (uint16_t)(at + 1)) into[at] = text[at];
  into[at] = 0;
}

static void note(const char *text) {
  Said &one = said.add();
  one.atS = input.nowS;
  copyText(one.text, text, LINE_SIZE);
}

static void tellOrder(const char *id, const char *why) {
  Became &one = became.add();
  copyText(one.id, id, ID_SIZE);
  one.isTaken = why == NULL;
  copyText(one.why, why == NULL ? "" : why, WHY_SIZE);
}

// ---- Readings: of each input its newest, and rows of them

static int32_t newest[ROW_INPUTS], newestAtS[ROW_INPUTS];
static int32_t rowS = 0, answeredS = 0, everyS = TROWEL_REPORT_EVERY_S;

static void keepRow() {
  bool isAny = false;
  for (uint8_t at = 0; at < INPUTS; at = (uint8_t)(at + 1)) isAny = isAny || newestAtS[at] > rowS;
  if (!isAny) return;
  Row &row = rows.add();
  row.atS = input.nowS;
  for (uint8_t at = 0; at < INPUTS; at = (uint8_t)(at + 1)) {
    row.raw[at] = newest[at];
    row.ageS[at] = newestAtS[at] > rowS ? (uint16_t)(input.nowS - newestAtS[at]) : NOT_READ;
  }
  rowS = input.nowS;
}

// What was just printed.
static void keepNewest() {
  for (uint8_t at = 0; at < INPUTS; at = (uint8_t)(at + 1)) {
    if (raws[at] == NONE || INPUT_PINS[at].reads == READ_FAR) continue;
    newest[at] = raws[at];
    newestAtS[at] = input.nowS;
  }
  const bool isAlone = input.nowS - answeredS > ALONE_AFTER_S;
  if (input.nowS - rowS >= (isAlone ? ALONE_EVERY_S : everyS)) keepRow();
}

// ---- The report as a text

// How long it is: a head wants to say so before it is written.
class Counting : public Print {
 public:
  uint16_t length;
  using Print::write;
  virtual size_t write(uint8_t) {
    length = (uint16_t)(length + 1);
    return 1;
  }
};

// A packet for each letter would be many.
class Bundled : public Print {
 public:
  explicit Bundled(WiFiClient &client) : to(client), length(0) {}
  using Print::write;
  virtual size_t write(uint8_t letter) {
    if (length == sizeof(bundle)) pass();
    bundle[length] = letter;
    length = (uint16_t)(length + 1);
    return 1;
  }
  void pass() {
    if (length > 0) to.write(bundle, length);
    length = 0;
  }

 private:
  WiFiClient &to;
  uint8_t bundle[512];
  uint16_t length;
};

static void writeText(Print &to, const char *text) {
  to.print(F("\""));
  for (; *text != 0; text += 1) {
    if (*text == '"' || *text == '\\') to.write((uint8_t)'\\');
    to.write((uint8_t)*text);
  }
  to.print(F("\""));
}

static void writeRows(Print &to) {
  bool isFirst = true;
  for (uint8_t place = 0; place < rows.sent; place = (uint8_t)(place + 1)) {
    const Row &row = rows.one[place];
    for (uint8_t at = 0; at < INPUTS; at = (uint8_t)(at + 1)) {
      if (row.ageS[at] == NOT_READ) continue;
      if (!isFirst) to.print(F(","));
      isFirst = false;
      to.print(F("{\"n\":"));
      writeText(to, INPUT_PINS[at].name);
      to.print(F(",\"v\":"));
      printRaw(to, INPUT_PINS[at], row.raw[at]);
      to.print(F(",\"agoS\":"));
      to.print(input.nowS - row.atS + (int32_t)row.ageS[at]);
      to.print(F("}"));
    }
  }
}

static void writeReport(Print &to, int32_t bootNumber, int32_t seq, int32_t revision) {
  to.print(F("{\"board\":\"" TROWEL_BOARD_ID "\",\"boot\":"));
  to.print(bootNumber);
  to.print(F(",\"seq\":"));
  to.print(seq);
  to.print(F(",\"upS\":"));
  to.print(input.nowS);
  to.print(F(",\"program\":\"" TROWEL_PROGRAM "\""));
  if (revision != NONE) {
    to.print(F(",\"revision\":"));
    to.print(revision);
  }
  to.print(F(",\"readings\":["));
  writeRows(to);
  to.print(F("],\"said\":["));
  for (uint8_t at = 0; at < said.sent; at = (uint8_t)(at + 1)) {
    to.print(at == 0 ? F("{\"text\":") : F(",{\"text\":"));
    writeText(to, said.one[at].text);
    to.print(F(",\"agoS\":"));
    to.print(input.nowS - said.one[at].atS);
    to.print(F("}"));
  }
  to.print(F("],\"orders\":["));
  for (uint8_t at = 0; at < became.sent; at = (uint8_t)(at + 1)) {
    to.print(at == 0 ? F("{\"id\":") : F(",{\"id\":"));
    writeText(to, became.one[at].id);
    to.print(became.one[at].isTaken ? F(",\"state\":\"taken\"") : F(",\"state\":\"refused\",\"why\":"));
    if (!became.one[at].isTaken) writeText(to, became.one[at].why);
    to.print(F("}"));
  }
  to.print(F("]}"));
}

#endif
