/**
 * Laws of the engine over random worlds of a day. What is asserted is worked out from readings and outputs alone, not from the engine's own account: when an
 * output was seen on, for how long, and what the newest reading was at that moment. All laws look at the same day, for a day costs more than a look.
 */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { Dice } from '../vectors/script.ts';
import { bootEngine, rememberedOf, stepEngine } from './engine.ts';
import { DAY_S, guards, live, worldOf, type Seen, type World } from './worldForTests.ts';
import type { EngineConfig, Guards } from './settings.ts';
import type { EngineEvent, RawReading } from '../contract/types.ts';

/** A slice for every change; ten thousand with `npm run test:long`, which also asks whether they were rich enough. */
const IS_LONG = Boolean(process.env.TROWEL_LONG);
const WORLDS = IS_LONG ? 10_000 : 500;
/** Of comparisons of two worlds. */
const PAIRS = IS_LONG ? 10_000 : 200;
/** Of what takes longer, or is one law alone. */
const FEWER = PAIRS / 2;
const SEED = 20_261_126;
const LONG_MS = process.env.TROWEL_LONG ? 4_800_000 : 240_000;
const named = (law: string, worlds = PAIRS) => `${law} (${worlds} worlds, seed ${SEED})`;

/** What breaks a law, or null. Told at the end of the day, or at the moment when it happens. */
type Law = {
  readonly name: string;
  readonly see: (seen: Seen) => string | null;
  readonly end?: () => string | null;
};

/** When one line's output was on, from outside. */
class Runs {
  private sinceS: number | null = null;
  private flowMlPerMin = 0;
  longestS = 0;
  totalS = 0;
  /** By the flow that the settings had while it ran. */
  totalMl = 0;
  constructor(private readonly line: number) {}
  see(seen: Seen): void {
    const isOn = seen.on[this.line] === true;
    const began = isOn && seen.events.some((one) => one.line === this.line && one.kind === 'started');
    if (this.sinceS !== null && (!isOn || began)) {
      this.longestS = Math.max(this.longestS, seen.timeS - this.sinceS);
      this.totalS += seen.timeS - this.sinceS;
      this.totalMl += ((seen.timeS - this.sinceS) * this.flowMlPerMin) / 60;
      this.sinceS = null;
    }
    if (isOn && this.sinceS === null) {
      this.sinceS = seen.timeS;
      this.flowMlPerMin = seen.config.lines[this.line]?.flowMlPerMin ?? 0;
    }
  }
}

/** The newest reading that was handed in since boot, by place. */
class Newest {
  private held = new Map<number, RawReading>();
  private bootS = -1;
  see(bootS: number, readings: readonly (RawReading | null)[]): void {
    if (bootS !== this.bootS) this.held = new Map();
    this.bootS = bootS;
    for (const [at, one] of readings.entries()) if (one) this.held.set(at, one);
  }
  at(place: number): RawReading | undefined {
    return this.held.get(place);
  }
}

const startOf = (seen: Seen, line: number): EngineEvent | undefined =>
  seen.events.find((event) => event.line === line && event.kind === 'started');

