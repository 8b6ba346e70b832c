# What every board's program does alike: reads each second, asks the engine, keeps, switches, prints, and listens at the console.
# The settings say what is read and switched. Pins, clock, files and console come from outside, so that it runs on a computer as well.
from console import Console
from engine import DAY_S, HELD, REFUSED, STARTED, STOPPED, UNLOCKED, WAS_LOCKED, Engine, Fields, nothing_kept, tenths_of
from reasons import REASON_NAMES

# Sunrise and sunset are told by whoever listens; they move by a few minutes a day, so after two weeks without news they are not known.
SUN_HOLDS_S = 1209600
# Decimals behind the point: hundredths of a degree, thousandths of a volt.
DECIMALS = {"one_wire": 2, "volts": 3}
# A latching valve that was told to shut is told once more after this, and then so often.
SHUT_SOON_S = 10
SHUT_EVERY_S = 3600
# So often what is left of a skip is written down.
SKIP_KEPT_S = 3600

EVENT_NAMES = {
    STARTED: "started",
    STOPPED: "stopped",
    HELD: "held",
    REFUSED: "refused",
    WAS_LOCKED: "locked",
    UNLOCKED: "unlocked",
}


def reason_name(reason):
    return REASON_NAMES.get(reason, "unknown")


def combined(by, members, raws, last):
    # Several probes as one, in tenths: the driest of them, their mean, their median. None where too few of them can be read, and where none was in this second.
    if all([raws[one[0]] is None for one in members]):
        return None
    votes = []
    for at, table, low, high in members:
        raw = last[at]
        if raw is not None and low <= raw <= high:
            votes.append(tenths_of(table, raw))
    votes.sort()
    if not votes:
        return None
    if by == "driest":
        return votes[0]
    if len(members) > 1 and 2 * len(votes) <= len(members):
        return None
    if by == "mean":
        return sum(votes) // len(votes)
    middle = (len(votes) - 1) // 2
    return votes[middle] if len(votes) % 2 == 1 else (votes[middle] + votes[middle + 1]) // 2


