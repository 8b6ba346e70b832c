/**
 * What of a board's program can be changed over its line while it runs: limits, dose, whether it waters by itself, and the calibrations of its probes. Guards and
 * pins cannot.
 */
import type { ContactConfig } from '../control/contacts/contract.ts';
import type { ProgramKind } from '../control/programs/programs.ts';
import type { LineConfig, SensorConfig } from '../control/engine/settings.ts';
import type { BoardPlan } from './plan.ts';
import { sensorLabel } from './plan.ts';
import { isSmall } from './fits.ts';
import { flatProgram } from './flatProgram.ts';

export const SETTING_NAMES = [
  'start',
  'stop',
  'dose',
  'water',
  'switch',
  'dry',
  'wet',
  'table',
  'soil',
  'leap',
] as const;
export type SettingName = (typeof SETTING_NAMES)[number];

/** By kind of program; whether it waters can always be set. */
const SETTABLE: Readonly<Record<ProgramKind, readonly SettingName[]>> = {
  'alert-only': [],
  timer: ['dose'],
  'pulse-soak': ['start', 'stop', 'dose'],
  'until-wet': ['start', 'stop'],
  'single-dose': ['start', 'dose'],
  veto: ['stop', 'dose'],
  follower: [],
};

export type Settings = Readonly<Partial<Record<SettingName, string>>>;

const tenthsText = (tenths: number): string => `${Math.floor(tenths / 10)}.${tenths % 10}`;

/** As the board prints them. */
export function settingsOf({ program, enabled }: LineConfig): Settings {
  const flat = flatProgram(program);
  const text: Readonly<Partial<Record<SettingName, string>>> = {
    start: tenthsText(flat.startTenths),
    stop: tenthsText(flat.stopTenths),
    dose: String(flat.doseMl),
    water: enabled ? 'on' : 'off',
  };
  return Object.fromEntries([...SETTABLE[program.kind], 'water' as const].map((name) => [name, text[name]]));
}

const onOff = (is: boolean): string => (is ? 'on' : 'off');

/** Of a contact its limits, where it has any, and whether it switches by itself. */
export const contactSettings = ({ rule, enabled }: ContactConfig): Settings => ({
  ...(rule.kind === 'permit'
    ? { start: tenthsText(rule.startTenths), stop: tenthsText(rule.stopTenths) }
    : {}),
  switch: onOff(enabled),
});

/** Of a probe its calibration as the board has it: the table, between which raw values it is in the soil, and from which leap on nothing starts for a while. */
export const probeSettings = ({ table, soilLowRaw, soilHighRaw, leapTenths }: SensorConfig): Settings => ({
  table: table.map(({ raw, tenths }) => `${raw}:${tenths}`).join(','),
  soil: `${soilLowRaw}:${soilHighRaw}`,
  leap: tenthsText(leapTenths),
});

/** Several probes together have their tables elsewhere, and small boards no room for this. @param at place of a sensor of the engine */
const takesTable = (plan: BoardPlan, at: number): boolean => !isSmall(plan) && plan.sources[at]?.by === 'one';

/** The program without what can be set: two with the same frame differ in nothing else. */
export function frameOf(plan: BoardPlan): BoardPlan {
  const lines = plan.engine.lines.map((line): LineConfig => {
    const zeros: Readonly<Record<string, number>> = Object.fromEntries(
      SETTABLE[line.program.kind].flatMap((name) => (FIELDS[name] ?? []).map((field) => [field, 0])),
    );
    return {
      ...line,
      enabled: false,
      program: { ...line.program, ...zeros },
      guards: { ...line.guards, provesBelowTenths: 0 },
    };
  });
  const sensors = plan.engine.sensors.map((one, at): SensorConfig =>
    takesTable(plan, at) ? { ...one, table: [], soilLowRaw: 0, soilHighRaw: 0, leapTenths: 0 } : one,
  );
  const contacts = plan.contacts.map((one) => ({ ...one, config: contactFrame(one.config) }));
  const watches = plan.watches.map((one) => ({
    ...one,
    limits: { ...one.limits, dryTenths: 0, wetTenths: 0 },
  }));
  return { ...plan, watches, contacts, engine: { ...plan.engine, sensors, lines } };
}

const contactFrame = ({ rule, ...config }: ContactConfig): ContactConfig => ({
  ...config,
  enabled: false,
  rule: rule.kind === 'permit' ? { ...rule, startTenths: 0, stopTenths: 0 } : rule,
});

/** Under these the limits of a plot's lamps, of a contact and of a probe stand beside those of the lines. @param number as the board counts them, from 1 */
export const lampKey = (number: number): string => `lamp ${number}`;
export const contactKey = (number: number): string => `contact ${number}`;
export const probeKey = (number: number): string => `probe ${number}`;

