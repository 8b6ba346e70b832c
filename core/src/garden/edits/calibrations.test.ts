import { describe, expect, test } from 'vitest';
import { boardTable, tenthsFromTable } from '../../calibration/boardTable.ts';
import { countsAtPercent, readCurve } from '../../calibration/curve.ts';
import { bandAt } from '../../quantity/bands.ts';
import { formatPercent } from '../../quantity/format.ts';
import {
  addCapture,
  copyToSister,
  finishRun,
  giveUpRun,
  reopenCalibration,
  setPointUsed,
  setRecalibrateBy,
  setRunInput,
  setSoilFacts,
  startRun,
  takeBackCapture,
  useCalibration as putToUse,
  versionsOf,
} from './calibrations.ts';
import { probeScale } from '../bind/channels.ts';
import { plotParts, runOf } from '../bind/plotParts.ts';
import { certificateCsv, certificateJson, certificateOf, tableCsv } from '../bind/certificate.ts';
import { calibratedOfVersion, curveOf } from '../bind/curveOf.ts';
import { dueCalibrations } from '../bind/dueCalibrations.ts';
import { addPlot, setLimit, setLimits } from './plots.ts';
import { areLimitsUnset } from '../bind/suggested.ts';
import {
  airAndWater,
  AS_LINE,
  captured,
  captureOf,
  CONTEXT,
  dice,
  firstChannel,
  making,
  MINT,
  NOW,
  onePlot,
} from './gardenForTests.ts';
import { gardenSchema, type Garden } from '../document/schema.ts';

const garden = onePlot();
const { id: channelId } = firstChannel(garden);
const begun = startRun(garden, channelId, 'air-water', making());
const plotOf = (of: Garden) => of.plots[0]?.id ?? '';
const pointsOf = (of: Garden) => runOf(of, channelId)?.points ?? [];
const isSound = (of: Garden) => expect(gardenSchema.safeParse(of).error?.issues).toBeUndefined();

describe('a run', () => {
  test('begins with the usual numbers, and only one runs on a channel', () => {
    const mixing = startRun(begun, channelId, 'mixing', making());
    expect(mixing.runs).toHaveLength(1);
    expect(runOf(mixing, channelId)?.inputs).toMatchObject({ steps: 5, grainDensity: 2.65 });
    isSound(mixing);
  });
  test('gathers captures; one condition can be captured again, removed, left out', () => {
    const once = captured(begun, 'air', captureOf(3000));
    const [air] = pointsOf(once);
    if (!air) throw new Error('no point');
    const of = { condition: 'air', typed: null, felt: null, temperatureC: null } as const;
    const twice = addCapture(once, channelId, { ...of, capture: captureOf(3004, {}, 1) }, air.id, dice());
    expect(pointsOf(twice)).toMatchObject([
      { condition: 'air', captures: [{ rawCounts: 3000 }, { rawCounts: 3004 }] },
    ]);
    expect(pointsOf(takeBackCapture(twice, channelId, air.id))).toEqual(pointsOf(once));
    expect(pointsOf(takeBackCapture(once, channelId, air.id))).toEqual([]);
    expect(pointsOf(setPointUsed(twice, channelId, air.id, false))[0]?.used).toBe(false);
    isSound(twice);
  });
  test('a number is set and taken away; the run is given up without a trace', () => {
    const set = setRunInput(begun, channelId, 'rightPercent', 60);
    expect(runOf(set, channelId)?.inputs.rightPercent).toBe(60);
    expect(runOf(setRunInput(set, channelId, 'rightPercent', null), channelId)?.inputs).toEqual({});
    expect(giveUpRun(set, channelId)).toEqual(garden);
  });
});

