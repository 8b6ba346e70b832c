/**
 * Made-up days for the engine, told beforehand: readings that stop, jump and come back, a reservoir, weather, a clock that is lost or set, orders, reboots.
 * Nothing in them answers to what the engine does, so that one and the same day can be run in any number of ways and compared.
 */
import type { BoardTable } from '../../calibration/boardTable.ts';
import type { Conditions } from '../conditions/conditions.ts';
import type { EngineConfig, LineConfig, SensorConfig, TankConfig } from '../engine/settings.ts';
import type { Around, EngineInput, Order, RawReading } from '../contract/types.ts';
import type { Program } from '../programs/programs.ts';
import type { Slot } from '../programs/slots.ts';

/** Draws from a fixed sequence: the same seed gives the same day. */
export class Dice {
  private at: number;
  constructor(seed: number) {
    this.at = seed >>> 0;
    // The first numbers of neighbouring seeds are alike.
    for (let turn = 0; turn < 4; turn += 1) this.flat();
  }
  /** 0 up to 1. */
  flat(): number {
    this.at = (Math.imul(this.at, 1_664_525) + 1_013_904_223) >>> 0;
    return this.at / 4_294_967_296;
  }
  /** A whole number from one to another, both possible. */
  whole(least: number, most: number): number {
    return least + Math.floor(this.flat() * (most - least + 1));
  }
  one<T>(all: readonly [T, ...T[]]): T {
    return all[Math.floor(this.flat() * all.length)] ?? all[0];
  }
  isOne(in_: number): boolean {
    return this.flat() * in_ < 1;
  }
}

/** Something that happens at a second after the day's begin; until the next one everything stays as it is. */
export type Moment = {
  readonly atS: number;
  readonly sensors: readonly (number | 'unsettled' | null)[];
  readonly raws: readonly number[];
  readonly tanks: readonly (number | null)[];
  /** From here on. */
  readonly around: readonly Around[];
  readonly batteryMv: number | null;
  /** What must be added to the day's seconds to have local time; null: the clock is unknown. */
  readonly clockOffS: number | null;
  readonly weekday: number;
  readonly orders: readonly Order[];
  /** The board is switched off and on before it looks. */
  readonly reboots: boolean;
  /** The board's count of seconds is set back by so many, without a reboot. */
  readonly backS: number;
};

export type Script = {
  readonly config: EngineConfig;
  readonly moments: readonly Moment[];
  readonly endS: number;
};

const DAY_S = 86_400;
const KINDS = [
  'timer',
  'pulse-soak',
  'until-wet',
  'until-wet',
  'single-dose',
  'veto',
  'veto',
  'veto',
  'follower',
  'alert-only',
] as const;

/** Moisture 0 to 1000 tenths over raw 3000 to 1000, or bent, or rising with moisture. */
const TABLES: readonly [BoardTable, ...BoardTable[]] = [
  [
    { raw: 1000, tenths: 1000 },
    { raw: 3000, tenths: 0 },
  ],
  [
    { raw: 900, tenths: 1000 },
    { raw: 1300, tenths: 700 },
    { raw: 2100, tenths: 300 },
    { raw: 3100, tenths: 0 },
  ],
  [
    { raw: 200, tenths: 0 },
    { raw: 500, tenths: 450 },
    { raw: 3600, tenths: 1000 },
  ],
];

/** Of a probe that nobody has seen in air, and of one whose reading there is known. */
const SOIL_HIGH_RAW = [4075, 2960] as const;

export function sensorOf(dice: Dice): SensorConfig {
  return {
    table: dice.one(TABLES),
    lowRaw: 20,
    highRaw: 4075,
    soilLowRaw: 20,
    soilHighRaw: dice.one<number>(SOIL_HIGH_RAW),
    staleAfterS: dice.whole(60, 600),
    leapTenths: dice.one([dice.whole(40, 300), 1000]),
    settleS: dice.whole(30, 600),
  };
}

const slotsOf = (dice: Dice, clockS: number): Slot[] =>
  Array.from({ length: dice.whole(1, 4) }, () => ({
    daySecond: (clockS + dice.whole(0, 2500)) % DAY_S,
    days: dice.isOne(3) ? dice.whole(1, 127) : 127,
  }));

function programOf(dice: Dice, kind: Program['kind'], clockS: number, at: number, isRoomy: boolean): Program {
  const startTenths = dice.whole(200, 500);
  const stopTenths = dice.whole(startTenths + 20, 700);
  const doseMl = isRoomy ? 4000 : dice.whole(5, 400);
  switch (kind) {
    case 'alert-only':
      return { kind };
    case 'timer':
      return { kind, slots: slotsOf(dice, clockS), doseMl };
    case 'veto':
      return {
        kind,
        slots: slotsOf(dice, clockS),
        doseMl,
        wetTenths: dice.whole(250, 600),
        interrupts: !dice.isOne(4),
      };
    case 'until-wet':
      return { kind, startTenths, stopTenths, capMl: 4 * doseMl };
    case 'single-dose':
      return { kind, startTenths, doseMl, intervalS: dice.whole(100, 4000) };
    case 'pulse-soak':
      return {
        kind,
        startTenths,
        stopTenths,
        pulseMl: doseMl,
        soakS: dice.whole(30, 600),
        mostPulses: dice.whole(1, 4),
        restS: dice.whole(600, 3000),
      };
    case 'follower':
      return {
        kind,
        leader: dice.isOne(12) ? -1 : at === 0 ? 1 : 0,
        sharePercent: dice.whole(10, 300),
        everyNth: dice.whole(1, 3),
      };
  }
}

