import { tenthsFromTable, type BoardTable } from '../calibration/boardTable.ts';
import { bootContacts, stepContacts } from '../control/contacts/contacts.ts';
import type { ContactsInput } from '../control/contacts/contract.ts';
import { DEFAULT_SIGNALS } from '../control/signals.ts';
import { bootEngine, stepEngine } from '../control/engine/engine.ts';
import { combine, TENTHS_TABLE } from '../control/host/combined.ts';
import type { Program } from '../control/programs/programs.ts';
import type { Settings } from './settable.ts';
import { NOTHING_ASKED, WORD_KINDS, type BoardPlan, type SketchRegister } from './plan.ts';

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
    senses: [
      {
        input: 2,
        table: [
          { raw: 0, tenths: 0 },
          { raw: 4095, tenths: 4095 },
        ],
      },
    ],
    lines: [
      line,
      {
        ...line,
        id: 'second',
        name: 'second',
        output: { pin: { kind: 'pin', number: 6 }, activeLow: false },
      },
    ],
    around: [NOTHING_ASKED, { ...NOTHING_ASKED, light: 0 }],
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

// ---- Contacts

const line = (from: readonly [number, number], to: readonly [number, number]) => [
  { raw: from[0], tenths: from[1] },
  { raw: to[0], tenths: to[1] },
];
/** A board with three sticks that decide by their median, an air thermistor as a table, a light cell, a permit contact and a grow light. */
export function withContacts(plan: BoardPlan): BoardPlan {
  const [stick] = plan.inputs;
  const [config] = plan.engine.lines;
  const [sensor] = plan.engine.sensors;
  if (!stick || !config || !sensor) throw new Error('no line');
  const names = ['c2', 'c3', 'c4', 'air', 'cell'];
  const inputs = names.map((name, at) => ({
    ...stick,
    channelId: name,
    name,
    label: name,
    pin: { ...stick.pin, number: stick.pin.number + at },
  }));
  const table = [
    { raw: 1000, tenths: 1000 },
    { raw: 3000, tenths: 0 },
  ];
  const members = [0, 1, 2].map((input) => ({ input, table, lowRaw: 20, highRaw: 4000 }));
  const guards = { mostOnS: 5000, leastOffS: 300, dayMaxS: 20_000 };
  const output = (number: number) => ({ pin: { kind: 'pin', number } as const, activeLow: false });
  const { conditions } = config;
  return {
    ...plan,
    inputs,
    lines: [],
    sources: [{ by: 'median', members }],
    senses: [
      { input: 3, table: [...line([0, -200], [2000, 200]), { raw: 4095, tenths: 450 }] },
      { input: 4, table: line([0, 0], [4095, 4095]) },
    ],
    around: [],
    tankInputs: [],
    engine: {
      ...plan.engine,
      lines: [],
      tanks: [],
      sensors: [
        { ...sensor, table: TENTHS_TABLE, lowRaw: 0, highRaw: 1000, soilLowRaw: 0, soilHighRaw: 1000 },
      ],
    },
    contacts: [
      {
        id: 'permit',
        name: 'Permit',
        output: output(6),
        around: { ...NOTHING_ASKED, airTenthsC: 0 },
        config: {
          enabled: true,
          contradicts: false,
          sensor: 0,
          rule: { kind: 'permit', startTenths: 400, stopTenths: 600, restPermits: false },
          conditions: { ...conditions, airBelowTenthsC: 250 },
          guards,
        },
      },
      {
        id: 'light',
        name: 'Light',
        output: output(7),
        around: { ...NOTHING_ASKED, light: 1 },
        config: {
          enabled: true,
          contradicts: false,
          sensor: null,
          rule: {
            kind: 'light',
            from: { by: 'sunset', s: -1800 },
            to: { by: 'clock', s: 30_000 },
            cell: { darkBelow: 900, brightAbove: 1300 },
          },
          conditions,
          guards: { ...guards, mostOnS: 26_000 },
        },
      },
    ],
  };
}

