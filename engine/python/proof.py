# Runs the engine on a computer: settings and calls come in as numbers, answers go out as numbers. The same text as for engine/cpp/proof.cpp.
from contacts import C_PERMIT, REST, Contacts
from engine import Engine, Fields
from signals import rule_of


class Numbers:
    def __init__(self, words):
        self.words = words
        self.at = 0

    def next(self):
        word = self.words[self.at]
        self.at += 1
        return None if word == "-" else int(word)

    def flag(self):
        return self.next() != 0


def read_sensor(n):
    table = [(n.next(), n.next()) for _ in range(n.next())]
    return Fields(
        table=table,
        low_raw=n.next(),
        high_raw=n.next(),
        soil_low_raw=n.next(),
        soil_high_raw=n.next(),
        stale_after_s=n.next(),
        leap_tenths=n.next(),
        settle_s=n.next(),
    )


def read_tank(n):
    return Fields(
        minimum_raw=n.next(),
        falls_with_water=n.flag(),
        low_raw=n.next(),
        high_raw=n.next(),
        stale_after_s=n.next(),
    )


def read_program(n):
    program = Fields(
        kind=n.next(),
        start_tenths=n.next(),
        stop_tenths=n.next(),
        dose_ml=n.next(),
        soak_s=n.next(),
        most_pulses=n.next(),
        rest_s=n.next(),
        interval_s=n.next(),
        interrupts=n.flag(),
        leader=n.next(),
        share_percent=n.next(),
        every_nth=n.next(),
    )
    program.slots = [(n.next(), n.next()) for _ in range(n.next())]
    return program


def read_conditions(n):
    hours = (n.next(), n.next())
    return Fields(
        hours=None if hours[0] is None else hours,
        dark_below=n.next(),
        air_below_tenths_c=n.next(),
        soil_above_tenths_c=n.next(),
        no_rain=n.flag(),
        battery_above_mv=n.next(),
        no_skip=n.flag(),
    )


def read_line(n):
    line = Fields(
        enabled=n.flag(),
        contradicts=n.flag(),
        sensor=n.next(),
        tank=n.next(),
        flow_ml_per_min=n.next(),
        tube_ms=n.next(),
    )
    line.program = read_program(n)
    line.fallback_ml = n.next()
    line.conditions = read_conditions(n)
    line.max_run_s = n.next()
    line.daily_max_ml = n.next()
    line.min_interval_s = n.next()
    line.rise_tenths = n.next()
    line.response_s = n.next()
    line.no_rise_times = n.next()
    line.proves_below_tenths = n.next()
    return line


def read_config(n):
    config = Fields(sensors=[read_sensor(n) for _ in range(n.next())])
    config.tanks = [read_tank(n) for _ in range(n.next())]
    config.lines = [read_line(n) for _ in range(n.next())]
    config.at_once = n.next()
    return config


def read_kept(n):
    kept = Fields(locked=n.flag(), no_rise=n.next(), pulses=n.next(), watch_tenths=n.next())
    kept.hours_ml = [n.next() for _ in range(n.next())]
    return kept


def read_call(n, config):
    told = Fields(now_s=n.next(), sensors=[], tanks=[])
    for _ in config.sensors:
        raw, unsettled = n.next(), n.flag()
        told.sensors.append(None if raw is None else (raw, unsettled))
    told.tanks = [n.next() for _ in config.tanks]
    clock = (n.next(), n.next())
    told.clock = None if clock[0] is None else clock
    told.around = [(n.next(), n.next(), n.next(), n.next(), n.next()) for _ in config.lines]
    told.battery_mv = n.next()
    told.orders = [(n.next(), n.next(), n.next()) for _ in range(n.next())]
    return told


def read_contact(n):
    one = Fields(enabled=n.flag(), contradicts=n.flag(), sensor=n.next(), kind=n.next())
    if one.kind == C_PERMIT:
        one.start_tenths = n.next()
        one.stop_tenths = n.next()
        one.rest_permits = n.flag()
    else:
        one.begins = (n.next(), n.next())
        one.ends = (n.next(), n.next())
        one.dark_below = n.next()
        one.bright_above = n.next()
    one.conditions = read_conditions(n)
    one.most_on_s = n.next()
    one.least_off_s = n.next()
    one.day_max_s = n.next()
    return one


def read_contact_call(n, sensors, contacts):
    told = Fields(now_s=n.next(), sensors=[], tanks=[], orders=[], around=[])
    for _ in range(sensors):
        raw, unsettled = n.next(), n.flag()
        told.sensors.append(None if raw is None else (raw, unsettled))
    clock = (n.next(), n.next())
    told.clock = None if clock[0] is None else clock
    sun = (n.next(), n.next())
    told.battery_mv = n.next()
    around = [(n.next(), n.next(), n.next(), n.next(), n.next()) for _ in range(contacts)]
    return told, around, None if sun[0] is None else sun


def cell(value):
    return "-" if value is None else str(int(value))


def answer_text(engine, answer):
    on, events, wake, write = answer
    why = [line.run.reason if line.run is not None else line.reason for line in engine.lines]
    parts = [" ".join(cell(one) for one in list(on) + why + [wake, write])]
    for event in events:
        parts.append(" ".join(cell(one) for one in event))
    return " : ".join(parts)


def contacts_text(contacts, answer):
    driven, events, write = answer
    states = [(1 if one.is_on else 0) + (REST if one.is_resting else 0) for one in contacts.contacts]
    why = [one.reason for one in contacts.contacts]
    parts = [" ".join([cell(one) for one in states + driven + why + [write]])]
    for event in events:
        parts.append(" ".join([cell(one) for one in event]))
    return " : ".join(parts)


class Proof:
    # One row at a time; gives the answer to a call, else None.
    def __init__(self):
        self.engine = None
        self.contacts = None
        self.rules = []
        self.limits = None

    def row(self, text):
        words = text.split()
        n = Numbers(words)
        n.at = 1
        if words[0] == "T":
            self.engine = Engine(read_config(n))
        elif words[0] == "B":
            lines = self.engine.config.lines
            self.engine.boot([read_kept(n) for _ in lines], 0)
        elif words[0] == "L":
            self.rules = [(n.next(), n.next(), n.next(), n.next()) for _ in range(n.next())]
            names = ("dry", "wet", "soil_low", "soil_high", "air_low", "air_high")
            self.limits = Fields(**dict([(name, n.next()) for name in names]))
        elif words[0] == "F":
            facts = Fields(locked=n.flag(), watering=n.flag(), faulty=n.flag(), unknown=n.flag(), tank_low=n.flag())
            facts.tenths, facts.soil, facts.air = n.next(), n.next(), n.next()
            dark = n.next()
            facts.dark = None if dark is None else dark != 0
            rule = rule_of(self.rules, facts, self.limits)
            return cell(None if rule is None else rule[0])
        elif words[0] == "U":
            sensors = [read_sensor(n) for _ in range(n.next())]
            self.engine = Engine(Fields(sensors=sensors, tanks=[], lines=[], at_once=1))
            self.contacts = Contacts([read_contact(n) for _ in range(n.next())], sensors)
        elif words[0] == "D":
            self.engine.boot([], 0)
            self.contacts.boot([[n.next() for _ in range(n.next())] for _ in self.contacts.configs], 0)
        elif words[0] == "E":
            contacts = self.contacts
            told, around, sun = read_contact_call(n, len(self.engine.sensors), len(contacts.configs))
            self.engine.step(told)
            return contacts_text(contacts, contacts.step(told, around, sun, self.engine.sensors))
        else:
            return answer_text(self.engine, self.engine.step(read_call(n, self.engine.config)))
        return None
