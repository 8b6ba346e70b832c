import { expect, test } from 'vitest';
import { plotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import { HostedEngines } from '@plain-trowel/core/live/hostedEngines';
import { viewPlot } from '@plain-trowel/core/live/plotView';

const NOW = Date.UTC(2026, 4, 1, 12);
const garden = marigoldHare(NOW);
const partsOf = (id: string) => {
  const parts = plotParts(garden, id);
  if (!parts) throw new Error(id);
  return parts;
};
const at = (rawCounts: number, ageS = 5) => ({ rawCounts, atMs: NOW - ageS * 1000 });

test('a fresh calibrated reading has its band and its percent', () => {
  // chilli: dry 2934, wet 1144; 2039 lies half way
  expect(viewPlot(partsOf('chilli'), at(2039), NOW)).toMatchObject({
    state: 'right',
    rawCounts: 2039,
    span: { percent: 50 },
  });
});

test('a calibration made at another supply voltage gives no percent', () => {
  const elsewhere = { ...garden, boards: garden.boards.map((board) => ({ ...board, supplyV: 9 })) };
  const parts = plotParts(elsewhere, 'chilli');
  if (!parts) throw new Error('no parts');
  expect(viewPlot(parts, at(2039), NOW)).toMatchObject({
    state: 'void',
    span: null,
  });
});

test('a temperature that the calibration found out puts the percent right, where a thermometer speaks', () => {
  const { fit, ...rest } = partsOf('chilli');
  if (!fit || 'knots' in fit.shape) throw new Error('no line');
  const warm = { ...fit, shape: { ...fit.shape, temperature: { perDegree: -0.5, atC: 18 } } };
  const percentAt = (temperatureC: number | null) =>
    viewPlot({ ...rest, fit: warm }, at(2039), NOW, temperatureC).span?.percent;
  // Half way between its references; four degrees colder than they were, two percent are put on.
  expect(percentAt(14)).toBeCloseTo(52, 9);
  expect(percentAt(null)).toBeCloseTo(50, 9);
});

test('doubt comes before the band', () => {
  expect(viewPlot(partsOf('chilli'), at(2039, 901), NOW).state).toBe('stale');
  expect(viewPlot(partsOf('mint'), at(1023), NOW).state).toBe('implausible');
  expect(viewPlot(partsOf('strawberry'), at(500), NOW)).toMatchObject({
    state: 'not-calibrated',
    span: null,
  });
  expect(viewPlot(partsOf('chilli'), null, NOW).state).toBe('no-reading');
  expect(viewPlot({ ...partsOf('chilli'), channel: null }, null, NOW).state).toBe('no-probe');
});

test('in the page the engine waits from the first line on, then answers, and stops answering when lines stop', () => {
  const engines = new HostedEngines();
  const past = (timeMs: number) => (id: string) => {
    const raw = { 'channel-c2': 2700, 'channel-tank': 200 }[id];
    return raw === undefined ? null : { raw, timeMs };
  };
  const step = (nowMs: number, heardMs = nowMs) =>
    engines.step(garden, past(heardMs), nowMs).lines['line-roof'];
  expect(step(NOW)).toMatchObject({ isOn: false, reason: 'min-interval', mayStartAtMs: NOW + 900_000 });
  const later = NOW + 900_000;
  expect(step(later)).toMatchObject({ isOn: true, runningSinceMs: later, plannedS: 15 });
  expect(step(later + 15_000)).toMatchObject({ isOn: false, reason: 'dose-done', pulses: 1, givenMl: 135 });
  expect(step(later + 901_000, later)).toMatchObject({ isOn: false, reason: 'stale' });
});

test('a tank that nobody hears of holds the line; a board without lines gets no answer', () => {
  const engines = new HostedEngines();
  const dry = (timeMs: number) => (id: string) => (id === 'channel-c2' ? { raw: 2700, timeMs } : null);
  engines.step(garden, dry(NOW), NOW);
  const answers = engines.step(garden, dry(NOW + 900_000), NOW + 900_000);
  expect(answers.lines['line-roof']).toMatchObject({ isOn: false, reason: 'tank-unknown' });
  expect(Object.keys(answers.lines)).toEqual(['line-roof']);
});
