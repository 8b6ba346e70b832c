/** The settings of a board's program in C++: a value a line, under the names that MicroPython has for them. */
import type { Conditions } from '../control/conditions/conditions.ts';
import type { Edge } from '../control/contacts/contract.ts';
import type { LineConfig, SensorConfig, TankConfig } from '../control/engine/settings.ts';
import type { ProgramKind } from '../control/programs/programs.ts';
import { flatProgram } from './flatProgram.ts';
import type { BoardPlan, SketchContact, SketchWatch } from './plan.ts';
import { forComment } from './safeText.ts';

const PROGRAM_NAMES: Readonly<Record<ProgramKind, string>> = {
  'alert-only': 'P_ALERT_ONLY',
  timer: 'P_TIMER',
  'pulse-soak': 'P_PULSE_SOAK',
  'until-wet': 'P_UNTIL_WET',
  'single-dose': 'P_SINGLE_DOSE',
  veto: 'P_VETO',
  follower: 'P_FOLLOWER',
};

/** The least number of 32 bits cannot be written as one literal. */
export const whole = (value: number): string => (value === -2_147_483_648 ? 'INT32_MIN' : String(value));
export const orNone = (value: number | null): string => (value === null ? 'NONE' : whole(value));
export const bool = (is: boolean): string => (is ? 'true' : 'false');

type Value = number | boolean | null | string;
/** A value in its place, with its name behind it; a block of such lines, or a text as it stands. */
type Row = readonly [name: string, value: Value | readonly Row[]] | string;

const valueText = (value: Value): string =>
  typeof value === 'string' ? value : typeof value === 'boolean' ? bool(value) : orNone(value);

/** `{` rows `}` */
function block(rows: readonly Row[], indent: string): string {
  const inner = `${indent}  `;
  const lines = rows.map((row) => {
    if (typeof row === 'string') return `${inner}${row}`;
    const [name, value] = row;
    return typeof value === 'object' && value !== null
      ? `${inner}${block(value, inner)},`
      : `${inner}${valueText(value)},  // ${name}`;
  });
  return ['{', ...lines, `${indent}}`].join('\n');
}

const POINTS = 8;

const sensorRows = ({ table, ...one }: SensorConfig, label: string): readonly Row[] => [
  `// ${forComment(label)}: raw value, tenths of a percent`,
  `{ ${Array.from({ length: POINTS }, (_, at) => `{${whole(table[at]?.raw ?? 0)}, ${table[at]?.tenths ?? 0}}`).join(', ')} },`,
  ['points', table.length],
  '// Outside of these the plug is out or the cable broken.',
  ['low_raw', one.lowRaw],
  ['high_raw', one.highRaw],
  '// Outside of these it is out of the soil.',
  ['soil_low_raw', one.soilLowRaw],
  ['soil_high_raw', one.soilHighRaw],
  ['stale_after_s', one.staleAfterS],
  ['leap_tenths', one.leapTenths],
  ['settle_s', one.settleS],
];

const tankRows = (one: TankConfig): readonly Row[] => [
  ['minimum_raw', one.minimumRaw],
  ['falls_with_water', one.fallsWithWater],
  ['low_raw', one.lowRaw],
  ['high_raw', one.highRaw],
  ['stale_after_s', one.staleAfterS],
];

const conditionRows = (c: Conditions): readonly Row[] => [
  ['has hours', c.hours !== null],
  ['hours from, s of the day', c.hours?.fromS ?? 0],
  ['hours to', c.hours?.toS ?? 0],
  ['dark_below', c.darkBelow],
  ['air_below_tenths_c', c.airBelowTenthsC],
  ['soil_above_tenths_c', c.soilAboveTenthsC],
  ['battery_above_mv', c.batteryAboveMv],
  ['no_rain', c.noRain],
  ['no_skip', c.noSkip],
];

function lineRows(
  { program, conditions, guards: g, ...line }: LineConfig,
  slots: number,
  name: string,
): readonly Row[] {
  const flat = flatProgram(program);
  const times = Array.from({ length: slots }, (_, at) => {
    const slot = flat.slots[at];
    return slot ? `{${slot.daySecond}, ${slot.days}}` : '{0, 0}';
  });
  return [
    `// ${forComment(name)}`,
    ['enabled', line.enabled],
    ['contradicts', line.contradicts],
    ['sensor', line.sensor],
    ['tank', line.tank],
    ['flow_ml_per_min', line.flowMlPerMin],
    ['tube_ms', line.tubeMs],
    [
      'program',
      [
        ['kind', PROGRAM_NAMES[program.kind]],
        ['start_tenths', flat.startTenths],
        ['stop_tenths', flat.stopTenths],
        ['dose_ml', flat.doseMl],
        ['soak_s', flat.soakS],
        ['most_pulses', flat.mostPulses],
        ['rest_s', flat.restS],
        ['interval_s', flat.intervalS],
        ['interrupts', flat.interrupts],
        ['leader', flat.leader],
        ['share_percent', flat.sharePercent],
        ['every_nth', flat.everyNth],
        ['slots', flat.slots.length],
        '// Times: second of the day, weekdays as bits from Monday on.',
        `{ ${times.join(', ')} },`,
      ],
    ],
    ['fallback_ml', line.fallbackMl],
    '// Conditions; NONE: off.',
    ['conditions', conditionRows(conditions)],
    '// Guards: nothing that is typed or sent changes them.',
    [
      'guards',
      [
        ['max_run_s', g.maxRunS],
        ['daily_max_ml', g.dailyMaxMl],
        ['min_interval_s', g.minIntervalS],
        ['rise_tenths', g.riseTenths],
        ['response_s', g.responseS],
        ['no_rise_times', g.noRiseTimes],
        ['proves_below_tenths', g.provesBelowTenths],
      ],
    ],
  ];
}

