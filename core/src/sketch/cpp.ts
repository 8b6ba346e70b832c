/** The board's program in C++: settings, what is read and switched, the console; the engine comes with it in a file of its own. */
import type { TablePoint } from '../calibration/boardTable.ts';
import { fullScaleCounts } from '../electrics/converter.ts';
import type {
  BoardPlan,
  Reads,
  SketchAround,
  SketchDisplay,
  SketchInput,
  SketchLamp,
  SketchLine,
  SketchRegister,
  SketchSource,
} from './plan.ts';
import { sensorLabel, WORD_KINDS } from './plan.ts';
import { bool, configText, contactText, orNone, slotsOf, watchText, whole } from './cppSettings.ts';
import { networkText } from './cppNetwork.ts';
import { PROGRAM_CODES } from '../control/codes.ts';
import { DISPLAY_TEXT } from '../control/display.ts';
import { cppFileNames } from './files.ts';
import { isSmall } from './fits.ts';
import { nameOf } from './folder.ts';
import { sumOf } from '../quantity/sumOf.ts';
import type { Output, Pin } from './pins.ts';
import { frameOf } from './settable.ts';
import { signalCodes } from './signalCodes.ts';
import { forComment, forString, wordOf } from './safeText.ts';

const pinText = ({ kind, number }: Pin): string => (kind === 'input' ? `A${number}` : String(number));
const listed = (items: readonly string[], none: string): string =>
  items.length === 0 ? none : items.join(',\n');

const READ_NAMES: Readonly<Record<Reads, string>> = {
  analog: 'READ_ANALOG',
  digital: 'READ_CONTACT',
  distance: 'READ_DISTANCE',
  'one-wire': 'READ_ONE_WIRE',
  volts: 'READ_VOLTS',
  bus: 'READ_BUS',
  i2c: 'READ_I2C',
  far: 'READ_FAR',
};

const tableText = (name: string, table: readonly TablePoint[]): string =>
  `static const TablePoint ${name}[] PROGMEM = {${table.map(({ raw, tenths }) => `{${whole(raw)}, ${whole(tenths)}}`).join(', ')}};`;

/** What conditions go by: air, light, rain, soil and switch, as the engine has them. */
const aroundText = ({ airTenthsC, light, rain, soilTenthsC, skip }: SketchAround): string =>
  `{${[airTenthsC, light, rain, soilTenthsC, skip].map(orNone).join(', ')}}`;

const COMBINED: Readonly<Record<Exclude<SketchSource['by'], 'one'>, string>> = {
  driest: 'BY_DRIEST',
  mean: 'BY_MEAN',
  median: 'BY_MEDIAN',
};

/** Where the readings of the engine's sensors come from, with the tables of those that are put together. */
function sourcesText({ sources }: BoardPlan): string {
  const tables: string[] = [];
  const members: string[] = [];
  const rows = sources.map((source, at) => {
    if (source.by === 'one') return `  {BY_ONE, ${source.input}, 0},`;
    const first = members.length;
    for (const [place, { input, table, lowRaw, highRaw }] of source.members.entries()) {
      const name = `MEMBER_${at}_${place}`;
      tables.push(tableText(name, table));
      members.push(`  {${input}, ${name}, ${table.length}, ${whole(lowRaw)}, ${whole(highRaw)}},`);
    }
    return `  {${COMBINED[source.by]}, ${first}, ${source.members.length}},`;
  });
  return `${tables.map((one) => `${one}\n`).join('')}static const Member MEMBERS[] = {
${members.length === 0 ? '  {0, 0, 0, 0, 0}' : members.join('\n')}
};
static const Source SOURCES[] = {
${rows.length === 0 ? '  {BY_ONE, 0, 0}' : rows.join('\n')}
};`;
}

const sensesText = ({ senses }: BoardPlan): string =>
  `${senses.map(({ table }, at) => `${tableText(`SENSE_${at}`, table)}\n`).join('')}static const Sense SENSES[] = {
${senses.length === 0 ? '  {0, 0, 0}' : senses.map(({ input, table }, at) => `  {${input}, SENSE_${at}, ${table.length}},`).join('\n')}
};`;

