/** A tensiometer on an analog pin: its line makes counts kPa, on the page, in the engine and in the board's program. */
import { describe, expect, test } from 'vitest';
import { tenthsFromTable } from '../calibration/boardTable.ts';
import { readCurve } from '../calibration/curve.ts';
import { decidedNow, fitOf } from '../garden/bind/decided.ts';
import { engineOf } from '../garden/bind/engineOf.ts';
import { rawUnitOf, windowOf } from '../garden/bind/scale.ts';
import { setCorrection } from '../garden/edits/bench.ts';
import { firstChannel, firstLine, onePlot } from '../garden/edits/gardenForTests.ts';
import { setWiring } from '../garden/edits/plan.ts';
import type { Garden } from '../garden/document/schema.ts';
import { formatPercent } from '../quantity/format.ts';
import { tensionLine } from '../temperature/correction.ts';
import { sketchNetlist } from '../wiring/sketchNetlist.ts';
import { planBoard } from './boardPlan.ts';
import { cppSketch } from './cpp.ts';

const plain = onePlot({
  probeKind: 'tensiometer',
  probeLabel: 'T1',
  streamName: 't1',
  pin: 'P34',
  board: { name: 'Shed', traits: '3.3 V Wi-Fi board, 12-bit inputs', adcBits: 12, supplyV: 3.3 },
  pump: { flowMlPerS: 9 },
});
const channel = firstChannel(plain);
// Its sheet: 0.2 V at nothing, 4.7 V at 100 kPa; behind a divider of 10 and 20 kΩ these are 0.1333 and 3.1333 V, of 3.3 V and 4095 counts 165.5 and 3888.2.
const line = tensionLine({ read: 165.5, trusted: 0 }, { read: 3888.2, trusted: 100 }, 4095);
if (!line.ok) throw new Error('no line');
const MADE = { madeAt: '2026-05-01T10:00:00Z', against: 'its sheet' };
const meant = setCorrection(plain, channel.id, { kind: 'line', ...line.value, ...MADE });
/** Counts at a tension, by hand. */
const countsAt = (kPa: number): number => 165.5 + (kPa * (3888.2 - 165.5)) / 100;

const drawn = (garden: Garden): Garden =>
  setWiring(
    garden,
    sketchNetlist(
      `b: board-wifi-two-groups; t: probe-tensiometer; d: divider; pump: pump-12v; mos: switch-mosfet
       t.out - d.in; d.out - b.p34; mos.gate - b.p25; mos.drain - pump.minus`,
      {
        parts: {
          b: { stands: { list: 'boards', id: channel.boardId } },
          t: { stands: { list: 'probes', id: channel.probeId ?? '' } },
          pump: { stands: { list: 'waterLines', id: firstLine(garden).id } },
        },
      },
    ),
  );

describe('the line of a tensiometer', () => {
  test('goes through its two points', () =>
    expect(line.value.gain * countsAt(37) + line.value.offset).toBeCloseTo(37, 9));
  test.each([
    ['points that are too near', { read: 165, trusted: 0 }, { read: 800, trusted: 17 }, 'too-close'],
    ['a reading that hardly moved', { read: 165, trusted: 0 }, { read: 240, trusted: 60 }, 'same-reading'],
    ['a converter that ends at 55 kPa', { read: 165, trusted: 0 }, { read: 3736, trusted: 50 }, 'odd-reach'],
    [
      'readings close together, which would reach to 1200 kPa',
      { read: 3900, trusted: 0 },
      { read: 4095, trusted: 60 },
      'odd-reach',
    ],
    ['one that begins at 4 kPa', { read: 0, trusted: 4 }, { read: 3888, trusted: 100 }, 'odd-reach'],
  ])('is refused for %s', (_, one, other, kind) =>
    expect(tensionLine(one, other, 4095)).toMatchObject({ ok: false, issue: { kind } }),
  );
  test('may fall as well: the wetter, the higher the voltage', () =>
    expect(tensionLine({ read: 3900, trusted: 0 }, { read: 300, trusted: 90 }, 4095)).toMatchObject({
      ok: true,
    }));
});

describe('on the page', () => {
  const [plot] = meant.plots;
  if (!plot) throw new Error('no plot');
  const now = (garden: Garden, raw: number) =>
    decidedNow(garden, plot, () => ({ raw, timeMs: 0 }), 0, 60).votes[0]?.dropped;

  test('it reads kPa, and its numbers are called counts', () => {
    const fit = fitOf(meant, firstChannel(meant));
    expect(fit && formatPercent(readCurve(fit, countsAt(37)).percent, fit)).toBe('37.0 kPa');
    expect([rawUnitOf(channel), rawUnitOf(firstChannel(meant))]).toEqual(['kPa', 'counts']);
  });
  test('without its line counts are no tensions, and nothing goes by them', () =>
    expect(now(plain, 1500)).toBe('implausible'));
  test.each([
    ['soil', countsAt(30), null],
    ['water, a little below nothing', countsAt(-2), null],
    // Off by half a percent of its scale a converter stands at its rail.
    ['a cut wire that is pulled down', 6, 'implausible'],
    ['a plug that is out and pulled up', 4095, 'implausible'],
    ['air in its tube, beyond its scale', countsAt(102), 'implausible'],
  ])('%s', (_, raw, dropped) => expect(now(meant, Math.round(raw))).toBe(dropped));
  test('the window lies between the rails, at -5 and at 100 kPa', () => {
    const { lowCounts, highCounts } = windowOf(meant, firstChannel(meant));
    // At -5 kPa it would be below the lower rail, half a percent of 4095.
    expect(lowCounts).toBeCloseTo(Math.max(20.475, countsAt(-5)), 0);
    expect(highCounts).toBeCloseTo(3888.2, 6);
  });
});

describe('in the engine and the program', () => {
  test('the table is over counts', () => {
    const [sensor] = engineOf(meant, channel.boardId).config.sensors;
    for (const kPa of [5, 10, 30, 60, 90]) {
      const tenths = tenthsFromTable(sensor?.table ?? [], Math.round(countsAt(kPa)));
      expect(Math.abs(tenths - (1000 - 10 * kPa))).toBeLessThanOrEqual(1);
    }
  });
  test('is written for the pin behind its divider', () => {
    const planned = planBoard(drawn(meant), channel.boardId);
    if (!planned.ok) throw new Error(JSON.stringify(planned.problems));
    expect(planned.plan.inputs).toMatchObject([{ reads: 'analog', pin: { number: 34 }, name: 't1' }]);
    expect(cppSketch(planned.plan, '')).toContain('{READ_ANALOG, 34, 34, ALWAYS_FED, "t1"}');
  });
  test('is not written before anybody has said which count is which tension', () => {
    const planned = planBoard(drawn(plain), channel.boardId);
    expect(planned.ok ? [] : planned.problems.map(({ kind }) => kind)).toContain('no-tension');
  });
});
