/** Costs of the sums that run often, on this machine: `npm run bench`. */
import { performance } from 'node:perf_hooks';
import { initialEngine, stepEngine, type EngineConfig } from '../core/src/control/engine.ts';
import { marigoldHare, sampleHistory } from '../standins/src/sample/marigoldHare.ts';
import { initialLineParser, parseLine } from '../core/src/signal/line.ts';
import { presentValue, WATCH_WINDOW } from '../core/src/signal/presentValue.ts';
import { StreamBuffer } from '../core/src/signal/streamBuffer.ts';
import { checkWiring } from '../core/src/wiring/checks/all.ts';
import { readCircuit } from '../core/src/wiring/circuit.ts';
import { clearPins, planPins } from '../core/src/wiring/planPins.ts';
import { planWiring } from '../core/src/wiring/planWiring.ts';
import { bigCatalogue, bigGarden, bigParts, bigSetting } from './bigWiring.ts';
import { traceOf } from '../core/src/records/trace.ts';

const config: EngineConfig = {
  table: [
    { raw: 1000, tenths: 1000 },
    { raw: 3000, tenths: 0 },
  ],
  startTenths: 300,
  stopTenths: 600,
  lowCounts: 20,
  highCounts: 4075,
  staleAfterS: 30,
  maxRunS: 20,
  minIntervalS: 600,
  waters: 'automatic',
};

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
  let state = initialEngine;
  rows.push([
    'one step of the engine',
    cost(
      200_000,
      (at) =>
        ({ state } = stepEngine(
          at === 0 ? initialEngine : state,
          { nowS: at, reading: { raw: 1500 + (at % 1200), atS: at } },
          config,
        )),
    ),
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
    'every check on it (wanted: 30 ms)',
    cost(4, () => checkWiring(readCircuit(wiring, bigCatalogue), bigSetting)),
  ]);
  rows.push([
    `all wired from ${parts.parts.length} loose parts`,
    cost(1, () => planWiring(parts, bigCatalogue, bigSetting, { lengthM: 2 })),
  ]);
  console.log('\nCore, median of 9 rounds');
  for (const [what, us] of rows)
    console.log(`  ${what.padEnd(36)} ${us < 1000 ? `${us.toFixed(2)} µs` : `${(us / 1000).toFixed(1)} ms`}`);
}