const LAMP_KINDS: Readonly<Record<Exclude<SketchLamp['kind'], 'ring'>, string>> = {
  one: 'LAMP_ONE',
  three: 'LAMP_THREE',
  buzzer: 'LAMP_BUZZER',
};
/** Pin, on when low, name; where the board has servos the pulses of this one, and where it has latching valves what this one wants. */
const pinRow = (plan: BoardPlan, { pin, activeLow, pulses, latch }: Output, name: string): string =>
  `{${pinText(pin)}, ${bool(activeLow)}, "${forString(name)}"${servosOf(plan) === 0 ? '' : `, ${pulses?.offUs ?? 0}, ${pulses?.onUs ?? 0}`}${latchesOf(plan) === 0 ? '' : `, ${latch ? pinText(latch.shut) : 0}, ${latch?.ms ?? 0}`}}`;

const latchesOf = ({ lines }: BoardPlan): number => lines.filter(({ output }) => output.latch).length;

const servosOf = ({ lines, contacts }: BoardPlan): number =>
  [...lines, ...contacts].filter(({ output }) => output.pulses).length;

const NO_OUTPUT: Output = { pin: { kind: 'pin', number: 0 }, activeLow: false };

const lampText = (plan: BoardPlan, { kind, name, watch, pins }: SketchLamp): string => {
  const all = Array.from({ length: 3 }, (_, at) => pins[at] ?? pins[0]);
  if (kind === 'ring') return '';
  return `  {${LAMP_KINDS[kind]}, ${watch}, {${all.map((one) => (one ? pinRow(plan, one, name) : pinRow(plan, NO_OUTPUT, ''))).join(', ')}}},  // ${forComment(name)}`;
};

/** Nothing of it stands in the program of a board without lamps and displays. */
const lampsText = (plan: BoardPlan): string => {
  const { watches, lamps, signals } = plan;
  const none = `  {LAMP_ONE, 0, {${Array.from({ length: 3 }, () => pinRow(plan, NO_OUTPUT, '')).join(', ')}}},`;
  return watches.length === 0
    ? ''
    : `
// ---- Lamps, by the plots that they speak for.
static Watch WATCHES[] = {
${watches.map(watchText).join('\n')}
};
const uint8_t LAMP_COUNT = ${lamps.length};
static const LampPins LAMPS[] = {
${lamps.length === 0 ? none : lamps.map((one) => lampText(plan, one)).join('\n')}
};
// What they say, by priority: state, colours (1 red, 2 green, 4 blue), rhythm, buzz.
const uint8_t SIGNAL_RULES = ${signals.length};
static const SignalRule SIGNALS[] = {${signals.map((one) => `{${signalCodes(one).join(', ')}}`).join(', ') || '{255, 0, 0, 0}'}};
`;
};

const SCALES: Readonly<Record<SketchDisplay['scale'], string>> = {
  percent: 'SHOWS_PERCENT',
  tension: 'SHOWS_TENSION',
  counts: 'SHOWS_COUNTS',
  switch: 'SHOWS_SIDE',
};

const displayText = (one: SketchDisplay): string =>
  `  {{${pinText(one.sda)}, ${pinText(one.scl)}, ${one.address}, NULL}, ${one.of === 'letters' ? 'OF_LETTERS' : 'OF_DOTS'}, ${one.watch}, ${SCALES[one.scale]}, "${forString(one.unit)}", {${one.words.map((word) => `"${forString(word)}"`).join(', ')}}, {${one.edges.map(whole).join(', ')}}, ${[one.raw, one.temperature, one.battery, one.tank].map(orNone).join(', ')}},  // ${forComment(one.name)}`;

/** Nothing of it stands in the program of a board without displays. */
const displaysText = ({ displays, signals }: BoardPlan): string =>
  displays.length === 0
    ? ''
    : `
// ---- Displays: SDA, SCL, address; of dots or letters; plot, scale, unit, words and where they end, tenths; places of what else they may name: input, temperature, battery, tank.
const uint8_t DISPLAYS = ${displays.length};
static const Display DISPLAY_PARTS[] = {
${displays.map(displayText).join('\n')}
};
// By signal what they say.
static const char *const TEXTS[] = {
${listed(
  signals.map(({ display }) => `  "${forString(display, DISPLAY_TEXT)}"`),
  '  ""',
)}
};
`;