const lawsOf = ({ config }: World): Law[] => {
  const runs = config.lines.map((_, at) => new Runs(at));
  const lastStart = config.lines.map(() => 0);
  const probes = new Newest();
  const tanks = new Newest();
  const locked = config.lines.map(() => false);
  const worst = (of: (line: EngineConfig['lines'][number], at: number) => string | null) =>
    config.lines.map(of).find((one) => one !== null) ?? null;
  return [
    {
      name: 'no run is longer than the maximum run',
      see: (seen) => {
        for (const one of runs) one.see(seen);
        return null;
      },
      end: () =>
        worst(({ guards: { maxRunS } }, at) => {
          const longest = runs[at]?.longestS ?? 0;
          return longest > maxRunS ? `${longest} s of ${maxRunS}` : null;
        }),
    },
    {
      // The world is a day long, so its whole volume is the fullest window there is.
      name: 'no rolling day gets more than its maximum, whatever reboots, changed flows and damaged memories there are',
      see: () => null,
      end: () =>
        worst(({ guards: { dailyMaxMl } }, at) => {
          const ml = runs[at]?.totalMl ?? 0;
          return ml > dailyMaxMl ? `${ml} ml of ${dailyMaxMl}` : null;
        }),
    },
    {
      name: 'automatic starts keep the minimum interval, from the last start and from boot',
      see: (seen) =>
        worst(({ guards: { minIntervalS } }, at) => {
          const start = startOf(seen, at);
          if (!start) return null;
          const sinceS = seen.timeS - Math.max(lastStart[at] ?? 0, seen.bootS);
          lastStart[at] = seen.timeS;
          return start.reason !== 'order' && sinceS < minIntervalS ? `${sinceS} s of ${minIntervalS}` : null;
        }),
    },
    {
      name: 'nothing that goes by a probe starts on a stale, implausible or unsettled reading',
      see: (seen) => {
        probes.see(seen.bootS, seen.input.sensors);
        return worst((line, at) => {
          const start = startOf(seen, at);
          if (!start || !['below-start', 'below-stop', 'dry-enough'].includes(start.reason)) return null;
          const sensor = config.sensors[line.sensor ?? -1];
          const reading = probes.at(line.sensor ?? -1);
          if (!sensor || !reading) return 'no reading at all';
          const isFresh = seen.input.nowS - reading.atS <= sensor.staleAfterS;
          const isInside = reading.raw >= sensor.lowRaw && reading.raw <= sensor.highRaw;
          return isFresh && isInside && reading.unsettled !== true ? null : JSON.stringify(reading);
        });
      },
    },
    {
      name: 'within one step of a low or silent reservoir every line on it is off',
      see: (seen) => {
        tanks.see(seen.bootS, seen.input.tanks);
        const tank = tanks.at(0);
        const isGood = tank !== undefined && seen.input.nowS - tank.atS <= 900 && tank.raw <= 300;
        return worst((line, at) =>
          line.tank !== null && !isGood && seen.on[at] ? `on at ${JSON.stringify(tank)}` : null,
        );
      },
    },
    {
      name: 'a locked line stays off until a person unlocks it, through any reboot',
      see: (seen) => {
        for (const order of seen.input.orders) if (order.kind === 'unlock') locked[order.line] = false;
        for (const event of seen.events) if (event.kind === 'locked') locked[event.line] = true;
        return worst((_, at) => (locked[at] && seen.on[at] ? 'on while locked' : null));
      },
    },
    {
      name: 'never more lines at once than the supply allows',
      see: (seen) => (seen.on.filter(Boolean).length > config.atOnce ? 'too many' : null),
    },
    {
      name: 'volumes are whole, never negative, and add up',
      see: ({ state, events }) => {
        for (const { ration } of state.lines) {
          let sum = 0;
          for (const one of ration.ml) {
            if (!Number.isInteger(one) || one < 0) return `an hour of ${one} ml`;
            sum += one;
          }
          if (sum !== ration.sumMl) return `${sum} ml told as ${ration.sumMl}`;
        }
        for (const event of events)
          if (event.kind === 'stopped' && !(Number.isInteger(event.volumeMl) && event.ranS >= 0))
            return JSON.stringify(event);
        return null;
      },
    },
  ];
};

describe('in any world', () => {
  test(
    named('every law of the list above holds', WORLDS),
    () => {
      const kinds = new Map<string, number>();
      fc.assert(
        fc.property(worldOf({ min: 1, max: 3 }), (world) => {
          const laws = lawsOf(world);
          const broken = (law: Law, what: string | null, timeS: number) => {
            if (what !== null) throw new Error(`${law.name}: ${what} at ${timeS} s`);
          };
          live(world, (seen) => {
            for (const law of laws) broken(law, law.see(seen), seen.timeS);
            for (const { reason } of seen.events) kinds.set(reason, (kinds.get(reason) ?? 0) + 1);
          });
          for (const law of laws) broken(law, law.end?.() ?? null, DAY_S);
        }),
        { seed: SEED, numRuns: WORLDS },
      );
      // The worlds are rich enough: every guard was met, and every kind of start happened but the fallback, which waits a day.
      if (WORLDS >= 2000)
        for (const reason of MET) expect(kinds.get(reason) ?? 0, reason).toBeGreaterThan(10);
    },
    LONG_MS,
  );
});
const MET = [
  ...[
    'below-start',
    'below-stop',
    'dry-enough',
    'timer',
    'follows',
    'order',
    'dose-done',
    'above-stop',
    'stop-order',
  ],
  ...[
    'max-run',
    'daily-max',
    'min-interval',
    'tank-low',
    'tank-unknown',
    'stale',
    'implausible',
    'unsettled',
  ],
  ...['waiting-for-rise', 'locked', 'other-line-runs', 'soaking', 'pulses-used', 'wet-veto', 'outside-hours'],
];

const oneLine = worldOf({ min: 1, max: 1 });

