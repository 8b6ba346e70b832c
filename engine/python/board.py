# What every board's program does alike: reads each second, asks the engine, switches, prints, and listens at the console.
# The settings say what is read and switched. Pins, clock and console come from outside, so that it runs on a computer as well.
from engine import DAY_S, Engine, Fields, ORDER_STOP, ORDER_UNLOCK, ORDER_WATER


REASON_NAMES = {
    0: "below-start",
    1: "timer",
    2: "dry-enough",
    3: "follows",
    4: "fallback",
    5: "order",
    6: "dose-done",
    7: "above-stop",
    8: "wet-veto",
    9: "stop-order",
    10: "max-run",
    11: "daily-max",
    12: "min-interval",
    13: "tank-low",
    14: "tank-unknown",
    15: "stale",
    16: "implausible",
    17: "no-reading",
    18: "unsettled",
    19: "waiting-for-rise",
    20: "locked",
    21: "other-line-runs",
    22: "clock-went-back",
    23: "not-calibrated",
    24: "not-below-start",
    25: "soaking",
    26: "pulses-used",
    27: "dose-interval",
    28: "not-due",
    29: "too-wet",
    30: "leader-rests",
    31: "alert-only",
    32: "switched-off",
    34: "clock-unknown",
    35: "outside-hours",
    36: "not-dark",
    37: "light-unknown",
    38: "air-warm",
    39: "air-unknown",
    40: "soil-cold",
    41: "soil-temperature-unknown",
    42: "rain",
    43: "rain-unknown",
    44: "battery-low",
    45: "battery-unknown",
    46: "already-runs",
    48: "below-stop",
    49: "out-of-soil",
    50: "bad-order",
    51: "unsound-settings",
    52: "contradiction",
    53: "skip-switch",
    54: "skip-unknown",
}


class Board:
    # read(pin, is_contact) gives counts or 0 and 1; switch(pin, level) sets an output; say(text) prints a line.
    def __init__(self, settings, read, switch, say):
        self.settings = settings
        self.read = read
        self.switch = switch
        self.say = say
        # Outputs off before anything else.
        for at in range(len(settings.OUTPUTS)):
            self.switch_line(at, False)
        self.engine = Engine(settings.CONFIG)
        self.now_s = 0
        self.clock_at_boot = None
        self.weekday_at_boot = 0
        self.orders = []
        self.shown = 0
        self.typed = ""

    def switch_line(self, at, is_on):
        pin, is_active_low, _ = self.settings.OUTPUTS[at]
        self.switch(pin, 0 if is_on == is_active_low else 1)

    def read_input(self, at):
        pin, is_contact, _ = self.settings.INPUTS[at]
        return self.read(pin, is_contact)

    def clock(self):
        if self.clock_at_boot is None:
            return None
        local = self.clock_at_boot + self.now_s % DAY_S
        return (local % DAY_S, (self.weekday_at_boot + self.now_s // DAY_S + local // DAY_S) % 7)

    # One second later: read, decide, switch, and every other second print.
    def second(self):
        self.now_s += 1
        settings = self.settings
        around = []
        for light, rain, skip in settings.AROUND_INPUTS:
            about = [None if at is None else self.read_input(at) for at in (light, rain, skip)]
            around.append((None, about[0], about[1], None, about[2]))
        told = Fields(
            now_s=self.now_s,
            sensors=[(self.read_input(at), False) for at in settings.SENSOR_INPUTS],
            tanks=[self.read_input(at) for at in settings.TANK_INPUTS],
            clock=self.clock(),
            around=around,
            battery_mv=None,
            orders=self.orders,
        )
        self.orders = []
        on = self.engine.step(told)[0]
        for at in range(len(on)):
            self.switch_line(at, on[at])
        self.shown += 1
        if self.shown >= 2:
            self.print_readings()
            self.shown = 0

    def print_readings(self):
        # "c2=1512 l1=2240": the names are those of the garden's channels.
        inputs = self.settings.INPUTS
        if inputs:
            self.say(" ".join("%s=%d" % (inputs[at][2], self.read_input(at)) for at in range(len(inputs))))

    def print_why(self):
        for at in range(len(self.engine.lines)):
            line = self.engine.lines[at]
            runs = line.run is not None
            text = "# line %d %s: %s, ml of the day %d" % (
                at + 1,
                "runs" if runs else "rests",
                REASON_NAMES.get(line.run.reason if runs else line.reason, "unknown"),
                line.day_sum_ml,
            )
            self.say(text + (", locked" if line.locked else ""))

    # One character from the console.
    def hear(self, character):
        if character == "\r":
            return
        if character == "\n":
            typed = self.typed
            self.typed = ""
            if typed:
                self.obey(typed)
        elif len(self.typed) < 39:
            self.typed += character

    def obey(self, typed):
        words = typed.split()
        numbers = [int(one) if one.isdigit() and len(one) < 9 else None for one in words]
        command = words[0] if words else ""
        if command == "?":
            self.say("# ? raw why version")
            self.say("# test pump LINE SECONDS, stop LINE, unlock LINE")
            self.say("# clock SECOND-OF-DAY WEEKDAY (Monday 0)")
        elif command == "raw":
            self.print_readings()
        elif command == "why":
            self.print_why()
        elif command == "version":
            self.say("# engine 1")
        elif words[:2] == ["test", "pump"]:
            line = numbers[2] if len(numbers) > 2 else None
            seconds = numbers[3] if len(numbers) > 3 else None
            lines = self.settings.CONFIG.lines
            if line is None or seconds is None or not 1 <= line <= len(lines) or not 1 <= seconds <= 3600:
                self.say("# test pump LINE SECONDS")
            else:
                # An order by hand: the guards hold it, and it counts in the day's sum.
                self.order(ORDER_WATER, line, seconds * lines[line - 1].flow_ml_per_min // 60)
        elif command == "stop":
            self.order(ORDER_STOP, numbers[1] if len(numbers) > 1 else None, 0)
        elif command == "unlock":
            self.order(ORDER_UNLOCK, numbers[1] if len(numbers) > 1 else None, 0)
        elif command == "clock":
            self.set_clock(numbers)
        else:
            self.say("# not understood; ? for help")

    def order(self, kind, line, volume_ml):
        if line is None or not 1 <= line <= len(self.settings.CONFIG.lines) or len(self.orders) >= 2:
            self.say("# no such line")
        else:
            self.orders.append((kind, line - 1, volume_ml))

    def set_clock(self, numbers):
        second = numbers[1] if len(numbers) > 1 else None
        weekday = numbers[2] if len(numbers) > 2 else None
        if second is None or second >= DAY_S or weekday is None or weekday > 6:
            self.say("# clock SECOND-OF-DAY WEEKDAY")
            return
        since_boot = self.now_s % DAY_S
        days = self.now_s // DAY_S + (1 if second < since_boot else 0)
        self.clock_at_boot = (second - since_boot) % DAY_S
        self.weekday_at_boot = (weekday - days) % 7