/** Nothing of it stands in the program of a board that feeds all its probes all the time. */
const powersText = ({ powers }: BoardPlan): string =>
  powers.length === 0
    ? ''
    : `// Pins that feed probes only to be read: seconds from switching on until a reading is good, seconds from one reading to the next.
static const PowerPin POWER_PINS[] = {${powers.map(({ pin, waitS, everyS }) => `{${pinText(pin)}, ${waitS}, ${everyS}}`).join(', ')}};
`;

/** Nothing of it stands in the program of a board without a bus. */
function busText({ bus, inputs }: BoardPlan): string {
  if (bus === null) return '';
  const words = registersOf(inputs).map(
    ({ probe, word, kind, decimals, times, per, plus }) =>
      `{${probe}, ${word}, ${WORD_KINDS.indexOf(kind)}, ${decimals}, ${times}, ${per}, ${plus}}`,
  );
  return `
// ---- Probes on a bus: the pins of the transceiver, and the one that lets it speak; NO_PIN: it does so by itself. Bits a second, as the probes are set.
const uint8_t BUS_TX = ${pinText(bus.tx)}, BUS_RX = ${pinText(bus.rx)}, BUS_DIRECTION = ${bus.direction ? pinText(bus.direction) : 'NO_PIN'};
const uint32_t BUS_BAUD = ${bus.baud};
// By probe: address, function, first register, how many.
const uint8_t BUS_COUNT = ${bus.probes.length}, BUS_MOST_WORDS = ${Math.max(...bus.probes.map(({ count }) => count))};
static const BusProbe BUS_PROBES[] = {${bus.probes.map((one) => `{${one.address}, ${one.function}, ${one.register}, ${one.count}}`).join(', ')}};
// Which word of which answer is read: probe, word, kind (0 and 1 without and with sign, 2 and 3 two words, 4 and 5 two words with a point; high or low word first),
// decimals, times, per, plus.
static const BusWord BUS_WORDS[] = {${words.join(', ')}};
`;
}

/** Bytes in a row of four. */
const fourBytes = (bytes: readonly number[]): string =>
  `${bytes.length}, {${Array.from({ length: 4 }, (_, at) => bytes[at] ?? 0).join(', ')}}`;

/** Nothing of it stands in the program of a board without I2C. */
const i2cText = ({ i2c }: BoardPlan): string =>
  i2c === null
    ? ''
    : `
// ---- Parts on I2C. What each is told before it is asked: how many bytes, these bytes, and so on until none.
${i2c.parts
  .map(
    (
      { begin },
      at,
    ) => `static const uint8_t I2C_BEGIN_${at}[] = {${[...begin.flatMap((one) => [one.length, ...one]), 0].join(', ')}};
`,
  )
  .join('')}// SDA, SCL, address.
const uint8_t I2C_COUNT = ${i2c.parts.length};
static const I2cPart I2C_PARTS[] = {${i2c.parts.map(({ sda, scl, address }, at) => `{${pinText(sda)}, ${pinText(scl)}, ${address}, I2C_BEGIN_${at}}`).join(', ')}};
// Part; written, then waited, ms; written right before reading; bytes that are read, a check behind each two; where the value stands: byte, bytes, low first, signed,
// times, per, plus; decimals; between which numbers it is one.
static const I2cAsk I2C_ASKS[] = {
${i2c.asks
  .map(
    ({ part, read: one }) =>
      `  {${part}, ${fourBytes(one.ask)}, ${one.waitMs}, ${fourBytes(one.from)}, ${one.read}, ${bool(one.check === 'each two')}, ${one.at}, ${one.bytes}, ${bool(one.order === 'low first')}, ${bool(one.signed)}, ${one.times}, ${one.per}, ${one.plus}, ${one.decimals}, ${one.least}, ${one.most}},`,
  )
  .join('\n')}
};
`;

const registersOf = (inputs: readonly SketchInput[]): readonly SketchRegister[] =>
  inputs.flatMap(({ register }) => register ?? []);

/** Nothing of it stands in the program of a board without contacts. */
const contactsText = (plan: BoardPlan): string =>
  plan.contacts.length === 0
    ? ''
    : `
// ---- Outputs that hold a state.
static const OutputPin CONTACT_PINS[] = {
${plan.contacts.map((one) => outputRow(plan, one)).join('\n')}
};
static const int32_t CONTACTS_AROUND[][5] = {${plan.contacts.map(({ around }) => aroundText(around)).join(', ')}};
static ContactConfig CONTACTS[] = {
${plan.contacts.map(contactText).join('\n')}
};
`;

