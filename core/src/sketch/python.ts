/** The settings of a board's program in MicroPython; the engine, the board and the start are files of their own that never change. */
import type { ProgramKind } from '../control/programs/programs.ts';
import type { LineConfig, SensorConfig, TankConfig } from '../control/engine/settings.ts';
import type { BoardPlan, Reads, SketchInput } from './plan.ts';
import { flatProgram } from './flatProgram.ts';
import { nameOf } from './folder.ts';
import { frameOf } from './settable.ts';
import { forComment, forString, wordOf } from './safeText.ts';

type Value = number | boolean | null | string | readonly Value[];

function valueText(value: Value): string {
  if (value === null) return 'None';
  if (typeof value === 'boolean') return value ? 'True' : 'False';
  if (typeof value === 'number') return String(value);
  if (typeof value === 'string') return `"${value}"`;
  const inner = value.map(valueText).join(', ');
  return value.length === 1 ? `(${inner},)` : `(${inner})`;
}

const indented = (text: string): string => text.replace(/\n/g, '\n    ');

/** `Fields(a=1, b=None)`, a field a line; what is text already stands as it is, and a name that begins with "#" is a comment above the next field. */
const fields = (of: Readonly<Record<string, Value | { readonly text: string }>>): string =>
  `Fields(\n${Object.entries(of)
    .map(([name, value]) =>
      name.startsWith('#')
        ? `    ${name}`
        : `    ${name}=${typeof value === 'object' && value !== null && 'text' in value ? indented(value.text) : valueText(value)},`,
    )
    .join('\n')}\n)`;

const sensorText = (one: SensorConfig, label: string): string =>
  fields({
    [`# ${forComment(label)}: raw value, tenths of a percent`]: null,
    table: one.table.map(({ raw, tenths }) => [raw, tenths]),
    '# Outside of these the plug is out or the cable broken.': null,
    low_raw: one.lowRaw,
    high_raw: one.highRaw,
    '# Outside of these it is out of the soil.': null,
    soil_low_raw: one.soilLowRaw,
    soil_high_raw: one.soilHighRaw,
    stale_after_s: one.staleAfterS,
    leap_tenths: one.leapTenths,
    settle_s: one.settleS,
  });

const tankText = (one: TankConfig): string =>
  fields({
    minimum_raw: one.minimumRaw,
    falls_with_water: one.fallsWithWater,
    low_raw: one.lowRaw,
    high_raw: one.highRaw,
    stale_after_s: one.staleAfterS,
  });

function lineText({ program, conditions: c, guards: g, ...line }: LineConfig, name: string): string {
  const flat = flatProgram(program);
  const programText = fields({
    kind: { text: kindName(program.kind) },
    start_tenths: flat.startTenths,
    stop_tenths: flat.stopTenths,
    dose_ml: flat.doseMl,
    soak_s: flat.soakS,
    most_pulses: flat.mostPulses,
    rest_s: flat.restS,
    interval_s: flat.intervalS,
    interrupts: flat.interrupts,
    leader: flat.leader,
    share_percent: flat.sharePercent,
    every_nth: flat.everyNth,
    slots: flat.slots.map(({ daySecond, days }) => [daySecond, days]),
  });
  const conditionsText = fields({
    hours: c.hours && [c.hours.fromS, c.hours.toS],
    dark_below: c.darkBelow,
    air_below_tenths_c: c.airBelowTenthsC,
    soil_above_tenths_c: c.soilAboveTenthsC,
    no_rain: c.noRain,
    battery_above_mv: c.batteryAboveMv,
    no_skip: c.noSkip,
  });
  return fields({
    [`# ${forComment(name)}`]: null,
    enabled: line.enabled,
    contradicts: line.contradicts,
    sensor: line.sensor,
    tank: line.tank,
    flow_ml_per_min: line.flowMlPerMin,
    tube_ms: line.tubeMs,
    program: { text: programText },
    fallback_ml: line.fallbackMl,
    conditions: { text: conditionsText },
    '# Guards: nothing that is typed or sent changes them.': null,
    max_run_s: g.maxRunS,
    daily_max_ml: g.dailyMaxMl,
    min_interval_s: g.minIntervalS,
    rise_tenths: g.riseTenths,
    response_s: g.responseS,
    no_rise_times: g.noRiseTimes,
    proves_below_tenths: g.provesBelowTenths,
  });
}

/** As the engine calls it. */
const kindName = (kind: ProgramKind): string => `P_${kind.toUpperCase().replace(/-/g, '_')}`;

const READ_NAMES: Readonly<Record<Reads, string>> = {
  analog: 'analog',
  digital: 'contact',
  distance: 'distance',
};

const inputText = ({ reads, pin, second, name }: SketchInput): string =>
  valueText([READ_NAMES[reads], [pin.number, ...(second ? [second.number] : [])], forString(name)]);

const rows = (all: readonly string[]): string =>
  all.length === 0 ? '[]' : `[\n${all.map((one) => `    ${indented(one)},`).join('\n')}\n]`;

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

function settingsText(plan: BoardPlan): string {
  const { engine, inputs, lines } = plan;
  return `ADC_BITS = ${plan.adcBits}

# What is read: how, by which pins, under which name. Of two pins the first starts it and the second hears the echo.
INPUTS = ${rows(inputs.map(inputText))}
SENSOR_INPUTS = ${valueText(plan.sensorInputs)}
TANK_INPUTS = ${valueText(plan.tankInputs)}
# By line: light cell, rain switch, skip switch.
AROUND_INPUTS = ${rows(plan.around.map(({ light, rain, skip }) => valueText([light, rain, skip])))}

# What is switched: pin, on when low, name.
OUTPUTS = ${rows(lines.map(({ name, output }) => valueText([output.pin.number, output.activeLow, forString(name)])))}
# What the board keeps through a reboot belongs to these.
LINE_IDS = ${valueText(lines.map(({ id }) => wordOf(id)))}

# Settings of the engine, as docs and page have them: percent in tenths, times in seconds, volumes in ml.
CONFIG = Fields(
    at_once=${engine.atOnce},
    sensors=${indented(rows(engine.sensors.map((one, at) => sensorText(one, inputs[plan.sensorInputs[at] ?? -1]?.label ?? ''))))},
    tanks=${indented(rows(engine.tanks.map(tankText)))},
    lines=${indented(rows(engine.lines.map((one, at) => lineText(one, lines[at]?.name ?? ''))))},
)
`;
}
