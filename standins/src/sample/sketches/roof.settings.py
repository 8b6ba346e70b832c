# The Marigold Hare, Roof board: its program, with guards that no setting switches off.
# Written on 2026-05-01 for: 3.3 V Wi-Fi board, 12-bit inputs; drawn as 3.3 V Wi-Fi board, 12-bit, two converter groups.
# C2: calibrated 2026-04-11 with 2 points, ±2.1 % span at its start limit of 45.0 % span
# P34: reads L1, printed as l1
# P35: reads C2, printed as c2
# P13: reads Air under the hatch, printed as air
# P36: reads Battery, printed as bat
# P26 and P27: reads Rain tank, mm, printed as tank
# P16 and P17, the bus: reads B1, factory moisture, printed as b1.moisture
# P16 and P17, the bus: reads B1, soil temperature, printed as b1.temperature
# P16 and P17, the bus: reads B1, conductivity, printed as b1.ec
# P18: switches Roof pump, on when high
# P19: lights Dry lamp
from engine import Fields, P_PULSE_SOAK

# The name of this program: the same settings have the same one.
PROGRAM = "37d8773f43f9"

ADC_BITS = 12
REFERENCE_MV = 3300

# What is read: how, by which pins, under which name. Of two pins the first starts it and the second hears the echo; of a bus probe: place, word,
# kind (0 and 1 without and with sign, 2 and 3 two words, 4 and 5 two words with a point; high or low word first), decimals, times, per, plus;
# over I2C: place, and decimals last.
INPUTS = [
    ("analog", (34,), "l1"),
    ("analog", (35,), "c2"),
    ("one_wire", (13,), "air"),
    ("volts", (36,), "bat"),
    ("distance", (26, 27), "tank"),
    ("bus", (0, 0, 0, 1, 1, 1, 0), "b1.moisture"),
    ("bus", (0, 1, 1, 1, 1, 1, 0), "b1.temperature"),
    ("bus", (0, 2, 0, 0, 1, 1, 0), "b1.ec"),
]
# By input the place of the pin that feeds it only to be read; None: it is always fed.
FED_BY = (None, None, None, None, None, None, None, None)
# Such pins: pin, seconds from switching on until a reading is good, seconds from one reading to the next.
POWERS = []
# How it reports over the network; None: it speaks over its serial line alone. Network and key are told to the board, and stand in no file of its program.
NETWORK = Fields(
    over="http",
    garden="marigold-hare",
    board="roof",
    # Until the gateway asks for another pace, s.
    every_s=10,
)
# How it sleeps between readings: from one waking to the next, and awake at least, s. None: it stays awake.
SLEEP = None
BUS = Fields(
    tx=16,
    rx=17,
    # Pin that lets the transceiver speak; None: it does so by itself.
    direction=None,
    # As the probes are set: bits a second, 8 bits, no parity, one stop.
    baud=9600,
    # By probe: address, function, first register, how many.
    probes=((1, 3, 0, 3),),
)
I2C = None
# By sensor of the engine the input, or how several are put together: input, its table, and what it must lie between.
SOURCES = [
    1,
]
TANK_INPUTS = (4,)
# What conditions go by: input, and what its values mean, in tenths of a degree, mV, light, or yes and no.
SENSES = [
    (2, ((-5499, -550), (8499, 850))),
]
# By line: air, light cell, rain switch, soil, skip switch.
AROUND = [
    (None, None, None, None, None),
]
BATTERY = None

# What is switched: pin, on when low (of a servo its pulses in us, shut and open; of a latching valve the pin that shuts it, its pulse in ms, its level), name.
OUTPUTS = [
    (18, False, "Roof pump"),
]
# What the board keeps through a reboot belongs to these.
LINE_IDS = ("line-roof",)

# Outputs that hold a state.
CONTACT_OUTPUTS = []
CONTACT_IDS = ()
CONTACTS_AROUND = []
CONTACTS = []

# Plots whose lamps and buzzers it switches: what they go by, and their limits in tenths.
WATCHES = [
    Fields(
        # Chilli crate
        sensor=0,
        lines=(0,),
        tanks=(0,),
        air=0,
        soil=None,
        light=None,
        dark_below=None,
        # Something of it is known to another board only.
        blind=False,
        dry=450,
        wet=790,
        soil_low=None,
        soil_high=None,
        air_low=20,
        air_high=350,
    ),
]
# Kind, place of the plot above, pins: one, or red, green and blue; of a ring its data and how many lights.
LAMPS = [
    ("one", 0, ((19, False, "Dry lamp"),)),
]
# What they say, by priority: state, colours (1 red, 2 green, 4 blue), rhythm (0 steady, 1 slow, 2 fast), buzz (0 never, 1 once, 2 each minute, 3 ten, 4 hour, 5 second).
SIGNALS = [
    (1, 1, 2, 0),
    (10, 4, 2, 0),
    (2, 7, 1, 0),
    (3, 3, 1, 0),
    (4, 4, 1, 0),
    (5, 1, 1, 0),
    (6, 1, 0, 0),
    (7, 4, 0, 0),
    (9, 7, 0, 0),
    (8, 0, 0, 0),
    (0, 2, 0, 0),
]

# Displays, and what stands for the places of their texts: places in the inputs, senses and tanks.
DISPLAYS = []
# By signal what they say.
TEXTS = []

# Settings of the engine, as docs and page have them: percent in tenths, times in seconds, volumes in ml.
CONFIG = Fields(
    at_once=1,
    sensors=[
        Fields(
            # C2: raw value, tenths of a percent
            table=((1144, 1000), (2934, 0)),
            # Outside of these the plug is out or the cable broken.
            low_raw=20,
            high_raw=4075,
            # Outside of these it is out of the soil.
            soil_low_raw=-2000000000,
            soil_high_raw=2880,
            stale_after_s=900,
            leap_tenths=50,
            settle_s=600,
        ),
    ],
    tanks=[
        Fields(
            minimum_raw=323,
            falls_with_water=True,
            low_raw=-36,
            high_raw=476,
            stale_after_s=900,
        ),
    ],
    lines=[
        Fields(
            # Roof pump
            enabled=True,
            contradicts=False,
            sensor=0,
            tank=0,
            flow_ml_per_min=540,
            tube_ms=1200,
            program=Fields(
                kind=P_PULSE_SOAK,
                start_tenths=450,
                stop_tenths=580,
                dose_ml=120,
                soak_s=900,
                most_pulses=4,
                rest_s=14400,
                interval_s=0,
                interrupts=False,
                leader=0,
                share_percent=0,
                every_nth=0,
                slots=(),
            ),
            fallback_ml=0,
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
            max_run_s=15,
            daily_max_ml=600,
            min_interval_s=900,
            rise_tenths=20,
            response_s=900,
            no_rise_times=3,
            proves_below_tenths=580,
        ),
    ],
)
