# Turns the program: pins, clock and console of the machine, a look each second, a watchdog.
import os
import select
import sys
import time

import machine
from machine import ADC, PWM, Pin

import settings
from board import Board
from kept import Kept
from store import SkipStore, Store

LOAD_FLAG = "/trowel_load"
# A board that hangs is restarted after so long, ms.
WATCHDOG_MS = 8000

# A servo has this long to get where it is told, before the board restarts, ms.
SERVO_MS = 1000

outputs = {}
servos = {}
contacts = {}
converters = {}
buses = {}
i2c = None


def switch(pin, level):
    if level > 1:
        turn(pin, level)
        return
    if pin not in outputs:
        outputs[pin] = Pin(pin, Pin.OUT, value=level)
    outputs[pin].value(level)


def turn(pin, us):
    # A pulse fifty times a second holds a servo where it is told.
    if pin not in servos:
        servos[pin] = PWM(Pin(pin), freq=50, duty_ns=us * 1000)
    else:
        servos[pin].duty_ns(us * 1000)


def contact(pin):
    # Pulled up, so that an open one reads 1 and a loose wire does not float; some pins cannot, and need a resistor outside.
    try:
        return Pin(pin, Pin.IN, Pin.PULL_UP)
    except ValueError:
        return Pin(pin, Pin.IN)


def distance(trigger, echo):
    # Sound goes there and back, 343 m/s at 20 degrees. None: no echo came back.
    if trigger not in outputs:
        outputs[trigger] = Pin(trigger, Pin.OUT, value=0)
        contacts[echo] = Pin(echo, Pin.IN)
    outputs[trigger].value(1)
    time.sleep_us(10)
    outputs[trigger].value(0)
    us = machine.time_pulse_us(contacts[echo], 1, 30000)
    return None if us < 0 else us * 343 // 2000


def one_wire(pin):
    # The only thermometer on its pin, in hundredths of a degree: what it measured since the last look, then it is told to measure again. None: no answer, or a
    # damaged one; and before it has measured.
    if pin not in buses:
        from onewire import OneWire

        buses[pin] = OneWire(Pin(pin))
        measured = False
    else:
        measured = True
    bus = buses[pin]
    value = None
    if measured and bus.reset():
        bus.writebyte(0xCC)
        bus.writebyte(0xBE)
        answer = bytearray(9)
        bus.readinto(answer)
        # Nine times nothing has a right check as well.
        if bus.crc8(answer) == 0 and answer[4] != 0:
            sixteenths = answer[0] + 256 * answer[1]
            if sixteenths >= 32768:
                sixteenths -= 65536
            value = sixteenths * 100 // 16
    if bus.reset():
        bus.writebyte(0xCC)
        bus.writebyte(0x44)
    return value


def read(how, pins):
    pin = pins[0]
    if how == "distance":
        return distance(pin, pins[1])
    if how == "one_wire":
        return one_wire(pin)
    if how == "i2c":
        return over_i2c(pin)
    if how == "contact":
        if pin not in contacts:
            contacts[pin] = contact(pin)
        return contacts[pin].value()
    if pin not in converters:
        converters[pin] = ADC(Pin(pin))
    # Eight readings, for a steadier one; all boards give sixteen bits, whatever their converter has.
    total = 0
    for _ in range(8):
        total += converters[pin].read_u16() >> (16 - settings.ADC_BITS)
    counts = (total + 4) // 8
    if how == "volts":
        # In mV at the pin.
        return counts * settings.REFERENCE_MV // ((1 << settings.ADC_BITS) - 1)
    return counts


def leave():
    # Another program is to be loaded: a watchdog that has been started may not stop, so the board begins anew, for once without its program.
    with open(LOAD_FLAG, "w") as file:
        file.write("1")
    print("# load: outputs off, restarting")
    if servos:
        time.sleep_ms(SERVO_MS)
    machine.reset()


def over_i2c(place):
    global i2c
    if i2c is None:
        from i2c import I2c

        i2c = I2c(settings.I2C)
    return i2c.value(place)


def bus_of_board():
    if settings.BUS is None:
        return None
    from bus import Bus

    return Bus(settings.BUS)


def shows_of_board():
    if not settings.DISPLAYS and not any([one[0] == "ring" for one in settings.LAMPS]):
        return None
    from shows import Shows

    return Shows()


def net_of_board():
    if settings.NETWORK is None:
        return None
    from net import Net
    from radio import Radio
    from store import NetStore

    if settings.NETWORK.over == "mqtt":
        from mqtt import Mqtt as Way
    else:
        from post import Post as Way
    place = NetStore()
    told = place.read()
    radio = Radio()
    return Net(settings, print, radio, Way(radio, told, settings.NETWORK), told, place.write, boot_number())


def boot_number():
    # Another one for every start; 0 on a board that has no chance in it, whose starts are then told by its uptime.
    try:
        return 1 + int.from_bytes(os.urandom(3), "big")
    except AttributeError:
        return 0


def sleeper_of_board(board, net, number):
    if settings.SLEEP is None:
        return None
    from sleeper import Sleeper

    return Sleeper(settings, board, net, "%s %d" % (settings.PROGRAM, number))


def watchdog():
    try:
        return machine.WDT(timeout=WATCHDOG_MS)
    except (ValueError, OSError, AttributeError, TypeError):
        print("# this board has no watchdog")
        return None


# One pass of the board's work after another. @param number of the program
def turns(number):
    kept = Kept(settings.LINE_IDS, settings.CONTACT_IDS)
    net = net_of_board()
    say = print if net is None else net.say
    board = Board(settings, read, switch, say, kept, number, leave, Store(), bus_of_board(), shows_of_board(), time.sleep_ms, SkipStore())
    if net is not None:
        net.board = board
        board.console.net = net
    console = select.poll()
    console.register(sys.stdin, select.POLLIN)
    dog = watchdog()
    last_ms = time.ticks_ms()
    sleeper = sleeper_of_board(board, net, number)
    if sleeper is not None:
        sleeper.wake()
    if sleeper is not None and sleeper.has_woken:
        # Whoever listens from afar knows it.
        print("# awake")
        return passes(board, net, sleeper, console, dog, last_ms)
    board.console.obey("version")
    if net is not None:
        # Whoever listens from afar learns its limits unasked.
        for text in net.listen(lambda: board.console.obey("limits")):
            net.note(text)
    return passes(board, net, sleeper, console, dog, last_ms)


def passes(board, net, sleeper, console, dog, last_ms):
    try:
        while True:
            if dog is not None:
                dog.feed()
            while console.poll(0):
                board.hear(sys.stdin.read(1))
            if time.ticks_diff(time.ticks_ms(), last_ms) >= 1000:
                last_ms = time.ticks_add(last_ms, 1000)
                board.second()
                if net is not None:
                    net.second()
                if sleeper is not None:
                    sleeper.second()
            board.show(time.ticks_ms())
            if net is not None:
                net.turn()
            time.sleep_ms(5)
            yield
    except Exception as error:
        print("# stopped by %r, restarting" % error)
        board.all_off()
        time.sleep(3)
        machine.reset()
    finally:
        # However it ends: nothing goes on running.
        board.all_off()
