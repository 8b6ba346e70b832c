// Reports to the gateway over the board's radio, and does what the answers say. Hearing an answer waits for nothing; joining the network and connecting may hold the
// board up for some seconds, by its library, so that is done only while every pump rests, and more rarely the longer it fails. Without a network the board goes on alone.
#ifndef TROWEL_NET_H
#define TROWEL_NET_H

#include <stdlib.h>
#include <string.h>
#include "json.h"
#include "report.h"

// ---- The connection

const uint16_t MOST_HEARD = 8192;
static WiFiClient client;
static char heard[MOST_HEARD + 1];
static uint16_t heardLength = 0;

const uint8_t HEARD_NOTHING = 0, HEARD_SOMETHING = 1, HEARD_TOO_MUCH = 2;
// What has come, as far as there is room for it.
static uint8_t hear() {
  uint8_t passed = HEARD_NOTHING;
  while (client.available() > 0) {
    if (heardLength == MOST_HEARD) return HEARD_TOO_MUCH;
    heard[heardLength] = (char)client.read();
    heardLength = (uint16_t)(heardLength + 1);
    heard[heardLength] = 0;
    passed = HEARD_SOMETHING;
  }
  return passed;
}

#ifdef TROWEL_MQTT
#include "mqtt.h"
#else
#include "post.h"
#endif

// ---- How it stands

const uint8_t NET_OFF = 0, NET_JOINING = 1, NET_IDLE = 2, NET_SPEAKING = 3;
// An exchange that takes longer is given up; so is a try to join the network, s.
const int32_t EXCHANGE_S = 8, JOIN_S = 30;
// For so long after it was taken an order by hand may still be refused by the guards, s.
const int32_t WAITS_S = 3;
// Nothing is read before, s.
const int32_t FIRST_S = 3;
// When it cannot join or connect the pause doubles, up to this, s: each try may hold the board up.
const int32_t MOST_PAUSE_S = 120;
// Ids of orders that are known, so that none is obeyed twice.
const uint8_t MOST_KNOWN = 20, MOST_WAITING = 8;

static uint8_t netState = NET_OFF;
static int32_t sinceS = 0, dueS = FIRST_S, pauseS = TROWEL_REPORT_EVERY_S;
static int32_t bootNumber = 0, seq = 0;
static bool isOnItsWay = false;
// Of settings that were taken from the gateway, and of such as were not.
static int32_t revision = NONE, refusedRevision = NONE;
static const char *netWhy = "";

struct Waiting {
  char id[ID_SIZE];
  int32_t line, untilS;
};
static Queue<Waiting, MOST_WAITING> waiting;
struct Known {
  char id[ID_SIZE];
};
static Queue<Known, MOST_KNOWN> known;

// ---- What the board says goes to its console, and what is news of it home

// Whoever gave an order from afar hears the answer; the console does not.
const uint8_t HEAR_NOBODY = 0, HEAR_ORDER = 1, HEAR_ALL = 2;
static uint8_t hearer = HEAR_NOBODY;
static char spoken[LINE_SIZE];
static uint16_t spokenLength = 0;
static char refusal[WHY_SIZE];

// Whether this word comes next in a text; then `text` is behind it.
static bool isWord(const char *&text, const char *word) {
  const size_t length = strlen(word);
  if (strncmp(text, word, length) != 0 || (text[length] != ' ' && text[length] != 0)) return false;
  text += length;
  while (*text == ' ') text += 1;
  return true;
}

// What is told by itself again and again, or answers whoever is at the console, is no news; nor is how a contact stands, but that it was switched.
static bool isNews(const char *text) {
  static const char *const NO_NEWS[] = {"line", "lamp", "percent", "net", "no:", "taken", "?", "give", "set", "clock", "test"};
  for (uint8_t at = 0; at < sizeof(NO_NEWS) / sizeof(NO_NEWS[0]); at = (uint8_t)(at + 1)) {
    const char *here = text;
    if (isWord(here, NO_NEWS[at])) return false;
  }
  if (!isWord(text, "contact")) return true;
  while (*text >= '0' && *text <= '9') text += 1;
  while (*text == ' ') text += 1;
  return !isWord(text, "is") && !isWord(text, "rests");
}

