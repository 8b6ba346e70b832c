# Reports to the gateway over the board's radio, and does what the answers say. Nothing here waits: each pass does what can be done at once, so that a pump is never
# left running for the sake of a network. Without one the board goes on alone.
import json

from engine import DAY_S

# Rows of readings and lines that are kept until they have been answered for.
MOST_ROWS = 100
MOST_SAID = 40
# So much of it goes into one report.
ROWS_AT_ONCE = 10
# What became of orders, of which a report takes so many.
ORDERS_AT_ONCE = 20
# Ids of orders that are known, so that none is obeyed twice.
MOST_KNOWN = 40
# Without an answer for so long the board counts as alone, and keeps a row only so often, s.
ALONE_AFTER_S = 120
ALONE_EVERY_S = 300
# An exchange that takes longer is given up; so is a try to join the network, s.
EXCHANGE_S = 8
JOIN_S = 30
# For so long after it was taken an order by hand may still be refused by the guards, s.
WAITS_S = 3
# Nothing is read before, s.
FIRST_S = 3
# "Permission denied".
NOT_LET_IN = 13
NAMES = ("wifi", "password", "gateway", "key")
# Second words of lines that are told by themselves again and again, or answer whoever is at the console.
NO_NEWS = ("line", "lamp", "percent", "net", "no:", "taken", "taken:", "?", "give", "set", "clock", "load", "load:", "test")
# What nobody may say from afar.
ONLY_HERE = ("load", "net")