describe('finishing', () => {
  test('makes a version, takes it into use, and ends the run', () => {
    const { garden: done, calibration } = airAndWater(garden, 3000, 1400);
    expect(done.runs).toEqual([]);
    expect(firstChannel(done).calibrationId).toBe(calibration.id);
    expect(calibration).toMatchObject({
      method: 'air-water',
      percentKind: 'span',
      who: 'Ann',
      guessOf: null,
      range: { lowCounts: 1400, highCounts: 3000 },
      place: { supplyV: 3.3, depthCm: 6 },
      warnings: expect.arrayContaining(['once-only', 'mind-the-line']) as string[],
    });
    const curve = curveOf(calibration);
    expect(curve && readCurve(curve, 2200).percent).toBeCloseTo(50, 9);
    isSound(done);
  });
  test('is refused while a finding cannot be passed over, and nothing is lost', () => {
    const close = captured(captured(begun, 'air', captureOf(3000)), 'water', captureOf(2990, {}, 1));
    const refused = finishRun(close, channelId, CONTEXT, AS_LINE, making());
    expect(refused).toMatchObject({ ok: false, issue: { kind: 'refused' } });
    expect(finishRun(garden, channelId, CONTEXT, AS_LINE, making())).toMatchObject({
      issue: { kind: 'no-run' },
    });
    const one = captured(begun, 'air', captureOf(3000));
    expect(finishRun(one, channelId, CONTEXT, AS_LINE, making())).toMatchObject({
      issue: { kind: 'no-curve' },
    });
  });
  test('a later version leaves the earlier untouched; either can be used', () => {
    const first = airAndWater(garden, 3000, 1400);
    const second = airAndWater(first.garden, 2900, 1400);
    expect(versionsOf(second.garden, channelId).map((one) => one.id)).toEqual([
      second.calibration.id,
      first.calibration.id,
    ]);
    expect(second.garden.calibrations[0]).toEqual(first.calibration);
    expect(firstChannel(putToUse(second.garden, first.calibration.id)).calibrationId).toBe(
      first.calibration.id,
    );
  });
  test('reopened, a version’s references are there to be repeated one by one', () => {
    const { garden: done, calibration } = airAndWater(garden, 3000, 1400);
    const again = reopenCalibration(done, calibration.id, making());
    expect(pointsOf(again)).toEqual(calibration.points);
    expect(again.calibrations).toEqual(done.calibrations);
  });
});

describe('another kind of percent', () => {
  test('limits and bands keep the raw values that the board compares', () => {
    const { garden: spanned } = airAndWater(
      setLimits(garden, plotOf(garden), { startTenths: 350, stopTenths: 600 }),
      3000,
      1000,
    );
    // Span limits 35 and 60 %: 2300 and 1800 counts.
    const begin = startRun(spanned, channelId, 'drain', making());
    const drained = captured(begin, 'drained a day', captureOf(1500));
    const both = captured(drained, 'plant hangs its leaves', captureOf(2500, {}, 1));
    const done = finishRun(both, channelId, CONTEXT, AS_LINE, making());
    if (!done.ok) throw new Error(done.issue.kind);
    // Available: 0 at 2500, 100 at 1500. 2300 reads 20 and 1800 reads 70.
    expect(done.value.garden.plots[0]?.limits).toEqual({ startTenths: 200, stopTenths: 700 });
    // The words go with them: dry below half of start, and nothing is flooded up to capacity.
    expect(done.value.garden.plots[0]?.bandEdges).toEqual([100, 200, 700, 1000]);
    isSound(done.value.garden);
    // And back again.
    const first = spanned.calibrations[0]?.id ?? '';
    expect(putToUse(done.value.garden, first).plots[0]?.limits).toEqual({
      startTenths: 350,
      stopTenths: 600,
    });
  });
});