// An order by hand has started its line, or a guard has refused it.
static void settle(const char *text) {
  const bool isStarted = isWord(text, "started");
  if (!isStarted && !isWord(text, "refused")) return;
  const int32_t line = (int32_t)atol(text) - 1;
  while (*text != ' ' && *text != 0) text += 1;
  char why[WHY_SIZE];
  copyText(why, *text == ' ' ? text + 1 : text, WHY_SIZE);
  for (char *at = why; *at != 0; at += 1)
    if (*at == ' ') *at = 0;
  for (uint8_t at = 0; at < waiting.count; at = (uint8_t)(at + 1)) {
    if (waiting.one[at].line != line) continue;
    tellOrder(waiting.one[at].id, isStarted ? NULL : why);
    waiting.forget(at, 1);
    return;
  }
}

static void lineWasSaid() {
  const bool isSaid = strncmp(spoken, "# ", 2) == 0;
  if (hearer == HEAR_NOBODY) {
    if (isSaid && isNews(spoken + 2)) {
      note(spoken);
      settle(spoken + 2);
    }
  } else if (strncmp(spoken, "# no: ", 6) == 0) {
    if (refusal[0] == 0) copyText(refusal, spoken + 6, WHY_SIZE);
  } else if (isSaid && (hearer == HEAR_ALL || strncmp(spoken, "# taken", 7) != 0)) {
    note(spoken);
  }
}

size_t Teller::write(uint8_t letter) {
  if (hearer == HEAR_NOBODY) Serial.write(letter);
  if (letter == '\n') {
    spoken[spokenLength] = 0;
    spokenLength = 0;
    lineWasSaid();
  } else if (letter != '\r' && spokenLength + 1 < LINE_SIZE) {
    spoken[spokenLength] = (char)letter;
    spokenLength = (uint16_t)(spokenLength + 1);
  }
  return 1;
}

// Lets the console obey a line from afar. False: it was refused, and why stands in `refusal`.
static bool obeyFromAfar(const char *text, uint8_t who) {
  hearer = who;
  refusal[0] = 0;
  obeyConsole(text);
  hearer = HEAR_NOBODY;
  return refusal[0] == 0;
}

// ---- States

static void go(uint8_t to) {
  netState = to;
  sinceS = input.nowS;
}

// Said once, not at every try; and at the console alone.
static void tellNet(const char *why) {
  if (strcmp(why, netWhy) != 0) {
    Serial.print(F("# net "));
    Serial.println(why);
  }
  netWhy = why;
}

static bool isJoined() { return WiFi.status() == WL_CONNECTED; }

static void failNet(const char *why) {
  letGo();
  tellNet(why);
  dueS = input.nowS + (pauseS > everyS ? pauseS : everyS);
  netState = isJoined() ? NET_IDLE : NET_OFF;
}

static void failToConnect(const char *why) {
  failNet(why);
  pauseS = pauseS * 2 > MOST_PAUSE_S ? MOST_PAUSE_S : pauseS * 2;
}

// What may hold the board up is done only while every pump rests.
static bool everyPumpRests() {
  for (int32_t at = 0; at < linesOf(CONFIG); at += 1)
    if (state.line[at].run.on || answer.on[at]) return false;
  return true;
}

// Another one at every start, from what no two starts have alike: when the network was joined, to the microsecond, and what was read.
static int32_t drawBoot() {
  uint32_t sum = 2166136261u ^ (uint32_t)micros();
  for (uint8_t at = 0; at < INPUTS; at = (uint8_t)(at + 1)) sum = (sum ^ (uint32_t)newest[at]) * 16777619u;
  sum = (sum ^ (sum >> 15)) * 2246822519u;
  return (int32_t)((sum ^ (sum >> 13)) & 0x3fffffff) + 1;
}

