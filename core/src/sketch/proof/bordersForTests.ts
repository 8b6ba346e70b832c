/** Days on which something lies exactly on a border, which days drawn at random hardly ever meet. */
import { bootEngine, stepEngine } from '../../control/engine/engine.ts';
import {
  configOf,
  GUARDS,
  inputAt,
  LINE,
  NO_CONDITIONS,
  reads,
} from '../../control/engine/engineForTests.ts';
import type { EngineInput } from '../../control/contract/types.ts';
import type { EngineConfig, LineConfig } from '../../control/engine/settings.ts';
import { answerOf, type AskedCall } from '../../control/vectors/vectorFile.ts';
import type { NamedProof } from './proofForTests.ts';
import { proofOf } from './proofText.ts';

const NOWHERE = { airTenthsC: null, light: null, rain: null, soilTenthsC: null, skip: null };

function day(
  name: string,
  line: Partial<LineConfig>,
  endS: number,
  told: (nowS: number) => EngineInput,
): NamedProof {
  const config: EngineConfig = configOf(line);
  let state = bootEngine(config);
  const calls: AskedCall[] = [
    { boot: [], input: inputAt(0), asked: answerOf(stepEngine(state, inputAt(0), config)) },
  ];
  state = stepEngine(state, inputAt(0), config).state;
  for (let nowS = 1; nowS <= endS; nowS += 1) {
    const input = told(nowS);
    const step = stepEngine(state, input, config);
    state = step.state;
    calls.push({ boot: null, input, asked: answerOf(step) });
  }
  return { name, proof: proofOf(config, calls) };
}

const DOSE = { kind: 'single-dose', startTenths: 300, doseMl: 50, intervalS: 60 } as const;
const QUICK = { ...GUARDS, minIntervalS: 60, responseS: 60, noRiseTimes: 2 };

/** Each condition at its limit and one to either side of it. */
const CONDITIONS = [
  ...[299, 300, 301].map((light) => ({ on: { darkBelow: 300 }, around: { light } })),
  ...[199, 200, 201].map((airTenthsC) => ({ on: { airBelowTenthsC: 200 }, around: { airTenthsC } })),
  ...[19, 20, 21].map((soilTenthsC) => ({ on: { soilAboveTenthsC: 20 }, around: { soilTenthsC } })),
  ...[true, false].map((rain) => ({ on: { noRain: true }, around: { rain } })),
  ...[true, false].map((skip) => ({ on: { noSkip: true }, around: { skip } })),
];

export const BORDERS: readonly NamedProof[] = [
  ...CONDITIONS.map(({ on, around }) =>
    day(
      `condition ${JSON.stringify({ on, around })}`,
      { program: DOSE, guards: QUICK, conditions: { ...NO_CONDITIONS, ...on } },
      200,
      (nowS) => reads(nowS, 250, { around: [{ ...NOWHERE, ...around }] }),
    ),
  ),
  ...[11_799, 11_800, 11_801].map((batteryMv) =>
    day(
      `battery ${batteryMv}`,
      { program: DOSE, guards: QUICK, conditions: { ...NO_CONDITIONS, batteryAboveMv: 11_800 } },
      200,
      (nowS) => reads(nowS, 250, { batteryMv }),
    ),
  ),
  // A dose that begins just below, at and above what it must prove.
  ...[249, 250, 251].map((from) =>
    day(`proves from ${from}`, { program: DOSE, guards: { ...QUICK, provesBelowTenths: 250 } }, 600, (nowS) =>
      reads(nowS, from),
    ),
  ),
  // A rise just short of what is asked for, as much, and more; from where there is hardly room to rise.
  ...[19, 20, 21].map((rise) =>
    day(`rises by ${rise}`, { program: DOSE, guards: QUICK }, 600, (nowS) =>
      reads(nowS, nowS > 100 ? 250 + rise : 250),
    ),
  ),
  ...[979, 980, 981].map((from) =>
    day(`near the top ${from}`, { program: { ...DOSE, startTenths: 1000 }, guards: QUICK }, 600, (nowS) =>
      reads(nowS, from),
    ),
  ),
  // A dose that raised nothing, then one that the wet probe ends: the count begins anew.
  day(
    'a veto clears the count',
    {
      program: {
        kind: 'veto',
        slots: [0, 200, 400, 600].map((daySecond) => ({ daySecond, days: 127 })),
        doseMl: 100,
        wetTenths: 500,
        interrupts: true,
      },
      guards: QUICK,
    },
    900,
    (nowS) => reads(nowS, nowS >= 205 && nowS < 300 ? 550 : 300, { clock: { daySecond: nowS, weekday: 0 } }),
  ),
  // Settings that no board should have.
  ...[0, -1].map((flowMlPerMin) =>
    day(`a flow of ${flowMlPerMin}`, { flowMlPerMin }, 700, (nowS) => reads(nowS, 250)),
  ),
  ...[
    { dailyMaxMl: -1 },
    { maxRunS: -1 },
    { minIntervalS: -1 },
    { riseTenths: -1 },
    { responseS: -1 },
    { noRiseTimes: 0 },
    { provesBelowTenths: -1 },
  ].map((guards) =>
    day(`guards ${JSON.stringify(guards)}`, { guards: { ...LINE.guards, ...guards } }, 700, (nowS) =>
      reads(nowS, 250),
    ),
  ),
];
