/** The settings of a board's program in MicroPython; the engine, the board and the start are files of their own that never change. */
import type {
  BoardPlan,
  Reads,
  SketchAround,
  SketchDisplay,
  SketchInput,
  SketchLamp,
  SketchLine,
  SketchSource,
  SketchWatch,
} from './plan.ts';
import { DISPLAY_TEXT } from '../control/display.ts';
import { sensorLabel, WORD_KINDS } from './plan.ts';
import { nameOf } from './folder.ts';
import { contactText, kindName, lineText, sensorText, tankText } from './pythonEngine.ts';
import { fields, indented, points, rows, valueText, type Value } from './pythonValue.ts';
import { frameOf } from './settable.ts';
import { signalCodes } from './signalCodes.ts';
import type { Output } from './pins.ts';
import { forComment, forString, wordOf } from './safeText.ts';

const READ_NAMES: Readonly<Record<Reads, string>> = {
  analog: 'analog',
  digital: 'contact',
  distance: 'distance',
  'one-wire': 'one_wire',
  volts: 'volts',
  bus: 'bus',
  i2c: 'i2c',
  far: 'far',
};

/** Air, light, rain, soil and switch, as the engine asks for them. */
const aroundValue = ({ airTenthsC, light, rain, soilTenthsC, skip }: SketchAround): Value => [
  airTenthsC,
  light,
  rain,
  soilTenthsC,
  skip,
];

const sourceValue = (source: SketchSource): Value =>
  source.by === 'one'
    ? source.input
    : [
        source.by,
        source.members.map(({ input, table, lowRaw, highRaw }): Value => [
          input,
          points(table),
          lowRaw,
          highRaw,
        ]),
      ];

/** Of a bus probe its place on the bus, the word of its answer, its kind, decimals and scale; of a part on I2C its place, and decimals behind two of no use. */
const placeOf = ({ pin, second, register, asked, far }: SketchInput): Value =>
  register
    ? [
        register.probe,
        register.word,
        WORD_KINDS.indexOf(register.kind),
        register.decimals,
        register.times,
        register.per,
        register.plus,
      ]
    : asked
      ? [asked.place, 0, 0, asked.decimals]
      : far
        ? [0, 0, 0, far.decimals]
        : [pin.number, ...(second ? [second.number] : [])];

const inputText = (input: SketchInput): string =>
  valueText([READ_NAMES[input.reads], placeOf(input), forString(input.name)]);

const networkText = ({ network }: BoardPlan): string =>
  network === null
    ? 'None'
    : fields({
        over: network.over,
        garden: forString(network.gardenId),
        board: forString(network.boardId),
        '# Until the gateway asks for another pace, s.': null,
        every_s: network.everyS,
      });

const busText = ({ bus }: BoardPlan): string =>
  bus === null
    ? 'None'
    : fields({
        tx: bus.tx.number,
        rx: bus.rx.number,
        '# Pin that lets the transceiver speak; None: it does so by itself.': null,
        direction: bus.direction?.number ?? null,
        '# As the probes are set: bits a second, 8 bits, no parity, one stop.': null,
        baud: bus.baud,
        '# By probe: address, function, first register, how many.': null,
        probes: bus.probes.map((one): Value => [one.address, one.function, one.register, one.count]),
      });

const i2cText = ({ i2c }: BoardPlan): string =>
  i2c === null
    ? 'None'
    : fields({
        '# By part: SDA, SCL, address, what it is told before it is asked.': null,
        parts: i2c.parts.map(({ sda, scl, address, begin }): Value => [
          sda.number,
          scl.number,
          address,
          begin,
        ]),
        '# Part; written, then waited, ms; written right before reading; bytes that are read, a check behind each two;':
          null,
        '# where the value stands: byte, bytes, low first, signed, times, per, plus; between which numbers it is one.':
          null,
        asks: i2c.asks.map(({ part, read }): Value => [
          part,
          read.ask,
          read.waitMs,
          read.from,
          read.read,
          read.check === 'each two',
          [read.at, read.bytes, read.order === 'low first', read.signed, read.times, read.per, read.plus],
          read.least,
          read.most,
        ]),
      });

/** The file settings.py. @param dateIso when it was written @param known why it was written although the wiring has a danger; empty: it has none */
export function pythonSettings(plan: BoardPlan, dateIso: string, known = ''): string {
  const body = settingsText(plan);
  return `# ${forComment(plan.garden)}, ${forComment(plan.board)}: its program, with guards that no setting switches off.
# Written on ${forComment(dateIso)} for: ${forComment(plan.traits)}.
${plan.heading.map((line) => `# ${forComment(line)}\n`).join('')}${known === '' ? '' : `# THE WIRING HAS A DANGER. It was written all the same: ${forComment(known)}.\n`}from engine import ${['Fields', ...new Set(plan.engine.lines.map(({ program }) => kindName(program.kind)))].join(', ')}

# The name of this program: the same settings have the same one.
PROGRAM = "${programName(plan)}"

${body}`;
}

/** By this name the running program says what it is. */
export const programName = (plan: BoardPlan): string =>
  nameOf(withoutComments(settingsText(frameOf(plan))), withoutComments(settingsText(plan)));

const withoutComments = (code: string): string => code.replace(/^ *#.*$/gm, '');

const watchText = ({ plot, limits, ...one }: SketchWatch): string =>
  fields({
    [`# ${forComment(plot)}`]: null,
    sensor: one.sensor,
    lines: one.lines,
    tanks: one.tanks,
    air: one.air,
    soil: one.soil,
    light: one.light,
    dark_below: one.darkBelow,
    '# Something of it is known to another board only.': null,
    blind: one.isBlind,
    dry: limits.dryTenths,
    wet: limits.wetTenths,
    soil_low: limits.soilLowTenthsC,
    soil_high: limits.soilHighTenthsC,
    air_low: limits.airLowTenthsC,
    air_high: limits.airHighTenthsC,
  });

