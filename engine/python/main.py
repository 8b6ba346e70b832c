# Starts the board: pins, clock and console of the machine, and a look each second.
import select
import sys
import time

from machine import ADC, Pin

import settings
from board import Board

outputs = {}
contacts = {}
converters = {}


def switch(pin, level):
    if pin not in outputs:
        outputs[pin] = Pin(pin, Pin.OUT, value=level)
    outputs[pin].value(level)


def contact(pin):
    # Pulled up, so that an open one reads 1 and a loose wire does not float; some pins cannot, and need a resistor outside.
    try:
        return Pin(pin, Pin.IN, Pin.PULL_UP)
    except ValueError:
        return Pin(pin, Pin.IN)


def read(pin, is_contact):
    if is_contact:
        if pin not in contacts:
            contacts[pin] = contact(pin)
        return contacts[pin].value()
    if pin not in converters:
        converters[pin] = ADC(Pin(pin))
    # Eight readings, for a steadier one; all boards give sixteen bits, whatever their converter has.
    total = 0
    for _ in range(8):
        total += converters[pin].read_u16() >> (16 - settings.ADC_BITS)
    return (total + 4) // 8


def run():
    board = Board(settings, read, switch, print)
    console = select.poll()
    console.register(sys.stdin, select.POLLIN)
    last_ms = time.ticks_ms()
    while True:
        while console.poll(0):
            board.hear(sys.stdin.read(1))
        if time.ticks_diff(time.ticks_ms(), last_ms) >= 1000:
            last_ms = time.ticks_add(last_ms, 1000)
            board.second()
        time.sleep_ms(5)


run()
