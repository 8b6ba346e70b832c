# What lamps and buzzers of a board say of their plots. It means the same as core/src/control/signals. Moisture and degrees in tenths; None: unknown, or not set.
from engine import IMPLAUSIBLE, OUT_OF_SOIL, STALE, TANK_LOW, TANK_UNKNOWN, Fields, doubt_of, tank_trouble

# States that a plot can be in. Numbers never change.
CONTENT = 0
LOCKED = 1
PROBE_FAULT = 2
TANK_IS_LOW = 3
TOO_COLD = 4
TOO_HOT = 5
TOO_DRY = 6
TOO_WET = 7
NIGHT = 8
UNKNOWN = 9
WATERING = 10

STATE_NAMES = ("content", "locked", "probe-fault", "tank-low", "too-cold", "too-hot", "too-dry", "too-wet", "night", "unknown", "watering")
# Those that take nothing from a plot's well-being.
HARMLESS = (NIGHT, WATERING, CONTENT)

STEADY = 0
SLOW_BLINK = 1
FAST_BLINK = 2
SLOW_MS = 1000
FAST_MS = 250

# How often a buzzer sounds, s: not, when a state begins, and again each so many seconds.
SILENT = 0
ONCE = 1
EVERY_S = (None, None, 60, 600, 3600, 1)
BEEP_MS = 200
# So long each colour stands in a test.
TEST_MS = 1000

FAULTS = (STALE, IMPLAUSIBLE, OUT_OF_SOIL)


def below(value, limit):
    return value is not None and limit is not None and value < limit


def above(value, limit):
    return value is not None and limit is not None and value > limit


def holds(state, f, limits):
    if state == LOCKED:
        return f.locked
    if state == WATERING:
        return f.watering
    if state == PROBE_FAULT:
        return f.faulty
    if state == TANK_IS_LOW:
        return f.tank_low
    if state == TOO_COLD:
        return below(f.soil, limits.soil_low) or below(f.air, limits.air_low)
    if state == TOO_HOT:
        return above(f.soil, limits.soil_high) or above(f.air, limits.air_high)
    if state == TOO_DRY:
        return below(f.tenths, limits.dry)
    if state == TOO_WET:
        return f.tenths is not None and f.tenths >= limits.wet
    if state == NIGHT:
        return f.dark is True
    if state == UNKNOWN:
        return f.unknown
    # Content, only where nothing else holds but what does no harm, shown or not.
    return not any([holds(one, f, limits) for one in range(len(STATE_NAMES)) if one not in HARMLESS])


def rule_of(rules, f, limits):
    # The rule that speaks: the first that holds. None: the lamp is dark.
    for rule in rules:
        if holds(rule[0], f, limits):
            return rule
    return None


def facts_of(watch, engine, sense):
    # What is so in a plot at this second.
    sensor = None if watch.sensor is None else engine.sensors[watch.sensor]
    doubt = None if watch.sensor is None else doubt_of(sensor, engine.now_s, engine.config.sensors[watch.sensor])
    known = watch.sensor is not None and doubt is None
    troubles = [tank_trouble(engine.tanks[at], engine.now_s, engine.config.tanks[at]) for at in watch.tanks]
    light = sense(watch.light)
    return Fields(
        locked=any([engine.lines[at].locked for at in watch.lines]),
        watering=any([engine.lines[at].run is not None for at in watch.lines]),
        faulty=doubt in FAULTS,
        unknown=watch.blind or not known or TANK_UNKNOWN in troubles,
        tank_low=TANK_LOW in troubles,
        tenths=sensor.tenths if known else None,
        soil=sense(watch.soil),
        air=sense(watch.air),
        dark=None if light is None or watch.dark_below is None else light < watch.dark_below,
    )


class Lamps:
    # switch(output, is_on) sets one of their pins; ring(pin, lights, colours) the lights of a ring.
    def __init__(self, settings, switch, ring=None):
        self.settings = settings
        self.switch = switch
        self.ring = ring
        self.rules = [None] * len(settings.WATCHES)
        # Since when a state stands, s, and when it was last sounded.
        self.since = [0] * len(settings.WATCHES)
        self.beep_until_ms = [None] * len(settings.LAMPS)
        self.testing_since_ms = None

    def look(self, engine, sense, ms):
        # Each second, after the engine.
        for at in range(len(self.settings.WATCHES)):
            watch = self.settings.WATCHES[at]
            rule = rule_of(self.settings.SIGNALS, facts_of(watch, engine, sense), watch)
            before = self.rules[at]
            begins = rule is not None and (before is None or before[0] != rule[0])
            if begins:
                self.since[at] = engine.now_s
            self.rules[at] = rule
            if rule is None or rule[3] == SILENT:
                continue
            every_s = EVERY_S[rule[3]]
            stood_s = engine.now_s - self.since[at]
            if begins or (every_s is not None and stood_s % every_s == 0):
                self.beep(at, ms)

    def beep(self, watch, ms):
        for at in range(len(self.settings.LAMPS)):
            kind, of, _ = self.settings.LAMPS[at]
            if kind == "buzzer" and of == watch:
                self.beep_until_ms[at] = ms + BEEP_MS

    def test(self, ms):
        self.testing_since_ms = ms

    def show(self, ms):
        # Each turn of the program. ms of any clock that rises.
        tested = None
        if self.testing_since_ms is not None:
            tested = (ms - self.testing_since_ms) // TEST_MS
            if tested > 3 or tested < 0:
                self.testing_since_ms = tested = None
        for at in range(len(self.settings.LAMPS)):
            kind, of, outputs = self.settings.LAMPS[at]
            if kind == "buzzer":
                until = self.beep_until_ms[at]
                sounds = until is not None and 0 < until - ms <= BEEP_MS
                self.switch(outputs[0], sounds or (tested == 0 and ms - self.testing_since_ms < BEEP_MS))
                continue
            colours = self.colours(self.rules[of], ms) if tested is None else (1, 2, 4, 7)[tested]
            if kind == "ring":
                self.ring(outputs[0][0], outputs[0][1], colours)
            elif kind == "one":
                # One colour lights for everything but content and the night.
                rule = self.rules[of]
                is_lit = colours != 0 and (tested is not None or rule[0] != CONTENT)
                self.switch(outputs[0], is_lit)
            else:
                for bit in range(3):
                    self.switch(outputs[bit], (colours >> bit) & 1 == 1)

    def colours(self, rule, ms):
        # Bits: red, green, blue.
        if rule is None:
            return 0
        _, lamp, rhythm, _ = rule
        half_ms = SLOW_MS if rhythm == SLOW_BLINK else FAST_MS
        return lamp if rhythm == STEADY or (ms // half_ms) % 2 == 0 else 0

    def state_name(self, at):
        rule = self.rules[at]
        return "nothing" if rule is None else STATE_NAMES[rule[0]]
