# Sleeps between readings. To wake is not to be switched on: what the program knows is written down before it sleeps and taken up again, so that pauses, sums and locks go on.
# A timer that is fast wakes the board early: of each sleep a twentieth is not counted, so that no pause is shorter for it. Clock and ages go by the whole.
import binascii
import hashlib
import os

import machine
from engine import DAY_S, Fields

PATH = "/trowel_asleep"
# Switched on, reset or typed to it stays awake for so long, s.
STAYS_S = 120
# Of a sleep this is counted, in hundredths.
COUNTED_PERCENT = 95
# The network is waited for at most so long, s.
NET_MOST_S = 30
# What of the program goes on after the sleep.
OF_THE_ENGINE = ("now_s", "sensors", "tanks", "lines")
OF_THE_BOARD = ("clock_at_boot", "weekday_at_boot", "last", "far_at_s", "skip_until_s", "skip_kept_s")
OF_THE_NET = (
    "boot",
    "seq",
    "newest",
    "rows",
    "row_s",
    "said",
    "orders",
    "sent",
    "known",
    "waiting",
    "revision",
    "refused",
    "answered_s",
)


def can_sleep():
    return hasattr(machine, "deepsleep") and hasattr(machine, "DEEPSLEEP_RESET")


def woke():
    return can_sleep() and machine.reset_cause() == machine.DEEPSLEEP_RESET


def text_of(value):
    # As Python would write it.
    if isinstance(value, Fields):
        return "Fields(%s)" % ",".join(["%s=%s" % (name, text_of(value.__dict__[name])) for name in value.__dict__])
    if isinstance(value, dict):
        return "{%s}" % ",".join(["%s:%s" % (text_of(name), text_of(value[name])) for name in value])
    if isinstance(value, list):
        return "[%s]" % ",".join([text_of(one) for one in value])
    if isinstance(value, tuple):
        return "(%s)" % "".join([text_of(one) + "," for one in value])
    return repr(value)


def sign(text):
    return binascii.hexlify(hashlib.sha256(text.encode()).digest()).decode()[:16]


def values_of(one, names):
    return dict([(name, getattr(one, name)) for name in names])


def give(one, values):
    for name in values:
        setattr(one, name, values[name])


class Sleeper:
    def __init__(self, settings, board, net, name):
        self.settings = settings.SLEEP
        self.board = board
        self.net = net
        # Of a program and its number: another one does not take up what this one knew.
        self.name = name
        self.has_woken = False
        self.ran = False
        self.woke_s = 0
        self.stays_s = STAYS_S
        self.fails = not can_sleep()
        if self.fails:
            print("# this board cannot sleep: it stays awake")

    # What was known before the sleep, if this is a waking. What lay there is gone afterwards, however it ends.
    def wake(self):
        if not woke():
            self.forget()
            return
        try:
            with open(PATH) as file:
                body, _, mark = file.read().rpartition("\n")
        except (OSError, ValueError):
            body = ""
            mark = None
        self.forget()
        if sign(body) != mark:
            print("# what it knew before its sleep is lost: it begins as after a restart")
            return
        known = eval(body, {"Fields": Fields})
        if known["name"] != self.name:
            return
        self.board.now_s = known["now_s"]
        give(self.board.engine, known["engine"])
        give(self.board, known["board"])
        # A skip goes by the whole of the sleep.
        self.board.skip_until_s = [max(0, until - known["uncounted_s"]) for until in self.board.skip_until_s]
        if self.board.clock_at_boot is not None:
            self.board.clock_at_boot = (self.board.clock_at_boot + known["uncounted_s"]) % DAY_S
            self.board.weekday_at_boot = (self.board.weekday_at_boot + known["days_more"]) % 7
        if self.net is not None and known["net"] is not None:
            give(self.net, known["net"])
            self.net.shift(known["uncounted_s"])
            self.net.due_s = self.board.now_s + self.settings.awake_s
        self.has_woken = True
        self.woke_s = self.board.now_s
        # What it was heard at is long ago.
        self.board.heard_s = self.woke_s - STAYS_S
        self.stays_s = self.settings.awake_s

    def forget(self):
        try:
            os.remove(PATH)
        except OSError:
            pass

    # Each second.
    def second(self):
        runs = any([line.run is not None for line in self.board.engine.lines])
        if runs:
            self.ran = True
        elif self.ran:
            # What came of it goes home before the next sleep.
            self.ran = False
            self.woke_s = self.board.now_s
            self.stays_s = self.settings.awake_s
            if self.net is not None:
                self.net.report_soon()
        if not runs and self.is_time():
            self.sleep()

    def is_time(self):
        now_s = self.board.now_s
        awake_s = now_s - self.woke_s
        if self.fails or awake_s < self.stays_s or now_s - self.board.heard_s < STAYS_S or self.board.orders:
            return False
        return self.net is None or self.net.is_done() or awake_s >= max(NET_MOST_S, self.stays_s)

    def sleep(self):
        board = self.board
        seconds = max(10, self.settings.every_s - (board.now_s - self.woke_s))
        # Of each waking a reading, told or not.
        if self.net is not None and self.net.row_s < self.woke_s:
            self.net.keep_row()
        counted_s = seconds * COUNTED_PERCENT // 100
        uncounted_s = seconds - counted_s
        clock_s = board.clock_at_boot
        body = text_of(
            {
                "name": self.name,
                "now_s": board.now_s + counted_s,
                "uncounted_s": uncounted_s,
                # The local day that began meanwhile by what was not counted.
                "days_more": 0 if clock_s is None else (clock_s + uncounted_s) // DAY_S,
                "engine": values_of(board.engine, OF_THE_ENGINE),
                "board": values_of(board, OF_THE_BOARD),
                "net": None if self.net is None else values_of(self.net, OF_THE_NET),
            }
        )
        try:
            with open(PATH, "w") as file:
                file.write(body + "\n" + sign(body))
            board.console.keep_changed()
        except OSError:
            # Nothing is forgotten for the sake of a battery.
            self.fails = True
            self.forget()
            print("# cannot write down what it knows: it stays awake")
            return
        print("# asleep for %d s" % seconds)
        board.all_off()
        machine.deepsleep(seconds * 1000)
