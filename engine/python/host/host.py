# A board on a computer: pins, clock, watchdog and console come from "bench", which the page or a test gives. It is run in the place where a board runs its start.
import bench
import os as real_os
import sys as real_sys


class Reset(BaseException):
    pass


class Pin:
    IN = 0
    OUT = 1
    PULL_UP = 2

    def __init__(self, number, mode=None, pull=None, value=None):
        self.number = number
        self.pulled = pull == Pin.PULL_UP
        self.mode = mode
        if mode == Pin.OUT:
            bench.level(number, 0 if value is None else int(value))

    def value(self, level=None):
        if level is not None:
            bench.level(self.number, int(level))
            return None
        if self.mode == Pin.OUT:
            return bench.levelOf(self.number)
        return bench.contact(self.number, self.pulled)


class ADC:
    def __init__(self, pin):
        self.pin = pin

    def read_u16(self):
        value = bench.analog(self.pin.number)
        if value is None:
            raise OSError(5)
        return value


class PWM:
    def __init__(self, pin, freq, duty_ns):
        self.pin = pin
        self.duty_ns(duty_ns)

    def duty_ns(self, ns):
        bench.level(self.pin.number, ns // 1000)


class WDT:
    def __init__(self, timeout):
        self.timeout = timeout
        self.feed()

    def feed(self):
        bench.feed(self.timeout)


class Timer:
    def __init__(self, number):
        self.number = number

    def init(self, period, callback):
        timers.append([period, bench.ms() + period, callback])


def check_of(data):
    total = 0
    for byte in data:
        for bit in range(8):
            is_one = ((byte >> bit) ^ total) & 1
            total >>= 1
            if is_one:
                total ^= 0x8C
    return total


class OneWire:
    # A thermometer on a pin, that measures in sixteenths of a degree; before it has measured it says 85 degrees.
    def __init__(self, pin):
        self.pin = pin
        self.sixteenths = 1360

    def reset(self, _required=False):
        return bench.thermometer(self.pin.number) is not None

    def writebyte(self, value):
        if value == 0x44:
            self.sixteenths = bench.thermometer(self.pin.number)

    def readinto(self, answer):
        value = self.sixteenths & 0xFFFF
        data = [value & 255, value >> 8, 0x4B, 0x46, 0x7F, 0xFF, 0x0C, 0x10]
        for at in range(8):
            answer[at] = data[at]
        answer[8] = check_of(data)

    def crc8(self, data):
        return check_of(data)


class UART:
    # A serial line with a bus behind it: frames go out and come in as hexadecimal text.
    def __init__(self, number, **_):
        self.number = number
        self.waiting = b""

    def write(self, data):
        answer = bench.bus("".join(["%02x" % byte for byte in data]))
        self.waiting += bytes([int(answer[at : at + 2], 16) for at in range(0, len(answer), 2)])

    def any(self):
        return len(self.waiting)

    def read(self, most=None):
        most = len(self.waiting) if most is None else most
        part, self.waiting = self.waiting[:most], self.waiting[most:]
        return part or None


class SoftI2C:
    # Parts answer by what was written to them since they were read last; nobody there is an error.
    def __init__(self, sda, scl, freq):
        self.written = {}

    def writeto(self, address, data, _stop=True):
        if not bench.onI2c(address):
            raise OSError(19)
        self.written.setdefault(address, []).append("".join(["%02x" % byte for byte in data]))

    def readfrom(self, address, count):
        answer = bench.i2c(address, "/".join(self.written.pop(address, [])))
        if answer is None:
            raise OSError(19)
        data = bytes([int(answer[at : at + 2], 16) for at in range(0, len(answer), 2)])
        return (data + bytes([255] * count))[:count]


class NeoPixel:
    # A ring: what its first light shows is told as three decimal digits, on or off.
    def __init__(self, pin, lights):
        self.pin = pin
        self.lights = lights
        self.value = (0, 0, 0)

    def fill(self, value):
        self.value = value

    def write(self):
        bench.level(self.pin.number, sum([100 // 10**at for at in range(3) if self.value[at] > 0]))


class Neo:
    def __init__(self):
        self.NeoPixel = NeoPixel


class Wire:
    def __init__(self):
        self.OneWire = OneWire


class WLAN:
    def __init__(self, _which):
        pass

    def active(self, _is_on):
        pass

    def disconnect(self):
        pass

    def connect(self, name, password):
        bench.join(name, password)

    def isconnected(self):
        return bench.isJoined()


class Network:
    STA_IF = 0

    def __init__(self):
        self.WLAN = WLAN


class Connection:
    # Bytes go out and come in as hexadecimal text, as far as the other end takes and gives them at once.
    def __init__(self):
        self.number = None

    def setblocking(self, _waits):
        pass

    def connect(self, address):
        self.number = bench.connect(address[0], address[1])
        raise OSError(111 if self.number is None else 115)

    def send(self, data):
        count = bench.send(self.number, "".join(["%02x" % byte for byte in data]))
        if count is None:
            raise OSError(11)
        return count

    def recv(self, most):
        answer = bench.receive(self.number, most)
        if answer is None:
            raise OSError(11)
        return bytes([int(answer[at : at + 2], 16) for at in range(0, len(answer), 2)])

    def close(self):
        bench.close(self.number)


class Os:
    def __getattr__(self, name):
        return getattr(real_os, name)

    def urandom(self, count):
        return bytes([bench.chance() for _ in range(count)])


class Sockets:
    def socket(self):
        return Connection()


class Machine:
    turned_from_outside = True

    def __init__(self):
        self.Pin = Pin
        self.ADC = ADC
        self.WDT = WDT
        self.PWM = PWM
        self.Timer = Timer
        self.UART = UART
        self.SoftI2C = SoftI2C

    def time_pulse_us(self, pin, _level, timeout):
        us = bench.echo(pin.number)
        return -1 if us is None or us > timeout else us

    def reset(self):
        bench.reset()
        raise Reset()

    DEEPSLEEP_RESET = 4

    def reset_cause(self):
        return 4 if bench.hasSlept() else 1

    def deepsleep(self, ms):
        bench.sleep(ms)
        raise Reset()


class Time:
    def ticks_ms(self):
        return bench.ms() & 0x3FFFFFFF

    def ticks_add(self, ticks, more):
        return (ticks + more) & 0x3FFFFFFF

    def ticks_diff(self, one, other):
        return ((one - other + 0x20000000) & 0x3FFFFFFF) - 0x20000000

    def sleep_ms(self, _):
        pass

    def sleep_us(self, _):
        pass

    def sleep(self, _):
        pass


class Poll:
    def register(self, *_):
        pass

    def poll(self, _=0):
        return [1] if bench.waiting() else []


class Select:
    POLLIN = 1

    def poll(self):
        return Poll()


class Stdin:
    def read(self, _):
        return bench.typed()


class System:
    def __init__(self):
        self.stdin = Stdin()
        self.path = real_sys.path
        self.modules = real_sys.modules


turns = None
timers = []
for name, one in (("machine", Machine()), ("time", Time()), ("select", Select()), ("onewire", Wire()), ("neopixel", Neo()), ("os", Os()), ("network", Network()), ("socket", Sockets())):
    real_sys.modules[name] = one
real_sys.modules["sys"] = System()


def as_a_reset(run):
    # Errors of a program end at the prompt, as on a board.
    global turns
    try:
        return run()
    except Reset:
        turns = None
    except StopIteration:
        turns = None
    except BaseException as error:
        real_sys.print_exception(error)
        turns = None


def run_start():
    try:
        with open("/main.py") as file:
            code = file.read()
    except OSError:
        return
    exec(code, globals())


def is_running():
    return turns is not None


def one_turn():
    as_a_reset(lambda: next(turns))


def interrupted():
    as_a_reset(lambda: turns.throw(KeyboardInterrupt()))


def run_timers():
    for timer in timers:
        while timer[1] <= bench.ms():
            timer[1] += timer[0]
            try:
                timer[2](None)
            except Reset:
                return
