# What a board's contacts do: outputs that hold a state, a permit in series with somebody else's timer and a grow light. It means the same as
# core/src/control/contacts: engine/contacts holds what it must answer. Whole numbers only; times in s since boot; None: unknown.
from engine import (
    ABOVE_STOP,
    AIR_UNKNOWN,
    BATTERY_UNKNOWN,
    BELOW_START,
    BELOW_STOP,
    CLOCK_UNKNOWN,
    CLOCK_WENT_BACK,
    CONTRADICTION,
    DAY_S,
    HOUR_S,
    HOURS,
    LIGHT_UNKNOWN,
    MOST,
    NO_READING,
    NOT_BELOW_START,
    NOT_CALIBRATED,
    NOT_DARK,
    NOWHERE,
    OUTSIDE_HOURS,
    RAIN_UNKNOWN,
    SKIP_UNKNOWN,
    SOIL_TEMPERATURE_UNKNOWN,
    SWITCHED_OFF,
    UNSETTLED,
    UNSOUND_SETTINGS,
    Fields,
    count_in,
    doubt_of,
    follows,
    is_between,
    is_unsettled,
    is_whole,
    unmet_condition,
)

# Further reasons, which only contacts have.
IN_HOURS = 55
DARK = 56
SUN_UNKNOWN = 57
MAX_ON = 58
MIN_OFF = 59
DAY_MAX_ON = 60

# What is not known leaves a contact at rest, in place of switching it off.
UNKNOWNS = (
    CLOCK_UNKNOWN,
    LIGHT_UNKNOWN,
    SUN_UNKNOWN,
    AIR_UNKNOWN,
    SOIL_TEMPERATURE_UNKNOWN,
    RAIN_UNKNOWN,
    BATTERY_UNKNOWN,
    SKIP_UNKNOWN,
)

C_PERMIT = 0
C_LIGHT = 1

# The moments of a light: by the clock, or so long after the sun rises or sets.
BY_CLOCK = 0
BY_SUNRISE = 1
BY_SUNSET = 2

WENT_ON = 0
WENT_OFF = 1

OFF = 0
ON = 1
REST = 2

MOST_KEPT_S = 90000


def rests_on(config):
    # What it does by itself, without current.
    return config.kind == C_PERMIT and config.rest_permits


def is_sound_contact(config):
    c = config.conditions
    numbers = [config.most_on_s, config.least_off_s, config.day_max_s]
    if config.kind == C_PERMIT:
        numbers.extend((config.start_tenths, config.stop_tenths))
    if config.sensor is not None:
        numbers.append(config.sensor)
    if c.hours is not None:
        numbers.extend(c.hours)
    if c.battery_above_mv is not None:
        numbers.append(c.battery_above_mv)
    for number in numbers:
        if not is_whole(number, 0, MOST):
            return False
    return True


def sound_hours(kept, config):
    # Seconds by age in hours; what cannot have been kept is taken for a day that has had all it may.
    if kept is None:
        return []
    if isinstance(kept, list) and len(kept) <= HOURS:
        if all([is_whole(one, 0, MOST_KEPT_S) for one in kept]):
            return list(kept)
    return [max(0, config.day_max_s)]


def edge_second(edge, sun):
    # The second of the day that a moment falls on; None while the sun is not known.
    by, s = edge
    if by == BY_CLOCK:
        return s
    if sun is None:
        return None
    return (sun[0 if by == BY_SUNRISE else 1] + s) % DAY_S