static void beginExchange() {
  if (!isOnItsWay) {
    if (rows.count < ROWS_AT_ONCE) keepRow();
    rows.send(ROWS_AT_ONCE);
    said.send(SAID_AT_ONCE);
    became.send(BECAME_AT_ONCE);
    seq += 1;
    isOnItsWay = true;
  }
  if (beginReport(bootNumber, seq, revision))
    go(NET_SPEAKING);
  else
    failToConnect("the gateway is not there");
}

static void wasAnswered() {
  rows.answered();
  said.answered();
  became.answered();
  isOnItsWay = false;
}

// ---- An answer. It is read twice: once to see that it can be, and then to do what it says.

const int32_t HIGHEST_PACE_S = 3600;
struct Told {
  int32_t seq, revision, everyS, daySecond, weekday, riseS, setS;
  Json settings, orders, far;
};

static void addText(char *into, const char *text, uint16_t size) {
  const size_t length = strlen(into);
  copyText(into + length, text, (uint16_t)(size - length));
}

// "# settings 12"
static void startLine(char *line, int32_t told) {
  char digits[11];
  uint8_t at = sizeof(digits) - 1;
  digits[at] = 0;
  do {
    at = (uint8_t)(at - 1);
    digits[at] = (char)('0' + told % 10);
    told /= 10;
  } while (told > 0);
  copyText(line, "# settings ", LINE_SIZE);
  addText(line, digits + at, LINE_SIZE);
}

// In the order in which they stand; with the first that is refused the rest is left, for each may rest on the one before.
static void takeSettings(Json json, int32_t told) {
  bool isFirst = true;
  char text[LINE_SIZE];
  wants(json, '[');
  while (hasNext(json, ']', isFirst) && takeText(json, text, LINE_SIZE)) {
    const char *here = text;
    const bool isOne = isWord(here, "set") || isWord(here, "save");
    if (!isOne) copyText(refusal, "not a setting", WHY_SIZE);
    if (isOne && obeyFromAfar(text, HEAR_ORDER)) continue;
    refusedRevision = told;
    char line[LINE_SIZE];
    startLine(line, told);
    addText(line, " refused ", LINE_SIZE);
    // Of the line itself what there is room for beside the reason.
    text[60] = 0;
    addText(line, text, LINE_SIZE);
    addText(line, ": ", LINE_SIZE);
    addText(line, refusal, LINE_SIZE);
    note(line);
    return;
  }
  revision = told;
  char line[LINE_SIZE];
  startLine(line, told);
  addText(line, " taken", LINE_SIZE);
  note(line);
  obeyFromAfar("limits", HEAR_ALL);
}

static void takeOrder(const char *id, const char *text) {
  for (uint8_t at = 0; at < known.count; at = (uint8_t)(at + 1))
    if (strcmp(known.one[at].id, id) == 0) return;
  copyText(known.add().id, id, ID_SIZE);
  const char *here = text;
  if (isWord(here, "load") || isWord(here, "net")) {
    tellOrder(id, "only at its console");
    return;
  }
  if (!obeyFromAfar(text, HEAR_ORDER)) {
    tellOrder(id, refusal);
    return;
  }
  if (!isWord(here, "test pump") && !isWord(here, "give")) {
    tellOrder(id, NULL);
    return;
  }
  // Its guards speak in the next second.
  Waiting &one = waiting.add();
  copyText(one.id, id, ID_SIZE);
  one.line = (int32_t)atol(here) - 1;
  one.untilS = input.nowS + WAITS_S;
}

// Letters, digits, hyphens and underscores.
static bool isId(const char *text) {
  if (*text == 0) return false;
  for (; *text != 0; text += 1)
    if (!(*text >= '0' && *text <= '9') && !((*text | 32) >= 'a' && (*text | 32) <= 'z') && *text != '-' && *text != '_') return false;
  return true;
}

// Gives whether there are any. @param acts: does them as well
static bool readOrders(Json &json, bool acts) {
  bool isFirst = true;
  if (!wants(json, '[')) return false;
  while (hasNext(json, ']', isFirst) && wants(json, '{')) {
    char name[8], id[ID_SIZE] = "", text[LINE_SIZE] = "";
    bool isFirstName = true;
    while (nextName(json, isFirstName, name, sizeof(name))) {
      if (strcmp(name, "id") == 0)
        takeText(json, id, ID_SIZE);
      else if (strcmp(name, "text") == 0)
        takeText(json, text, LINE_SIZE);
      else
        skipValue(json, 1);
    }
    if (json.isGood && (!isId(id) || text[0] == 0)) giveUp(json);
    if (json.isGood && acts) takeOrder(id, text);
  }
  return !isFirst;
}