describe('limits that nobody has set', () => {
  const drained = (from: Garden) => {
    const begin = startRun(from, channelId, 'drain', making());
    const one = captured(begin, 'drained a day', captureOf(1500));
    const both = captured(one, 'plant hangs its leaves', captureOf(2500, {}, 1));
    const done = finishRun(both, channelId, CONTEXT, AS_LINE, making());
    if (!done.ok) throw new Error(done.issue.kind);
    return done.value.garden.plots[0];
  };
  test('come from the soil once percent is of the soil, never from a span', () => {
    const { garden: spanned } = airAndWater(garden, 3000, 1000);
    // No plant: 0.3 + 0.04 · (5 − 3.5) = 0.36 may go.
    expect(drained(spanned)).toMatchObject({
      limits: { startTenths: 640, stopTenths: 900 },
      limitsSet: true,
      bandEdges: [320, 640, 900, 1000],
    });
    expect(spanned.plots[0]?.limitsSet).toBe(false);
  });
  test('of a soil chosen later they come then', () => {
    const inVwc = (from: Garden): Garden => ({
      ...from,
      calibrations: from.calibrations.map((one) => ({ ...one, percentKind: 'volumetric' as const })),
    });
    const bare = inVwc(airAndWater(garden, 3000, 1000).garden);
    const [plot] = bare.plots;
    const parts = plotParts(bare, plotOf(bare));
    expect(parts && areLimitsUnset(parts)).toBe(true);
    const [known] = setSoilFacts(bare, plot?.id ?? '', { kindId: 'loam' }).plots;
    // 14 + 0.64 · 14 and 14 + 0.9 · 14; dry half way from wilting, flooded above 28.
    expect(known?.limits).toEqual({ startTenths: 230, stopTenths: 266 });
    expect(known?.bandEdges).toEqual([185, 230, 266, 280]);
    const [set] = setSoilFacts(
      inVwc(setLimits(bare, plotOf(bare), { startTenths: 200, stopTenths: 250 })),
      plotOf(bare),
      { kindId: 'loam' },
    ).plots;
    expect(set?.limits).toEqual({ startTenths: 200, stopTenths: 250 });
  });
});

describe('a sister probe', () => {
  const two = addPlot(
    airAndWater(garden, 3000, 1400).garden,
    {
      ...MINT,
      plotName: 'Basil',
      probeLabel: 'B1',
      streamName: 'b1',
      board: { id: firstChannel(garden).boardId },
    },
    dice(),
  ).garden;
  const sister = two.channels[1];
  if (!sister) throw new Error('no sister');
  test('begins with a copy, marked as a guess', () => {
    const copied = copyToSister(two, two.calibrations[0]?.id ?? '', sister.id, making());
    expect(copied?.calibration).toMatchObject({ guessOf: two.calibrations[0]?.id, channelId: sister.id });
    expect(copied?.garden.channels[1]?.calibrationId).toBe(copied?.calibration.id);
    if (copied) isSound(copied.garden);
  });
  test('not to itself, and not from nowhere', () => {
    expect(copyToSister(two, two.calibrations[0]?.id ?? '', channelId, making())).toBeNull();
    expect(copyToSister(two, 'none', sister.id, making())).toBeNull();
  });
});

describe('due again', () => {
  const { garden: done, calibration } = airAndWater(
    setSoilFacts(garden, garden.plots[0]?.id ?? '', { name: 'loam' }),
    3000,
    1400,
  );
  const nowMs = Date.parse(NOW);
  const reasons = (of: Garden) => dueCalibrations(of, nowMs).map((one) => [one.reason, one.isNow]);
  test('nothing, while nothing has changed and no day is set', () => {
    expect(reasons(done)).toEqual([]);
    expect(dueCalibrations(garden, nowMs)).toEqual([]);
  });
  test('on its day, and before it as a reminder', () => {
    expect(reasons(setRecalibrateBy(done, calibration.id, '2026-11-01T09:00:00Z'))).toEqual([
      ['date', false],
    ]);
    expect(reasons(setRecalibrateBy(done, calibration.id, '2026-04-01T09:00:00Z'))).toEqual([['date', true]]);
  });
  test('after another supply, board, depth or soil', () => {
    const change = (to: Partial<Garden>) => reasons({ ...done, ...to });
    expect(change({ boards: done.boards.map((one) => ({ ...one, supplyV: 5 })) })).toEqual([
      ['supply', true],
    ]);
    expect(change({ probes: done.probes.map((one) => ({ ...one, depthCm: 12 })) })).toEqual([
      ['depth', true],
    ]);
    expect(change({ channels: done.channels.map((one) => ({ ...one, boardId: 'other' })) })).toEqual([
      ['board', true],
    ]);
    expect(reasons(setSoilFacts(done, done.plots[0]?.id ?? '', { name: 'compost' }))).toEqual([
      ['soil', true],
    ]);
  });
});

