import { bootEngine, rememberedOf, stepEngine } from '../engine/engine.ts';
import type { Reason } from '../contract/reasons.ts';
import type { EngineInput, EngineStep, Remembered } from '../contract/types.ts';
import { inputAt, type Script } from './script.ts';

/** One call of the engine in a day; `boot` when the board had just been switched on, with what it had kept. */
export type Call = {
  readonly timeS: number;
  readonly boot: Remembered | null;
  readonly input: EngineInput;
  readonly step: EngineStep;
};

/** Runs a day, calling the engine at every moment of it, whenever it asked to be called, and at other seconds as it is told to. */
export function runScript({ config, moments, endS }: Script, calledToo: (timeS: number) => boolean): Call[] {
  const calls: Call[] = [];
  let bootS = 0;
  let boot: Remembered | null = [];
  let state = bootEngine(config);
  let memory: Remembered = rememberedOf(state, config);
  let askedS: number | null = null;
  let next = 0;
  let timeS = 0;
  while (timeS <= endS) {
    const moment = moments[next]?.atS === timeS ? moments[next++] : moments[next - 1];
    if (!moment) break;
    if (moment.reboots && moment.atS === timeS) {
      bootS = timeS;
      boot = memory;
      state = bootEngine(config, memory);
    }
    if (moment.atS === timeS) bootS += Math.min(moment.backS, timeS - bootS);
    const input = inputAt(moment, timeS, bootS);
    const step = stepEngine(state, input, config);
    calls.push({ timeS, boot, input, step });
    boot = null;
    state = step.state;
    if (step.write) memory = rememberedOf(state, config);
    askedS = step.callAgainAtS === null ? null : bootS + step.callAgainAtS;
    do timeS += 1;
    while (timeS <= endS && timeS !== askedS && timeS !== moments[next]?.atS && !calledToo(timeS));
  }
  return calls;
}

/** Reasons that no call of the engine gives: a plot without a line has none, settings are changed by the host, and the rest are those of contacts. */
export const NOT_THE_ENGINES: readonly Reason[] = [
  'no-line',
  'settings-changed',
  'in-hours',
  'dark',
  'sun-unknown',
  'max-on',
  'min-off',
  'day-max-on',
];

/** Every reason that was told, or that a line stood by. */
export const reasonsIn = (calls: readonly Call[]): Set<Reason> =>
  new Set(
    calls.flatMap(({ step }) => [
      ...step.events.map((event) => event.reason),
      ...step.state.lines.map((line) => line.reason),
    ]),
  );
