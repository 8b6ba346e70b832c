import { identified } from '@plain-trowel/core/records/event';
import { describe, expect, test } from 'vitest';
import { plotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { REASONS } from '@plain-trowel/core/control/contract/reasons';
import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import type { PlotView } from '@plain-trowel/core/live/plotView';
import { eventText } from './eventText.ts';
import { labelLine, stateWord } from '@plain-trowel/core/telling/plotWords';
import { probeLine } from './plotText.ts';
import { reasonText } from './reasonText.ts';

const garden = marigoldHare(Date.UTC(2026, 4, 1));
const partsOf = (id: string) => {
  const parts = plotParts(garden, id);
  if (!parts) throw new Error(id);
  return parts;
};

describe('a label', () => {
  const span = { percent: 31.44, beyondCounts: 0, clampedAt: null };
  const view = (change: Partial<PlotView>): PlotView => ({
    state: 'right',
    words: 'five',
    rawCounts: 2000,
    atMs: 0,
    span,
    scale: { percentKind: 'span', dryCounts: 3000, wetCounts: 1000, dryPercent: 0, wetPercent: 100 },
    temperatureC: null,
    votes: null,
    ...change,
  });

  test('says the band and the percent with its kind', () => {
    expect(labelLine(view({}))).toBe('right, 31.4 % span');
    expect(labelLine(view({ words: 'three' }))).toBe('good, 31.4 % span');
  });

  test('says raw counts where those decide alone, and goes on beyond the scale', () => {
    const scale = {
      percentKind: 'counts',
      dryCounts: 3000,
      wetCounts: 1000,
      dryPercent: 0,
      wetPercent: 100,
    } as const;
    expect(labelLine(view({ state: 'dry', rawCounts: 3141, scale }))).toMatch(/^dry, 3\s141 counts$/);
  });

  test.each([
    ['implausible', 'unknown: probe fault'],
    ['stale', 'unknown: silent'],
    ['void', 'unknown: calibration void'],
  ] as const)('gives no percent when the reading is %s', (state, words) => {
    expect(labelLine(view({ state }))).toBe(words);
  });

  test('without a calibration there is no percent to give', () => {
    expect(labelLine(view({ state: 'not-calibrated', span: null }))).toBe('unknown: not calibrated');
    expect(stateWord('no-reading')).toBe('unknown: no reading yet');
    expect(stateWord('no-probe')).toBe('unknown: no probe');
  });
});

test('a probe is told by kind, tag, depth, board and supply', () => {
  expect(probeLine(partsOf('chilli'))).toBe(
    'Capacitive stick, blue tag, 7 cm deep. Roof board, P35, 12-bit at 3.3 V.',
  );
  expect(probeLine({ ...partsOf('chilli'), probe: null })).toBe('No probe yet.');
});

test('every reason of the engine has words of its own', () => {
  const words = REASONS.map(reasonText);
  expect(new Set(words).size).toBe(REASONS.length);
});

const common = { atMs: 0, plotId: 'chilli', simulated: false };
test.each([
  [
    { ...common, kind: 'pump-started', reason: 'below-start', tenths: 312 } as const,
    'Pump on',
    'at 31.2 % span: the soil is drier than the start limit',
  ],
  [
    { ...common, kind: 'pump-stopped', reason: 'max-run', ranS: 15, volumeMl: 135 } as const,
    'Pump off',
    'after 15 s, about 135 ml: the maximum run was reached',
  ],
  [{ ...common, kind: 'held', reason: 'stale' } as const, 'Held', 'the last reading is too old to act on'],
  [{ ...common, kind: 'poured', volumeMl: 50 } as const, 'Watered', '50 ml by hand'],
  [{ ...common, kind: 'probe-moved', to: 'air' } as const, 'Probe moved', 'out into the air'],
  [
    {
      ...common,
      kind: 'reference',
      side: 'wet',
      condition: 'water',
      rawCounts: 277,
      spreadCounts: 1.52,
    } as const,
    'Reference',
    'water: 277 counts, spread ± 1.5',
  ],
  [
    { ...common, kind: 'calibrated', calibrationId: 'cal', dryCounts: 721, wetCounts: 277 } as const,
    'Calibrated',
    '% span: dry 721, wet 277 counts',
  ],
  [
    { ...common, kind: 'imported', what: 'a.csv', readings: 40 } as const,
    'Imported',
    '40 new readings from a.csv',
  ],
  [{ ...common, kind: 'note', text: 'yellow leaf' } as const, 'Note', 'yellow leaf'],
])('%j in words', (event, what, detail) => {
  expect(eventText(identified(event, 'e', 'page'))).toEqual({ what, detail });
});