class Net:
    # say prints a line; radio joins; way carries a report and brings its answer; told and keep are what is known of the network; boot differs from start to start.
    def __init__(self, settings, say, radio, way, told, keep, boot):
        self.about = settings.NETWORK
        self.program = settings.PROGRAM
        self.print = say
        self.radio = radio
        self.way = way
        self.told = told
        self.keep = keep
        self.boot = boot
        self.board = None
        self.seq = 0
        # Of each reading its newest text and second; and rows of them, with the seconds that one is older than its row.
        self.newest = {}
        self.rows = []
        self.row_s = 0
        self.said = []
        self.orders = []
        # Of a report that was not answered: its rows, lines and orders.
        self.sent = None
        self.known = []
        self.waiting = []
        # Of settings that were taken from the gateway, and of such as were not.
        self.revision = None
        self.refused = None
        self.heard = None
        self.answered_s = 0
        self.due_s = FIRST_S
        self.every_s = self.about.every_s
        self.state = "off"
        self.since_s = 0
        self.why = ""
        # When an exchange came to its end last, whatever it was, since somebody asked for one.
        self.done_s = None

    # ---- What the board says goes to its console, and what is news of it home

    def say(self, text):
        if self.heard is not None:
            self.heard.append(text)
            return
        self.print(text)
        if not text.startswith("# "):
            self.take_readings(text)
        elif is_news(text.split(" ")):
            self.note(text)
            self.settle(text.split(" "))

    def note(self, text):
        self.said.append((self.board.now_s, text[:160]))
        self.said = self.said[-MOST_SAID:]

    # Lets the board say something to nobody, and gives what it was.
    def listen(self, speak):
        self.heard = []
        speak()
        heard, self.heard = self.heard, None
        return heard

    def take_readings(self, text):
        now_s = self.board.now_s
        for pair in text.split(" "):
            name, value = pair.split("=")
            self.newest[name] = (now_s, value)
        is_alone = now_s - self.answered_s > ALONE_AFTER_S
        if now_s - self.row_s >= (ALONE_EVERY_S if is_alone else self.every_s):
            self.keep_row()

    def keep_row(self):
        now_s = self.board.now_s
        fresh = [(name, at_s, value) for name, (at_s, value) in self.newest.items() if at_s > self.row_s or self.row_s == 0]
        if fresh:
            self.rows.append((now_s, " ".join(["%s=%s@%d" % (name, value, now_s - at_s) for name, at_s, value in fresh])))
            self.rows = self.rows[-MOST_ROWS:]
            self.row_s = now_s

    # ---- One pass

    def turn(self):
        if self.state == "off":
            if self.is_told() and self.board.now_s >= self.due_s:
                self.radio.join(self.told["wifi"], self.told.get("password", ""))
                self.go("joining")
        elif self.state == "joining":
            if self.radio.is_joined():
                self.tell("joined")
                self.go("idle")
            elif self.board.now_s - self.since_s > JOIN_S:
                self.fail("cannot join")
        elif not self.radio.is_joined():
            self.fail("the network is gone")
        elif self.state == "idle":
            if self.board.now_s >= self.due_s:
                self.begin()
        elif self.board.now_s - self.since_s > EXCHANGE_S:
            self.fail("the gateway does not answer")
        else:
            self.exchange()

    def go(self, state):
        self.state = state
        self.since_s = self.board.now_s

    def is_told(self):
        return all([self.told.get(name) for name in ("wifi", "gateway", "key")])

    # Said once, not at every try.
    def tell(self, why):
        if why != self.why:
            self.print("# net %s" % why)
        self.why = why

    def fail(self, why):
        self.way.let_go()
        self.tell(why)
        self.done_s = self.board.now_s
        self.due_s = self.board.now_s + self.every_s
        self.state = "idle" if self.radio.is_joined() else "off"

    def begin(self):
        host, port = self.told["gateway"].split(":")
        try:
            self.way.begin(self.request(), host, int(port))
            self.go("speaking")
        except OSError:
            self.fail("the gateway is not there")

    def exchange(self):
        try:
            answer = self.way.step()
        except OSError as error:
            self.fail("the gateway does not take this key" if error.errno == NOT_LET_IN else "the gateway is not there")
            return
        if answer is not None:
            self.go("idle")
            self.obey(answer[0], answer[1])

    # ---- A report

    def request(self):
        if self.sent is None:
            if len(self.rows) < ROWS_AT_ONCE:
                self.keep_row()
            self.sent = (self.rows[:ROWS_AT_ONCE], self.said, self.orders[:ORDERS_AT_ONCE])
            self.rows = self.rows[ROWS_AT_ONCE:]
            self.said = []
            self.orders = self.orders[ORDERS_AT_ONCE:]
            self.seq += 1
        return self.body().encode()

    def body(self):
        rows, said, orders = self.sent
        now_s = self.board.now_s
        readings = []
        for row_s, text in rows:
            for one in text.split(" "):
                pair, ago = one.split("@")
                name, value = pair.split("=")
                readings.append('{"n":"%s","v":%s,"agoS":%d}' % (name, value, now_s - row_s + int(ago)))
        lines = ['{"text":%s,"agoS":%d}' % (json.dumps(text), now_s - at_s) for at_s, text in said]
        done = []
        for name, state, why in orders:
            done.append('{"id":"%s","state":"%s"%s}' % (name, state, "" if why is None else ',"why":' + json.dumps(why)))
        revision = "" if self.revision is None else ',"revision":%d' % self.revision
        return '{"board":"%s","boot":%d,"seq":%d,"upS":%d,"program":"%s"%s,"readings":[%s],"said":[%s],"orders":[%s]}' % (
            self.about.board,
            self.boot,
            self.seq,
            now_s,
            self.program,
            revision,
            ",".join(readings),
            ",".join(lines),
            ",".join(done),
        )

    # ---- An answer

    def obey(self, status, text):
        if status != "200":
            self.fail("the gateway does not take this key" if status in ("401", "403") else "refused: %s" % status)
            # What can never be taken must not be in the way of what comes after it.
            if status in ("400", "413"):
                self.sent = None
            return
        try:
            told = json.loads(text)
            is_ours = int(told["seq"]) == self.seq
            every_s = int(told["everyS"])
            orders = [(str(one["id"]), str(one["text"])) for one in told["orders"]]
            revision = int(told["revision"])
            settings = [str(one) for one in told["settings"]]
            far = [(str(one["n"]), float(one["v"])) for one in told.get("far", [])]
            clock = told["clock"] and (int(told["clock"]["daySecond"]) % DAY_S, int(told["clock"]["weekday"]) % 7)
            sun = told["sun"] and (int(told["sun"]["riseS"]) % DAY_S, int(told["sun"]["setS"]) % DAY_S)
        except (ValueError, KeyError, TypeError):
            is_ours = False
        if not is_ours:
            self.fail("the answer cannot be read")
            return
        self.sent = None
        now_s = self.board.now_s
        self.answered_s = now_s
        self.done_s = now_s
        self.every_s = max(1, min(every_s, 3600))
        # What waits goes soon, one report after the other, and so does what became of an order.
        self.due_s = now_s + (1 if len(self.rows) >= ROWS_AT_ONCE else WAITS_S + 1 if orders else self.every_s)
        self.way.rest(self.due_s - now_s)
        self.tell("reports")
        if clock:
            self.board.set_clock(clock[0], clock[1])
        if sun:
            self.board.sun = sun
            self.board.sun_told_s = now_s
        self.board.far_holds_s = max(180, 3 * self.every_s)
        for name, value in far:
            self.board.tell_far(name, value)
        if settings and revision not in (self.revision, self.refused):
            self.take_settings(revision, settings)
            self.due_s = now_s + 1
        for name, text in orders:
            self.take(name, text)
        # How its lines stand goes with the next report.
        for text in self.listen(self.board.print_why):
            self.note(text)

    # In the order in which they stand; with the first that is refused the rest is left, for each may rest on the one before.
    def take_settings(self, revision, settings):
        for text in settings:
            is_one = text.split(" ")[0] in ("set", "save")
            heard = self.listen(lambda: self.board.console.obey(text[:160])) if is_one else ["# no: not a setting"]
            for one in heard:
                if one.startswith("# no: "):
                    self.refused = revision
                    self.note("# settings %d refused %s: %s" % (revision, text[:60], one[6:]))
                    return
        self.revision = revision
        self.note("# settings %d taken" % revision)
        for text in self.listen(lambda: self.board.console.obey("limits")):
            self.note(text)

    def take(self, name, text):
        if name in self.known:
            return
        self.known = (self.known + [name])[-MOST_KNOWN:]
        words = text.split(" ")
        if words[0] in ONLY_HERE:
            self.orders.append((name, "refused", "only at its console"))
            return
        heard = self.listen(lambda: self.board.console.obey(text[:160]))
        refused = [one[6:] for one in heard if one.startswith("# no: ")]
        if refused:
            self.orders.append((name, "refused", refused[0][:100]))
            return
        number = words[2] if words[:2] == ["test", "pump"] else words[1] if words[0] == "give" else None
        if number is not None:
            # Its guards speak in the next second.
            self.waiting.append((name, number, self.board.now_s + WAITS_S))
            return
        self.orders.append((name, "taken", None))
        for one in heard:
            if one.startswith("# ") and not one.startswith("# taken"):
                self.note(one)

    def settle(self, words):
        # An order by hand has started its line, or a guard has refused it.
        if words[1] not in ("started", "refused") or len(words) < 4:
            return
        for one in self.waiting:
            if one[1] == words[2]:
                self.waiting.remove(one)
                self.orders.append((one[0], "taken", None) if words[1] == "started" else (one[0], "refused", words[3]))
                return

    # Each second: an order that nobody has refused was taken.
    def second(self):
        for one in [one for one in self.waiting if self.board.now_s >= one[2]]:
            self.waiting.remove(one)
            self.orders.append((one[0], "taken", None))

    # ---- For a board that sleeps: it goes to sleep once this is so

    # All was told, or could not be; what came back was done two seconds ago, and nothing more is due at once.
    def is_done(self):
        if not self.is_told():
            return True
        now_s = self.board.now_s
        is_quiet = self.done_s is not None and now_s - self.done_s >= 2 and self.state in ("idle", "off")
        return is_quiet and not self.orders and not self.waiting and self.due_s - now_s > 1

    # What was kept is so much older than this board's count says, s.
    def shift(self, s):
        self.newest = dict([(name, (self.newest[name][0] - s, self.newest[name][1])) for name in self.newest])
        self.rows = earlier(self.rows, s)
        self.said = earlier(self.said, s)
        if self.sent is not None:
            self.sent = (earlier(self.sent[0], s), earlier(self.sent[1], s), self.sent[2])
        self.row_s -= s
        self.answered_s -= s

    def report_soon(self):
        self.done_s = None
        self.due_s = self.board.now_s

    # ---- Told at the console: "net wifi HEX", values as hexadecimal text, so that no letter is in the way

    def hear(self, words):
        if len(words) == 1:
            known = [name for name in NAMES if self.told.get(name)]
            return "# net %s, knows %s" % (self.state, " ".join(known) if known else "nothing")
        value = from_hex(words[2]) if len(words) == 3 and words[1] in NAMES else None
        if value is None or (words[1] == "gateway" and not is_address(value)):
            return "# no: net wifi|password|gateway|key HEX, the gateway as 192.168.1.5:4860 (over MQTT its port for that)"
        self.told[words[1]] = value
        if not self.keep(self.told):
            return "# no: it could not be written"
        self.way.let_go()
        self.state = "off"
        self.due_s = FIRST_S
        return "# taken"


def earlier(rows, s):
    return [(at_s - s, text) for at_s, text in rows]


def is_news(words):
    if words[1] == "contact":
        # How it stands is told again and again; that it was switched is news.
        return len(words) > 3 and words[3] not in ("is", "rests")
    return words[1] not in NO_NEWS


def from_hex(text):
    if len(text) % 2 or len(text) > 128:
        return None
    try:
        return bytes([int(text[at : at + 2], 16) for at in range(0, len(text), 2)]).decode()
    except (ValueError, UnicodeError):
        return None


def is_address(text):
    # Numbers only: to look a name up would take its time.
    parts = text.replace(":", ".").split(".")
    if text.count(":") != 1 or len(parts) != 5 or not all([one.isdigit() for one in parts]):
        return False
    return all([int(one) < 256 for one in parts[:4]]) and 0 < int(parts[4]) < 65536