describe('the certificate', () => {
  const { garden: done, calibration } = airAndWater(garden, 3000, 1400);
  const certificate = certificateOf(done, calibration);
  if (!certificate) throw new Error('no certificate');
  test('says what the calibration rests on and how far it may be off', () => {
    expect(certificate).toMatchObject({
      format: 'plain-trowel-calibration',
      probe: { label: 'M1', depthCm: 6 },
      percent: '% span',
      points: [
        { condition: 'air', percent: 0, rawCounts: [3000], settled: true },
        { condition: 'water', percent: 100, rawCounts: [1400] },
      ],
      table: [
        { raw: 1400, tenths: 1000 },
        { raw: 3000, tenths: 0 },
      ],
    });
    expect(certificate.scale).toHaveLength(11);
    // 1600 counts are 100 %: 16 for one, and one is 0.0625. Once each: 0.6 % of the span is assumed of pushing in.
    expect(certificate).toMatchObject({ spanCounts: 1600, countsPerPercent: 16 });
    expect(certificate.quantisationPercent).toBeCloseTo(0.0625, 2);
    expect(certificate.repeatability?.counts).toBeCloseTo(9.6, 0);
    expect(certificate.scale[0]?.plusMinus).toBeGreaterThan(1.5);
    expect(calibratedOfVersion(calibration)).not.toBeNull();
  });
  test('as JSON and as CSV it can be read by others', () => {
    expect(JSON.parse(certificateJson(certificate))).toEqual(certificate);
    const rows = certificateCsv(certificate).trim().split('\r\n');
    expect(rows).toHaveLength(12);
    expect(rows[0]).toBe('probe,board,supply_v,made_at,raw_counts,percent (% span),plus_minus');
    expect(rows[1]).toMatch(/^M1,[^,]+,3\.3,\d{4}-[^,]+,3000,0,/);
    expect(tableCsv(certificate.table)).toBe('raw,tenths\r\n1400,1000\r\n3000,0\r\n');
  });
});

describe('what needs a reason', () => {
  const rising = captured(captured(begun, 'air', captureOf(1200, {}, 0)), 'water', captureOf(3000, {}, 9));
  const finish = (note: string) => finishRun(rising, channelId, CONTEXT, { ...AS_LINE, note }, making());
  test('numbers that rise where the kind falls are taken into use only with a note that says why', () => {
    expect(finish('  ')).toMatchObject({ ok: false, issue: { kind: 'no-reason' } });
    const done = finish('this one is built the other way round');
    expect(done.ok && done.value.calibration).toMatchObject({
      note: 'this one is built the other way round',
    });
    expect(done.ok && done.value.calibration.warnings).toContain('runs-the-other-way');
  });
});

test('bands by feel set the words and the limits by the cuts, and the wettest word felt keeps its name', () => {
  const feeling = startRun(garden, channelId, 'feel', making());
  const words = [
    [3000, 'dry'],
    [2500, 'low'],
    [2000, 'right'],
    [1500, 'wet'],
  ] as const;
  const felt = words.reduce(
    (of, [rawCounts, word], at) =>
      addCapture(
        of,
        channelId,
        {
          condition: 'felt by hand',
          typed: null,
          felt: word,
          temperatureC: null,
          capture: captureOf(rawCounts, {}, 9 * at),
        },
        null,
        dice(),
      ),
    feeling,
  );
  const done = finishRun(felt, channelId, CONTEXT, AS_LINE, making());
  if (!done.ok) throw new Error(done.issue.kind);
  const [plot] = done.value.garden.plots;
  const curve = curveOf(done.value.calibration);
  if (!plot || !curve) throw new Error('no plot');
  const wordAt = (counts: number) => bandAt(plot.bandEdges, 10 * readCurve(curve, counts).percent);
  expect(words.map(([counts]) => wordAt(counts))).toEqual(words.map(([, word]) => word));
  // The cuts lie half way between what was felt: 2250 between low and right, 1750 between right and wet.
  const tenthsAt = (counts: number) => Math.round(10 * readCurve(curve, counts).percent);
  expect(plot.limits).toMatchObject({ startTenths: tenthsAt(2250), stopTenths: tenthsAt(1750) });
});