/** What its five inputs read in a second, and at which seconds the page tells the sun. The second stick is pulled out now and then. */
export function contactTold(second: number): {
  readonly raws: readonly [number, number, number, number, number];
  readonly sun: { readonly riseS: number; readonly setS: number } | null;
} {
  const moist = Math.round(2000 - 900 * Math.sin(second / 3000));
  return {
    raws: [
      moist + (second % 7),
      second % 5000 > 4000 ? 4095 : moist + 150,
      moist - 120,
      Math.round(2000 + 700 * Math.sin(second / 5000)),
      Math.round(1100 + 400 * Math.sin(second / 1500)),
    ],
    sun: second % 9000 === 500 ? { riseS: 21_000, setS: 6000 } : null,
  };
}

const meant = (table: BoardTable, raw: number): number => tenthsFromTable(table, raw);

/** As "second contact level", as the contacts of the page switch, its clock set to Monday midnight at the start. */
export function contactSwitchesOfPage(plan: BoardPlan, toS: number): readonly string[] {
  const configs = plan.contacts.map(({ config }) => config);
  const [source] = plan.sources;
  const [air, cell] = plan.senses;
  if (!source || source.by === 'one' || !air || !cell) throw new Error('no sources');
  let known = bootEngine(plan.engine);
  let state = bootContacts(configs);
  let sun: ContactsInput['sun'] = null;
  let driven = configs.map(() => false);
  const switches: string[] = [];
  const nowhere = { airTenthsC: null, light: null, rain: null, soilTenthsC: null, skip: null };
  for (let nowS = 1; nowS <= toS; nowS += 1) {
    const told = contactTold(nowS);
    sun = told.sun ?? sun;
    const votes = source.members.map(({ input, table, lowRaw, highRaw }) => {
      const raw = told.raws[input] ?? 0;
      return raw < lowRaw || raw > highRaw ? null : meant(table, raw);
    });
    const raw = combine(source.by, votes);
    const input = {
      nowS,
      clock: { daySecond: nowS % 86_400, weekday: 0 },
      batteryMv: null,
      around: [
        { ...nowhere, airTenthsC: meant(air.table, told.raws[3]) },
        { ...nowhere, light: meant(cell.table, told.raws[4]) },
      ],
    };
    const sensors = [raw === null ? null : { raw, atS: nowS }];
    known = stepEngine(known, { ...input, sensors, tanks: [], orders: [] }, plan.engine).state;
    const step = stepContacts(state, { ...input, sun }, known.sensors, plan.engine, configs);
    state = step.state;
    for (const level of [false, true])
      for (const [at, on] of step.driven.entries())
        if (on === level && driven[at] !== on) switches.push(`${nowS} ${at} ${on ? 1 : 0}`);
    driven = [...step.driven];
  }
  return switches;
}

/** The same board with a lamp of one colour, one of three and a buzzer for its plot, on pins 9, 10 to 12 and 13. */
export function withLamps(plan: BoardPlan): BoardPlan {
  const at = (number: number) => ({ pin: { kind: 'pin', number } as const, activeLow: false });
  return {
    ...plan,
    watches: [
      {
        plot: 'Mint',
        sensor: 0,
        lines: [0],
        tanks: [],
        air: null,
        soil: null,
        light: null,
        darkBelow: null,
        isBlind: false,
        limits: {
          dryTenths: 300,
          wetTenths: 800,
          soilLowTenthsC: null,
          soilHighTenthsC: null,
          airLowTenthsC: null,
          airHighTenthsC: null,
        },
      },
    ],
    lamps: [
      { kind: 'one', name: 'Dry lamp', watch: 0, pins: [at(9)] },
      { kind: 'three', name: 'Colours', watch: 0, pins: [at(10), at(11), at(12)] },
      { kind: 'buzzer', name: 'Buzzer', watch: 0, pins: [at(13)] },
    ],
    signals: DEFAULT_SIGNALS.map((one) => (one.state === 'too-dry' ? { ...one, buzz: 'every minute' } : one)),
  };
}

/** Calibrations that no board takes. */
export const REFUSED_PROBES: readonly string[] = [
  '2 table 1100:1000,2900:0',
  '0 table 1100:1000,2900:0',
  '1 table 1100:1000',
  '1 table 2900:0,1100:1000',
  '1 table 1100:1000,1100:0',
  '1 table 1100:1001,2900:0',
  '1 table 1100:-1,2900:1000',
  '1 table 1100:500,2900:500',
  '1 table 1000:0,2000:500,3000:400',
  '1 table 1:0,2:1,3:2,4:3,5:4,6:5,7:6,8:7,9:8',
  '1 table 1100:1000,2900:0,',
  '1 table 1100:1000;2900:0',
  '1 table 1100,2900',
  '1 soil 900',
  '1 soil 900:800',
  '1 low 900:8000',
  '1 leap 0.9',
  '1 leap 30.1',
  '1 leap x',
];