const EDGES: Readonly<Record<Edge['by'], string>> = {
  clock: 'BY_CLOCK',
  sunrise: 'BY_SUNRISE',
  sunset: 'BY_SUNSET',
};
const edgeText = ({ by, s }: Edge): string => `{${EDGES[by]}, ${s}}`;
const NO_EDGE: Edge = { by: 'clock', s: 0 };

function contactRows({ name, config: { rule, conditions, guards, ...one } }: SketchContact): readonly Row[] {
  const permit = rule.kind === 'permit' ? rule : null;
  const light = rule.kind === 'light' ? rule : null;
  return [
    `// ${forComment(name)}: ${permit ? 'a permit in series with another timer' : 'a light, from one moment of the day to another'}`,
    ['enabled', one.enabled],
    ['contradicts', one.contradicts],
    ['sensor', one.sensor],
    ['kind', permit ? 'C_PERMIT' : 'C_LIGHT'],
    ['start_tenths', permit?.startTenths ?? 0],
    ['stop_tenths', permit?.stopTenths ?? 0],
    ['rest_permits', permit?.restPermits ?? false],
    ['begins, s', edgeText(light?.from ?? NO_EDGE)],
    ['ends, s', edgeText(light?.to ?? NO_EDGE)],
    ['dark_below', light?.cell?.darkBelow ?? null],
    ['bright_above', light?.cell?.brightAbove ?? null],
    '// Conditions; NONE: off.',
    ['conditions', conditionRows(conditions)],
    '// Guards: nothing that is typed or sent changes them.',
    ['most_on_s', guards.mostOnS],
    ['least_off_s', guards.leastOffS],
    ['day_max_s', guards.dayMaxS],
  ];
}

export const contactText = (one: SketchContact): string => `  ${block(contactRows(one), '  ')},`;

const bits = (places: readonly number[]): number => places.reduce((sum, at) => sum | (1 << at), 0);

const watchRows = ({ plot, limits, ...one }: SketchWatch): readonly Row[] => [
  `// ${forComment(plot)}`,
  ['sensor', one.sensor],
  '// Lines and tanks as bits.',
  ['lines', bits(one.lines)],
  ['tanks', bits(one.tanks)],
  '// Places in the senses above; NONE: nobody measures it here.',
  ['air', one.air],
  ['soil', one.soil],
  ['light', one.light],
  ['dark_below', one.darkBelow],
  '// Something of it is known to another board only.',
  ['blind', one.isBlind],
  [
    'limits',
    [
      ['dry', limits.dryTenths],
      ['wet', limits.wetTenths],
      ['soil_low', limits.soilLowTenthsC],
      ['soil_high', limits.soilHighTenthsC],
      ['air_low', limits.airLowTenthsC],
      ['air_high', limits.airHighTenthsC],
    ],
  ],
];
export const watchText = (one: SketchWatch): string => `  ${block(watchRows(one), '  ')},`;

/** A list that needs one at least has this one where the board has none. */
const EMPTY_SENSOR: SensorConfig = {
  table: [
    { raw: 0, tenths: 0 },
    { raw: 1, tenths: 1000 },
  ],
  lowRaw: 0,
  highRaw: 0,
  soilLowRaw: 0,
  soilHighRaw: 0,
  staleAfterS: 0,
  leapTenths: 0,
  settleS: 0,
};
const EMPTY_TANK: TankConfig = {
  minimumRaw: 0,
  fallsWithWater: false,
  lowRaw: 0,
  highRaw: 0,
  staleAfterS: 0,
};
const EMPTY_LINE: LineConfig = {
  enabled: false,
  contradicts: true,
  sensor: null,
  tank: null,
  flowMlPerMin: 1,
  tubeMs: 0,
  program: { kind: 'alert-only' },
  fallbackMl: 0,
  conditions: {
    hours: null,
    darkBelow: null,
    airBelowTenthsC: null,
    soilAboveTenthsC: null,
    noRain: false,
    batteryAboveMv: null,
    noSkip: false,
  },
  guards: {
    maxRunS: 0,
    dailyMaxMl: 0,
    minIntervalS: 0,
    riseTenths: 0,
    responseS: 0,
    noRiseTimes: 1,
    provesBelowTenths: 0,
  },
};

/** Times that the longest list of a line has; one at least. */
export const slotsOf = ({ engine }: BoardPlan): number =>
  Math.max(1, ...engine.lines.map(({ program }) => flatProgram(program).slots.length));

/** The engine's settings as they stand in the sketch. @param labels of the probes that each sensor is read from */
export function configText(plan: BoardPlan, labels: readonly string[]): string {
  const { engine, lines } = plan;
  const slots = slotsOf(plan);
  const list = <T>(all: readonly T[], none: T, rows: (one: T, at: number) => readonly Row[]): string =>
    (all.length === 0 ? [none] : all).map((one, at) => `    ${block(rows(one, at), '    ')},`).join('\n');
  return `static Config CONFIG = {
  ${engine.sensors.length}, ${engine.tanks.length}, ${engine.lines.length}, ${engine.atOnce},
  {
${list(engine.sensors, EMPTY_SENSOR, (one, at) => sensorRows(one, labels[at] ?? 'none'))}
  },
  {
${list(engine.tanks, EMPTY_TANK, tankRows)}
  },
  {
${list(engine.lines, EMPTY_LINE, (one, at) => lineRows(one, slots, lines[at]?.name ?? 'none'))}
  },
};`;
}
