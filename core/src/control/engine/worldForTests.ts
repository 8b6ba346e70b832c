/**
 * Random worlds of a day for the engine's properties: soil that dries and answers to water (or does not), probes that fall silent, stick at the rail or leap,
 * a reservoir that runs empty, reboots at the worst moments, orders by hand. What happens is told as it was seen from outside the engine.
 */
import fc from 'fast-check';
import { bootEngine, rememberedOf, stepEngine } from './engine.ts';
import { Dice } from '../vectors/script.ts';
import { NO_CONDITIONS, rawOf } from './engineForTests.ts';
import type { Program } from '../programs/programs.ts';
import type { EngineConfig, LineConfig } from './settings.ts';
import type { EngineEvent, EngineInput, EngineState, Order, Remembered } from '../contract/types.ts';

export const DAY_S = 86_400;

const slot = fc.record({ daySecond: fc.integer({ min: 0, max: 86_399 }), days: fc.constant(127) });
const limits = fc.record({
  startTenths: fc.integer({ min: 200, max: 500 }),
  stopTenths: fc.integer({ min: 510, max: 700 }),
});
const ml = fc.integer({ min: 20, max: 800 });

const moistureLed: fc.Arbitrary<Program> = fc.oneof(
  fc
    .record({
      pulseMl: ml,
      soakS: fc.integer({ min: 120, max: 2000 }),
      mostPulses: fc.integer({ min: 1, max: 6 }),
      restS: fc.integer({ min: 2000, max: 20_000 }),
      limits,
    })
    .map(({ limits: pair, ...rest }): Program => ({ kind: 'pulse-soak', ...pair, ...rest })),
  fc
    .record({ capMl: ml, limits })
    .map(({ limits: pair, capMl }): Program => ({ kind: 'until-wet', ...pair, capMl })),
  fc
    .record({ doseMl: ml, intervalS: fc.integer({ min: 600, max: 20_000 }), limits })
    .map(({ limits: pair, ...rest }): Program => ({
      kind: 'single-dose',
      startTenths: pair.startTenths,
      ...rest,
    })),
  fc.record({
    kind: fc.constant('veto' as const),
    slots: fc.array(slot, { minLength: 1, maxLength: 4 }),
    doseMl: ml,
    wetTenths: fc.integer({ min: 300, max: 700 }),
    interrupts: fc.boolean(),
  }),
);
const timer: fc.Arbitrary<Program> = fc.record({
  kind: fc.constant('timer' as const),
  slots: fc.array(slot, { minLength: 1, maxLength: 4 }),
  doseMl: ml,
});

export const guards = fc.record({
  maxRunS: fc.integer({ min: 2, max: 120 }),
  dailyMaxMl: fc.integer({ min: 100, max: 4000 }),
  minIntervalS: fc.integer({ min: 60, max: 5000 }),
  riseTenths: fc.integer({ min: 10, max: 40 }),
  responseS: fc.integer({ min: 60, max: 3000 }),
  noRiseTimes: fc.integer({ min: 1, max: 4 }),
  provesBelowTenths: fc.constantFrom(600, 1000),
});

const line: fc.Arbitrary<LineConfig> = fc.record({
  enabled: fc.constant(true),
  contradicts: fc.constant(false),
  sensor: fc.constant(0),
  tank: fc.constantFrom(0, null),
  flowMlPerMin: fc.integer({ min: 60, max: 2400 }),
  tubeMs: fc.integer({ min: 0, max: 4000 }),
  program: fc.oneof({ arbitrary: moistureLed, weight: 4 }, { arbitrary: timer, weight: 1 }),
  fallbackMl: fc.constantFrom(0, 0, 50),
  conditions: fc.record({
    ...Object.fromEntries(Object.entries(NO_CONDITIONS).map(([key, value]) => [key, fc.constant(value)])),
    hours: fc.constantFrom(null, null, { fromS: 72_000, toS: 25_200 }),
  }) as fc.Arbitrary<LineConfig['conditions']>,
  guards,
});