test(
  `over four days no window of 24 hours gets more than the daily maximum (${FEWER} worlds)`,
  () => {
    fc.assert(
      fc.property(oneLine, (world) => {
        const [line] = world.config.lines;
        if (!line) throw new Error('no line');
        // Seconds in which it ran, each with its own share of water.
        const onS: { timeS: number; ml: number }[] = [];
        live(
          { ...world, gain: 0, config: { ...world.config, lines: [line] } },
          (seen) => {
            if (seen.on[0])
              onS.push({ timeS: seen.timeS, ml: (seen.config.lines[0]?.flowMlPerMin ?? 0) / 60 });
          },
          4,
        );
        let first = 0;
        let ml = 0;
        for (const one of onS) {
          const { timeS } = one;
          ml += one.ml;
          for (let old = onS[first]; old && old.timeS <= timeS - DAY_S; old = onS[first]) {
            ml -= old.ml;
            first += 1;
          }
          if (ml > line.guards.dailyMaxMl + 1e-6)
            throw new Error(`${ml} ml of ${line.guards.dailyMaxMl} by ${timeS} s`);
        }
      }),
      { seed: SEED, numRuns: FEWER },
    );
  },
  LONG_MS,
);

/** The same settings with one guard, or all, as tight as another set of guards. */
function tightened(config: EngineConfig, to: Partial<Guards>): EngineConfig {
  const [line] = config.lines;
  if (!line) throw new Error('no line');
  const old = line.guards;
  const tight: Guards = {
    ...old,
    maxRunS: Math.min(old.maxRunS, to.maxRunS ?? Infinity),
    dailyMaxMl: Math.min(old.dailyMaxMl, to.dailyMaxMl ?? Infinity),
    minIntervalS: Math.max(old.minIntervalS, to.minIntervalS ?? 0),
    noRiseTimes: Math.min(old.noRiseTimes, to.noRiseTimes ?? Infinity),
  };
  return { ...config, lines: [{ ...line, guards: tight }] };
}

/** Seconds that the line ran, and what was told. */
function dayOf(world: World): { readonly totalS: number; readonly told: readonly EngineEvent[] } {
  const runs = new Runs(0);
  const told: EngineEvent[] = [];
  live(world, (seen) => {
    runs.see(seen);
    told.push(...seen.events);
  });
  return { totalS: runs.totalS, told };
}

describe('a tighter guard never gives more water', () => {
  const one = fc.oneof(
    ...(['maxRunS', 'dailyMaxMl', 'minIntervalS', 'noRiseTimes'] as const).map((key) =>
      guards.map((all): Partial<Guards> => ({ [key]: all[key] })),
    ),
    guards,
  );
  test(
    named('at any moment, what runs under the tighter guard would run under the looser too'),
    () => {
      fc.assert(
        fc.property(oneLine, one, (world, to) => {
          live(world, (seen) => {
            const tight = tightened(seen.config, to);
            if (stepEngine(seen.before, seen.input, tight).on[0] && !seen.on[0])
              throw new Error(`only the tighter one runs at ${seen.timeS} s`);
          });
        }),
        { seed: SEED, numRuns: PAIRS },
      );
    },
    LONG_MS,
  );

  /** Nothing goes wrong by chance, so that two worlds differ by their guard alone. */
  const calm = oneLine.map((world): World => ({
    ...world,
    trouble: 0,
    reboots: false,
    absurd: false,
  }));
  test(
    named('over a whole day with a smaller daily maximum; and the same day twice is told the same'),
    () => {
      fc.assert(
        fc.property(calm, fc.integer({ min: 50, max: 4000 }), (world, dailyMaxMl) => {
          const loose = dayOf(world);
          expect(dayOf(world)).toEqual(loose);
          const tight = dayOf({ ...world, config: tightened(world.config, { dailyMaxMl }) });
          expect(tight.totalS).toBeLessThanOrEqual(loose.totalS);
        }),
        { seed: SEED, numRuns: PAIRS },
      );
    },
    LONG_MS,
  );
  test(
    `over a whole day on soil that never answers, with a longer minimum interval (${FEWER} worlds)`,
    () => {
      fc.assert(
        fc.property(calm, fc.integer({ min: 60, max: 20_000 }), (world, minIntervalS) => {
          const deaf: World = { ...world, gain: 0 };
          // Without times of the clock: a longer boot hold would move a whole timer.
          fc.pre(
            deaf.config.lines.every((l) => l.program.kind === 'until-wet' && l.conditions.hours === null),
          );
          const tight = dayOf({ ...deaf, config: tightened(world.config, { minIntervalS }) });
          expect(tight.totalS).toBeLessThanOrEqual(dayOf(deaf).totalS);
        }),
        { seed: SEED, numRuns: FEWER },
      );
    },
    LONG_MS,
  );
});