class Contacts:
    # Settings by contact, those of the sensors, what was kept by contact.
    def __init__(self, configs, sensor_configs, kept=(), now_s=0):
        self.configs = configs
        self.sensor_configs = sensor_configs
        self.boot(kept, now_s)

    def boot(self, kept, now_s):
        # All at rest; boot counts as the end of a stretch.
        self.now_s = now_s
        self.contacts = []
        for at in range(len(self.configs)):
            config = self.configs[at]
            hours = sound_hours(kept[at] if at < len(kept) else None, config)
            hours = hours + [0] * (HOURS - len(hours))
            self.contacts.append(
                Fields(
                    is_on=rests_on(config),
                    is_resting=True,
                    since_s=now_s,
                    day_hour=now_s // HOUR_S,
                    day_ml=hours,
                    day_sum_ml=sum(hours),
                    held=None,
                    reason=NO_READING,
                )
            )

    def remembered(self):
        # One that is on counts to the end of its hour, so that a reboot forgets nothing.
        kept = []
        for one in self.contacts:
            hours = list(one.day_ml)
            if one.is_on:
                hours[0] = max(hours[0], HOUR_S)
            kept.append(hours)
        return kept

    # One look, after the engine's own at this second. sun: seconds of the day at which it rises and sets; around by contact; sensors of the engine.
    # Gives by contact whether its coil is driven, events (kind, contact, second, reason, seconds on), and whether to write down what is kept.
    def step(self, told, around, sun, sensors):
        if not follows(told.now_s, self.now_s):
            return self.after_clock_went_wrong(told.now_s)
        if sun is not None and not (is_whole(sun[0], 0, DAY_S - 1) and is_whole(sun[1], 0, DAY_S - 1)):
            sun = None
        passed_s = told.now_s - self.now_s
        self.now_s = told.now_s
        events = []
        write = False
        for at in range(len(self.contacts)):
            one = self.contacts[at]
            config = self.configs[at]
            was_on, since_s, hour = one.is_on, one.since_s, one.day_hour
            count_in(one, told.now_s, passed_s if was_on else 0)
            about = around[at] if at < len(around) else NOWHERE
            if is_sound_contact(config):
                state, reason = self.decide(one, config, told, about, sun, sensors)
            else:
                state, reason = REST, UNSOUND_SETTINGS
            self.settle(one, config, state, reason)
            if one.is_on and not was_on:
                events.append((WENT_ON, at, told.now_s, reason))
            elif was_on and not one.is_on:
                events.append((WENT_OFF, at, told.now_s, reason, told.now_s - since_s))
            write = write or one.is_on != was_on or (one.day_hour != hour and one.day_sum_ml > 0)
        return self.driven(), events, write

    def driven(self):
        # A coil is driven only where the contact must do other than it does by itself.
        return [self.contacts[at].is_on != rests_on(self.configs[at]) for at in range(len(self.contacts))]

    def settle(self, one, config, state, reason):
        is_on = rests_on(config) if state == REST else state == ON
        is_resting = state == REST
        # A stretch of ours begins where one at rest ends.
        if is_on != one.is_on or (is_on and is_resting != one.is_resting):
            one.since_s = self.now_s
        one.is_on = is_on
        one.is_resting = is_resting
        one.reason = reason

    def decide(self, one, config, told, about, sun, sensors):
        # On, off or at rest, and why.
        if not config.enabled:
            return REST, SWITCHED_OFF
        if config.contradicts:
            return REST, CONTRADICTION
        if config.kind == C_LIGHT:
            state, reason = self.light(one, config, told, about[1], sun)
        else:
            state, reason = self.permit(one, config, sensors)
        if state != ON:
            return state, reason
        unmet = unmet_condition(config.conditions, about, told)
        if unmet is not None:
            return (REST if unmet in UNKNOWNS else OFF), unmet
        guard = self.guard_of(one, config)
        return (ON, reason) if guard is None else (OFF, guard)

    def light(self, one, config, told, light, sun):
        if told.clock is None:
            return REST, CLOCK_UNKNOWN
        begins = edge_second(config.begins, sun)
        ends = edge_second(config.ends, sun)
        if begins is None or ends is None:
            return REST, SUN_UNKNOWN
        # An edge that moves with the sun may pass the other one: hours longer than a stretch are taken for turned round.
        moves = config.begins[0] != BY_CLOCK or config.ends[0] != BY_CLOCK
        if moves and (ends - begins) % DAY_S > config.most_on_s:
            return OFF, OUTSIDE_HOURS
        if not is_between(begins, ends, told.clock[0]):
            # What the cell said yesterday does not tell of today.
            one.held = None
            return OFF, OUTSIDE_HOURS
        if config.dark_below is None:
            one.held = None
            return ON, IN_HOURS
        if light is None:
            return REST, LIGHT_UNKNOWN
        if light < config.dark_below:
            one.held = True
        elif light > config.bright_above or one.held is None:
            one.held = False
        return (ON, DARK) if one.held else (OFF, NOT_DARK)

    def permit(self, one, config, sensors):
        # held: the soil counts as wet, from the stop limit up until it has fallen below the start limit.
        if config.sensor is None or config.sensor >= len(self.sensor_configs):
            return REST, NOT_CALIBRATED
        settings = self.sensor_configs[config.sensor]
        sensor = sensors[config.sensor]
        why = doubt_of(sensor, self.now_s, settings)
        if why is not None:
            return REST, why
        is_low = sensor.tenths < config.start_tenths
        if sensor.tenths >= config.stop_tenths:
            is_wet = True
        elif is_low:
            is_wet = False
        else:
            # With nothing seen before it is taken for wet: a reboot lets nothing through that was forbidden.
            is_wet = True if one.held is None else one.held
        if is_wet:
            one.held = True
            return OFF, ABOVE_STOP if sensor.tenths >= config.stop_tenths else NOT_BELOW_START
        # A plug just pulled may look like dry soil.
        if not (one.is_on and not one.is_resting) and is_unsettled(sensor, self.now_s, settings):
            return OFF, UNSETTLED
        one.held = False
        return ON, BELOW_START if is_low else BELOW_STOP

    def guard_of(self, one, config):
        # Why it may not be on, or not any longer; None when it may.
        for_s = self.now_s - one.since_s
        if one.is_on and not one.is_resting and for_s >= config.most_on_s:
            return MAX_ON
        if one.day_sum_ml >= config.day_max_s:
            return DAY_MAX_ON
        # What permits at rest was not off before.
        if not one.is_on and for_s < config.least_off_s:
            return MIN_OFF
        return None

    def after_clock_went_wrong(self, now_s):
        # Nothing can be compared with now: at rest, and begin as after a boot.
        events = []
        for at in range(len(self.contacts)):
            one = self.contacts[at]
            if one.is_on != rests_on(self.configs[at]):
                if one.is_on:
                    events.append((WENT_OFF, at, self.now_s, CLOCK_WENT_BACK, self.now_s - one.since_s))
                else:
                    events.append((WENT_ON, at, self.now_s, CLOCK_WENT_BACK))
        self.boot(self.remembered(), now_s if follows(now_s, 0) else self.now_s)
        for one in self.contacts:
            one.reason = CLOCK_WENT_BACK
        return [False] * len(self.contacts), events, True