const sensor = fc.record({
  table: fc.constant([
    { raw: 1000, tenths: 1000 },
    { raw: 3000, tenths: 0 },
  ]),
  lowRaw: fc.constant(20),
  highRaw: fc.constant(4075),
  soilLowRaw: fc.constant(20),
  soilHighRaw: fc.constantFrom(2980, 4075),
  staleAfterS: fc.integer({ min: 60, max: 1800 }),
  leapTenths: fc.integer({ min: 40, max: 200 }),
  settleS: fc.integer({ min: 60, max: 1200 }),
});

const configOf = (lines: fc.Arbitrary<LineConfig[]>): fc.Arbitrary<EngineConfig> =>
  lines.chain((all) =>
    fc.record({
      sensors: fc.tuple(...all.map(() => sensor)),
      tanks: fc.constant([
        { minimumRaw: 300, fallsWithWater: true, lowRaw: 20, highRaw: 400, staleAfterS: 900 },
      ]),
      lines: fc.constant(
        all.map((one, at): LineConfig =>
          // The third zone has no probe and follows the first.
          at === 2
            ? {
                ...one,
                sensor: null,
                program: { kind: 'follower', leader: 0, sharePercent: 80, everyNth: 1 },
              }
            : { ...one, sensor: at },
        ),
      ),
      atOnce: fc.integer({ min: 1, max: 2 }),
    }),
  );

export type World = {
  readonly config: EngineConfig;
  readonly seed: number;
  /** Seconds between two readings while nothing runs. */
  readonly everyS: number;
  /** Shares of readings that go wrong, and how often somebody or something interferes. */
  readonly trouble: number;
  readonly reboots: boolean;
  /** Water that raises the reading, tenths for a ml; 0: the tube is off. */
  readonly gain: number;
  /** What comes in is at times no number, negative or absurd; what a board kept is damaged at times, and its flow is another after a boot. */
  readonly absurd: boolean;
};

export const worldOf = (lines: { readonly min: number; readonly max: number }): fc.Arbitrary<World> =>
  fc.record({
    config: configOf(fc.array(line, { minLength: lines.min, maxLength: lines.max })),
    seed: fc.integer({ min: 1, max: 2 ** 31 }),
    everyS: fc.integer({ min: 60, max: 900 }),
    trouble: fc.constantFrom(0, 0.02, 0.1, 0.3),
    reboots: fc.boolean(),
    gain: fc.constantFrom(0, 0.05, 0.3),
    absurd: fc.boolean(),
  });

/** One call of the engine, as seen from outside. Times are those of the world, the engine's clock counts from boot. */
export type Seen = {
  readonly timeS: number;
  readonly bootS: number;
  readonly before: EngineState;
  readonly input: EngineInput;
  readonly state: EngineState;
  readonly on: readonly boolean[];
  readonly events: readonly EngineEvent[];
  /** The settings as they are since the last boot. */
  readonly config: EngineConfig;
};

/** What a loose contact, a damaged memory or a slip in a file may bring in. */
const ABSURD = [Number.NaN, Infinity, -Infinity, -1e12, 1e15, -1, 0.25] as const;