class Board:
    # read(how, pins) gives counts, 0 and 1, mm or None; switch(pin, level) sets an output (0, 1, or the length of a servo's pulses); say(text) prints a line; kept reads and writes what outlives a reboot;
    # leave() puts the board into load mode; store holds settings that were changed at the console; bus asks the probes on it; shows
    # lights rings and draws on displays; hold(ms) waits; skips holds which lines are skipped.
    def __init__(self, settings, read, switch, say, kept=None, number=0, leave=None, store=None, bus=None, shows=None, hold=None, skips=None):
        self.settings = settings
        self.read = read
        self.bus = bus
        self.switch = switch
        self.say = say
        self.kept = kept
        self.number = number
        self.hold = hold
        # By pin of a latching valve whether it is open, and when it is told to shut again.
        self.latches = {}
        self.now_s = 0
        # Outputs off before anything else.
        self.all_off()
        memory = kept.read() if kept is not None else []
        self.engine = Engine(settings.CONFIG, [nothing_kept() if one is None else one for one in memory])
        self.contacts = None
        if settings.CONTACTS:
            from contacts import Contacts

            hours = kept.read_contacts() if kept is not None else []
            self.contacts = Contacts(settings.CONTACTS, settings.CONFIG.sensors, hours)
        self.sun = None
        self.sun_told_s = 0
        self.lamps = None
        self.ms = 0
        if settings.LAMPS or settings.DISPLAYS:
            from signals import Lamps

            self.lamps = Lamps(settings, self.switch_output, None if shows is None else shows.ring)
        self.screens = None
        if settings.DISPLAYS:
            from screen import Screens

            self.screens = Screens(settings, shows.draw)
        self.clock_at_boot = None
        self.weekday_at_boot = 0
        self.orders = []
        # What was read in this second, and what was read last of those that are fed only to be read.
        self.raws = [None] * len(settings.INPUTS)
        self.last = [None] * len(settings.INPUTS)
        # By place of an input what another board has read, until the next second takes it; when that was, and how long it holds beside other probes and for conditions, s.
        self.far = {}
        self.far_at_s = {}
        self.far_holds_s = 180
        self.fed_since = [None] * len(settings.POWERS)
        self.read_at = [0] * len(settings.POWERS)
        # By line until when it waters nothing by itself, because a person said so.
        self.skips = skips
        left = skips.read() if skips is not None else {}
        self.skip_until_s = [left.get(one, 0) for one in settings.LINE_IDS]
        self.skip_kept_s = 0
        # When somebody typed last.
        self.heard_s = 0
        self.console = Console(self, leave, store)

    def all_off(self):
        for output in self.settings.OUTPUTS + self.settings.CONTACT_OUTPUTS:
            self.switch_output(output, False)
        for pin, _, _ in self.settings.POWERS:
            self.switch(pin, 0)
        for kind, _, outputs in self.settings.LAMPS:
            for output in outputs if kind != "ring" else ():
                self.switch_output(output, False)

    def switch_output(self, output, is_on):
        pin, how, _ = output
        if isinstance(how, tuple) and len(how) == 3:
            self.switch_latch(output, is_on)
        elif isinstance(how, tuple):
            # Of a servo the length of its pulses, us.
            self.switch(pin, how[1] if is_on else how[0])
        else:
            self.switch(pin, 0 if is_on == how else 1)

    # A latching valve stays where its last pulse left it: it is told to shut at the start, again a little later, for the first pulse may have found its driver
    # without charge, and then each hour.
    def switch_latch(self, output, is_on):
        pin, (shut, pulse_ms, level), _ = output
        if pin not in self.latches:
            self.switch(pin, 1 - level)
            self.switch(shut, 1 - level)
            self.latches[pin] = (True, 0)
        is_open, again_s = self.latches[pin]
        if is_on:
            if not is_open:
                self.pulse(pin, pulse_ms, level)
                self.latches[pin] = (True, 0)
        elif is_open or self.now_s >= again_s:
            self.pulse(shut, pulse_ms, level)
            self.latches[pin] = (False, self.now_s + (SHUT_SOON_S if is_open else SHUT_EVERY_S))

    def pulse(self, pin, pulse_ms, level):
        self.switch(pin, level)
        if self.hold is not None:
            self.hold(pulse_ms)
        self.switch(pin, 1 - level)

    def read_inputs(self):
        # What was read in this second; None: nothing came back, or it is not fed now.
        self.raws = []
        for at in range(len(self.settings.INPUTS)):
            how, pins, _ = self.settings.INPUTS[at]
            power = self.settings.FED_BY[at]
            if how == "bus":
                # What another probe's turn is holds until its own.
                self.raws.append(self.bus.value(pins))
                if self.bus.is_asked(pins):
                    self.last[at] = self.raws[at]
                continue
            if how == "far":
                # Read by another board: news once, then silent until it is told again.
                self.raws.append(self.far.pop(at, None))
                if self.raws[at] is not None:
                    self.last[at] = self.raws[at]
                    self.far_at_s[at] = self.now_s
                elif self.now_s - self.far_at_s.get(at, 0) > self.far_holds_s:
                    self.last[at] = None
                continue
            raw = self.read(how, pins) if power is None or self.is_fed(power) else None
            self.raws.append(raw)
            if power is None or self.is_fed(power):
                self.last[at] = raw

    # What the gateway tells of probes at other boards. What is no input of this one is left out.
    def tell_far(self, name, value):
        for at in range(len(self.settings.INPUTS)):
            how, place, own = self.settings.INPUTS[at]
            if how == "far" and own == name:
                self.far[at] = round(value * 10 ** place[3])

    def is_fed(self, power):
        # Fed for long enough.
        since = self.fed_since[power]
        return since is not None and self.now_s - since >= self.settings.POWERS[power][1]

    def feed(self):
        # Before reading: whose turn it is is switched on.
        for at in range(len(self.settings.POWERS)):
            pin, wait_s, every_s = self.settings.POWERS[at]
            # The first reading comes as soon as it can.
            if self.fed_since[at] is None and (self.read_at[at] == 0 or self.now_s - self.read_at[at] >= every_s - wait_s):
                self.switch(pin, 1)
                self.fed_since[at] = self.now_s

    def starve(self):
        # After reading: what has been read is switched off.
        for at in range(len(self.settings.POWERS)):
            if self.is_fed(at):
                self.switch(self.settings.POWERS[at][0], 0)
                self.fed_since[at] = None
                self.read_at[at] = self.now_s

    def clock(self):
        if self.clock_at_boot is None:
            return None
        local = self.clock_at_boot + self.now_s % DAY_S
        return (local % DAY_S, (self.weekday_at_boot + self.now_s // DAY_S + local // DAY_S) % 7)

    def set_clock(self, second, weekday):
        since_boot = self.now_s % DAY_S
        days = self.now_s // DAY_S + (1 if second < since_boot else 0)
        self.clock_at_boot = (second - since_boot) % DAY_S
        self.weekday_at_boot = (weekday - days) % 7

    def sense(self, at):
        # What a condition goes by; None: not asked for, or not known.
        if at is None:
            return None
        place, table = self.settings.SENSES[at]
        raw = self.last[place]
        return tenths_of(table, raw) if raw is not None and table[0][0] <= raw <= table[-1][0] else None

    def around(self, rows):
        return [tuple([self.sense(at) for at in row]) for row in rows]

    def sensor(self, source):
        raw = self.raws[source] if isinstance(source, int) else combined(source[0], source[1], self.raws, self.last)
        return None if raw is None else (raw, False)

    # One second later: read, decide, keep, switch, and every other second print.
    def second(self):
        self.now_s += 1
        self.feed()
        self.read_inputs()
        settings = self.settings
        told = Fields(
            now_s=self.now_s,
            sensors=[self.sensor(one) for one in settings.SOURCES],
            tanks=[self.raws[at] for at in settings.TANK_INPUTS],
            clock=self.clock(),
            around=self.around(settings.AROUND),
            battery_mv=self.sense(settings.BATTERY),
            orders=self.orders,
        )
        self.orders = []
        on, events, _, write = self.step(told)
        contact_events = []
        outputs = settings.OUTPUTS
        if self.contacts is not None:
            if self.now_s - self.sun_told_s > SUN_HOLDS_S:
                self.sun = None
            about = self.around(settings.CONTACTS_AROUND)
            driven, contact_events, write_too = self.contacts.step(told, about, self.sun, self.engine.sensors)
            on = on + driven
            outputs = outputs + settings.CONTACT_OUTPUTS
            write = write or write_too
        # Off at once; on only after the run has been written down, so that a pump whose start pulls the board down is counted.
        for at in range(len(on)):
            if not on[at]:
                self.switch_output(outputs[at], False)
        if write and self.kept is not None:
            self.keep()
        for at in range(len(on)):
            if on[at]:
                self.switch_output(outputs[at], True)
        if self.lamps is not None:
            self.lamps.look(self.engine, self.sense, self.ms)
        if self.screens is not None:
            self.screens.look(self.lamps, self.engine, self.sense, self.last)
        for event in events:
            self.print_event(event)
        for event in contact_events:
            self.print_contact_event(event)
        # What is read rarely is printed when it is read.
        if self.now_s % 2 == 0 or self.has_news():
            self.print_readings()
        self.starve()
        # Whoever begins to listen learns which program this is.
        if self.now_s % 60 == 0:
            self.console.version()
        # Last, for an answer may take its time; it is read in the next second.
        if self.bus is not None:
            self.bus.ask()

    def is_skipped(self, at):
        return self.skip_until_s[at] > self.now_s

    # To the engine a line that is skipped is switched off for so long.
    def step(self, told):
        lines = self.settings.CONFIG.lines
        skipped = [at for at in range(len(lines)) if self.is_skipped(at) and lines[at].enabled]
        for at in skipped:
            lines[at].enabled = False
        answer = self.engine.step(told)
        for at in skipped:
            lines[at].enabled = True
        if any(self.skip_until_s) and self.now_s - self.skip_kept_s >= SKIP_KEPT_S:
            self.keep_skips()
        return answer

    def skip_for(self, line, seconds):
        self.skip_until_s[line] = self.now_s + seconds
        self.keep_skips()

    def keep_skips(self):
        self.skip_kept_s = self.now_s
        self.skip_until_s = [until if until > self.now_s else 0 for until in self.skip_until_s]
        if self.skips is None:
            return
        left = dict([(self.settings.LINE_IDS[at], self.skip_until_s[at] - self.now_s) for at in range(len(self.skip_until_s)) if self.is_skipped(at)])
        if not self.skips.write(left):
            self.say("# cannot write down what is skipped: a restart would end it")

    # Each turn of the program, for lamps that blink. ms of a clock that rises.
    def show(self, ms):
        self.ms = ms
        if self.lamps is not None:
            self.lamps.show(ms)

    def keep(self):
        hours = self.contacts.remembered() if self.contacts is not None else []
        if not self.kept.write(self.engine.remembered(), hours) and self.kept.fails == 1:
            self.say("# cannot write down what it keeps: a reboot would forget the day")

    def has_news(self):
        return self.bus is not None or any([self.is_fed(at) for at in range(len(self.settings.POWERS))])

    def print_readings(self):
        # "c2=1512 l1=2240": the names are those of the garden's channels. What did not answer is left out.
        inputs = self.settings.INPUTS
        pairs = []
        for at in range(len(inputs)):
            how, place, name = inputs[at]
            if self.raws[at] is not None and how != "far":
                decimals = place[3] if how in ("bus", "i2c") else DECIMALS.get(how, 0)
                pairs.append("%s=%s" % (name, decimal_text(self.raws[at], decimals)))
        if pairs:
            self.say(" ".join(pairs))

    def print_event(self, event):
        kind, at, _, reason = event[:4]
        text = "# %s %d %s" % (EVENT_NAMES[kind], at + 1, reason_name(reason))
        if kind == STARTED:
            text += " %d s" % event[4]
            if event[5] is not None:
                text += " at %s" % tenths_text(event[5])
        elif kind == STOPPED:
            text += " %d s %d ml" % (event[4], event[5])
        self.say(text)

    def print_why(self):
        for at in range(len(self.engine.lines)):
            line = self.engine.lines[at]
            runs = line.run is not None
            reason = reason_name(line.run.reason if runs else line.reason)
            text = "# line %d %s %s today %d ml" % (at + 1, "runs" if runs else "rests", reason, line.day_sum_ml)
            self.say(text + (" locked" if line.locked else ""))
            if self.is_skipped(at):
                self.say("# skip %d %d s" % (at + 1, self.skip_until_s[at] - self.now_s))

        if self.contacts is not None:
            for at in range(len(self.contacts.contacts)):
                one = self.contacts.contacts[at]
                words = (at + 1, "rests" if one.is_resting else "is", "on" if one.is_on else "off", reason_name(one.reason), one.day_sum_ml)
                self.say("# contact %d %s %s %s today %d s" % words)

        if self.lamps is not None:
            for at in range(len(self.settings.WATCHES)):
                self.say("# lamp %d %s" % (at + 1, self.lamps.state_name(at)))

    def print_contact_event(self, event):
        kind, at, _, reason = event[:4]
        text = "# contact %d %s %s" % (at + 1, "off" if kind else "on", reason_name(reason))
        self.say(text + (" %d s" % event[4] if kind else ""))

    def print_percent(self):
        for at in range(len(self.engine.sensors)):
            sensor = self.engine.sensors[at]
            # Before its first reading there is nothing to say.
            if sensor is None:
                continue
            source = self.settings.SOURCES[at]
            # Of several together the first lends its name.
            place = source if isinstance(source, int) else source[1][0][0]
            name = self.settings.INPUTS[place][2]
            self.say("# percent %s %s" % (name, "unknown" if sensor.tenths is None else tenths_text(sensor.tenths)))

    def hear(self, character):
        self.heard_s = self.now_s
        self.console.hear(character)


def tenths_text(tenths):
    return "%d.%d" % (tenths // 10, tenths % 10)


def decimal_text(value, decimals):
    # 2144 with two decimals is 21.44.
    if decimals == 0:
        return str(value)
    text = str(abs(value))
    text = "0" * (decimals + 1 - len(text)) + text
    return ("-" if value < 0 else "") + text[:-decimals] + "." + text[-decimals:]
