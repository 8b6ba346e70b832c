# What of the settings may be changed while the program runs, within the guards: limits, doses, calibrations, what lamps go by.
from engine import P_FOLLOWER, P_PULSE_SOAK, P_SINGLE_DOSE, P_TIMER, P_UNTIL_WET, P_VETO, dose_s

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


class Settable:
    def __init__(self, settings):
        self.settings = settings

    def texts(self):
        # A line for each thing that can be set, as it stands. Several probes together have their tables elsewhere.
        settings = self.settings
        texts = [self.line_text(at) for at in range(len(settings.CONFIG.lines))]
        texts += [self.contact_text(at) for at in range(len(settings.CONTACTS))]
        texts += [self.probe_text(at) for at in range(len(settings.SOURCES)) if isinstance(settings.SOURCES[at], int)]
        for at in range(len(settings.WATCHES)):
            watch = settings.WATCHES[at]
            texts.append("# limits lamp %d dry %s wet %s" % (at + 1, percent_text(watch.dry), percent_text(watch.wet)))
        return texts

    def line_text(self, line):
        config = self.settings.CONFIG.lines[line]
        text = "# limits %d" % (line + 1)
        for name in SETTABLE.get(config.program.kind, ()):
            text += " %s %s" % (name, self.value_text(config.program, name))
        return text + " water %s" % ("on" if config.enabled else "off")

    def contact_text(self, at):
        one = self.settings.CONTACTS[at]
        limits = " start %s stop %s" % (percent_text(one.start_tenths), percent_text(one.stop_tenths)) if one.kind == C_PERMIT else ""
        return "# limits contact %d%s switch %s" % (at + 1, limits, "on" if one.enabled else "off")

    def probe_text(self, at):
        sensor = self.settings.CONFIG.sensors[at]
        table = ",".join(["%d:%d" % point for point in sensor.table])
        about = (at + 1, table, sensor.soil_low_raw, sensor.soil_high_raw, percent_text(sensor.leap_tenths))
        return "# limits probe %d table %s soil %d:%d leap %s" % about

    def value_text(self, program, name):
        if name == "dose":
            return str(program.dose_ml)
        return percent_text(program.start_tenths if name == "start" else program.stop_tenths)

    def apply_lamp(self, at, name, value):
        watches = self.settings.WATCHES
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
        contacts = self.settings.CONTACTS
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
        sources = self.settings.SOURCES
        if not 0 <= at < len(sources) or not isinstance(sources[at], int):
            return "no such probe"
        sensor = self.settings.CONFIG.sensors[at]
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
        if not 0 <= line < len(self.settings.CONFIG.lines):
            return "no such line"
        config = self.settings.CONFIG.lines[line]
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
