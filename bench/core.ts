/** Costs of the sums that run often, on this machine: `npm run bench`. */
import { performance } from 'node:perf_hooks';
import { bootEngine, stepEngine } from '../core/src/control/engine/engine.ts';
import { configOf, inputAt, SENSOR } from '../core/src/control/engine/engineForTests.ts';
import { marigoldHare, sampleHistory } from '../standins/src/sample/marigoldHare.ts';
import { initialLineParser, parseLine } from '../core/src/signal/line.ts';
import { presentValue, WATCH_WINDOW } from '../core/src/signal/presentValue.ts';
import { StreamBuffer } from '../core/src/signal/streamBuffer.ts';
import { checkWiring } from '../core/src/wiring/checks/all.ts';
import { readCircuit } from '../core/src/wiring/circuit.ts';
import { lossesOf } from '../core/src/wiring/losses.ts';
import { clearPins, planPins } from '../core/src/wiring/planPins.ts';
import { planWiring } from '../core/src/wiring/planWiring.ts';
import { bigCatalogue, bigGarden, bigParts, bigSetting } from './bigWiring.ts';
import { traceOf } from '../core/src/records/trace.ts';

/** Median time of one call over nine rounds, µs. */
function cost(calls: number, call: (at: number) => void): number {
  const rounds = Array.from({ length: 9 }, () => {
    const began = performance.now();
    for (let at = 0; at < calls; at += 1) call(at);
    return ((performance.now() - began) * 1000) / calls;
  });
  return rounds.sort((a, b) => a - b)[4] ?? NaN;
}

export function benchCore(): void {
  const rows: [string, number][] = [];
  const settings = configOf(
    { tank: 0 },
    {
      sensors: [{ ...SENSOR, leapTenths: 50 }],
      tanks: [{ minimumRaw: 300, fallsWithWater: true, lowRaw: 20, highRaw: 400, staleAfterS: 60 }],
    },
  );
  let state = bootEngine(settings);
  rows.push([
    'one step of the engine (wanted: 2 µs)',
    cost(200_000, (at) => {
      if (at === 0) state = bootEngine(settings);
      // The soil dries and is wetted over 40 minutes, so that it starts, runs, stops and is held.
      const raw = 1500 + (at % 2400) * 0.5;
      ({ state } = stepEngine(
        state,
        inputAt(at, {
          sensors: [{ raw: Math.trunc(raw), atS: at }],
          tanks: [{ raw: 200, atS: at }],
        }),
        settings,
      ));
    }),
  ]);
  const lines = ['c2=1512 l1=2240 m1=655', '512;498;731', '{"c2":1512,"t":19.5}', '1512'];
  rows.push([
    'one line read',
    cost(40_000, (at) => parseLine(initialLineParser, lines[at % lines.length] ?? '')),
  ]);
  const buffer = new StreamBuffer();
  for (let at = 0; at < 30_000; at += 1) buffer.push(at * 20, 1500 + Math.sin(at / 90) * 80 + (at % 7));
  rows.push(['present value at 50 lines/s', cost(2000, () => presentValue(buffer, WATCH_WINDOW))]);
  const whole = buffer.since(0);
  rows.push(['strip of 30 000 readings thinned', cost(60, () => traceOf(whole.timesMs, whole.values, 320))]);
  const nowMs = Date.UTC(2026, 4, 1, 15, 20);
  rows.push(['sample garden with three days', cost(3, () => sampleHistory(marigoldHare(nowMs), nowMs))]);
  const { wiring } = bigGarden();
  const parts = bigParts();
  const size = `${wiring.parts.length} parts, ${wiring.wires.length} wires`;
  const bare = clearPins(wiring, bigCatalogue);
  rows.push([`pins planned: ${size}`, cost(4, () => planPins(bare, bigCatalogue, true))]);
  rows.push([
    'the circuit solved and checked (wanted: 300 ms)',
    cost(4, () => checkWiring(readCircuit({ ...wiring }, bigCatalogue), bigSetting)),
  ]);
  rows.push(['every single loss (wanted: 2 s)', cost(1, () => lossesOf(readCircuit(wiring, bigCatalogue)))]);
  rows.push([
    `all wired from ${parts.parts.length} loose parts`,
    cost(1, () => planWiring(parts, bigCatalogue, bigSetting, { lengthM: 2 })),
  ]);
  console.log('\nCore, median of 9 rounds');
  for (const [what, us] of rows)
    console.log(`  ${what.padEnd(36)} ${us < 1000 ? `${us.toFixed(2)} µs` : `${(us / 1000).toFixed(1)} ms`}`);
}
