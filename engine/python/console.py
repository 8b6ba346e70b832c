# The board's console: a line of words each, answered by lines that begin with "# ".
from engine import DAY_S, MOST_ORDER_ML, ORDER_STOP, ORDER_UNLOCK, ORDER_WATER, P_FOLLOWER, P_PULSE_SOAK, P_SINGLE_DOSE, P_TIMER, P_UNTIL_WET, P_VETO, given_ml, dose_s

MOST_TYPED = 160
MOST_ORDERS = 2
# Closer together two limits would switch by noise.
LEAST_GAP = 10
# A lamp that never says too wet says it from beyond the scale.
MOST_LAMP = 1001
MOST_POINTS = 8
# A leap lets nothing start for a while; more than this no noise of a probe asks for.
MOST_LEAP = 300
# A contact that permits, and not a light.
C_PERMIT = 0

# What of each kind of program can be changed while it runs; guards never.
SETTABLE = {
    P_TIMER: ("dose",),
    P_PULSE_SOAK: ("start", "stop", "dose"),
    P_UNTIL_WET: ("start", "stop"),
    P_SINGLE_DOSE: ("start", "dose"),
    P_VETO: ("stop", "dose"),
    P_FOLLOWER: (),
}


def whole(word):
    return int(word) if word.isdigit() and len(word) < 9 else None


def tenths_of(word):
    # "40" and "40.5" in tenths; None for anything else.
    before, point, after = word.partition(".")
    number = whole(before)
    if number is None or (point and not (len(after) == 1 and after.isdigit())):
        return None
    return number * 10 + (int(after) if after else 0)


