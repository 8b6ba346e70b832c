# Probes on an RS-485 bus, asked in turn, one a second: Modbus RTU, functions 3 and 4.
import struct
import time

from machine import UART, Pin

# A probe may think for so long before its first byte, ms.
THINKING_MS = 300
BITS_OF_A_BYTE = 11
# Kinds of registers: one word without and with sign, two words, two words with a point.
SIGNED = 1
TWO_WORDS = 2
WITH_POINT = 4
MOST = 2000000000


def crc_of(data):
    crc = 0xFFFF
    for byte in data:
        crc ^= byte
        for _ in range(8):
            crc = (crc >> 1) ^ 0xA001 if crc & 1 else crc >> 1
    return crc


def request_of(address, function, register, count):
    body = bytes((address, function, register >> 8, register & 255, count >> 8, count & 255))
    crc = crc_of(body)
    return body + bytes((crc & 255, crc >> 8))


def words_of(answer, address, function, count):
    # The registers of an answer; None for anything that is not the whole answer to what was asked.
    if len(answer) != 5 + 2 * count or answer[0] != address or answer[1] != function or answer[2] != 2 * count:
        return None
    if crc_of(answer[:-2]) != answer[-2] + 256 * answer[-1]:
        return None
    return [256 * answer[at] + answer[at + 1] for at in range(3, 3 + 2 * count, 2)]


def whole_of(words, kind, times, per, plus):
    # A whole number of the last of its decimals, towards nothing as in C++. None: no number, or one beyond all that is read here.
    if kind < TWO_WORDS:
        value = words[0] - 65536 if kind == SIGNED and words[0] >= 32768 else words[0]
    else:
        if kind % 2 == 1:
            words = (words[1], words[0])
        data = bytes((words[0] >> 8, words[0] & 255, words[1] >> 8, words[1] & 255))
        value = struct.unpack(">f" if kind >= WITH_POINT else ">i", data)[0]
        if value != value or abs(value) > MOST:
            return None
    whole = int(value * times / per) if kind >= WITH_POINT else value * times // per if value * times >= 0 else -(-value * times // per)
    return whole + plus if abs(whole + plus) < MOST else None


class Bus:
    def __init__(self, settings):
        self.settings = settings
        self.line = UART(1, baudrate=settings.baud, bits=8, parity=None, stop=1, tx=Pin(settings.tx), rx=Pin(settings.rx))
        self.direction = None if settings.direction is None else Pin(settings.direction, Pin.OUT, value=0)
        self.turn = -1
        self.words = None

    def ask(self):
        # The next probe; what it answers holds for this second.
        self.turn = (self.turn + 1) % len(self.settings.probes)
        address, function, register, count = self.settings.probes[self.turn]
        while self.line.any():
            self.line.read()
        request = request_of(address, function, register, count)
        if self.direction is not None:
            self.direction.value(1)
        self.line.write(request)
        # Until the last bit has left; a moment longer, and the answer would be spoken over.
        time.sleep_us(len(request) * BITS_OF_A_BYTE * 1000000 // self.settings.baud)
        if self.direction is not None:
            self.direction.value(0)
        self.words = words_of(self.heard(5 + 2 * count), address, function, count)

    def heard(self, wanted):
        # Bytes of an answer, or as many as came in time.
        wait_ms = THINKING_MS + wanted * BITS_OF_A_BYTE * 1000 // self.settings.baud + 10
        heard = b""
        while len(heard) < wanted and wait_ms > 0:
            part = self.line.read(wanted - len(heard)) if self.line.any() else None
            if part:
                heard += part
            else:
                time.sleep_ms(5)
                wait_ms -= 5
        return heard

    def value(self, place):
        # Of this second's probe; None: another one's turn, or no answer.
        probe, word, kind, _, times, per, plus = place
        if probe != self.turn or self.words is None:
            return None
        return whole_of(self.words[word : word + 2], kind, times, per, plus)

    def is_asked(self, place):
        return place[0] == self.turn
