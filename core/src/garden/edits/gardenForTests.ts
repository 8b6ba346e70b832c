/** Gardens that tests start from. */
import type { Condition } from '../../calibration/conditions.ts';
import { addCapture, finishRun, startRun } from './calibrations.ts';
import { addPlot, emptyGarden, type Parts } from './plots.ts';
import type { Calibration, Capture, Channel, Garden, WaterLine } from '../document/schema.ts';

export const NOW = '2026-05-01T10:00:00Z';

/** A fixed sequence in place of chance, never the same twice in a row. */
export function dice(): () => number {
  let at = 0;
  return () => ((at += 7) % 97) / 97;
}
/** One sequence for all, for ids in one garden must differ. */
const chance = dice();
export const making = () => ({ random: dice(), nowIso: NOW });

export const MINT: Parts = {
  plotName: 'Mint',
  plant: 'mint',
  probeLabel: 'M1',
  probeKind: 'capacitive stick',
  colour: 'green',
  depthCm: 6,
  pin: '',
  streamName: 'm1',
  board: { name: 'Board', traits: 'any', adcBits: 12, supplyV: 3.3 },
  pump: null,
};

/** One plot with one probe on one board. */
export const onePlot = (change: Partial<Parts> = {}): Garden =>
  addPlot(emptyGarden('Test', 'UTC', making()), { ...MINT, ...change }, dice()).garden;

export function firstChannel(garden: Garden): Channel {
  const channel = garden.channels[0];
  if (!channel) throw new Error('no channel');
  return channel;
}

export function firstLine(garden: Garden): WaterLine {
  const line = garden.waterLines[0];
  if (!line) throw new Error('no line');
  return line;
}

/** A calm, steady capture. The n-th of a test is taken n minutes later, as it would be. */
export const captureOf = (rawCounts: number, change: Partial<Capture> = {}, minute = 0): Capture => ({
  rawCounts,
  noiseCounts: 3,
  spreadCounts: 4,
  readings: 20,
  windowS: 10,
  takenAt: new Date(Date.parse(NOW) + minute * 60_000).toISOString(),
  supplyV: 3.3,
  boardId: 'board',
  simulated: false,
  settling: { verdict: 'steady', fromEndCounts: 0 },
  ...change,
});

/** Adds one capture of a condition to the run of the first channel. */
export const captured = (
  garden: Garden,
  condition: Condition,
  capture: Capture,
  typed: number | null = null,
): Garden =>
  addCapture(
    garden,
    firstChannel(garden).id,
    { condition, typed, felt: null, temperatureC: null, capture },
    null,
    chance,
  );

export const CONTEXT = {
  probeKind: 'capacitive stick',
  fullScaleCounts: 4095,
  nowMs: Date.parse(NOW),
} as const;
export const AS_LINE = { kind: 'line', who: 'Ann', note: '', recalibrateBy: null } as const;

/** The first channel calibrated in air and water, on its own board. */
export function airAndWater(
  garden: Garden,
  dryCounts: number,
  wetCounts: number,
  change: Partial<Capture> = {},
): { readonly garden: Garden; readonly calibration: Calibration } {
  const { id, boardId } = firstChannel(garden);
  const begun = startRun(garden, id, 'air-water', making());
  const dry = captured(begun, 'air', captureOf(dryCounts, { boardId, ...change }));
  const both = captured(dry, 'water', captureOf(wetCounts, { boardId, ...change }, 1));
  const done = finishRun(both, id, CONTEXT, AS_LINE, { random: chance, nowIso: NOW });
  if (!done.ok) throw new Error(JSON.stringify(done.issue));
  return done.value;
}