def percent_text(tenths):
    return "%d.%d" % (tenths // 10, tenths % 10)


def pair_of(word):
    # "-12:345" as two whole numbers; None for anything else.
    one, colon, other = word.partition(":")
    pair = []
    for part in (one, other):
        digits = part[1:] if part.startswith("-") else part
        if not colon or not digits.isdigit() or len(digits) > 10 or int(digits) >= 2000000010:
            return None
        pair.append(-int(digits) if part.startswith("-") else int(digits))
    return tuple(pair)


def table_of(value):
    # "1100:1000,2900:0"; None for anything else: raw values rise, tenths go one way, from 0 to 1000.
    table = [pair_of(word) for word in value.split(",")]
    if None in table or not 2 <= len(table) <= MOST_POINTS:
        return None
    rises = falls = False
    for at in range(len(table)):
        raw, tenths = table[at]
        if not 0 <= tenths <= 1000 or (at > 0 and raw <= table[at - 1][0]):
            return None
        if at > 0:
            rises = rises or tenths > table[at - 1][1]
            falls = falls or tenths < table[at - 1][1]
    return None if rises == falls else tuple(table)


class Console:
    def __init__(self, board, leave, store):
        self.board = board
        self.leave = leave
        self.store = store
        self.typed = ""
        self.changed = {}
        self.take_up(store.read(board.number) if store is not None else [])

    def take_up(self, rows):
        # Of two limits that moved past each other only one order of taking them is allowed, so what was refused is tried again.
        for _ in range(2):
            for line, name, value in rows:
                if self.apply(line, name, value) is None:
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
            self.say("# give LINE ML - test pump LINE SECONDS - stop LINE - unlock LINE")
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
            for line in range(len(self.lines())):
                self.print_limits(line)
            for at in range(len(self.board.settings.CONTACTS)):
                self.print_contact(at)
            for at in range(len(self.board.settings.SOURCES)):
                self.print_probe(at)
            for at in range(len(self.board.settings.WATCHES)):
                watch = self.board.settings.WATCHES[at]
                self.say("# limits lamp %d dry %s wet %s" % (at + 1, percent_text(watch.dry), percent_text(watch.wet)))
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
        elif command == "clock":
            self.set_clock(numbers[1], numbers[2])
        elif command == "sun":
            self.set_sun(numbers[1], numbers[2])
        elif command == "set":
            self.set(words)
        elif command == "save":
            self.save()
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

    # ---- Settings that may be changed while it runs, within the guards

    def print_limits(self, line):
        config = self.lines()[line]
        text = "# limits %d" % (line + 1)
        for name in SETTABLE.get(config.program.kind, ()):
            text += " %s %s" % (name, self.value_text(config.program, name))
        self.say(text + " water %s" % ("on" if config.enabled else "off"))

    def print_contact(self, at):
        one = self.board.settings.CONTACTS[at]
        limits = " start %s stop %s" % (percent_text(one.start_tenths), percent_text(one.stop_tenths)) if one.kind == C_PERMIT else ""
        self.say("# limits contact %d%s switch %s" % (at + 1, limits, "on" if one.enabled else "off"))

    def print_probe(self, at):
        # Several probes together have their tables elsewhere.
        if isinstance(self.board.settings.SOURCES[at], int):
            sensor = self.board.settings.CONFIG.sensors[at]
            table = ",".join(["%d:%d" % point for point in sensor.table])
            about = (at + 1, table, sensor.soil_low_raw, sensor.soil_high_raw, percent_text(sensor.leap_tenths))
            self.say("# limits probe %d table %s soil %d:%d leap %s" % about)

    def value_text(self, program, name):
        if name == "dose":
            return str(program.dose_ml)
        return percent_text(program.start_tenths if name == "start" else program.stop_tenths)

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
        why = self.apply(line, name, value)
        if why is None:
            self.changed[(line, name)] = value
            self.say("# taken %s %s" % (what, value))
        else:
            self.say("# no: " + why)

    def apply_lamp(self, at, name, value):
        watches = self.board.settings.WATCHES
        tenths = tenths_of(value)
        if not 0 <= at < len(watches):
            return "no such lamp"
        if tenths is None or tenths > MOST_LAMP:
            return "a percent from 0 to 100 with at most one decimal"
        if name == "lamp-dry":
            watches[at].dry = tenths
        elif name == "lamp-wet":
            watches[at].wet = tenths
        else:
            return "dry or wet"
        return None

    def apply_contact(self, at, name, value):
        contacts = self.board.settings.CONTACTS
        if not 0 <= at < len(contacts):
            return "no such contact"
        one = contacts[at]
        if name == "contact-switch":
            if value not in ("on", "off"):
                return "on or off"
            one.enabled = value == "on"
            return None
        if name not in ("contact-start", "contact-stop") or one.kind != C_PERMIT:
            return "a contact has no such setting"
        tenths = tenths_of(value)
        if tenths is None or tenths > 1000:
            return "a percent from 0 to 100 with at most one decimal"
        start = tenths if name == "contact-start" else one.start_tenths
        stop = tenths if name == "contact-stop" else one.stop_tenths
        if stop - start < LEAST_GAP:
            return "start must lie at least 1 below stop"
        one.start_tenths = start
        one.stop_tenths = stop
        return None

    def apply_probe(self, at, name, value):
        sources = self.board.settings.SOURCES
        if not 0 <= at < len(sources) or not isinstance(sources[at], int):
            return "no such probe"
        sensor = self.board.settings.CONFIG.sensors[at]
        if name == "probe-table":
            table = table_of(value)
            if table is None:
                return "raw:tenths, two to eight, raw values rising, tenths one way from 0 to 1000"
            sensor.table = table
            return None
        if name == "probe-leap":
            tenths = tenths_of(value)
            if tenths is None or not LEAST_GAP <= tenths <= MOST_LEAP:
                return "a percent from 1 to 30"
            sensor.leap_tenths = tenths
            return None
        pair = pair_of(value)
        if name != "probe-soil" or pair is None or pair[0] > pair[1]:
            return "table, soil LOW:HIGH, or leap PERCENT"
        sensor.soil_low_raw, sensor.soil_high_raw = pair
        return None

    def apply(self, line, name, value):
        # Why it is not taken; None: it holds from now on.
        if name.startswith("contact-"):
            return self.apply_contact(line, name, value)
        if name.startswith("probe-"):
            return self.apply_probe(line, name, value)
        if name.startswith("lamp-"):
            return self.apply_lamp(line, name, value)
        if not 0 <= line < len(self.lines()):
            return "no such line"
        config = self.lines()[line]
        program = config.program
        if name == "water":
            if value not in ("on", "off"):
                return "on or off"
            config.enabled = value == "on"
            return None
        if name not in SETTABLE.get(program.kind, ()):
            return "its program has no such setting"
        if name == "dose":
            dose_ml = whole(value)
            if dose_ml is None or dose_ml < 1:
                return "a whole number of ml"
            if dose_ml > config.daily_max_ml:
                return "more than the daily maximum of %d ml" % config.daily_max_ml
            if dose_s(config, dose_ml) > config.max_run_s:
                return "takes longer than the maximum run of %d s" % config.max_run_s
            program.dose_ml = dose_ml
            return None
        tenths = tenths_of(value)
        if tenths is None or tenths > 1000:
            return "a percent from 0 to 100 with at most one decimal"
        has_both = "start" in SETTABLE[program.kind] and "stop" in SETTABLE[program.kind]
        start = tenths if name == "start" else program.start_tenths
        stop = tenths if name == "stop" else program.stop_tenths
        if has_both and stop - start < LEAST_GAP:
            return "start must lie at least 1 below stop"
        program.start_tenths = start
        if name == "stop":
            program.stop_tenths = stop
            config.proves_below_tenths = stop
        return None

    def save(self):
        if self.store is None:
            self.say("# no: this board keeps no settings")
        elif self.store.write(self.board.number, self.changed):
            self.say("# taken: kept through a reboot until another program is loaded")
        else:
            self.say("# no: it could not be written")
