// Reads what a gateway answers. It goes through the text once, keeps nothing of it, and gives up at the first thing that cannot be.
#ifndef TROWEL_JSON_H
#define TROWEL_JSON_H

// Where it is, and whether all of it could be read so far.
struct Json {
  const char *at;
  bool isGood;
};

// Values within values: more of them nobody sends.
const uint8_t MOST_DEPTH = 8;

static bool giveUp(Json &json) {
  json.isGood = false;
  return false;
}

static void skipBlanks(Json &json) {
  while (*json.at == ' ' || *json.at == '\n' || *json.at == '\r' || *json.at == '\t') json.at += 1;
}

// Whether this sign comes next; then it is passed.
static bool passes(Json &json, char sign) {
  skipBlanks(json);
  if (!json.isGood || *json.at != sign) return false;
  json.at += 1;
  return true;
}

static bool wants(Json &json, char sign) { return passes(json, sign) || giveUp(json); }

// A text of less than so many letters; NULL: one that is of no use. Letters that no console takes become question marks.
static bool takeText(Json &json, char *into, uint16_t size) {
  if (!wants(json, '"')) return false;
  uint16_t length = 0;
  while (*json.at != '"') {
    char letter = *json.at;
    if (letter == 0) return giveUp(json);
    json.at += 1;
    if (letter == '\\') {
      letter = *json.at;
      if (letter == 0) return giveUp(json);
      json.at += 1;
      if (letter != '"' && letter != '\\' && letter != '/') letter = '?';
    }
    if (letter < ' ' || letter > '~') letter = '?';
    if (into == NULL) continue;
    if (length + 1 >= size) return giveUp(json);
    into[length] = letter;
    length = (uint16_t)(length + 1);
  }
  json.at += 1;
  if (into != NULL) into[length] = 0;
  return json.isGood;
}

// A number times ten to the power of `decimals`, rounded; beyond what fits it gives up.
static int32_t takeScaled(Json &json, uint8_t decimals) {
  skipBlanks(json);
  const bool isNegative = *json.at == '-';
  if (isNegative) json.at += 1;
  if (*json.at < '0' || *json.at > '9') {
    giveUp(json);
    return 0;
  }
  int64_t value = 0;
  // Digits behind the point that were taken, and the power that is told.
  int32_t behind = 0, power = 0;
  bool isBehind = false;
  while ((*json.at >= '0' && *json.at <= '9') || (*json.at == '.' && !isBehind)) {
    if (*json.at == '.') {
      isBehind = true;
    } else if (value < 100000000000000) {
      value = value * 10 + (int64_t)(*json.at - '0');
      behind += isBehind ? 1 : 0;
    } else if (!isBehind) {
      giveUp(json);
      return 0;
    }
    json.at += 1;
  }
  if (*json.at == 'e' || *json.at == 'E') {
    json.at += 1;
    const bool isDown = *json.at == '-';
    if (isDown || *json.at == '+') json.at += 1;
    while (*json.at >= '0' && *json.at <= '9') {
      if (power < 100) power = power * 10 + (int32_t)(*json.at - '0');
      json.at += 1;
    }
    if (isDown) power = -power;
  }
  int32_t shift = power - behind + (int32_t)decimals;
  for (; shift > 0 && value != 0; shift -= 1) {
    if (value > 2147483647) break;
    value *= 10;
  }
  for (; shift < -1 && value != 0; shift += 1) value /= 10;
  if (shift == -1) value = (value + 5) / 10;
  if (value > 2147483647) giveUp(json);
  return !json.isGood ? 0 : isNegative ? -(int32_t)value : (int32_t)value;
}

// A whole number from 0 on.
static int32_t takeCount(Json &json) {
  const int32_t value = takeScaled(json, 0);
  if (value < 0) giveUp(json);
  return value;
}

static bool isNull(Json &json) {
  skipBlanks(json);
  if (strncmp(json.at, "null", 4) != 0) return false;
  json.at += 4;
  return true;
}

// The next of a list or an object whose first bracket has been passed; false at its end.
static bool hasNext(Json &json, char closing, bool &isFirst) {
  if (!json.isGood || passes(json, closing)) return false;
  if (!isFirst && !wants(json, ',')) return false;
  isFirst = false;
  return true;
}

static bool nextName(Json &json, bool &isFirst, char *name, uint16_t size) {
  return hasNext(json, '}', isFirst) && takeText(json, name, size) && wants(json, ':');
}

static void skipValue(Json &json, uint8_t depth) {
  skipBlanks(json);
  if (depth > MOST_DEPTH) {
    giveUp(json);
  } else if (*json.at == '"') {
    takeText(json, NULL, 0);
  } else if (*json.at == '{' || *json.at == '[') {
    const bool isObject = *json.at == '{';
    json.at += 1;
    bool isFirst = true;
    while (hasNext(json, isObject ? '}' : ']', isFirst)) {
      if (isObject && !(takeText(json, NULL, 0) && wants(json, ':'))) return;
      skipValue(json, (uint8_t)(depth + 1));
    }
  } else {
    // A number or a word.
    const char *begun = json.at;
    while ((*json.at >= '0' && *json.at <= '9') || (*json.at >= 'a' && *json.at <= 'z') || *json.at == '-' || *json.at == '+' || *json.at == '.' || *json.at == 'E') json.at += 1;
    if (json.at == begun) giveUp(json);
  }
}

#endif