#ifdef TROWEL_FAR
// What is no input of this board is left out.
static void tellFar(Json value, const char *id) {
  for (uint8_t at = 0; at < INPUTS; at = (uint8_t)(at + 1)) {
    const InputPin &one = INPUT_PINS[at];
    if (one.reads != READ_FAR || strcmp(one.name, id) != 0) continue;
    const int32_t raw = takeScaled(value, one.pin);
    if (!value.isGood) return;
    farRaws[at] = raw;
    farAtS[at] = input.nowS;
  }
}
#endif

// What other boards have read that this one goes by.
static void readFarList(Json &json, bool acts) {
  bool isFirst = true;
  if (!wants(json, '[')) return;
  while (hasNext(json, ']', isFirst) && wants(json, '{')) {
    char name[8], id[ID_SIZE] = "";
    Json value = {NULL, true};
    bool isFirstName = true;
    while (nextName(json, isFirstName, name, sizeof(name))) {
      if (strcmp(name, "n") == 0) {
        takeText(json, id, ID_SIZE);
      } else {
        if (strcmp(name, "v") == 0) value.at = json.at;
        skipValue(json, 1);
      }
    }
    if (json.isGood && (id[0] == 0 || value.at == NULL)) giveUp(json);
#ifdef TROWEL_FAR
    if (json.isGood && acts) tellFar(value, id);
#else
    (void)acts;
#endif
  }
}

// Two numbers by their names; NONE for both where nothing is known.
static void readPair(Json &json, const char *one, int32_t &first, const char *other, int32_t &second) {
  first = second = NONE;
  if (isNull(json) || !wants(json, '{')) return;
  bool isFirst = true;
  char name[16];
  while (nextName(json, isFirst, name, sizeof(name))) {
    if (strcmp(name, one) == 0)
      first = takeCount(json);
    else if (strcmp(name, other) == 0)
      second = takeCount(json);
    else
      skipValue(json, 1);
  }
  if (first == NONE || second == NONE) giveUp(json);
}

static bool readAnswer(const char *text, Told &told) {
  Json json = {text, true};
  const Json nothing = {"[]", true};
  told.seq = told.revision = told.everyS = NONE;
  told.daySecond = told.weekday = told.riseS = told.setS = NONE;
  told.settings = told.orders = told.far = nothing;
  if (!wants(json, '{')) return false;
  bool isFirst = true;
  char name[16];
  while (nextName(json, isFirst, name, sizeof(name))) {
    if (strcmp(name, "seq") == 0) {
      told.seq = takeCount(json);
    } else if (strcmp(name, "revision") == 0) {
      told.revision = takeCount(json);
    } else if (strcmp(name, "everyS") == 0) {
      told.everyS = takeCount(json);
    } else if (strcmp(name, "clock") == 0) {
      readPair(json, "daySecond", told.daySecond, "weekday", told.weekday);
    } else if (strcmp(name, "sun") == 0) {
      readPair(json, "riseS", told.riseS, "setS", told.setS);
    } else if (strcmp(name, "orders") == 0) {
      told.orders = json;
      readOrders(json, false);
    } else if (strcmp(name, "far") == 0) {
      told.far = json;
      readFarList(json, false);
    } else if (strcmp(name, "settings") == 0) {
      told.settings = json;
      bool isFirstLine = true;
      char line[LINE_SIZE];
      wants(json, '[');
      while (hasNext(json, ']', isFirstLine) && takeText(json, line, LINE_SIZE)) {
      }
    } else {
      skipValue(json, 1);
    }
  }
  return json.isGood && told.seq != NONE && told.revision != NONE && told.everyS != NONE;
}

