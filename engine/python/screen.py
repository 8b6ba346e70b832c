# What displays of a board say: the text of the state that its plot is in, with places for what is measured, in pages that turn. It means the same as
# core/src/control/display.
from engine import TANK_LOW, doubt_of, tank_trouble

LETTERS = 16
LINES = 2
PAGE_S = 4
UNKNOWN_WORD = "unknown"


def laid_out(text):
    # Words over the lines of a page; a word longer than a line is broken.
    lines = []
    left = text
    while left and len(lines) < LINES:
        cut = len(left) if len(left) <= LETTERS else left.rfind(" ", 0, LETTERS + 1)
        end = cut if cut > 0 else LETTERS
        lines.append(left[:end].rstrip())
        left = left[end:].lstrip()
    return lines


def pages_of(text, values):
    pages = []
    for page in text.split("|"):
        for name in values:
            page = page.replace("{%s}" % name, "?" if values[name] is None else values[name])
        pages.append(laid_out(page.strip()))
    return pages


def tenths_text(tenths):
    return "%s%d.%d" % ("-" if tenths < 0 else "", abs(tenths) // 10, abs(tenths) % 10)


def percent_of(one, tenths, raw):
    if one.scale == "counts":
        return None if raw is None else "%d counts" % raw
    if one.scale == "tension":
        return "%s kPa" % tenths_text(1000 - tenths)
    if one.scale == "switch":
        return "dry side" if tenths < 500 else "wet side"
    return "%s %s" % (tenths_text(tenths), one.unit)


def word_of(one, tenths):
    for at in range(len(one.edges)):
        if tenths < one.edges[at]:
            return one.words[at]
    return one.words[-1]


class Screens:
    # draw(display, lines) shows lines of letters on one of them.
    def __init__(self, settings, draw):
        self.settings = settings
        self.draw = draw
        self.shown = [None] * len(settings.DISPLAYS)

    def values(self, one, engine, sense, raws):
        watch = self.settings.WATCHES[one.watch]
        sensor = None if watch.sensor is None else engine.sensors[watch.sensor]
        known = sensor is not None and doubt_of(sensor, engine.now_s, engine.config.sensors[watch.sensor]) is None
        raw = None if one.raw is None else raws[one.raw]
        degrees = sense(one.temperature)
        battery_mv = sense(one.battery)
        tank = None if one.tank is None else tank_trouble(engine.tanks[one.tank], engine.now_s, engine.config.tanks[one.tank])
        return {
            "percent": percent_of(one, sensor.tenths, raw) if known else None,
            "raw": None if raw is None else str(raw),
            "word": word_of(one, sensor.tenths) if known else UNKNOWN_WORD,
            "temperature": None if degrees is None else "%s C" % tenths_text(degrees),
            "battery": None if battery_mv is None else "%d.%02d V" % (battery_mv // 1000, battery_mv % 1000 // 10),
            "tank": None if one.tank is None else "low" if tank == TANK_LOW else "has water" if tank is None else None,
        }

    def look(self, lamps, engine, sense, raws):
        # Each second, after the lamps know what state speaks.
        for at in range(len(self.settings.DISPLAYS)):
            one = self.settings.DISPLAYS[at]
            rule = lamps.rules[one.watch]
            lines = []
            if rule is not None:
                text = self.settings.TEXTS[self.settings.SIGNALS.index(rule)]
                pages = pages_of(text, self.values(one, engine, sense, raws))
                lines = pages[(engine.now_s - lamps.since[one.watch]) // PAGE_S % len(pages)]
            # What could not be shown is tried again.
            if lines != self.shown[at]:
                self.shown[at] = lines if self.draw(one, lines) else None