const outputRow = (plan: BoardPlan, { name, output }: SketchLine): string =>
  `  ${pinRow(plan, output, name)},  // ${forComment(name)}`;

/** @param before the inputs above it */
function inputRow(
  { name, pin, second = pin, reads, label, power, register, asked, far }: SketchInput,
  before: readonly SketchInput[],
): string {
  // Of a word on the bus its place among them, and so of what is asked over I2C; of what another board reads the digits behind its point.
  const place = register ? registersOf(before).length : (asked?.place ?? far?.decimals ?? null);
  const pins = place === null ? `${pinText(pin)}, ${pinText(second)}` : `${place}, NO_PIN`;
  return `  {${READ_NAMES[reads]}, ${pins}, ${power ?? 'ALWAYS_FED'}, "${forString(name)}"},  // ${forComment(label)}`;
}

/** @param dateIso when it was written @param known why it was written although the wiring has a danger; empty: it has none */
export function cppSketch(plan: BoardPlan, dateIso: string, known = ''): string {
  const body = sketchText(plan);
  return `// ${forComment(plan.garden)}, ${forComment(plan.board)}: its program, with guards that no setting switches off.
// Written on ${forComment(dateIso)} for: ${forComment(plan.traits)}.
${plan.heading.map((line) => `// ${forComment(line)}\n`).join('')}${known === '' ? '' : `// THE WIRING HAS A DANGER. It was written all the same: ${forComment(known)}.\n`}// These files belong together: this one, engine_size.h, ${filesText(plan)}. ${plan.network ? 'The only library is that of the radio, which comes with the package of the board.' : 'No library is needed.'}
#include "engine_size.h"
#include "pins.h"
${plan.contacts.length > 0 ? '#include "contacts.h"\n' : ''}
// The name of this program: the same settings have the same one.
#define TROWEL_PROGRAM "${cppProgramName(plan)}"
#define TROWEL_LINE_IDS "${plan.lines.map(({ id }) => ` ${wordOf(id)}`).join('')}"
#define TROWEL_CONTACT_IDS "${plan.contacts.map(({ id }) => ` ${wordOf(id)}`).join('')}"
${body}`;
}

const filesText = (plan: BoardPlan): string => {
  const names = [...cppFileNames(plan), ...(plan.network ? ['secrets.h'] : [])];
  return `${names.slice(0, -1).join(', ')} and ${names.at(-1) ?? ''}`;
};

const withoutComments = (code: string): string => code.replace(/\/\/.*$/gm, '');

/** By this name the running program says what it is. */
export const cppProgramName = (plan: BoardPlan): string =>
  nameOf(withoutComments(sketchText(frameOf(plan))), withoutComments(sketchText(plan)));

/** What a board keeps belongs to these lines; 255 is what an empty memory holds. */
const keptAs = ({ lines, contacts }: BoardPlan): number =>
  Number.parseInt(sumOf([...lines, ...contacts].map(({ id }) => id).join(' ')).slice(0, 2), 16) % 255;

function sketchText(plan: BoardPlan): string {
  const { inputs, lines } = plan;
  return `${networkText(plan)}
// ---- What is read.
const uint8_t INPUTS = ${inputs.length};
static const InputPin INPUT_PINS[${Math.max(1, inputs.length)}] = {
${listed(
  inputs.map((one, at) => inputRow(one, inputs.slice(0, at))),
  '  {READ_CONTACT, 0, 0, ALWAYS_FED, ""},',
).replace(/,(  \/\/[^\n]*)?,\n/g, ',$1\n')}
};
${sourcesText(plan)}
${busText(plan)}${i2cText(plan)}${powersText(plan)}static const int32_t TANK_INPUTS[] = {${plan.tankInputs.join(', ') || '0'}};
${sensesText(plan)}
// By line: air, light cell, rain switch, soil, skip switch.
static const int32_t AROUND[][5] = {${plan.around.map(aroundText).join(', ') || '{NONE, NONE, NONE, NONE, NONE}'}};
const int32_t BATTERY = ${orNone(plan.battery)};

// ---- What is switched.
const uint8_t OUTPUTS = ${lines.length};
static const OutputPin OUTPUT_PINS[${Math.max(1, lines.length)}] = {
${lines.length === 0 ? `  ${pinRow(plan, NO_OUTPUT, '')}` : lines.map((one) => outputRow(plan, one)).join('\n')}
};

// ---- Settings of the engine. The tables are the calibrations: raw value, tenths of a percent. Percent in tenths, times in seconds, volumes in ml.
${configText(
  plan,
  plan.engine.sensors.map((_, at) => sensorLabel(plan, at)),
)}
${contactsText(plan)}${lampsText(plan)}${displaysText(plan)}
// What it keeps through a reboot belongs to these lines.
const uint8_t KEPT_AS = ${keptAs(plan)};

#include "board.h"
`;
}

/** What analog inputs give in the common wiring style until a program asks for more. */
const BITS_AT_FIRST = 10;

/** By bits the kinds of programs that the lines have. */
const programBits = ({ engine }: BoardPlan): number =>
  engine.lines.reduce((bits, { program }) => bits | (1 << PROGRAM_CODES[program.kind]), 0);

/** What of reading and of the engine this board needs: what it does not need takes no room. */
function needsText(plan: BoardPlan): string {
  const { inputs, powers, bus, i2c, sources, senses, lines, watches, network } = plan;
  const members = Math.max(0, ...sources.map((one) => (one.by === 'one' ? 0 : one.members.length)));
  const reads = (how: Reads): boolean => inputs.some((one) => one.reads === how);
  const needs: readonly (readonly [isNeeded: boolean, name: string])[] = [
    [lines.length === 0, 'TROWEL_NO_LINES'],
    [watches.length > 0, `TROWEL_WATCHES ${watches.length}`],
    [plan.displays.length > 0, 'TROWEL_DISPLAYS'],
    [plan.displays.some((one) => one.of === 'dots'), 'TROWEL_DOTS'],
    [plan.displays.some((one) => one.of === 'letters'), 'TROWEL_LETTERS'],
    [powers.length > 0, `TROWEL_POWERS ${powers.length}`],
    [senses.length > 0, 'TROWEL_SENSES'],
    [reads('one-wire'), 'TROWEL_ONE_WIRE'],
    [reads('volts'), 'TROWEL_VOLTS'],
    [servosOf(plan) > 0, `TROWEL_SERVOS ${servosOf(plan)}`],
    [latchesOf(plan) > 0, `TROWEL_LATCHES ${latchesOf(plan)}`],
    [bus !== null, 'TROWEL_BUS'],
    [inputs.some(({ register }) => register?.kind.startsWith('float')), 'TROWEL_BUS_FLOATS'],
    [i2c !== null, 'TROWEL_I2C'],
    [network !== null, 'TROWEL_NET'],
    [network?.over === 'mqtt', 'TROWEL_MQTT'],
    [reads('far'), 'TROWEL_FAR'],
    [members > 0, `TROWEL_MOST_MEMBERS ${members}`],
  ];
  return needs.flatMap(([isNeeded, name]) => (isNeeded ? [`#define ${name}\n`] : [])).join('');
}

