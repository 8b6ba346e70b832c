/** What of a board's program can be changed over its line while it runs: limits, dose, and whether it waters by itself. Guards, pins and tables cannot. */
import type { ProgramKind } from '../control/programs/programs.ts';
import type { LineConfig } from '../control/engine/settings.ts';
import type { BoardPlan } from './plan.ts';
import { flatProgram } from './flatProgram.ts';

export const SETTING_NAMES = ['start', 'stop', 'dose', 'water', 'dry', 'wet'] as const;
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
  const watches = plan.watches.map((one) => ({
    ...one,
    limits: { ...one.limits, dryTenths: 0, wetTenths: 0 },
  }));
  return { ...plan, watches, engine: { ...plan.engine, lines } };
}

/** Under this the limits of a plot's lamps stand beside those of the lines. @param number as the board counts them, from 1 */
export const lampKey = (number: number): string => `lamp ${number}`;

/** How the fields of the programs are called. */
const FIELDS: Readonly<Partial<Record<SettingName, readonly string[]>>> = {
  start: ['startTenths'],
  stop: ['stopTenths', 'wetTenths'],
  dose: ['doseMl', 'pulseMl'],
};

export type SettingChange = {
  /** Of a line; of lamps the key of their plot. */
  readonly lineId: string;
  readonly lineName: string;
  readonly name: SettingName;
  readonly onBoard: string;
  readonly inGarden: string;
};

/** Where a board that runs the same frame stands otherwise than the garden. @param onBoard by the id of the line, as it printed them */
export const settingChanges = (
  plan: BoardPlan,
  onBoard: Readonly<Record<string, Settings>>,
): readonly SettingChange[] =>
  [
    ...plan.lines.map(({ id, name }, at) => {
      const config = plan.engine.lines[at];
      return { id, name, garden: config ? settingsOf(config) : {} };
    }),
    ...plan.watches.map(({ plot, limits }, at) => ({
      id: lampKey(at + 1),
      name: plot,
      garden: { dry: tenthsText(limits.dryTenths), wet: tenthsText(limits.wetTenths) } satisfies Settings,
    })),
  ].flatMap(({ id, name: lineName, garden }: Held) => {
    const board = onBoard[id];
    return SETTING_NAMES.flatMap((name): SettingChange[] => {
      const [had, wants] = [board?.[name], garden[name]];
      return had === undefined || wants === undefined || had === wants
        ? []
        : [{ lineId: id, lineName, name, onBoard: had, inGarden: wants }];
    });
  });

type Held = { readonly id: string; readonly name: string; readonly garden: Settings };

/**
 * In which order they are typed, so that no limit passes the other on its way: watering off goes first and on last; a stop limit that rises goes before the start
 * limit, one that falls after it.
 */
export function inSafeOrder(changes: readonly SettingChange[]): readonly SettingChange[] {
  const rank = ({ name, onBoard, inGarden }: SettingChange): number => {
    if (name === 'water') return inGarden === 'off' ? 0 : 5;
    if (name === 'stop') return Number(inGarden) > Number(onBoard) ? 1 : 3;
    return name === 'start' ? 2 : 4;
  };
  return changes.toSorted((one, other) => rank(one) - rank(other));
}