export function conditionsOf(dice: Dice, clockS: number): Conditions {
  const often = dice.isOne(2) ? 1000 : 4;
  const maybe = <T>(make: () => T): T | null => (dice.isOne(often) ? make() : null);
  return {
    hours: maybe(() => ({
      fromS: (clockS + dice.whole(0, 3000)) % DAY_S,
      toS: (clockS + dice.whole(1500, 9000)) % DAY_S,
    })),
    darkBelow: maybe(() => dice.whole(200, 400)),
    airBelowTenthsC: maybe(() => dice.whole(200, 350)),
    soilAboveTenthsC: maybe(() => dice.whole(10, 60)),
    noRain: dice.isOne(often),
    batteryAboveMv: maybe(() => dice.whole(11_000, 12_500)),
    noSkip: dice.isOne(often),
  };
}

function lineOf(
  dice: Dice,
  at: number,
  lines: number,
  sensors: number,
  tanks: number,
  clockS: number,
): LineConfig {
  const kind =
    lines === 1
      ? dice.one(KINDS.filter((one) => one !== 'follower') as [Program['kind'], ...Program['kind'][]])
      : at > 0 && dice.isOne(2)
        ? 'follower'
        : dice.one(KINDS);
  // Runs so long that a reading can end them.
  const isRoomy = dice.isOne(3);
  return {
    enabled: !dice.isOne(20),
    contradicts: dice.isOne(25),
    sensor: dice.isOne(25) ? null : Math.min(at, sensors - 1),
    tank: dice.isOne(3) ? null : dice.isOne(15) ? tanks : dice.whole(0, Math.max(0, tanks - 1)),
    flowMlPerMin: dice.whole(30, 2400),
    tubeMs: dice.isOne(2) ? 0 : dice.whole(0, 4000),
    program: programOf(dice, kind, clockS, at, isRoomy),
    fallbackMl: dice.isOne(2) ? dice.whole(10, 100) : 0,
    conditions: conditionsOf(dice, clockS),
    guards: {
      maxRunS: isRoomy ? 900 : dice.whole(2, 60),
      // Now and then a number that cannot be.
      dailyMaxMl: dice.isOne(40) ? -1 : isRoomy ? 30_000 : dice.whole(50, 4000),
      minIntervalS: dice.one([60, dice.whole(60, 900)]),
      riseTenths: dice.whole(5, 60),
      responseS: dice.whole(30, 900),
      noRiseTimes: dice.whole(1, 3),
      provesBelowTenths: dice.one([1000, 450, 700]),
    },
  };
}

const TANKS: readonly [TankConfig, ...TankConfig[]] = [
  { minimumRaw: 300, fallsWithWater: true, lowRaw: 20, highRaw: 400, staleAfterS: 400 },
  { minimumRaw: 1, fallsWithWater: false, lowRaw: 0, highRaw: 1, staleAfterS: 400 },
];

/** @param longest of the day, s; a fallback needs more than a day */
export function scriptOf(seed: number, longestS = 6000): Script {
  const dice = new Dice(seed);
  const lines = dice.one([1, 1, 2, 3]);
  const sensors = dice.whole(1, lines);
  const tanks = dice.whole(1, 2);
  const startS = dice.whole(0, DAY_S - 1);
  const config: EngineConfig = {
    sensors: Array.from({ length: sensors }, () => sensorOf(dice)),
    tanks: TANKS.slice(0, tanks),
    lines: Array.from({ length: lines }, (_, at) => lineOf(dice, at, lines, sensors, tanks, startS)),
    atOnce: dice.isOne(4) ? 2 : 1,
  };
  const endS = dice.whole(Math.floor(longestS / 3), longestS);
  return { config, moments: momentsOf(dice, config, startS, endS), endS };
}

/**
 * Raw values wander, at times leap, hit the rail or stop coming; somebody gives orders; the board loses its clock or its supply.
 * @param places how many have surroundings: lines, or contacts
 */