/** What is typed of contacts of the board above, and what it answers. */
export const CONTACT_TALK: readonly (readonly [string, readonly string[]])[] = [
  ['set contact 1 start 35.5', ['# taken contact 1 start 35.5']],
  ['set contact 1 stop 36', ['# no: start must lie at least 1 below stop']],
  ['set contact 1 stop 70', ['# taken contact 1 stop 70']],
  ['set contact 2 start 30', ['# no: a contact has no such setting']],
  ['set contact 2 switch off', ['# taken contact 2 switch off']],
  ['set contact 3 switch off', ['# no: no such contact']],
  ['set contact 1 switch maybe', ['# no: on or off']],
  ['limits', ['# limits contact 1 start 35.5 stop 70.0 switch on', '# limits contact 2 switch off']],
];

/** Registers by kind, what they mean with their scale, and how that is said; worked by hand: 0x41ac0000 is 21.5, 0xc0a00000 is -5, 0x7fc00000 is no number. */
export const WIDE: readonly (readonly [Partial<SketchRegister>, readonly number[], string | null])[] = [
  [{ kind: 'uint16', decimals: 2, times: 25, plus: -4000 }, [300, 0], '35.00'],
  [{ kind: 'uint16', decimals: 1, times: 1, per: 10 }, [3149, 0], '31.4'],
  [{ kind: 'int16', decimals: 1, times: -1 }, [65_504, 0], '3.2'],
  [{ kind: 'int32, high first', decimals: 0 }, [1, 2], '65538'],
  [{ kind: 'int32, low first', decimals: 0 }, [2, 1], '65538'],
  [{ kind: 'int32, high first', decimals: 1 }, [65_535, 65_524], '-1.2'],
  [{ kind: 'float32, high first', decimals: 2, times: 100 }, [0x41ac, 0], '21.50'],
  [{ kind: 'float32, low first', decimals: 2, times: 100 }, [0, 0xc0a0], '-5.00'],
  [{ kind: 'float32, high first', decimals: 2, times: 100 }, [0x7fc0, 0], null],
  [{ kind: 'int32, high first', decimals: 0, times: 1000 }, [32_767, 65_535], null],
];

/** As a board in MicroPython has them: words, kind, times, per, plus; and the whole number that comes of it, as text. */
export const wideRows = (): readonly (readonly [row: string, whole: string])[] =>
  WIDE.map(([{ kind = 'uint16', times = 1, per = 1, plus = 0 }, words, said]) => [
    [...words, WORD_KINDS.indexOf(kind), times, per, plus].join(' '),
    said === null ? 'None' : said.replace('.', '').replace(/^(-?)0+(?=\d)/, '$1'),
  ]);

/** The line's valve as one that latches: its own pin opens it, pin 11 shuts it. */
export const SHUTS = 11;
export const withLatch = (plan: BoardPlan): BoardPlan => ({
  ...plan,
  lines: plan.lines.map((one) => ({
    ...one,
    output: { ...one.output, latch: { shut: { kind: 'pin', number: SHUTS }, ms: 60 } },
  })),
});

/** Rows of second, pin and level as pulses: when each began and on which pin. What began must end before anything else is switched. */
export function pulsesIn(rows: readonly string[]): readonly string[] {
  const pulses: string[] = [];
  let high: string | null = null;
  for (const row of rows) {
    const [second = '', pin = '', level = ''] = row.split(' ');
    if (level === '1') {
      if (high !== null) throw new Error(`${row} while ${high} is high`);
      high = pin;
      pulses.push(`${second} ${pin}`);
    } else if (pin === high) high = null;
  }
  return pulses;
}
/** What it gets when it is ordered to run from the 20th second to the 23rd. @param opens its pin */
export const LATCH_PULSES = (opens: number): readonly string[] => [
  `0 ${SHUTS}`,
  `10 ${SHUTS}`,
  `20 ${opens}`,
  `23 ${SHUTS}`,
  `33 ${SHUTS}`,
  `3633 ${SHUTS}`,
];