static void doAsTold(Told &told) {
  wasAnswered();
  answeredS = input.nowS;
  everyS = told.everyS < 1 ? 1 : told.everyS > HIGHEST_PACE_S ? HIGHEST_PACE_S : told.everyS;
  pauseS = TROWEL_REPORT_EVERY_S;
#ifdef TROWEL_FAR
  farHoldsS = everyS * 3 > 180 ? everyS * 3 : 180;
#endif
  tellNet("reports");
  if (told.daySecond != NONE) tellClock(told.daySecond % DAY_S, told.weekday % 7);
#if TROWEL_CONTACTS > 0
  if (told.riseS != NONE) tellSun(told.riseS % DAY_S, told.setS % DAY_S);
#endif
  readFarList(told.far, true);
  Json lines = told.settings;
  const bool isNew = told.revision != revision && told.revision != refusedRevision && passes(lines, '[') && !passes(lines, ']');
  if (isNew) takeSettings(told.settings, told.revision);
  const bool isOrdered = readOrders(told.orders, true);
  // What waits goes soon, one report after the other, and so does what became of an order.
  dueS = input.nowS + (isNew || rows.count >= ROWS_AT_ONCE ? 1 : isOrdered ? WAITS_S + 1 : everyS);
  restFor(dueS - input.nowS);
  // How its lines stand goes with the next report.
  hearer = HEAR_ALL;
  printWhy();
  hearer = HEAR_NOBODY;
}

static void obeyAnswer(int32_t status, const char *text) {
  if (status != 200) {
    failNet(status == 401 || status == 403 ? "the gateway does not take this key" : status == 0 ? "the gateway is not there" : "refused");
    // What can never be taken must not be in the way of what comes after it.
    if (status == 400 || status == 413) wasAnswered();
    return;
  }
  Told told;
  if (readAnswer(text, told) && told.seq == seq) {
    doAsTold(told);
    return;
  }
  failNet("the answer cannot be read");
}

// ---- One turn

static void turnNet() {
  if (TROWEL_WIFI[0] == 0 || TROWEL_KEY[0] == 0) return;
  // Joining, connecting and letting go may each hold the board up: while a pump runs nothing of the network is touched, and its times stand still.
  if (!everyPumpRests()) {
    sinceS = input.nowS;
    return;
  }
  if (netState == NET_OFF) {
    if (input.nowS < dueS) return;
    WiFi.begin(TROWEL_WIFI, TROWEL_WIFI_PASSWORD);
    go(NET_JOINING);
  } else if (netState == NET_JOINING) {
    if (isJoined()) {
      tellNet("joined");
      if (bootNumber == 0) bootNumber = drawBoot();
      go(NET_IDLE);
    } else if (input.nowS - sinceS > JOIN_S) {
      failToConnect("cannot join");
    }
  } else if (!isJoined()) {
    failNet("the network is gone");
  } else if (netState == NET_IDLE) {
    if (input.nowS >= dueS) beginExchange();
  } else if (input.nowS - sinceS > EXCHANGE_S) {
    failNet("the gateway does not answer");
  } else {
    int32_t status = 0;
    const char *text = stepReport(status);
    if (text == NULL) return;
    go(NET_IDLE);
    obeyAnswer(status, text);
  }
}

// "net" at the console: how it stands, never what it knows.
static void printNet() {
  TELL.print(F("# net "));
  switch (netState) {
    case NET_OFF: TELL.print(F("off")); break;
    case NET_JOINING: TELL.print(F("joining")); break;
    case NET_IDLE: TELL.print(F("idle")); break;
    default: TELL.print(F("speaking")); break;
  }
  TELL.println(TROWEL_WIFI[0] == 0 || TROWEL_KEY[0] == 0 ? F(", secrets.h is not filled in") : F(""));
}

// Each second: an order that nobody has refused was taken.
static void settleOrders() {
  for (uint8_t at = 0; at < waiting.count;) {
    if (input.nowS < waiting.one[at].untilS) {
      at = (uint8_t)(at + 1);
      continue;
    }
    tellOrder(waiting.one[at].id, NULL);
    waiting.forget(at, 1);
  }
}

#endif