describe('raw cut-offs, without any percent', () => {
  const cutOffs = (
    dry: Parameters<typeof captured>[2],
    wet: Parameters<typeof captured>[2],
    typed: readonly [number | null, number | null] = [null, null],
  ) => {
    const begun = startRun(garden, channelId, 'cut-offs', making());
    const asked = captured(begun, 'time to water', dry, typed[0]);
    return finishRun(captured(asked, 'watered enough', wet, typed[1]), channelId, CONTEXT, AS_LINE, making());
  };
  const readingOf = (of: ReturnType<typeof cutOffs>) => {
    if (!of.ok) throw new Error(of.issue.kind);
    const [plot] = of.value.garden.plots;
    const curve = curveOf(of.value.calibration);
    if (!plot || !curve) throw new Error('no plot');
    isSound(of.value.garden);
    return { plot, curve, garden: of.value.garden };
  };

  test('the two numbers are the limits, to the count, and the words lie about them', () => {
    const { plot, curve } = readingOf(cutOffs(captureOf(3000), captureOf(2400, {}, 9)));
    expect(countsAtPercent(curve, plot.limits.startTenths / 10)).toBeCloseTo(3000, 6);
    expect(countsAtPercent(curve, plot.limits.stopTenths / 10)).toBeCloseTo(2400, 6);
    const wordAt = (counts: number) => bandAt(plot.bandEdges, 10 * readCurve(curve, counts).percent);
    expect([3400, 3010, 2990, 2410, 2390, 2000].map(wordAt)).toEqual([
      'dry',
      'low',
      'right',
      'right',
      'wet',
      'flooded',
    ]);
    expect(formatPercent(plot.limits.startTenths / 10, curve)).toMatch(/^3\s000 counts$/);
  });
  test('typed, a number stands for itself, whatever the probe reads meanwhile, and needs no fresh reading', () => {
    const { plot, curve } = readingOf(cutOffs(captureOf(1777), captureOf(1777), [3000, 2400]));
    expect(countsAtPercent(curve, plot.limits.startTenths / 10)).toBeCloseTo(3000, 6);
    expect(curve.direction).toBe('falling');
  });
  test('the engine starts beyond the one and stops at the other, beyond the ends of the scale too', () => {
    const { curve, plot } = readingOf(cutOffs(captureOf(3000), captureOf(2400, {}, 9)));
    const tenths = (raw: number) => tenthsFromTable(boardTable(curve), raw);
    expect(tenths(4000)).toBeLessThan(plot.limits.startTenths);
    expect(tenths(3005)).toBeLessThan(plot.limits.startTenths);
    expect(tenths(2995)).toBeGreaterThanOrEqual(plot.limits.startTenths);
    expect(tenths(2395)).toBeGreaterThanOrEqual(plot.limits.stopTenths);
  });
  test('moved later, the limits take the words with them', () => {
    const { garden: made, plot } = readingOf(cutOffs(captureOf(3000), captureOf(2400, {}, 9)));
    const moved = setLimit(made, plot.id, 'start', 300).plots[0];
    expect(moved?.bandEdges).toEqual([150, 300, 650, 825]);
  });
  test('no soil is called wetter than water by a calibration that never saw water', () => {
    const wetEnd = (of: Garden) => probeScale(of, firstChannel(of)).references?.wet ?? null;
    expect(wetEnd(airAndWater(garden, 3000, 1200).garden)).toBeCloseTo(1200, 6);
    expect(wetEnd(readingOf(cutOffs(captureOf(3000), captureOf(2400, {}, 9))).garden)).toBeNull();
  });
  test('numbers that rise are taken as they are, with a reason for a kind that falls', () => {
    const rising = cutOffs(captureOf(1200), captureOf(1900, {}, 9));
    expect(rising.ok ? null : rising.issue.kind).toBe('no-reason');
  });
  test('one number for both is refused', () => {
    const same = cutOffs(captureOf(1777), captureOf(1777), [2400, 2400]);
    expect(same.ok ? null : same.issue.kind).toBe('refused');
  });
});