/** Lives so many days and hands over every call. */
export function live(world: World, look: (seen: Seen) => void, days = 1): void {
  let { config } = world;
  const dice = new Dice(world.seed);
  const chance = () => dice.flat();
  const soil = config.lines.map(() => 200 + 400 * chance());
  const deaf = config.lines.map(() => world.gain === 0 || chance() < 0.2);
  let tankRaw = 120 + 100 * chance();
  let bootS = 0;
  let state = bootEngine(config);
  // What the board last wrote down, when it was asked to and never in between.
  let memory = rememberedOf(state, config);
  let on: readonly boolean[] = config.lines.map(() => false);
  for (let timeS = 0; timeS < days * DAY_S;) {
    // Reboots come most often while something runs or has just ended.
    if (world.reboots && chance() < (on.some(Boolean) ? 0.02 : 0.004)) {
      bootS = timeS;
      if (world.absurd) {
        config = withOtherFlow(world.config, chance);
        if (chance() < 0.3) memory = damaged(memory, chance);
      }
      state = bootEngine(config, memory);
      on = config.lines.map(() => false);
    }
    const nowS = timeS - bootS;
    const isDue = timeS % world.everyS === 0 || on.some(Boolean);
    const wrong = () => chance() < world.trouble;
    const sound: EngineInput = {
      nowS,
      sensors: soil.map((tenths) => {
        if (!isDue || wrong()) return null;
        if (wrong()) return { raw: chance() < 0.5 ? 4095 : 0, atS: nowS };
        return {
          raw: rawOf(Math.round(Math.min(1000, Math.max(0, tenths + (wrong() ? -150 : 0))))),
          atS: nowS,
          unsettled: wrong(),
        };
      }),
      tanks: [wrong() ? null : { raw: Math.round(wrong() ? 390 : tankRaw), atS: nowS }],
      clock: { daySecond: timeS % DAY_S, weekday: 0 },
      around: config.lines.map(() => ({
        airTenthsC: 200,
        light: null,
        rain: false,
        soilTenthsC: null,
        skip: null,
      })),
      batteryMv: 12_600,
      orders: orders(config, chance, world.trouble),
    };
    const before = state;
    const input = world.absurd && chance() < 0.05 ? absurdly(sound, chance) : sound;
    const result = stepEngine(state, input, config);
    state = result.state;
    on = result.on;
    if (result.write) memory = rememberedOf(state, config);
    look({ timeS, bootS, before, input, state, on, events: result.events, config });
    const nextS = on.some(Boolean) ? timeS + 1 : timeS - (timeS % world.everyS) + world.everyS;
    const passedS = nextS - timeS;
    for (const [at, line] of config.lines.entries()) {
      const given = on[at] ? (line.flowMlPerMin * passedS) / 60 : 0;
      tankRaw += given / 40;
      soil[at] = Math.max(
        0,
        Math.min(1000, (soil[at] ?? 0) - 0.004 * passedS + (deaf[at] ? 0 : world.gain * given)),
      );
    }
    timeS = nextS;
  }
}

const oneOf = (chance: () => number) => ABSURD[Math.floor(chance() * ABSURD.length)] ?? Number.NaN;

/** The same moment with some of it turned into nonsense; readings that were sound may be lost by it. */
function absurdly(input: EngineInput, chance: () => number): EngineInput {
  const maybe = <T>(value: T, absurd: () => T): T => (chance() < 0.5 ? value : absurd());
  return {
    ...input,
    sensors: input.sensors.map((one) =>
      maybe(one, () => (one ? { ...one, raw: oneOf(chance) } : { raw: 2900, atS: oneOf(chance) })),
    ),
    tanks: input.tanks.map((one) => maybe(one, () => ({ raw: oneOf(chance), atS: input.nowS }))),
    clock: maybe(input.clock, () => ({ daySecond: oneOf(chance), weekday: oneOf(chance) })),
    around: input.around.map((one) => maybe(one, () => ({ ...one, airTenthsC: oneOf(chance) }))),
    batteryMv: maybe(input.batteryMv, () => oneOf(chance)),
    orders: maybe(input.orders, () => [
      ...input.orders,
      { kind: 'water', line: 0, volumeMl: oneOf(chance) },
      { kind: 'water', line: 99, volumeMl: 100 },
    ]),
  };
}

const withOtherFlow = (config: EngineConfig, chance: () => number): EngineConfig => ({
  ...config,
  lines: config.lines.map((line) => ({
    ...line,
    flowMlPerMin: Math.max(1, Math.round(line.flowMlPerMin * (0.3 + 2 * chance()))),
  })),
});

const damaged = (memory: Remembered, chance: () => number): Remembered =>
  memory.map((line) => ({
    ...line,
    ...(chance() < 0.5 ? { hoursMl: [oneOf(chance), ...line.hoursMl.slice(1)] } : {}),
    ...(chance() < 0.5 ? { noRise: oneOf(chance) } : {}),
    ...(chance() < 0.5 ? { pulses: oneOf(chance), watchTenths: oneOf(chance) } : {}),
  }));

function orders(config: EngineConfig, chance: () => number, trouble: number): Order[] {
  if (chance() > trouble / 20) return [];
  const line = Math.floor(chance() * config.lines.length);
  const kind = chance();
  if (kind < 0.6) return [{ kind: 'water', line, volumeMl: Math.floor(2000 * chance()) }];
  return [{ kind: kind < 0.85 ? 'unlock' : 'stop', line }];
}
