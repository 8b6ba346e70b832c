# Parts on I2C, asked by the bytes that their sheets name.
import time

from machine import Pin, SoftI2C

# So long after it was begun a part has something to say, ms.
BEGUN_MS = 500


def check_of(data):
    total = 0xFF
    for byte in data:
        total ^= byte
        for _ in range(8):
            total = ((total << 1) ^ 0x31) & 0xFF if total & 0x80 else (total << 1) & 0xFF
    return total


def is_whole(answer, count, is_checked):
    if len(answer) != count:
        return False
    if is_checked:
        for at in range(0, count - 2, 3):
            if check_of(answer[at : at + 2]) != answer[at + 2]:
                return False
    return True


def value_of(answer, at, count, is_low_first, is_signed, times, per, plus):
    data = list(answer[at : at + count])
    if is_low_first:
        data.reverse()
    value = 0
    for byte in data:
        value = 256 * value + byte
    if is_signed and data[0] >= 128:
        value -= 256 if count == 1 else 65536
    # Towards nothing, as in C++.
    value *= times
    return (value // per if value >= 0 else -(-value // per)) + plus


class I2c:
    def __init__(self, settings):
        self.settings = settings
        self.lines = {}
        # By part since when it works as it was told, ms.
        self.begun = [None] * len(settings.parts)

    def line(self, sda, scl):
        if (sda, scl) not in self.lines:
            self.lines[(sda, scl)] = SoftI2C(sda=Pin(sda), scl=Pin(scl), freq=100000)
        return self.lines[(sda, scl)]

    def is_ready(self, at, line, address, begin):
        if not begin:
            return True
        if self.begun[at] is None:
            for data in begin:
                line.writeto(address, bytes(data))
            self.begun[at] = time.ticks_ms()
            return False
        return time.ticks_diff(time.ticks_ms(), self.begun[at]) >= BEGUN_MS

    def value(self, place):
        # A whole number of the last of its decimals. None: no answer, a damaged one, or one that cannot be.
        at, ask, wait_ms, start, count, is_checked, how, least, most = self.settings.asks[place]
        sda, scl, address, begin = self.settings.parts[at]
        try:
            line = self.line(sda, scl)
            if not self.is_ready(at, line, address, begin):
                return None
            if ask:
                line.writeto(address, bytes(ask))
                time.sleep_ms(wait_ms)
            if start:
                # The bus is held between the two, so that nobody comes between.
                line.writeto(address, bytes(start), False)
            answer = line.readfrom(address, count)
        except OSError:
            self.begun[at] = None
            return None
        if not is_whole(answer, count, is_checked):
            self.begun[at] = None
            return None
        value = value_of(answer, *how)
        return value if least <= value <= most else None