/** How many of each the engine must hold, what of it this board needs, and how its converter is asked. */
export function cppSize(plan: BoardPlan): string {
  const { engine, adcBits } = plan;
  return `// How many of each this board has, and what it needs beside.
#define TROWEL_SENSORS ${Math.max(1, engine.sensors.length)}
#define TROWEL_TANKS ${Math.max(1, engine.tanks.length)}
#define TROWEL_LINES ${Math.max(1, engine.lines.length)}
#define TROWEL_SLOTS ${slotsOf(plan)}
#define TROWEL_ORDERS 2
#define TROWEL_CONTACTS ${plan.contacts.length}
// mV that its converter compares with, and the highest number it gives.
#define TROWEL_REFERENCE_MV ${plan.referenceMv}
#define TROWEL_FULL_SCALE ${fullScaleCounts(adcBits)}
// What of the engine it needs: the board looks each second, and has these kinds of programs, a bit each.
#define TROWEL_EACH_SECOND
#define TROWEL_PROGRAMS ${programBits(plan)}
${needsText(plan)}${isSmall(plan) ? '// Volumes of 32 bits.\n#define TROWEL_SMALL\n' : ''}${adcBits > BITS_AT_FIRST ? `// Bits of its converter.\n#define TROWEL_ADC_BITS ${adcBits}\n` : ''}`;
}