const lampText = ({ kind, name, watch, pins, lights = 1 }: SketchLamp): string =>
  valueText([
    kind,
    watch,
    pins.map(({ pin, activeLow }): Value => [
      pin.number,
      kind === 'ring' ? lights : activeLow,
      forString(name),
    ]),
  ]);

const displayText = ({ name, sda, scl, ...one }: SketchDisplay): string =>
  fields({
    [`# ${forComment(name)}`]: null,
    watch: one.watch,
    sda: sda.number,
    scl: scl.number,
    address: one.address,
    letters: one.of === 'letters',
    raw: one.raw,
    temperature: one.temperature,
    battery: one.battery,
    tank: one.tank,
    words: one.words.map((word) => forString(word)),
    edges: [...one.edges],
    scale: one.scale,
    unit: forString(one.unit),
  });

const howText = ({ activeLow, pulses, latch }: Output): Value =>
  latch ? [latch.shut.number, latch.ms, activeLow ? 0 : 1] : pulses ? [pulses.offUs, pulses.onUs] : activeLow;

const outputText = ({ name, output }: SketchLine): string =>
  valueText([output.pin.number, howText(output), forString(name)]);

function settingsText(plan: BoardPlan): string {
  const { engine, inputs, powers, lines, contacts } = plan;
  return `ADC_BITS = ${plan.adcBits}
REFERENCE_MV = ${plan.referenceMv}

# What is read: how, by which pins, under which name. Of two pins the first starts it and the second hears the echo; of a bus probe: place, word,
# kind (0 and 1 without and with sign, 2 and 3 two words, 4 and 5 two words with a point; high or low word first), decimals, times, per, plus;
# over I2C: place, and decimals last.
INPUTS = ${rows(inputs.map(inputText))}
# By input the place of the pin that feeds it only to be read; None: it is always fed.
FED_BY = ${valueText(inputs.map(({ power }) => power ?? null))}
# Such pins: pin, seconds from switching on until a reading is good, seconds from one reading to the next.
POWERS = ${rows(powers.map(({ pin, waitS, everyS }) => valueText([pin.number, waitS, everyS])))}
# How it reports over the network; None: it speaks over its serial line alone. Network and key are told to the board, and stand in no file of its program.
NETWORK = ${networkText(plan)}
# How it sleeps between readings: from one waking to the next, and awake at least, s. None: it stays awake.
SLEEP = ${plan.sleep ? `Fields(every_s=${plan.sleep.everyS}, awake_s=${plan.sleep.awakeS})` : 'None'}
BUS = ${busText(plan)}
I2C = ${i2cText(plan)}
# By sensor of the engine the input, or how several are put together: input, its table, and what it must lie between.
SOURCES = ${rows(plan.sources.map((one) => valueText(sourceValue(one))))}
TANK_INPUTS = ${valueText(plan.tankInputs)}
# What conditions go by: input, and what its values mean, in tenths of a degree, mV, light, or yes and no.
SENSES = ${rows(plan.senses.map(({ input, table }) => valueText([input, points(table)])))}
# By line: air, light cell, rain switch, soil, skip switch.
AROUND = ${rows(plan.around.map((one) => valueText(aroundValue(one))))}
BATTERY = ${valueText(plan.battery)}

# What is switched: pin, on when low (of a servo its pulses in us, shut and open; of a latching valve the pin that shuts it, its pulse in ms, its level), name.
OUTPUTS = ${rows(lines.map(outputText))}
# What the board keeps through a reboot belongs to these.
LINE_IDS = ${valueText(lines.map(({ id }) => wordOf(id)))}

# Outputs that hold a state.
CONTACT_OUTPUTS = ${rows(contacts.map(outputText))}
CONTACT_IDS = ${valueText(contacts.map(({ id }) => wordOf(id)))}
CONTACTS_AROUND = ${rows(contacts.map(({ around }) => valueText(aroundValue(around))))}
CONTACTS = ${rows(contacts.map(contactText))}

# Plots whose lamps and buzzers it switches: what they go by, and their limits in tenths.
WATCHES = ${rows(plan.watches.map(watchText))}
# Kind, place of the plot above, pins: one, or red, green and blue; of a ring its data and how many lights.
LAMPS = ${rows(plan.lamps.map(lampText))}
# What they say, by priority: state, colours (1 red, 2 green, 4 blue), rhythm (0 steady, 1 slow, 2 fast), buzz (0 never, 1 once, 2 each minute, 3 ten, 4 hour, 5 second).
SIGNALS = ${rows(plan.signals.map((one) => valueText([...signalCodes(one)])))}

# Displays, and what stands for the places of their texts: places in the inputs, senses and tanks.
DISPLAYS = ${rows(plan.displays.map(displayText))}
# By signal what they say.
TEXTS = ${plan.displays.length === 0 ? '[]' : rows(plan.signals.map(({ display }) => `"${forString(display, DISPLAY_TEXT)}"`))}

# Settings of the engine, as docs and page have them: percent in tenths, times in seconds, volumes in ml.
CONFIG = Fields(
    at_once=${engine.atOnce},
    sensors=${indented(rows(engine.sensors.map((one, at) => sensorText(one, sensorLabel(plan, at)))))},
    tanks=${indented(rows(engine.tanks.map(tankText)))},
    lines=${indented(rows(engine.lines.map((one, at) => lineText(one, lines[at]?.name ?? ''))))},
)
`;
}
