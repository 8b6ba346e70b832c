# The Marigold Hare, Stern board: its program, with guards that no setting switches off.
# Written on 2026-05-01 for: 5 V board with a display, 10-bit inputs; drawn as 8-bit 5 V board, six 10-bit inputs.
# IN0: reads M1, printed as m1
# IN1: reads S1, printed as s1
# IN2: reads T1, printed as t1
# P2: feeds M1 only to be read, 1 s before, every 300 s
# P3: switches Galley light, on when high
from engine import Fields

# The name of this program: the same settings have the same one.
PROGRAM = "aba990ce1dff"

ADC_BITS = 10
REFERENCE_MV = 5000

# What is read: how, by which pins, under which name. Of two pins the first starts it and the second hears the echo; of a bus probe: place, word,
# kind (0 and 1 without and with sign, 2 and 3 two words, 4 and 5 two words with a point; high or low word first), decimals, times, per, plus;
# over I2C: place, and decimals last.
INPUTS = [
    ("analog", (0,), "m1"),
    ("analog", (1,), "s1"),
    ("analog", (2,), "t1"),
]
# By input the place of the pin that feeds it only to be read; None: it is always fed.
FED_BY = (0, None, None)
# Such pins: pin, seconds from switching on until a reading is good, seconds from one reading to the next.
POWERS = [
    (2, 1, 300),
]
# How it reports over the network; None: it speaks over its serial line alone. Network and key are told to the board, and stand in no file of its program.
NETWORK = None
# How it sleeps between readings: from one waking to the next, and awake at least, s. None: it stays awake.
SLEEP = None
BUS = None
I2C = None
# By sensor of the engine the input, or how several are put together: input, its table, and what it must lie between.
SOURCES = []
TANK_INPUTS = ()
# What conditions go by: input, and what its values mean, in tenths of a degree, mV, light, or yes and no.
SENSES = []
# By line: air, light cell, rain switch, soil, skip switch.
AROUND = []
BATTERY = None

# What is switched: pin, on when low (of a servo its pulses in us, shut and open; of a latching valve the pin that shuts it, its pulse in ms, its level), name.
OUTPUTS = []
# What the board keeps through a reboot belongs to these.
LINE_IDS = ()

# Outputs that hold a state.
CONTACT_OUTPUTS = [
    (3, False, "Galley light"),
]
CONTACT_IDS = ("galley-light",)
CONTACTS_AROUND = [
    (None, None, None, None, None),
]
CONTACTS = [
    Fields(
        # Galley light
        enabled=True,
        contradicts=False,
        sensor=None,
        # A light, from one moment of the day to another: 0 by the clock, 1 from sunrise, 2 from sunset on, in s.
        kind=1,
        begins=(2, -3600),
        ends=(0, 75600),
        dark_below=None,
        bright_above=None,
        conditions=Fields(
            hours=None,
            dark_below=None,
            air_below_tenths_c=None,
            soil_above_tenths_c=None,
            no_rain=False,
            battery_above_mv=None,
            no_skip=False,
        ),
        # Guards: nothing that is typed or sent changes them.
        most_on_s=36000,
        least_off_s=600,
        day_max_s=36000,
    ),
]

# Plots whose lamps and buzzers it switches: what they go by, and their limits in tenths.
WATCHES = []
# Kind, place of the plot above, pins: one, or red, green and blue; of a ring its data and how many lights.
LAMPS = []
# What they say, by priority: state, colours (1 red, 2 green, 4 blue), rhythm (0 steady, 1 slow, 2 fast), buzz (0 never, 1 once, 2 each minute, 3 ten, 4 hour, 5 second).
SIGNALS = []

# Displays, and what stands for the places of their texts: places in the inputs, senses and tanks.
DISPLAYS = []
# By signal what they say.
TEXTS = []

# Settings of the engine, as docs and page have them: percent in tenths, times in seconds, volumes in ml.
CONFIG = Fields(
    at_once=1,
    sensors=[],
    tanks=[],
    lines=[],
)
