# What every board's program does alike: reads each second, asks the engine, keeps, switches, prints, and listens at the console.
# The settings say what is read and switched. Pins, clock, files and console come from outside, so that it runs on a computer as well.
from console import Console
from engine import DAY_S, HELD, REFUSED, STARTED, STOPPED, UNLOCKED, WAS_LOCKED, Engine, Fields, nothing_kept
from reasons import REASON_NAMES

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


class Board:
    # read(how, pins) gives counts, 0 and 1, mm or None; switch(pin, level) sets an output; say(text) prints a line; kept reads and writes what outlives a reboot;
    # leave() puts the board into load mode; store holds settings that were changed at the console.
    def __init__(self, settings, read, switch, say, kept=None, number=0, leave=None, store=None):
        self.settings = settings
        self.read = read
        self.switch = switch
        self.say = say
        self.kept = kept
        self.number = number
        # Outputs off before anything else.
        self.all_off()
        memory = kept.read() if kept is not None else []
        self.engine = Engine(settings.CONFIG, [nothing_kept() if one is None else one for one in memory])
        self.now_s = 0
        self.clock_at_boot = None
        self.weekday_at_boot = 0
        self.orders = []
        self.raws = [None] * len(settings.INPUTS)
        self.console = Console(self, leave, store)

    def all_off(self):
        for at in range(len(self.settings.OUTPUTS)):
            self.switch_line(at, False)

    def switch_line(self, at, is_on):
        pin, is_active_low, _ = self.settings.OUTPUTS[at]
        self.switch(pin, 0 if is_on == is_active_low else 1)

    def read_inputs(self):
        # What was read in this second; None: nothing came back.
        self.raws = [self.read(how, pins) for how, pins, _ in self.settings.INPUTS]

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

    # One second later: read, decide, keep, switch, and every other second print.
    def second(self):
        self.now_s += 1
        self.read_inputs()
        settings = self.settings
        around = []
        for light, rain, skip in settings.AROUND_INPUTS:
            about = [None if at is None else self.raws[at] for at in (light, rain, skip)]
            around.append((None, about[0], about[1], None, about[2]))
        told = Fields(
            now_s=self.now_s,
            sensors=[None if self.raws[at] is None else (self.raws[at], False) for at in settings.SENSOR_INPUTS],
            tanks=[self.raws[at] for at in settings.TANK_INPUTS],
            clock=self.clock(),
            around=around,
            battery_mv=None,
            orders=self.orders,
        )
        self.orders = []
        on, events, _, write = self.engine.step(told)
        # Off at once; on only after the run has been written down, so that a pump whose start pulls the board down is counted.
        for at in range(len(on)):
            if not on[at]:
                self.switch_line(at, False)
        if write and self.kept is not None:
            self.keep()
        for at in range(len(on)):
            if on[at]:
                self.switch_line(at, True)
        for event in events:
            self.print_event(event)
        if self.now_s % 2 == 0:
            self.print_readings()
        # Whoever begins to listen learns which program this is.
        if self.now_s % 60 == 0:
            self.console.version()

    def keep(self):
        if not self.kept.write(self.engine.remembered()) and self.kept.fails == 1:
            self.say("# cannot write down what it keeps: a reboot would forget the day")

    def print_readings(self):
        # "c2=1512 l1=2240": the names are those of the garden's channels. What did not answer is left out.
        inputs = self.settings.INPUTS
        pairs = ["%s=%d" % (inputs[at][2], self.raws[at]) for at in range(len(inputs)) if self.raws[at] is not None]
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

    def print_percent(self):
        for at in range(len(self.engine.sensors)):
            sensor = self.engine.sensors[at]
            # Before its first reading there is nothing to say.
            if sensor is None:
                continue
            name = self.settings.INPUTS[self.settings.SENSOR_INPUTS[at]][2]
            self.say("# percent %s %s" % (name, "unknown" if sensor.tenths is None else tenths_text(sensor.tenths)))

    def hear(self, character):
        self.console.hear(character)


def tenths_text(tenths):
    return "%d.%d" % (tenths // 10, tenths % 10)
