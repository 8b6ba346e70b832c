import { bootEngine, stepEngine } from '../control/engine/engine.ts';
import type { Program } from '../control/programs/programs.ts';
import type { Settings } from './settable.ts';
import type { BoardPlan } from './plan.ts';

/** A made-up day of one stick: dry, then wet, slowly and with noise; a plug pulled for a while now and then. */
export const rawAt = (second: number): number =>
  second % 9000 > 8500
    ? 4095
    : Math.round(2500 - 600 * Math.abs(Math.sin(second / 9000)) + ((second * 7919) % 13));

/** Seconds at which the engine of the page switches the only line, with the level: what a board must do as well. */
export function switchesOfPage(plan: BoardPlan, toS: number): readonly string[] {
  let state = bootEngine(plan.engine);
  const switches: string[] = [];
  for (let nowS = 1; nowS <= toS; nowS += 1) {
    const sensors = [{ raw: rawAt(nowS), atS: nowS }];
    const told = { nowS, sensors, tanks: [], clock: null, around: [], batteryMv: null, orders: [] };
    const step = stepEngine(state, told, plan.engine);
    const wasOn = (state.lines[0]?.run ?? null) !== null;
    state = step.state;
    if (wasOn !== step.on[0]) switches.push(`${nowS} ${step.on[0] ? 1 : 0}`);
  }
  return switches;
}

const slots = [{ daySecond: 25_200, days: 127 }];
/** One of every kind. */
const PROGRAMS: readonly Program[] = [
  { kind: 'alert-only' },
  { kind: 'timer', slots, doseMl: 120 },
  {
    kind: 'pulse-soak',
    startTenths: 401,
    stopTenths: 602,
    pulseMl: 30,
    soakS: 300,
    mostPulses: 3,
    restS: 3600,
  },
  { kind: 'until-wet', startTenths: 0, stopTenths: 1000, capMl: 90 },
  { kind: 'single-dose', startTenths: 355, doseMl: 80, intervalS: 7200 },
  { kind: 'veto', slots, doseMl: 70, wetTenths: 555, interrupts: false },
  { kind: 'follower', leader: 1, sharePercent: 50, everyNth: 2 },
];

/** A board with a line for every kind of program. */
export function everyProgram(plan: BoardPlan): BoardPlan {
  const [line] = plan.lines;
  const [config] = plan.engine.lines;
  const [around] = plan.around;
  if (!line || !config || !around) throw new Error('no line');
  return {
    ...plan,
    lines: PROGRAMS.map(({ kind }, at) => ({
      id: `line-${kind}`,
      name: kind,
      output: { ...line.output, pin: { kind: 'pin', number: at + 2 } },
    })),
    engine: {
      ...plan.engine,
      lines: PROGRAMS.map((program, at) => ({ ...config, program, enabled: at % 2 === 0 })),
    },
    around: PROGRAMS.map(() => around),
  };
}

/** What a board with these lines prints when asked for its limits. */
export const limitsLines = (all: readonly Settings[]): readonly string[] =>
  all.map(
    (settings, at) =>
      `# limits ${at + 1} ${Object.entries(settings)
        .map(([name, value]) => `${name} ${value}`)
        .join(' ')}`,
  );

/** A board with more of everything: a tank by its level, a light cell, a line that waits for both, and one that goes by times of the day in the dark. */
export function richPlan(plan: BoardPlan): BoardPlan {
  const [line] = plan.lines;
  const [config] = plan.engine.lines;
  const [stick] = plan.inputs;
  if (!line || !config || !stick) throw new Error('no line');
  const analog = (name: string, number: number) =>
    ({ ...stick, channelId: name, name, label: name, pin: { ...stick.pin, number } }) as const;
  return {
    ...plan,
    heading: ['A line above it', 'another'],
    inputs: [stick, analog('level', stick.pin.number + 1), analog('light', stick.pin.number + 2)],
    tankInputs: [1],
    lines: [
      line,
      {
        ...line,
        id: 'second',
        name: 'second',
        output: { pin: { kind: 'pin', number: 6 }, activeLow: false },
      },
    ],
    around: [
      { light: null, rain: null, skip: null },
      { light: 2, rain: null, skip: null },
    ],
    engine: {
      ...plan.engine,
      tanks: [{ minimumRaw: 300, fallsWithWater: false, lowRaw: 10, highRaw: 1000, staleAfterS: 60 }],
      lines: [
        { ...config, tank: 0 },
        {
          ...config,
          sensor: null,
          tank: null,
          program: {
            kind: 'timer',
            doseMl: 70,
            slots: [
              { daySecond: 3600, days: 127 },
              { daySecond: 10_800, days: 127 },
              { daySecond: 18_000, days: 2 },
            ],
          },
          conditions: { ...config.conditions, darkBelow: 500 },
        },
      ],
    },
  };
}

const levelAt = (second: number): number => (second % 7000 > 5000 ? 200 : 800);
const lightAt = (second: number): number => (second % 9000 < 5500 ? 100 : 900);
/** What its three inputs read. */
export const richRawsAt = (second: number): readonly [number, number, number] => [
  rawAt(second),
  levelAt(second),
  lightAt(second),
];

/** As "second line level", for both lines, its clock set to Monday midnight at the start. */
export function richSwitchesOfPage(plan: BoardPlan, toS: number): readonly string[] {
  let state = bootEngine(plan.engine);
  const switches: string[] = [];
  const nowhere = { airTenthsC: null, light: null, rain: null, soilTenthsC: null, skip: null };
  for (let nowS = 1; nowS <= toS; nowS += 1) {
    const [raw, level, light] = richRawsAt(nowS);
    const before = state.lines.map((one) => one.run !== null);
    const step = stepEngine(
      state,
      {
        nowS,
        sensors: [{ raw, atS: nowS }],
        tanks: [{ raw: level, atS: nowS }],
        clock: { daySecond: nowS % 86_400, weekday: Math.floor(nowS / 86_400) % 7 },
        around: [nowhere, { ...nowhere, light }],
        batteryMv: null,
        orders: [],
      },
      plan.engine,
    );
    state = step.state;
    // Off comes before on, as on a board.
    for (const level of [false, true])
      for (const [at, on] of step.on.entries())
        if (on === level && before[at] !== on) switches.push(`${nowS} ${at} ${on ? 1 : 0}`);
  }
  return switches;
}
