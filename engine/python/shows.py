# Rings of lights, by the module that comes with the language, and small displays on I2C: of dots that letters are drawn with, or of letters behind a port.
import time

from machine import Pin, SoftI2C

# Of 255: full white takes 60 mA a light.
BRIGHTNESS = 32
WIDTH = 128
LETTER = 8
# Lines of letters stand twice as high as the font, the first below the top.
ROWS = (1, 5)
# How such displays begin, as the sheets of most of them have it: asleep, size, supply of its own, direction, contrast, and awake.
BEGIN = b"\xae\xd5\x80\xa8\x3f\xd3\x00\x40\x8d\x14\x20\x00\xa1\xc8\xda\x12\x81\xcf\xd9\xf1\xdb\x40\xa4\xa6\xaf"
# Of a text display: four lines of data, the light, a strobe, and whether it is a letter or an order, as most of them are wired. Where its lines begin.
IS_LETTER = 0x01
STROBE = 0x04
LIGHT = 0x08
LINE_STARTS = (0x80, 0xC0)
LETTERS = 16


def halves(byte, how):
    # Half a byte is taken when the strobe falls.
    sent = []
    for bits in (byte & 0xF0, (byte << 4) & 0xF0):
        sent += [bits | how | LIGHT | STROBE, bits | how | LIGHT]
    return sent


def doubled(bits):
    # Each of four bits twice.
    value = 0
    for at in range(4):
        if (bits >> at) & 1:
            value |= 3 << (2 * at)
    return value


class Shows:
    def __init__(self):
        self.rings = {}
        self.lit = {}
        self.lines = {}

    def ring(self, pin, lights, colours):
        # Bits: red, green, blue.
        if self.lit.get(pin) == colours:
            return
        if pin not in self.rings:
            from neopixel import NeoPixel

            self.rings[pin] = NeoPixel(Pin(pin), lights)
        self.rings[pin].fill(tuple([BRIGHTNESS if (colours >> bit) & 1 else 0 for bit in range(3)]))
        self.rings[pin].write()
        self.lit[pin] = colours

    def draw(self, one, lines):
        # Whether it took them: a display that was unplugged is begun anew.
        key = (one.sda, one.scl, one.address)
        try:
            if key not in self.lines:
                bus = SoftI2C(sda=Pin(one.sda), scl=Pin(one.scl), freq=100000 if one.letters else 400000)
                if one.letters:
                    self.begin_letters(one.address, bus)
                else:
                    bus.writeto(one.address, b"\x00" + BEGIN)
                    self.clear(one.address, bus)
                self.lines[key] = bus
            for at in range(len(ROWS)):
                text = lines[at] if at < len(lines) else ""
                if one.letters:
                    self.write_letters(one.address, self.lines[key], at, text)
                else:
                    self.row(one.address, self.lines[key], ROWS[at], text)
            return True
        except OSError:
            self.lines.pop(key, None)
            return False

    def clear(self, address, bus):
        bus.writeto(address, b"\x00\x21\x00\x7f\x22\x00\x07")
        for _ in range(8):
            bus.writeto(address, b"\x40" + bytes(WIDTH))

    def row(self, address, bus, page, text):
        import framebuf

        font = bytearray(WIDTH)
        framebuf.FrameBuffer(font, WIDTH, LETTER, framebuf.MONO_VLSB).text(text, 0, 0, 1)
        # Columns from 0 to 127, two pages: the upper halves of the letters, then the lower ones.
        bus.writeto(address, bytes((0, 0x21, 0, WIDTH - 1, 0x22, page, page + 1)))
        bus.writeto(address, b"\x40" + bytes([doubled(one & 15) for one in font]))
        bus.writeto(address, b"\x40" + bytes([doubled(one >> 4) for one in font]))

    def begin_letters(self, address, bus):
        # Whatever it was in the middle of: three times eight lines, then four; two lines of letters, no cursor, from left to right, empty.
        for half in (0x30, 0x30, 0x30, 0x20):
            bus.writeto(address, bytes((half | LIGHT | STROBE, half | LIGHT)))
            time.sleep_ms(5)
        for order in (0x28, 0x0C, 0x06, 0x01):
            bus.writeto(address, bytes(halves(order, 0)))
        # To empty it takes its time.
        time.sleep_ms(3)

    def write_letters(self, address, bus, row, text):
        sent = halves(LINE_STARTS[row], 0)
        for at in range(LETTERS):
            sent += halves(ord(text[at]) if at < len(text) else 32, IS_LETTER)
        bus.writeto(address, bytes(sent))
