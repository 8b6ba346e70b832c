# The board's console: a line of words each, answered by lines that begin with "# ".
from engine import DAY_S, MOST_ORDER_ML, ORDER_STOP, ORDER_UNLOCK, ORDER_WATER, given_ml
from settable import Settable, whole

MOST_TYPED = 160
MOST_ORDERS = 2
# No skip is longer, s: 32 days.
MOST_SKIP_S = 2764800


class Console:
    def __init__(self, board, leave, store):
        self.board = board
        self.leave = leave
        self.store = store
        self.settable = Settable(board.settings)
        self.typed = ""
        self.changed = {}
        # What reports over the network; None: this program does not.
        self.net = None
        self.take_up(store.read(board.number) if store is not None else [])

    def take_up(self, rows):
        # Of two limits that moved past each other only one order of taking them is allowed, so what was refused is tried again.
        for _ in range(2):
            for line, name, value in rows:
                if self.settable.apply(line, name, value) is None:
                    self.changed[(line, name)] = value

    def say(self, text):
        self.board.say(text)

    # One character of what is typed.
    def hear(self, character):
        if character == "\r":
            return
        if character == "\n":
            typed = self.typed
            self.typed = ""
            if typed:
                self.obey(typed)
        elif character >= " " and len(self.typed) < MOST_TYPED:
            self.typed += character

    def obey(self, typed):
        words = typed.split()
        numbers = [whole(one) for one in words] + [None] * 4
        command = words[0] if words else ""
        if command == "?":
            self.say("# ? raw all why limits version")
            self.say("# give LINE ML - test pump LINE SECONDS - stop LINE - unlock LINE - skip LINE SECONDS (0 ends it)")
            self.say("# set LINE start|stop PERCENT - set LINE dose ML - set LINE water on|off - save")
            self.say("# set probe N table RAW:TENTHS,... - set probe N soil LOW:HIGH (raw) - set probe N leap PERCENT")
            self.say("# set contact N start|stop PERCENT - set contact N switch on|off")
            self.say("# clock SECOND-OF-DAY WEEKDAY (Monday 0) - sun RISE SET (seconds of the day)")
            self.say("# test lamp (each colour for a second) - set lamp PLOT dry|wet PERCENT")
            self.say("# load (outputs off and ready for another program)")
        elif command == "raw":
            self.board.read_inputs()
            self.board.print_readings()
        elif command == "all":
            self.board.read_inputs()
            self.board.print_readings()
            self.board.print_percent()
            self.board.print_why()
        elif command == "why":
            self.board.print_why()
        elif command == "limits":
            for text in self.settable.texts():
                self.say(text)
        elif command == "version":
            self.version()
        elif command == "give":
            self.give(numbers[1], numbers[2])
        elif words[:2] == ["test", "lamp"] and self.board.lamps is not None:
            self.board.lamps.test(self.board.ms)
            self.say("# taken")
        elif words[:2] == ["test", "pump"]:
            self.test_pump(numbers[2], whole(words[3].rstrip("s")) if len(words) > 3 else None)
        elif command == "stop":
            self.order(ORDER_STOP, numbers[1], 0)
        elif command == "unlock":
            self.order(ORDER_UNLOCK, numbers[1], 0)
        elif command == "skip":
            self.skip_line(numbers[1], numbers[2])
        elif command == "clock":
            self.set_clock(numbers[1], numbers[2])
        elif command == "sun":
            self.set_sun(numbers[1], numbers[2])
        elif command == "set":
            self.set(words)
        elif command == "save":
            self.save()
        elif command == "net" and self.net is not None:
            self.say(self.net.hear(words))
        elif command == "load" and self.leave is not None:
            self.board.all_off()
            if self.board.kept is not None:
                self.board.keep()
            self.leave()
        else:
            self.say("# no: not understood - ? for help")

    def version(self):
        # Which program this is, and which lines of the garden its numbers mean.
        settings = self.board.settings
        self.say("# version %d %s engine 1" % (self.board.number, settings.PROGRAM))
        self.say(" ".join(["# lines"] + list(settings.LINE_IDS)))
        if settings.CONTACT_IDS:
            self.say(" ".join(["# contacts"] + list(settings.CONTACT_IDS)))

    def lines(self):
        return self.board.settings.CONFIG.lines

    def line_at(self, number):
        # Place of a line by the number that people see; None where there is none.
        return number - 1 if number is not None and 1 <= number <= len(self.lines()) else None

    # ---- Orders by hand: the guards hold them, and they count in the day's sum.

    def give(self, number, volume_ml):
        if volume_ml is None or not 1 <= volume_ml <= MOST_ORDER_ML:
            self.say("# no: give LINE ML")
        else:
            self.order(ORDER_WATER, number, volume_ml)

    def test_pump(self, number, seconds):
        line = self.line_at(number)
        if line is None or seconds is None or not 1 <= seconds <= 3600:
            self.say("# no: test pump LINE SECONDS")
            return
        config = self.lines()[line]
        volume_ml = max(1, given_ml(config, seconds))
        self.order(ORDER_WATER, number, volume_ml)

    def order(self, kind, number, volume_ml):
        line = self.line_at(number)
        if line is None:
            self.say("# no: no such line")
        elif len(self.board.orders) >= MOST_ORDERS:
            self.say("# no: one order after the other")
        else:
            self.board.orders.append((kind, line, volume_ml))
            self.say("# taken")

    # A line that is skipped waters nothing by itself for so long; orders by hand go on.
    def skip_line(self, number, seconds):
        line = self.line_at(number)
        if line is None or seconds is None or seconds > MOST_SKIP_S:
            self.say("# no: skip LINE SECONDS, at most %d" % MOST_SKIP_S)
            return
        self.board.skip_for(line, seconds)
        self.say("# taken")

    def set_clock(self, second, weekday):
        if second is None or second >= DAY_S or weekday is None or weekday > 6:
            self.say("# no: clock SECOND-OF-DAY WEEKDAY")
        else:
            self.board.set_clock(second, weekday)
            self.say("# taken")

    def set_sun(self, rise, set_):
        if rise is None or rise >= DAY_S or set_ is None or set_ >= DAY_S:
            self.say("# no: sun RISE SET")
        else:
            self.board.sun = (rise, set_)
            self.board.sun_told_s = self.board.now_s
            self.say("# taken")

    # ---- Settings that may be changed while it runs

    def set(self, words):
        if len(words) == 5 and words[1] == "lamp":
            # What lamps say goes with the words of the plot: too dry below, too wet from.
            self.take("lamp %s %s" % (words[2], words[3]), (whole(words[2]) or 0) - 1, "lamp-" + words[3], words[4])
            return
        if len(words) == 5 and words[1] in ("contact", "probe"):
            self.take(" ".join(words[1:4]), (whole(words[2]) or 0) - 1, "%s-%s" % (words[1], words[3]), words[4])
            return
        line = self.line_at(whole(words[1])) if len(words) == 4 else None
        if line is None:
            self.say("# no: set LINE NAME VALUE")
            return
        _, number, name, value = words
        self.take("%s %s" % (number, name), line, name, value)

    def take(self, what, line, name, value):
        why = self.settable.apply(line, name, value)
        if why is None:
            self.changed[(line, name)] = value
            self.say("# taken %s %s" % (what, value))
        else:
            self.say("# no: " + why)

    # Before a sleep: what was set goes on, saved or not.
    def keep_changed(self):
        if self.changed and self.store is not None and not self.store.write(self.board.number, self.changed):
            raise OSError(28)

    def save(self):
        if self.store is None:
            self.say("# no: this board keeps no settings")
        elif self.store.write(self.board.number, self.changed):
            self.say("# taken: kept through a reboot until another program is loaded")
        else:
            self.say("# no: it could not be written")