export function momentsOf(
  dice: Dice,
  config: EngineConfig,
  startS: number,
  endS: number,
  places = config.lines.length,
): Moment[] {
  const everyS = dice.one([dice.whole(3, 15), dice.whole(5, 90)]) * (endS > 20_000 ? 30 : 1);
  const trouble = dice.one([0, 0.003, 0.003, 0.02, 0.1]);
  const orderOften = dice.one([10, 80, 1000, 1000]);
  const wrong = () => dice.flat() < trouble;
  const raws = config.sensors.map(() => dice.whole(1000, 3000));
  const drift = config.sensors.map(() => dice.whole(-60, 60) * dice.one([1, 4]));
  /** Plugged out: nothing comes, or the rail, until somebody plugs it in again. */
  const out = config.sensors.map(() => false);
  const leaps = config.sensors.map((one) => one.leapTenths);
  const levels = config.tanks.map(({ highRaw }) => (highRaw === 1 ? 1 : dice.whole(150, 320)));
  let clockOffS: number | null = dice.isOne(8) ? null : startS;
  const allAround = () => Array.from({ length: places }, () => aroundOf(dice));
  let around = allAround();
  let batteryMv: number | null = dice.isOne(4) ? null : dice.whole(10_500, 13_000);
  const moments: Moment[] = [];
  for (let atS = 0; atS <= endS; atS += dice.whole(1, 2 * everyS)) {
    for (const [at] of raws.entries()) {
      const raw = dice.isOne(leaps[at] === 1000 ? 8 : 500) ? dice.whole(900, 3100) : (raws[at] ?? 0);
      // Back and forth between dry and wet, now and then at another pace.
      if (raw < 1100 || raw > 2900) drift[at] = Math.sign(2000 - raw) * Math.abs(drift[at] ?? 1);
      if (dice.isOne(40)) drift[at] = dice.whole(-60, 60) * dice.one([1, 4]);
      raws[at] = Math.min(3900, Math.max(100, raw + (drift[at] ?? 0) + dice.whole(-12, 12)));
      if (wrong() && dice.isOne(4)) raws[at] = dice.whole(300, 3800);
      if (trouble > 0 && dice.isOne(out[at] ? 30 : 150)) out[at] = !out[at];
    }
    for (const [at, tank] of config.tanks.entries())
      levels[at] =
        tank.highRaw === 1
          ? dice.isOne(30)
            ? 0
            : 1
          : dice.isOne(40)
            ? dice.whole(150, 420)
            : (levels[at] ?? 0) + dice.whole(-2, 2);
    if (dice.isOne(25)) around = allAround();
    if (dice.isOne(30)) batteryMv = dice.isOne(4) ? null : dice.whole(10_500, 13_000);
    if (dice.isOne(60)) clockOffS = dice.isOne(3) ? null : dice.isOne(2) ? startS : startS - 3600;
    moments.push({
      atS,
      sensors: config.sensors.map((_, at) =>
        out[at] === true || wrong() ? null : wrong() ? 'unsettled' : 0,
      ),
      raws: raws.map((raw) => (wrong() && dice.isOne(2) ? dice.one([0, 4095]) : raw)),
      tanks: levels.map((level) => (wrong() ? null : wrong() ? 4000 : level)),
      around,
      batteryMv,
      clockOffS,
      weekday: 3,
      orders: ordersOf(dice, config, orderOften),
      reboots: atS > 0 && dice.isOne(150),
      backS: trouble > 0 && dice.isOne(120) ? dice.whole(1, 2000) : 0,
    });
  }
  return moments;
}

const aroundOf = (dice: Dice): Around => ({
  airTenthsC: dice.isOne(4) ? null : dice.whole(150, 400),
  light: dice.isOne(4) ? null : dice.whole(100, 500),
  rain: dice.isOne(4) ? null : dice.isOne(3),
  soilTenthsC: dice.isOne(4) ? null : dice.whole(-10, 100),
  skip: dice.isOne(4) ? null : dice.isOne(3),
});

function ordersOf(dice: Dice, config: EngineConfig, often: number): Order[] {
  if (!dice.isOne(often) || config.lines.length === 0) return [];
  const line = dice.whole(0, config.lines.length - 1);
  const kind = dice.one(['water', 'water', 'stop', 'unlock'] as const);
  return kind === 'water'
    ? [{ kind, line, volumeMl: dice.isOne(6) ? dice.one([0, -50, 2_000_000]) : dice.whole(1, 600) }]
    : [{ kind, line }];
}

/** What the board sees at a second of the day. @param moment the one that is then, or the last one before. @param bootS when it was switched on */
export function inputAt(moment: Moment, timeS: number, bootS: number): EngineInput {
  const isNow = moment.atS === timeS;
  const nowS = timeS - bootS;
  const local = moment.clockOffS === null ? null : timeS + moment.clockOffS;
  return {
    nowS,
    sensors: moment.sensors.map((kind, at): RawReading | null =>
      !isNow || kind === null
        ? null
        : { raw: moment.raws[at] ?? 0, atS: nowS, ...(kind === 'unsettled' ? { unsettled: true } : {}) },
    ),
    tanks: moment.tanks.map((raw) => (isNow && raw !== null ? { raw, atS: nowS } : null)),
    clock:
      local === null
        ? null
        : {
            daySecond: ((local % DAY_S) + DAY_S) % DAY_S,
            weekday: (moment.weekday + Math.floor(local / DAY_S) + 7) % 7,
          },
    around: moment.around,
    batteryMv: moment.batteryMv,
    orders: isNow ? moment.orders : [],
  };
}
