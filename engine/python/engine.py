# The engine that decides when water lines run. It means the same as core/src/control/engine: engine/vectors holds what it must answer.
# Whole numbers only, division truncated toward zero. Times in s since boot, moisture and degrees in tenths, volumes in ml, volts in mV; None: unknown.

MOST = 2147483647
MOST_LEAP_S = 34560000
MOST_ORDER_ML = 100000
MOST_KEPT = 1000
DAY_S = 86400
HOUR_S = 3600
HOURS = 25
SLOT_WINDOW_S = 3600
SERVED_S = 72000
OWED_S = 3600
# A faulty probe is given this long to come back before the fallback waters.
FAULTY_S = 3600

# Why the engine does what it does. Numbers never change.
BELOW_START = 0
TIMER = 1
DRY_ENOUGH = 2
FOLLOWS = 3
FALLBACK = 4
BY_ORDER = 5
DOSE_DONE = 6
ABOVE_STOP = 7
WET_VETO = 8
STOP_ORDER = 9
MAX_RUN = 10
DAILY_MAX = 11
MIN_INTERVAL = 12
TANK_LOW = 13
TANK_UNKNOWN = 14
STALE = 15
IMPLAUSIBLE = 16
NO_READING = 17
UNSETTLED = 18
WAITING_FOR_RISE = 19
LOCKED = 20
OTHER_LINE_RUNS = 21
CLOCK_WENT_BACK = 22
NOT_CALIBRATED = 23
NOT_BELOW_START = 24
SOAKING = 25
PULSES_USED = 26
DOSE_INTERVAL = 27
NOT_DUE = 28
TOO_WET = 29
LEADER_RESTS = 30
ALERT_ONLY = 31
SWITCHED_OFF = 32
CLOCK_UNKNOWN = 34
OUTSIDE_HOURS = 35
NOT_DARK = 36
LIGHT_UNKNOWN = 37
AIR_WARM = 38
AIR_UNKNOWN = 39
SOIL_COLD = 40
SOIL_TEMPERATURE_UNKNOWN = 41
RAIN = 42
RAIN_UNKNOWN = 43
BATTERY_LOW = 44
BATTERY_UNKNOWN = 45
ALREADY_RUNS = 46
BELOW_STOP = 48
OUT_OF_SOIL = 49
BAD_ORDER = 50
UNSOUND_SETTINGS = 51
CONTRADICTION = 52
SKIP_SWITCH = 53
SKIP_UNKNOWN = 54

P_ALERT_ONLY = 0
P_TIMER = 1
P_PULSE_SOAK = 2
P_UNTIL_WET = 3
P_SINGLE_DOSE = 4
P_VETO = 5
P_FOLLOWER = 6

STARTED = 0
STOPPED = 1
HELD = 2
REFUSED = 3
WAS_LOCKED = 4
UNLOCKED = 5

ORDER_WATER = 0
ORDER_STOP = 1
ORDER_UNLOCK = 2


class Fields:
    # A set of named values: settings, states, readings.
    def __init__(self, **values):
        for name in values:
            setattr(self, name, values[name])


def truncated(value, by):
    return value // by if value >= 0 else -(-value // by)


# ---- Run time and volume