/** How the fields of the programs are called. */
const FIELDS: Readonly<Partial<Record<SettingName, readonly string[]>>> = {
  start: ['startTenths'],
  stop: ['stopTenths', 'wetTenths'],
  dose: ['doseMl', 'pulseMl'],
};

const OF_CALIBRATION: ReadonlySet<SettingName> = new Set(['table', 'soil', 'leap'] as const);

export type SettingChange = {
  /** Of a line; of lamps, contacts and probes their key. */
  readonly lineId: string;
  readonly lineName: string;
  readonly name: SettingName;
  readonly onBoard: string;
  readonly inGarden: string;
};

/** What can be set of a board, by line id and key, as the garden would have it. */
export const heldBy = (plan: BoardPlan): readonly Held[] => [
  ...plan.lines.map(({ id, name }, at) => {
    const config = plan.engine.lines[at];
    return { id, name, garden: config ? settingsOf(config) : {} };
  }),
  ...plan.contacts.map(({ name, config }, at) => ({
    id: contactKey(at + 1),
    name,
    garden: contactSettings(config),
  })),
  ...plan.watches.map(({ plot, limits }, at) => ({
    id: lampKey(at + 1),
    name: plot,
    garden: { dry: tenthsText(limits.dryTenths), wet: tenthsText(limits.wetTenths) } satisfies Settings,
  })),
  ...plan.engine.sensors.flatMap((one, at) =>
    takesTable(plan, at)
      ? [{ id: probeKey(at + 1), name: sensorLabel(plan, at), garden: probeSettings(one) }]
      : [],
  ),
];
export type Held = { readonly id: string; readonly name: string; readonly garden: Settings };

/** Where a board that runs the same frame stands otherwise than the garden. @param onBoard by the id of the line, or by key, as it printed them */
export const settingChanges = (
  plan: BoardPlan,
  onBoard: Readonly<Record<string, Settings>>,
): readonly SettingChange[] =>
  heldBy(plan).flatMap(({ id, name: lineName, garden }) => {
    const board = onBoard[id];
    return SETTING_NAMES.flatMap((name): SettingChange[] => {
      const [had, wants] = [board?.[name], garden[name]];
      return had === undefined || wants === undefined || had === wants
        ? []
        : [{ lineId: id, lineName, name, onBoard: had, inGarden: wants }];
    });
  });

/**
 * In which order they are typed, so that no limit passes the other on its way: watering off goes first and on last, calibrations before the limits in their percent;
 * a stop limit that rises goes before the start limit, one that falls after it.
 */
export function inSafeOrder(changes: readonly SettingChange[]): readonly SettingChange[] {
  const rank = ({ name, onBoard, inGarden }: SettingChange): number => {
    if (name === 'water' || name === 'switch') return inGarden === 'off' ? 0 : 6;
    if (OF_CALIBRATION.has(name)) return 1;
    if (name === 'stop') return Number(inGarden) > Number(onBoard) ? 2 : 4;
    return name === 'start' ? 3 : 5;
  };
  return changes.toSorted((one, other) => rank(one) - rank(other));
}

export type Typed = {
  readonly text: string;
  /** The setting in short: "start 40.0". */
  readonly about: string;
  /** Refused, nothing that follows may be sent. */
  readonly isNeeded: boolean;
};

/**
 * What is typed at the board's console for these changes, with the setting that each line is about. While a probe's calibration changes, the lines that go by it
 * do not water: their old limits mean nothing in its new percent.
 *
 * @param numberOf number of a line on the board; null: it has no such line
 */
export function toType(
  plan: BoardPlan,
  changes: readonly SettingChange[],
  onBoard: Readonly<Record<string, Settings>>,
  numberOf: (lineId: string) => number | null,
): readonly Typed[] {
  const whose = (id: string): string | number => (isKey(id) ? id : (numberOf(id) ?? 0));
  const set = (id: string, name: SettingName, value: string) => ({
    text: `set ${whose(id)} ${name} ${value}`,
    about: `${name} ${value}`,
    isNeeded: OF_CALIBRATION.has(name),
  });
  const recalibrated = plan.engine.sensors.map((_, at) =>
    changes.some(({ lineId, name }) => lineId === probeKey(at + 1) && OF_CALIBRATION.has(name)),
  );
  const held = plan.lines.filter(({ id }, at) => {
    const sensor = plan.engine.lines[at]?.sensor ?? null;
    const isChanging = changes.some(({ lineId, name }) => lineId === id && name === 'water');
    return sensor !== null && recalibrated[sensor] && onBoard[id]?.water === 'on' && !isChanging;
  });
  return [
    ...held.map(({ id }) => ({ ...set(id, 'water', 'off'), isNeeded: true })),
    ...inSafeOrder(changes).map(({ lineId, name, inGarden }) => set(lineId, name, inGarden)),
    ...held.map(({ id }) => set(id, 'water', 'on')),
  ];
}

const isKey = (id: string): boolean => /^(lamp|contact|probe) \d+$/.test(id);