test(
  `decisions rest on times: called each second, or only when something is read or was asked for (${FEWER} worlds)`,
  () => {
    fc.assert(
      fc.property(oneLine, ({ config, everyS, seed }) => {
        const inputAt = (nowS: number) => ({
          nowS,
          sensors: [nowS % everyS === 0 ? { raw: 1000 + ((nowS * seed) % 2000), atS: nowS } : null],
          tanks: [nowS % everyS === 0 ? { raw: 200, atS: nowS } : null],
          clock: { daySecond: nowS % DAY_S, weekday: 0 },
          around: [],
          batteryMv: null,
          orders: [],
        });
        const day = (isCalled: (nowS: number, askedS: number | null) => boolean) => {
          let step = stepEngine(bootEngine(config), inputAt(0), config);
          const told = [...step.events];
          for (let nowS = 1; nowS <= 15_000; nowS += 1) {
            if (!isCalled(nowS, step.callAgainAtS)) continue;
            step = stepEngine(step.state, inputAt(nowS), config);
            told.push(...step.events);
          }
          return told.filter((event) => event.kind === 'started' || event.kind === 'stopped');
        };
        const seldom = day((nowS, askedS) => nowS % everyS === 0 || (askedS !== null && nowS >= askedS));
        expect(seldom).toEqual(day(() => true));
      }),
      { seed: SEED, numRuns: FEWER },
    );
  },
  LONG_MS,
);

test(
  `a reboot, or a loop of them, brings no water earlier, but for the seconds that it cut off a run (${FEWER} worlds)`,
  () => {
    fc.assert(
      fc.property(oneLine, fc.integer({ min: 20, max: 20_000 }), ({ config, seed }, everyS) => {
        // Soil that is dry for good and never answers, so that nothing but time decides.
        const lines = config.lines.map((line) => ({
          ...line,
          tank: null,
          guards: { ...line.guards, noRiseTimes: 1000 },
        }));
        fc.pre(lines.every((line) => line.conditions.hours === null));
        const calm: EngineConfig = { ...config, lines };
        const dice = new Dice(seed);
        const runsOf = (rebootEveryS: number) => {
          const runs: { fromS: number; toS: number; cutS: number }[] = [];
          let sinceS: number | null = null;
          let plannedS = 0;
          let cutS = 0;
          let [bootS, nextS] = [0, rebootEveryS];
          let state = bootEngine(calm);
          let memory = rememberedOf(state, calm);
          for (let timeS = 0; timeS < DAY_S;) {
            if (timeS === nextS) {
              // What ran is off.
              if (sinceS !== null) {
                cutS += Math.max(0, plannedS - (timeS - sinceS));
                runs.push({ fromS: sinceS, toS: timeS, cutS });
              }
              sinceS = null;
              bootS = timeS;
              state = bootEngine(calm, memory);
              nextS += dice.whole(1, 2 * rebootEveryS);
            }
            const nowS = timeS - bootS;
            const reading = { raw: 2800, atS: nowS };
            const step = stepEngine(
              state,
              {
                nowS,
                sensors: [reading],
                tanks: [],
                clock: { daySecond: timeS, weekday: 0 },
                around: [],
                batteryMv: null,
                orders: [],
              },
              calm,
            );
            state = step.state;
            if (step.write) memory = rememberedOf(state, calm);
            for (const event of step.events) if (event.kind === 'started') ({ plannedS } = event);
            if (step.on[0]) sinceS ??= timeS;
            else if (sinceS !== null) {
              runs.push({ fromS: sinceS, toS: timeS, cutS });
              sinceS = null;
            }
            // When it asked to be called, when the board starts anew, and each half minute with a reading.
            const askedS = step.callAgainAtS === null ? Infinity : bootS + step.callAgainAtS;
            timeS = Math.min(nextS, Math.max(timeS + 1, askedS), timeS - (timeS % 30) + 30);
          }
          return runs;
        };
        const wateredBy = (runs: readonly { fromS: number; toS: number }[], timeS: number) =>
          runs.reduce((sum, one) => sum + Math.max(0, Math.min(one.toS, timeS) - one.fromS), 0);
        const undisturbed = runsOf(Infinity);
        const rebooted = runsOf(everyS);
        for (const { toS, cutS } of rebooted) {
          const [here, there] = [wateredBy(rebooted, toS), wateredBy(undisturbed, toS + cutS)];
          if (here > there) throw new Error(`by ${toS} s for ${here} s, undisturbed for ${there} s`);
        }
      }),
      { seed: SEED, numRuns: FEWER },
    );
  },
  LONG_MS,
);