def dose_s(line, volume_ml):
    ms = volume_ml * 60000 // line.flow_ml_per_min + line.tube_ms
    return max(1, (ms + 500) // 1000)


def given_ml(line, ran_s):
    # Nothing comes before the tube is full.
    return max(0, ran_s * 1000 - line.tube_ms) * line.flow_ml_per_min // 60000


def counted_ml(line, ran_s):
    # As if the tube were full, rounded up.
    return (ran_s * line.flow_ml_per_min + 59) // 60


# ---- The border: what cannot be is cut off, towards less water


def is_whole(value, least, most):
    return isinstance(value, int) and least <= value <= most


def follows(now_s, before_s):
    return is_whole(now_s, 0, MOST) and now_s >= before_s and now_s - before_s <= MOST_LEAP_S


def is_sound_sensor(one):
    points = one.table
    if not 2 <= len(points) <= 8:
        return False
    for at in range(len(points)):
        if not is_whole(points[at][1], 0, 1000) or (at > 0 and points[at][0] <= points[at - 1][0]):
            return False
    return one.stale_after_s >= 0 and one.leap_tenths >= 0 and one.settle_s >= 0


def is_sound_line(line, config):
    c = line.conditions
    p = line.program
    numbers = [
        line.tube_ms,
        line.fallback_ml,
        line.max_run_s,
        line.daily_max_ml,
        line.min_interval_s,
        line.rise_tenths,
        line.response_s,
        line.proves_below_tenths,
        p.start_tenths,
        p.stop_tenths,
        p.dose_ml,
        p.soak_s,
        p.most_pulses,
        p.rest_s,
        p.interval_s,
        p.share_percent,
        p.every_nth,
    ]
    for slot in p.slots:
        numbers.extend(slot)
    if c.hours is not None:
        numbers.extend(c.hours)
    if c.battery_above_mv is not None:
        numbers.append(c.battery_above_mv)
    for place in (line.sensor, line.tank):
        if place is not None:
            numbers.append(place)
    for number in numbers:
        if not is_whole(number, 0, MOST):
            return False
    if not is_whole(line.flow_ml_per_min, 1, MOST) or not is_whole(line.no_rise_times, 1, MOST):
        return False
    if not is_whole(config.at_once, 1, MOST):
        return False
    if line.sensor is not None and line.sensor < len(config.sensors):
        if not is_sound_sensor(config.sensors[line.sensor]):
            return False
    if line.tank is not None and line.tank < len(config.tanks):
        return config.tanks[line.tank].stale_after_s >= 0
    return True


def nothing_kept():
    return Fields(hours_ml=[], locked=False, no_rise=0, pulses=0, watch_tenths=None)


def sound_memory(kept, line):
    # What cannot have been kept is taken for the worst: a day that has had all it may, a dose that raised nothing.
    hours = kept.hours_ml
    sound = isinstance(hours, list) and len(hours) <= HOURS
    if sound:
        for ml in hours:
            if not is_whole(ml, 0, MOST):
                sound = False
    return Fields(
        hours_ml=list(hours) if sound else [max(0, line.daily_max_ml)],
        locked=kept.locked if isinstance(kept.locked, bool) else True,
        no_rise=kept.no_rise if is_whole(kept.no_rise, 0, MOST_KEPT) else max(0, line.no_rise_times - 1),
        pulses=kept.pulses if is_whole(kept.pulses, 0, MOST_KEPT) else MOST_KEPT,
        watch_tenths=kept.watch_tenths if is_whole(kept.watch_tenths, 0, MOST_KEPT) else None,
    )


# ---- The volume of a rolling day, by clock hours since boot, the newest first


def count_in(line, now_s, more_ml):
    hour = now_s // HOUR_S
    passed = hour - line.day_hour
    if passed <= 0 and more_ml == 0:
        return
    if passed > 0:
        fresh = min(HOURS, passed)
        line.day_ml = [0] * fresh + line.day_ml[: HOURS - fresh]
    line.day_ml[0] += more_ml
    line.day_sum_ml = sum(line.day_ml)
    line.day_hour = hour


# ---- Which readings may be acted on


def tenths_of(table, raw):
    if raw <= table[0][0]:
        return table[0][1]
    for at in range(1, len(table)):
        left = table[at - 1]
        right = table[at]
        if raw <= right[0]:
            return left[1] + truncated((raw - left[0]) * (right[1] - left[1]), right[0] - left[0])
    return table[-1][1]


def take_reading(before, raw, at_s, unsettled, one):
    in_soil = one.low_raw <= raw <= one.high_raw and one.soil_low_raw <= raw <= one.soil_high_raw
    tenths = tenths_of(one.table, raw) if in_soil and 2 <= len(one.table) <= 8 else None
    leapt = False
    if before is not None and at_s - before.at_s <= one.stale_after_s:
        if before.tenths is None or tenths is None:
            # Coming back from the rail is a leap as well: somebody has just put the plug in.
            leapt = before.tenths != tenths
        else:
            leapt = abs(tenths - before.tenths) > one.leap_tenths
    leap_s = at_s if leapt else (before.leap_s if before is not None else None)
    return Fields(raw=raw, at_s=at_s, unsettled=unsettled, tenths=tenths, leap_s=leap_s)


def doubt_of(sensor, now_s, one):
    if sensor is None:
        return NO_READING
    if not (now_s - sensor.at_s <= one.stale_after_s and sensor.at_s <= now_s):
        return STALE
    if sensor.tenths is not None:
        return None
    return OUT_OF_SOIL if one.low_raw <= sensor.raw <= one.high_raw else IMPLAUSIBLE


def is_unsettled(sensor, now_s, one):
    return sensor.unsettled or (sensor.leap_s is not None and now_s - sensor.leap_s < one.settle_s)


def tank_trouble(tank, now_s, one):
    if tank is None or not (now_s - tank[1] <= one.stale_after_s and tank[1] <= now_s):
        return TANK_UNKNOWN
    raw = tank[0]
    if not one.low_raw <= raw <= one.high_raw:
        return TANK_UNKNOWN
    holds = raw <= one.minimum_raw if one.falls_with_water else raw >= one.minimum_raw
    return None if holds else TANK_LOW


# ---- Conditions


def is_between(begin, end, at):
    return begin <= at < end if begin <= end else at >= begin or at < end


def unmet_condition(c, about, given):
    # The first condition that is not met; what nobody knows is not met.
    if c.hours is not None:
        if given.clock is None:
            return CLOCK_UNKNOWN
        if not is_between(c.hours[0], c.hours[1], given.clock[0]):
            return OUTSIDE_HOURS
    air, light, rain, soil, skip = about
    if c.dark_below is not None:
        if light is None:
            return LIGHT_UNKNOWN
        if light >= c.dark_below:
            return NOT_DARK
    if c.air_below_tenths_c is not None:
        if air is None:
            return AIR_UNKNOWN
        if air >= c.air_below_tenths_c:
            return AIR_WARM
    if c.soil_above_tenths_c is not None:
        if soil is None:
            return SOIL_TEMPERATURE_UNKNOWN
        if soil <= c.soil_above_tenths_c:
            return SOIL_COLD
    if c.no_rain:
        if rain is None:
            return RAIN_UNKNOWN
        if rain:
            return RAIN
    if c.battery_above_mv is not None:
        if given.battery_mv is None:
            return BATTERY_UNKNOWN
        if given.battery_mv < c.battery_above_mv:
            return BATTERY_LOW
    if c.no_skip:
        if skip is None:
            return SKIP_UNKNOWN
        if skip:
            return SKIP_SWITCH
    return None


# ---- The engine of a board

NOWHERE = (None, None, None, None, None)


class Engine:
    # Settings with lists of sensors, tanks and lines; what was kept, by line.
    def __init__(self, config, kept=(), now_s=0):
        self.config = config
        self.boot(kept, now_s)

    def boot(self, kept, now_s):
        # Every output off; boot counts as a start.
        self.now_s = now_s
        self.sensors = [None] * len(self.config.sensors)
        self.tanks = [None] * len(self.config.tanks)
        self.lines = []
        for at in range(len(self.config.lines)):
            line = self.config.lines[at]
            self.lines.append(self.boot_line(kept[at] if at < len(kept) else nothing_kept(), line, now_s))

    def boot_line(self, told, config, now_s):
        kept = sound_memory(told, config)
        hours = kept.hours_ml + [0] * (HOURS - len(kept.hours_ml))
        watched = kept.watch_tenths is not None
        return Fields(
            run=None,
            last_start_s=now_s,
            last_stop_s=now_s if kept.pulses > 0 else None,
            day_hour=now_s // HOUR_S,
            day_ml=hours,
            day_sum_ml=sum(hours),
            pulses=kept.pulses,
            served={},
            watch_tenths=kept.watch_tenths,
            watch_until_s=now_s + config.response_s if watched else 0,
            no_rise=kept.no_rise,
            locked=kept.locked,
            runs=0,
            last_ran_s=0,
            seen_runs=0,
            owes=None,
            faulty_s=None,
            reason=NO_READING,
        )

    def remembered(self):
        # A run under way counts with all that it may still give, and as one that was watched for its rise.
        kept = []
        for at in range(len(self.lines)):
            line = self.lines[at]
            config = self.config.lines[at]
            hours = list(line.day_ml)
            watch = line.watch_tenths
            if line.run is not None:
                most_s = min(line.run.planned_s, line.run.most_s, config.max_run_s)
                still = counted_ml(config, most_s) - counted_ml(config, self.now_s - line.run.since_s)
                hours[0] += max(0, still)
                if watch is None:
                    watch = self.proves_from(line.run, config)
            kept.append(
                Fields(
                    hours_ml=hours,
                    locked=line.locked,
                    no_rise=line.no_rise,
                    pulses=line.pulses,
                    watch_tenths=watch,
                )
            )
        return kept

    def proves_from(self, run, config):
        # The moisture that a run must raise; None for one that proves nothing.
        begun = run.from_tenths
        if begun is None or begun >= config.proves_below_tenths or begun + config.rise_tenths > 1000:
            return None
        return begun

    # One look. Gives outputs by line, events, the second to call again or None, and whether to write down what is kept.
    def step(self, told):
        if not follows(told.now_s, self.now_s):
            return self.after_clock_went_wrong(told)
        clock = told.clock
        if clock is not None and not (is_whole(clock[0], 0, DAY_S - 1) and is_whole(clock[1], 0, 6)):
            told.clock = None
        before_s = self.now_s
        self.now_s = told.now_s
        for at in range(len(self.sensors)):
            read = told.sensors[at]
            if read is not None:
                self.sensors[at] = take_reading(
                    self.sensors[at], read[0], told.now_s, read[1], self.config.sensors[at]
                )
        for at in range(len(self.tanks)):
            if told.tanks[at] is not None:
                self.tanks[at] = (told.tanks[at], told.now_s)
        events = []
        on = []
        wake = None
        write = False
        for at in range(len(self.lines)):
            line = self.lines[at]
            config = self.config.lines[at]
            before = self.kept_now(line)
            ran_before = line.run is not None
            if not is_sound_line(config, self.config):
                # Numbers that cannot be gone by decide nothing, not even when to look again.
                self.unsound(at, line, events)
                write = write or self.must_write(before, line)
                on.append(False)
                continue
            turn = self.turn_of(at, line, config, told, before_s, events)
            self.step_line(turn)
            on.append(line.run is not None)
            write = write or self.must_write(before, line)
            if line.run is not None or ran_before:
                next_s = told.now_s + 1
            else:
                next_s = self.wake_of(turn)
            if next_s is not None and (wake is None or next_s < wake):
                wake = next_s
        return on, events, wake, write

    def turn_of(self, at, line, config, told, before_s, events):
        has_sensor = config.sensor is not None and config.sensor < len(self.sensors)
        sensor = self.sensors[config.sensor] if has_sensor else None
        settings = self.config.sensors[config.sensor] if has_sensor else None
        tank = None
        if config.tank is not None:
            tank = TANK_UNKNOWN
            if config.tank < len(self.tanks):
                tank = tank_trouble(self.tanks[config.tank], told.now_s, self.config.tanks[config.tank])
        return Fields(
            at=at,
            line=line,
            config=config,
            told=told,
            now_s=told.now_s,
            before_s=before_s,
            events=events,
            ran_before=line.run is not None,
            was_locked=line.locked,
            sensor=sensor,
            settings=settings,
            doubt=doubt_of(sensor, told.now_s, settings) if has_sensor else NOT_CALIBRATED,
            tenths=sensor.tenths if sensor is not None else None,
            tank=tank,
        )

    def kept_now(self, line):
        since = line.run.since_s if line.run is not None else None
        return (since, line.locked, line.no_rise, line.pulses, line.watch_tenths, line.day_hour)

    def must_write(self, before, line):
        after = self.kept_now(line)
        return before[:5] != after[:5] or (before[5] != after[5] and line.day_sum_ml > 0)

    def unsound(self, at, line, events):
        if line.run is not None:
            events.append((STOPPED, at, self.now_s, UNSOUND_SETTINGS, self.now_s - line.run.since_s, 0))
        elif line.reason != UNSOUND_SETTINGS:
            events.append((HELD, at, self.now_s, UNSOUND_SETTINGS))
        line.run = None
        line.reason = UNSOUND_SETTINGS

    def after_clock_went_wrong(self, told):
        # After a step back, or to where no board gets: outputs off, and begin as after a boot.
        events = []
        for at in range(len(self.lines)):
            line = self.lines[at]
            if line.run is not None:
                ran_s = max(0, self.now_s - line.run.since_s)
                ml = given_ml(self.config.lines[at], ran_s)
                events.append((STOPPED, at, self.now_s, CLOCK_WENT_BACK, ran_s, ml))
        self.boot(self.remembered(), told.now_s if follows(told.now_s, 0) else self.now_s)
        for line in self.lines:
            line.reason = CLOCK_WENT_BACK
        return [False] * len(self.lines), events, None, True

    # ---- One line's turn

    def step_line(self, turn):
        line = turn.line
        config = turn.config
        # What has run since the last step counts towards the day.
        ran_ml = 0
        if line.run is not None:
            since = line.run.since_s
            ran_ml = counted_ml(config, turn.now_s - since) - counted_ml(config, turn.before_s - since)
        count_in(line, turn.now_s, ran_ml)
        self.watch_rise(turn)
        if turn.doubt is None:
            line.faulty_s = None
        elif line.faulty_s is None:
            line.faulty_s = turn.now_s
        self.notice(turn)
        for order in turn.told.orders:
            if order[1] == turn.at:
                self.obey(turn, order)
        if line.run is not None:
            why = None if line.run.since_s == turn.now_s else self.why_stop(turn)
            if why is not None:
                self.stop(turn, why)
        elif not turn.ran_before:
            wish = self.decide(turn)
            if isinstance(wish, tuple):
                self.begin(turn, wish)
            else:
                if wish != line.reason:
                    self.tell(turn, HELD, wish)
                line.reason = wish

    def tell(self, turn, kind, reason):
        turn.events.append((kind, turn.at, turn.now_s, reason))

    def watch_rise(self, turn):
        # A dose that raised nothing counts, and enough of them in a row lock the line.
        line = turn.line
        if line.watch_tenths is None:
            return
        tenths = turn.tenths if turn.doubt is None else None
        if tenths is not None and tenths - line.watch_tenths >= turn.config.rise_tenths:
            line.watch_tenths = None
            line.no_rise = 0
        elif turn.now_s >= line.watch_until_s:
            line.watch_tenths = None
            # A probe that cannot be read proves nothing.
            if tenths is None:
                return
            line.no_rise += 1
            if line.no_rise < turn.config.no_rise_times:
                return
            line.locked = True
            self.tell(turn, WAS_LOCKED, LOCKED)

    def notice(self, turn):
        line = turn.line
        program = turn.config.program
        if program.kind == P_PULSE_SOAK:
            if line.pulses == 0 or line.run is not None or line.last_stop_s is None:
                return
            since_s = turn.now_s - line.last_stop_s
            wet = turn.doubt is None and turn.tenths >= program.stop_tenths
            if since_s >= program.rest_s or (wet and since_s >= program.soak_s):
                line.pulses = 0
        elif program.kind == P_FOLLOWER:
            if 0 <= program.leader < len(self.lines):
                leader = self.lines[program.leader]
                if leader.runs != line.seen_runs:
                    run_s = leader.last_ran_s * program.share_percent // 100
                    if program.every_nth > 0 and leader.runs % program.every_nth == 0 and run_s > 0:
                        line.owes = (run_s, turn.now_s + OWED_S)
                line.seen_runs = leader.runs
            if line.owes is not None and turn.now_s >= line.owes[1]:
                line.owes = None

    def obey(self, turn, order):
        line = turn.line
        kind, _, volume_ml = order
        if kind == ORDER_STOP:
            if line.run is not None:
                self.stop(turn, STOP_ORDER)
        elif kind == ORDER_UNLOCK:
            # Who unlocks has looked at a lock that stood; one that falls in this very step nobody has seen yet.
            if turn.was_locked:
                self.tell(turn, UNLOCKED, BY_ORDER)
                line.locked = False
                line.no_rise = 0
                line.watch_tenths = None
        else:
            if not is_whole(volume_ml, 1, MOST_ORDER_ML):
                why = BAD_ORDER
            elif line.run is not None:
                why = ALREADY_RUNS
            elif line.locked:
                why = LOCKED
            else:
                why = self.forbids(turn)
            if why is not None:
                self.tell(turn, REFUSED, why)
            else:
                self.begin(turn, (dose_s(turn.config, volume_ml), BY_ORDER, None))

    def forbids(self, turn):
        # Guards that hold an order by hand as well as the program.
        if turn.tank is not None:
            return turn.tank
        if turn.line.day_sum_ml + counted_ml(turn.config, 1) > turn.config.daily_max_ml:
            return DAILY_MAX
        running = 0
        for other in range(len(self.lines)):
            if other != turn.at and self.lines[other].run is not None:
                running += 1
        return OTHER_LINE_RUNS if running >= self.config.at_once else None

    def why_stop(self, turn):
        line = turn.line
        run = line.run
        config = turn.config
        ran_s = turn.now_s - run.since_s
        if turn.tank is not None:
            return turn.tank
        if run.reason != BY_ORDER:
            if not config.enabled:
                return SWITCHED_OFF
            if config.contradicts:
                return CONTRADICTION
        if ran_s >= run.planned_s:
            return DOSE_DONE
        if ran_s >= min(run.most_s, config.max_run_s):
            return MAX_RUN
        next_ml = counted_ml(config, ran_s + 1) - counted_ml(config, ran_s)
        if line.day_sum_ml + next_ml > min(run.day_ml, config.daily_max_ml):
            return DAILY_MAX
        program = config.program
        # A dose that the probe had no part in goes on without it.
        if run.reason in (BY_ORDER, FALLBACK) or not uses_probe(program.kind):
            return None
        if turn.doubt is not None:
            return turn.doubt
        if program.kind == P_UNTIL_WET and turn.tenths >= program.stop_tenths:
            return ABOVE_STOP
        if program.kind == P_VETO and program.interrupts and turn.tenths >= program.stop_tenths:
            return WET_VETO
        return None

    def stop(self, turn, reason):
        line = turn.line
        run = line.run
        ran_s = turn.now_s - run.since_s
        line.run = None
        line.last_stop_s = turn.now_s
        line.reason = reason
        turn.events.append((STOPPED, turn.at, turn.now_s, reason, ran_s, given_ml(turn.config, ran_s)))
        whole = reason in (DOSE_DONE, MAX_RUN, ABOVE_STOP)
        if whole and run.reason != BY_ORDER:
            line.runs += 1
            line.last_ran_s = ran_s
        if reason in (ABOVE_STOP, WET_VETO):
            line.no_rise = 0
        elif whole:
            begun = self.proves_from(run, turn.config)
            if begun is not None:
                line.watch_tenths = begun
                line.watch_until_s = turn.now_s + turn.config.response_s

    def begin(self, turn, wish):
        line = turn.line
        config = turn.config
        run_s, reason, slot = wish
        begun = turn.tenths if turn.doubt is None else None
        line.run = Fields(
            since_s=turn.now_s,
            reason=reason,
            planned_s=run_s,
            from_tenths=begun,
            most_s=config.max_run_s,
            day_ml=config.daily_max_ml,
        )
        line.last_start_s = turn.now_s
        line.reason = reason
        line.watch_tenths = None
        if reason not in (BY_ORDER, FALLBACK):
            if config.program.kind == P_PULSE_SOAK:
                line.pulses += 1
            if config.program.kind == P_FOLLOWER:
                line.owes = None
        if slot is not None:
            line.served[slot] = turn.now_s
        turn.events.append((STARTED, turn.at, turn.now_s, reason, min(run_s, config.max_run_s), begun))

    def decide(self, turn):
        # A reason to rest, or (seconds, reason, time of the timer).
        line = turn.line
        config = turn.config
        if not config.enabled:
            return SWITCHED_OFF
        if config.contradicts:
            return CONTRADICTION
        if line.locked:
            return LOCKED
        wish = self.with_fallback(turn, self.wants(turn))
        if not isinstance(wish, tuple):
            return wish
        if turn.now_s - line.last_start_s < config.min_interval_s:
            return MIN_INTERVAL
        if line.watch_tenths is not None:
            return WAITING_FOR_RISE
        if wish[1] != FALLBACK and uses_probe(config.program.kind) and turn.sensor is not None:
            if is_unsettled(turn.sensor, turn.now_s, turn.settings):
                return UNSETTLED
        around = turn.told.around
        about = around[turn.at] if turn.at < len(around) else NOWHERE
        unmet = unmet_condition(config.conditions, about, turn.told)
        if unmet is not None:
            return unmet
        guard = self.forbids(turn)
        return wish if guard is None else guard

    def with_fallback(self, turn, wish):
        # While the probe is faulty: nothing, or a small dose once a day that the person has chosen.
        config = turn.config
        line = turn.line
        if turn.doubt is None or config.fallback_ml == 0 or not uses_probe(config.program.kind):
            return wish
        if line.faulty_s is None or turn.now_s - line.faulty_s < FAULTY_S:
            return wish
        if turn.now_s - line.last_start_s < DAY_S:
            return wish
        return (dose_s(config, config.fallback_ml), FALLBACK, None)

    def wants(self, turn):
        config = turn.config
        program = config.program
        line = turn.line
        kind = program.kind
        if uses_probe(kind) and turn.doubt is not None:
            return turn.doubt
        if kind == P_TIMER:
            return self.due_slot(turn, TIMER)
        if kind == P_VETO:
            wish = self.due_slot(turn, DRY_ENOUGH)
            return TOO_WET if isinstance(wish, tuple) and turn.tenths >= program.stop_tenths else wish
        if kind == P_FOLLOWER:
            return LEADER_RESTS if line.owes is None else (line.owes[0], FOLLOWS, None)
        if kind == P_ALERT_ONLY:
            return ALERT_ONLY
        dose = (dose_s(config, program.dose_ml), BELOW_START, None)
        if kind == P_PULSE_SOAK and line.pulses > 0 and line.last_stop_s is not None:
            if turn.now_s - line.last_stop_s < program.soak_s:
                return SOAKING
            if turn.tenths >= program.stop_tenths:
                return NOT_BELOW_START
            return (dose[0], BELOW_STOP, None) if line.pulses < program.most_pulses else PULSES_USED
        if turn.tenths >= program.start_tenths:
            return NOT_BELOW_START
        if kind == P_SINGLE_DOSE and turn.now_s - line.last_start_s < program.interval_s:
            return DOSE_INTERVAL
        return dose

    def due_slot(self, turn, reason):
        clock = turn.told.clock
        program = turn.config.program
        if clock is None:
            return CLOCK_UNKNOWN
        for slot in range(len(program.slots)):
            served = turn.line.served.get(slot)
            if served is not None and turn.now_s - served < SERVED_S:
                continue
            day_second, days = program.slots[slot]
            since_s = clock[0] - day_second
            passed_s = since_s + DAY_S if since_s < 0 else since_s
            # A time before boot may have been served before boot: better missed than watered twice.
            if passed_s >= SLOT_WINDOW_S or passed_s > turn.now_s:
                continue
            weekday = (clock[1] + 6) % 7 if since_s < 0 else clock[1]
            if (days >> weekday) & 1:
                return (dose_s(turn.config, program.dose_ml), reason, slot)
        return NOT_DUE

    def wake_of(self, turn):
        # When an idle line must be looked at again although nothing is read.
        line = turn.line
        config = turn.config
        program = config.program
        now_s = turn.now_s
        times = [line.last_start_s + config.min_interval_s]
        if line.watch_tenths is not None:
            times.append(line.watch_until_s)
        if turn.sensor is not None:
            times.append(turn.sensor.at_s + turn.settings.stale_after_s + 1)
            if turn.sensor.leap_s is not None:
                times.append(turn.sensor.leap_s + turn.settings.settle_s)
        if line.faulty_s is not None and config.fallback_ml > 0:
            times.append(line.faulty_s + FAULTY_S)
            times.append(line.last_start_s + DAY_S)
        clock = turn.told.clock
        if clock is not None:
            seconds = []
            if config.conditions.hours is not None:
                seconds.append(config.conditions.hours[0])
            if program.kind in (P_TIMER, P_VETO):
                for slot in program.slots:
                    seconds.append(slot[0])
            for second in seconds:
                ahead_s = second - clock[0]
                times.append(now_s + (ahead_s if ahead_s > 0 else ahead_s + DAY_S))
        # The oldest hour of the day is forgotten at a full hour.
        if line.day_sum_ml > 0:
            times.append((now_s // HOUR_S + 1) * HOUR_S)
        if program.kind == P_PULSE_SOAK and line.pulses > 0 and line.last_stop_s is not None:
            times.append(line.last_stop_s + program.soak_s)
            times.append(line.last_stop_s + program.rest_s)
        if program.kind == P_SINGLE_DOSE:
            times.append(line.last_start_s + program.interval_s)
        if program.kind == P_FOLLOWER and line.owes is not None:
            times.append(line.owes[1])
        ahead = [one for one in times if one > now_s]
        return min(ahead) if ahead else None


def uses_probe(kind):
    return kind in (P_PULSE_SOAK, P_UNTIL_WET, P_SINGLE_DOSE, P_VETO)
