import { describe, expect, test } from 'vitest';
import { CONTEXT } from '../garden/edits/gardenForTests.ts';
import { needsReason, type Finding } from './checks.ts';
import { readCurve } from './curve.ts';
import { chooseKind } from './fitCurve.ts';
import { ALL_METHODS, knownOf, methodOf, missingInput, usualInputs } from './methods.ts';
import { calibratedOf, outcomeOf, worthOf } from './run.ts';
import type { Run, RunPoint } from './runPoint.ts';
import { uncertaintyOf } from './uncertainty.ts';

const capture = (rawCounts: number, minute: number, change: Partial<RunPoint['captures'][number]> = {}) => ({
  rawCounts,
  noiseCounts: 3,
  readings: 20,
  settling: { verdict: 'steady' as const, fromEndCounts: 0 },
  takenAt: new Date(CONTEXT.nowMs + minute * 60_000).toISOString(),
  supplyV: 3.3,
  boardId: 'board',
  ...change,
});
const point = (
  condition: RunPoint['condition'],
  rawCounts: readonly number[],
  change: Partial<RunPoint> = {},
): RunPoint => ({
  id: `p${condition}${rawCounts[0] ?? 0}`.replaceAll(' ', ''),
  condition,
  typed: null,
  felt: null,
  temperatureC: 18,
  used: true,
  captures: rawCounts.map((counts, at) => capture(counts, at + counts / 100)),
  ...change,
});
const run = (method: Run['method'], points: readonly RunPoint[], change: Partial<Run> = {}): Run => ({
  method,
  inputs: usualInputs(methodOf(method)),
  points,
  convert: null,
  ...change,
});
const findings = (of: Run, context = CONTEXT): Finding['kind'][] =>
  outcomeOf(of, context).findings.map((one) => one.kind);

const DRY = point('air', [2998, 3002, 3000]);
const WET = point('water', [1199, 1201, 1200]);
const good = run('air-water', [DRY, WET]);

describe('what stands against a calibration, each tried both ways', () => {
  test('sound references in air and water: only the caution about the line', () => {
    expect(findings(good)).toEqual(['mind-the-line']);
    expect(findings(good, { ...CONTEXT, probeKind: 'resistive fork' } as never)).toEqual([]);
  });
  test('a span too small for its noise is refused; ten times the noise is enough', () => {
    const close = (wet: number) => run('air-water', [point('air', [1230]), point('water', [wet])]);
    expect(findings(close(1201))).toContain('span-too-small');
    expect(findings(close(1200))).not.toContain('span-too-small');
  });
  test('a value at the rail is refused', () => {
    expect(findings(run('air-water', [point('air', [4095]), WET]))).toContain('at-the-rail');
    expect(findings(run('air-water', [point('air', [3]), WET]))).toContain('at-the-rail');
    expect(findings(run('air-water', [point('air', [4080]), WET]))).not.toContain('at-the-rail');
  });
  test('a table that turns back is refused; with the wrong point left out it is not', () => {
    const wrong = point('just right', [3100]);
    const points = [point('dry soil', [2800]), wrong, point('soaked soil', [1400])];
    expect(findings(run('dry-right-soaked', points))).toContain('not-monotone');
    const without = points.map((one) => (one === wrong ? { ...one, used: false } : one));
    expect(findings(run('dry-right-soaked', without))).not.toContain('not-monotone');
  });
  test('dry and wet exchanged are noticed by the way such probes run', () => {
    const exchanged = run('air-water', [point('air', [1200]), point('water', [3000])]);
    expect(findings(exchanged)).toContain('runs-the-other-way');
    expect(findings(good)).not.toContain('runs-the-other-way');
    expect(findings(exchanged, { ...CONTEXT, probeKind: 'analog volumetric probe' } as never)).not.toContain(
      'runs-the-other-way',
    );
  });
  test('points out of order are told in a series', () => {
    const pairs = [10, 30, 50, 70, 90].map((typed, at) =>
      point('beside the meter', [[3000, 2400, 2500, 1600, 1200][at] ?? 0], { typed }),
    );
    const series = run('meter', pairs, { inputs: { dial: 0 } });
    expect(findings(series)).toContain('out-of-order');
  });
  test('one capture for two conditions is refused', () => {
    const same = { ...WET, captures: [{ ...capture(1200, 7), takenAt: DRY.captures[0]?.takenAt ?? '' }] };
    expect(findings(run('air-water', [DRY, same]))).toContain('used-twice');
  });
  test('references of two boards or two supplies are refused', () => {
    const with_ = (change: Partial<RunPoint['captures'][number]>) =>
      findings(run('air-water', [DRY, { ...WET, captures: [capture(1200, 9, change)] }]));
    expect(with_({ boardId: 'other' })).toContain('mixed-boards');
    expect(with_({ supplyV: 5 })).toContain('mixed-supplies');
    expect(with_({ supplyV: 3.33 })).not.toContain('mixed-supplies');
  });
  test('a capture before it was steady, a single one, and repeats far apart are warned of', () => {
    const early = {
      ...WET,
      captures: [capture(1300, 9, { settling: { verdict: 'settling', fromEndCounts: 90 } })],
    };
    expect(findings(run('air-water', [DRY, early]))).toEqual(
      expect.arrayContaining(['not-settled', 'once-only']),
    );
  });
  const levelOf = (of: Run, kind: Finding['kind']) =>
    outcomeOf(of, CONTEXT).findings.find((one) => one.kind === kind)?.level ?? null;
  test('repeats further apart than 5 % of the span between the references are refused; the span is that of their means', () => {
    expect(levelOf(run('air-water', [DRY, point('water', [1200, 1295])]), 'repeats-apart')).toBe('refuse');
    expect(levelOf(run('air-water', [DRY, point('water', [1200, 1285])]), 'repeats-apart')).toBeNull();
    // Air twice by mistake, the second time in water: 1800 counts between repeats are no span.
    const mistaken = run('air-water', [point('air', [3000, 1200]), point('water', [1204])]);
    expect(outcomeOf(mistaken, CONTEXT).findings[0]).toMatchObject({
      level: 'refuse',
      kind: 'repeats-apart',
      counts: 1800,
      spanCounts: 896,
    });
  });
  test('exactly a twentieth is still one condition; a reference alone is never too far from itself; the point is named', () => {
    // Means 3000 and 1200, 1800 apart: a twentieth is 90.
    expect(levelOf(run('air-water', [DRY, point('water', [1155, 1245])]), 'repeats-apart')).toBeNull();
    expect(levelOf(run('air-water', [point('air', [3000, 2000])]), 'repeats-apart')).toBeNull();
    const apart = point('water', [1100, 1300]);
    const found = outcomeOf(run('air-water', [DRY, apart]), CONTEXT).findings[0];
    expect(found?.pointIds).toEqual([apart.id]);
  });
  test('both references at one value are refused, however far their repeats lie apart', () => {
    const same = run('air-water', [point('air', [2000, 2400]), point('water', [2200, 2201, 2199])]);
    expect(levelOf(same, 'span-too-small')).toBe('refuse');
  });
  test('two captures that are the middle of mostly the same readings are no repeat', () => {
    const at = (seconds: number) => ({
      ...capture(1200, 0, { windowS: 10 }),
      takenAt: new Date(CONTEXT.nowMs + seconds * 1000).toISOString(),
    });
    const repeated = (apartS: number) =>
      findings(run('air-water', [DRY, { ...WET, captures: [at(9000), at(9000 + apartS)] }]));
    expect(repeated(4)).toContain('same-readings');
    expect(repeated(6)).not.toContain('same-readings');
  });
  test('worst first: refusals, then what needs a reason, then the rest', () => {
    const mistaken = run('air-water', [point('air', [1200]), point('water', [3000, 2800])]);
    expect(findings(mistaken)).toEqual(['repeats-apart', 'runs-the-other-way', 'once-only', 'mind-the-line']);
  });
  test('a ± over a quarter of the scale is refused, over 15 % it needs a reason; span percent between good references neither', () => {
    const loose = (spanCounts: number) => {
      const of = run('air-water', [
        point('air', [1000 + spanCounts], { captures: [capture(1000 + spanCounts, 0, { settling: null })] }),
        point('water', [1000], { captures: [capture(1000, 9, { settling: null })] }),
      ]);
      const noisy = {
        ...of,
        points: of.points.map((one) => ({
          ...one,
          captures: one.captures.map((two) => ({ ...two, noiseCounts: 3 })),
        })),
      };
      return noisy;
    };
    const kindsOf = (of: Run, noise: number) => {
      const outcome = outcomeOf(of, CONTEXT);
      return worthOf(outcome, outcome.chosen, noise).findings.map((one) => `${one.level} ${one.kind}`);
    };
    expect(kindsOf(good, 3).filter((one) => one.includes('uncertain'))).toEqual([]);
    // A hundred counts of span, and each reading moves by twenty: the middle of twelve by 1.2533 · 20 ÷ √12, 7.2 %, twice.
    expect(kindsOf(loose(100), 20)).not.toContain('refuse too-uncertain');
    expect(kindsOf(loose(100), 20)).toContain('warn uncertain');
    expect(kindsOf(loose(100), 40)).toContain('refuse too-uncertain');
    const outcome = outcomeOf(loose(100), CONTEXT);
    const [first] = worthOf(outcome, 'line', 40).findings;
    // What it comes from most, where it is widest: 14.5 % by noise, beside a little of the rest.
    expect(first).toMatchObject({ kind: 'too-uncertain', mostly: 'noise' });
    expect(first?.kind === 'too-uncertain' && first.shareOfScale).toBeCloseTo(0.3, 1);
  });
  test('where something else refuses it already, a wide ± is not told beside it', () => {
    const outcome = outcomeOf(run('air-water', [point('air', [1205]), point('water', [1200])]), CONTEXT);
    const kinds = outcome.findings.map((one) => one.kind);
    expect(kinds).toContain('span-too-small');
    const worth = worthOf(outcome, 'line', 40);
    expect(worth.refused).toBe(true);
    expect(worth.findings.map((one) => one.kind)).toEqual(kinds);
    // Nothing chosen, nothing to weigh.
    expect(worthOf(outcomeOf(good, CONTEXT), null, 3)).toMatchObject({ calibrated: null, refused: false });
    expect(worthOf(outcomeOf(good, CONTEXT), null, 3).findings.map((one) => one.kind)).toEqual(
      findings(good),
    );
  });
  test('a curve whose ± would be refused is passed over for one that would not', () => {
    const pairs = [2836, 2729, 1929, 1650, 1154].map((counts, at) =>
      point('beside the meter', [counts], { typed: 10 + 20 * at }),
    );
    const outcome = outcomeOf(run('meter', pairs, { inputs: { dial: 0 } }), CONTEXT);
    const isRefused = (kind: 'line' | 'monotone') => worthOf(outcome, kind, 7).refused;
    expect(chooseKind(outcome.tried)).toBe('line');
    expect([isRefused('line'), isRefused('monotone')]).toEqual([true, false]);
    expect(outcome.chosen).toBe('monotone');
    // Where every one would be refused it stays with the one that misses least.
    const wild = [2900, 1300, 2500, 1200, 2000].map((counts, at) =>
      point('beside the meter', [counts], { typed: 10 + 20 * at }),
    );
    const none = outcomeOf(run('meter', wild, { inputs: { dial: 0 } }), CONTEXT);
    expect(none.chosen).toBe(chooseKind(none.tried));
  });
  test('raw cut-offs: the straight line goes on beyond both numbers, to the ends of its scale', () => {
    const two = run('cut-offs', [point('time to water', [3000]), point('watered enough', [2400])]);
    // Thirty hundredths of the scale are 600 counts, so one is twenty: 35 of them above 3000, 35 below 2400.
    expect(outcomeOf(two, CONTEXT).fitPoints.map(({ counts, percent }) => [counts, percent])).toEqual([
      [expect.closeTo(3700, 6), 0],
      [expect.closeTo(1700, 6), 100],
    ]);
    const one = run('cut-offs', [point('time to water', [3000])]);
    expect(outcomeOf(one, CONTEXT).fitPoints).toMatchObject([{ counts: 3000, percent: 35 }]);
    // Typed, they stand for themselves, and nothing is said of how they were captured.
    const typed = run('cut-offs', [
      point('time to water', [1900], { typed: 3000 }),
      point('watered enough', [1900], { typed: 2400 }),
    ]);
    const outcome = outcomeOf(typed, CONTEXT);
    expect(outcome.fitPoints.map(({ counts, sigma }) => [Math.round(counts), sigma.repeat])).toEqual([
      [3700, 0],
      [1700, 0],
    ]);
    expect(outcome.findings.map((one) => one.kind)).toEqual([]);
    expect(findings(run('cut-offs', [point('time to water', [1900], { typed: 4095 })]))).toContain(
      'at-the-rail',
    );
  });
  test('points without a temperature are told so, one with it is enough', () => {
    const cold = (temperatureC: number | null) =>
      run('air-water', [
        { ...DRY, temperatureC: null },
        { ...WET, temperatureC },
      ]);
    expect(findings(cold(null))).toContain('no-temperature');
    expect(findings(cold(18))).not.toContain('no-temperature');
    // It is about the whole run, not about one of its points, and a caution only.
    expect(outcomeOf(cold(null), CONTEXT).findings).toContainEqual({
      level: 'warn',
      kind: 'no-temperature',
      pointIds: [],
    });
  });
  test('what needs a reason is said', () => {
    const rising = outcomeOf(run('air-water', [point('air', [1200]), point('water', [3000])]), CONTEXT);
    expect(needsReason(rising.findings)).toBe(true);
    expect(needsReason(outcomeOf(good, CONTEXT).findings)).toBe(false);
  });
  test('bands by feel need two words and an order: a tie is none, and nothing is turned upside down', () => {
    const felt = (...found: [number, NonNullable<RunPoint['felt']>][]) =>
      run(
        'feel',
        found.map(([counts, word]) => point('felt by hand', [counts], { felt: word })),
      );
    const oneWord = felt([2800, 'right'], [2200, 'right'], [1500, 'right'], [1800, 'right'], [1200, 'right']);
    expect(levelOf(oneWord, 'one-word')).toBe('refuse');
    const tie = felt([2800, 'dry'], [2000, 'wet'], [1500, 'dry'], [1200, 'dry']);
    expect(levelOf(tie, 'no-order')).toBe('refuse');
    expect(outcomeOf(tie, CONTEXT).feel).toBeNull();
    const rising = felt([1200, 'dry'], [1800, 'low'], [2600, 'wet']);
    expect(outcomeOf(rising, CONTEXT).feel?.direction).toBe('rising');
    expect(outcomeOf(rising, CONTEXT).findings.filter((one) => one.level === 'refuse')).toEqual([]);
    // The ends say the same word, or say it the other way round, though the rest has an order.
    type Found = [number, NonNullable<RunPoint['felt']>];
    const between: Found[] = Array.from({ length: 20 }, (_, at) => [2700 - 50 * at, at < 10 ? 'dry' : 'wet']);
    for (const [driest, wettest] of [
      ['right', 'right'],
      ['wet', 'dry'],
    ] as const) {
      const ends = outcomeOf(felt([2800, driest], ...between, [1500, wettest]), CONTEXT);
      expect(ends.feel).not.toBeNull();
      expect(ends.fitPoints).toEqual([]);
    }
  });
  test('nothing that is settled and once only is passed over', () => {
    expect(findings(run('air-water', [DRY, point('water', [1200])]))).toContain('once-only');
  });
  test('old references and missing or wide temperatures are warned of', () => {
    const WEEK = 7 * 86_400_000;
    expect(findings(good, { ...CONTEXT, nowMs: CONTEXT.nowMs + 7 * WEEK })).toContain('old');
    expect(findings(good, { ...CONTEXT, nowMs: CONTEXT.nowMs + 5 * WEEK })).not.toContain('old');
    const at = (dryC: number | null, wetC: number | null) =>
      findings(
        run('air-water', [
          { ...DRY, temperatureC: dryC },
          { ...WET, temperatureC: wetC },
        ]),
      );
    expect(at(null, null)).toContain('no-temperature');
    expect(at(14, 20)).toContain('temperatures-apart');
    expect(at(14, 18)).toEqual(['mind-the-line']);
  });
  test('nothing captured, nothing to say', () => {
    expect(findings(run('air-water', []))).toEqual([]);
  });
});

describe('what a run adds up to', () => {
  test('air and water: a line from 0 to 100 % span, with its ±', () => {
    const outcome = outcomeOf(good, CONTEXT);
    expect(outcome).toMatchObject({ percentKind: 'span', chosen: 'line', missing: 0 });
    const made = calibratedOf(outcome, 'line', 3);
    expect(made?.curve).toMatchObject({ dryCounts: 3000, wetCounts: 1200, dryPercent: 0, wetPercent: 100 });
  });
  test('only a run beside a meter says how far the two go in step', () => {
    const pairs = Array.from({ length: 12 }, (_, at) =>
      point('beside the meter', [3000 - 150 * at], { id: `pair${at}`, typed: 10 + 5 * at }),
    );
    expect(outcomeOf(run('meter', pairs), CONTEXT).inStep).toMatchObject({ verdict: 'in-step', pairs: 12 });
    expect(outcomeOf(good, CONTEXT).inStep).toBeNull();
  });
  test('a sheet is checked at two known contents at most: further ones change nothing', () => {
    const inputs = { lowCounts: 400, lowPercent: 0, highCounts: 2400, highPercent: 50, sheetSigma: 2 };
    const known = (counts: number, typed: number) =>
      point('known content', [counts], { id: `known${counts}`, typed });
    const two = [known(1000, 22), known(2000, 50)];
    const of = (points: readonly RunPoint[]) =>
      outcomeOf(run('factory', points, { inputs }), CONTEXT).factory;
    expect(of([...two, known(1500, 5)])).toEqual(of(two));
    expect(of(two)).not.toBeNull();
  });
  test('“just right” stands where it was asked for', () => {
    const three = run('dry-right-soaked', [
      point('dry soil', [2800]),
      point('just right', [2000]),
      point('soaked soil', [1400]),
    ]);
    const outcome = outcomeOf({ ...three, inputs: { rightPercent: 60 } }, CONTEXT);
    expect(outcome.fitPoints.map((one) => one.percent)).toEqual([0, 60, 100]);
    expect(outcome.tried.map((one) => one.kind)).toEqual(['table', 'monotone']);
  });
  const MIXING = {
    volumeMl: 1000,
    emptyG: 85,
    sampleWetG: 115,
    sampleDryG: 100,
    soilG: 1265,
    scaleStepG: 1,
    steps: 5,
    grainDensity: 2.65,
    byMass: 0,
  };
  const mixed = [1350, 1433, 1516, 1599, 1682].map((typed, at) =>
    point('mixed soil', [[2700, 2200, 1850, 1600, 1400][at] ?? 0], { typed }),
  );
  test('a mixing series gives VWC by what was weighed, or GWC where that was asked for', () => {
    const outcome = outcomeOf(run('mixing', mixed, { inputs: MIXING }), CONTEXT);
    expect(outcome.percentKind).toBe('volumetric');
    expect(outcome.fitPoints.map((one) => Math.round(one.percent * 10))).toEqual([165, 248, 331, 414, 497]);
    const byMass = outcomeOf(run('mixing', mixed, { inputs: { ...MIXING, byMass: 1 } }), CONTEXT);
    expect(byMass.percentKind).toBe('gravimetric');
    expect(byMass.fitPoints[0]?.percent).toBeCloseTo(15, 6);
  });
  test('turned into another kind, all points are turned; where the soil is not known, none is', () => {
    const soil = { bulkDensity: 1.1, capacityVwc: 36.5, wiltingVwc: 16.5 };
    const turned = outcomeOf(
      run('mixing', mixed, { inputs: MIXING, convert: { to: 'available', soil } }),
      CONTEXT,
    );
    expect(turned).toMatchObject({ percentKind: 'available', convertIssue: null });
    expect(turned.fitPoints[0]?.percent).toBeCloseTo(0, 6);
    const unknown = outcomeOf(
      run('mixing', mixed, {
        inputs: MIXING,
        convert: { to: 'available', soil: { ...soil, wiltingVwc: null } },
      }),
      CONTEXT,
    );
    expect(unknown).toMatchObject({ percentKind: 'volumetric', convertIssue: { kind: 'unknown' } });
  });
  test('a point whose weight cannot be has no percent, and says why', () => {
    const wrong = point('mixed soil', [2650], { typed: 900 });
    const outcome = outcomeOf(run('mixing', [...mixed, wrong], { inputs: MIXING }), CONTEXT);
    expect(outcome.known.get(wrong.id)).toMatchObject({ ok: false, issue: { kind: 'lighter-than-dry' } });
    expect(outcome.fitPoints).toHaveLength(5);
  });
  test('bands by feel: the driest and the wettest reading stand in the middle of the word that was felt there', () => {
    const felt = (counts: number, as: NonNullable<RunPoint['felt']>) =>
      point('felt by hand', [counts], { felt: as });
    const outcome = outcomeOf(
      run('feel', [felt(2800, 'dry'), felt(2200, 'right'), felt(1500, 'wet'), felt(2000, 'right')]),
      CONTEXT,
    );
    expect(outcome.fitPoints.map((one) => [one.counts, one.percent])).toEqual([
      // Wet runs from 70 to 85, dry from 0 to 20.
      [1500, 77.5],
      [2800, 10],
    ]);
    expect(outcome.feel?.cuts).toEqual([null, 2500, 1750, null]);
  });
  test('a factory curve that is found off is put right and becomes VWC', () => {
    const inputs = { lowCounts: 400, lowPercent: 0, highCounts: 2400, highPercent: 50, sheetSigma: 2 };
    // The sheet says 25 % at 1400 counts; it was weighed as 35.
    const off = run('factory', [point('known content', [1400], { typed: 35 })], { inputs });
    const outcome = outcomeOf(off, CONTEXT);
    expect(outcome).toMatchObject({ percentKind: 'volumetric', factory: { verdict: 'offset' } });
    expect(outcome.fitPoints.map((one) => one.percent)).toEqual([10, 60]);
    const kept = run('factory', [point('known content', [1400], { typed: 26 })], { inputs });
    expect(outcomeOf(kept, CONTEXT).percentKind).toBe('factory');
  });
  test('a sheet’s line that would pass 100 % ends there: no bend, and nothing beyond', () => {
    // 100 % at 2400 counts on the sheet, weighed 12 more: the line reaches 100 at 2160.
    const inputs = { lowCounts: 400, lowPercent: 0, highCounts: 2400, highPercent: 100, sheetSigma: 2 };
    const off = run('factory', [point('known content', [1400], { typed: 62 })], { inputs });
    expect(outcomeOf(off, CONTEXT).fitPoints.map((one) => [one.counts, one.percent])).toEqual([
      [400, 12],
      [2160, 100],
    ]);
  });
  test('what a sheet’s line may be off by: its own ±, or after it was put right what the soils were known by', () => {
    const inputs = { lowCounts: 400, lowPercent: 0, highCounts: 2400, highPercent: 50, sheetSigma: 2 };
    const of = (...typed: [number, number][]) =>
      outcomeOf(
        run(
          'factory',
          typed.map(([counts, percent]) => point('known content', [counts], { typed: percent })),
          { inputs },
        ),
        CONTEXT,
      );
    // It promises ± 2, which is 1 as a standard deviation; a quarter of it may differ along the line.
    expect(of([1400, 25.5]).fitPoints).toMatchObject([
      { sigmaPercent: 0.25, common: [1] },
      { sigmaPercent: 0.25, common: [1] },
    ]);
    const soil = Math.hypot(1, (50 / 2000) * (of([1400, 35]).fitPoints[0]?.sigma.single ?? 0));
    const moved = of([1400, 35]).fitPoints[0];
    expect(moved?.sigmaPercent).toBe(0.5);
    expect(moved?.common[0]).toBeCloseTo(soil, 9);
    // Put right by two soils that lie evenly off, the offset is known √2 times better.
    const two = of([1000, 25], [1800, 45]);
    expect(two.factory?.verdict).toBe('offset');
    const own = Math.hypot(1, (50 / 2000) * (two.fitPoints[0]?.sigma.single ?? 0));
    expect(two.fitPoints[0]?.common[0]).toBeCloseTo(own / Math.SQRT2, 9);
  });
  test('a pot of which nothing is known has no percent, a mixing series without numbers no steps', () => {
    expect(methodOf('pot').percentKind({})).toBe('available');
    expect(methodOf('mixing').steps({})).toEqual([]);
    expect(methodOf('mixing').steps(MIXING)).toHaveLength(5);
    expect(methodOf('feel').steps({})[0]?.condition).toBe('felt by hand');
  });
  test('a mixing series whose soil merely cooled is a falling line within its ±', () => {
    const inputs = { ...MIXING, sampleWetG: 105.5, sampleDryG: 100, soilG: 1000 };
    // 1000 g with 52.13 g of water in a litre; typed so that it holds 5.5, 24.5 and 43.5 % by volume.
    const dry = 85 + 1000 / 1.055;
    const cooled = [
      [2980, 5.5, 22],
      [2205, 24.5, 18],
      [1420, 43.5, 14],
    ].map(([counts = 0, percent = 0, temperatureC = 0]) =>
      point('mixed soil', [counts], { typed: dry + 10 * percent, temperatureC }),
    );
    const outcome = outcomeOf(run('mixing', cooled, { inputs }), CONTEXT);
    const { calibrated, refused } = worthOf(outcome, 'line', 3);
    expect(refused).toBe(false);
    expect(calibrated?.curve.direction).toBe('falling');
    for (const { counts, percent } of outcome.fitPoints) {
      if (!calibrated) throw new Error('no curve');
      const read = readCurve(calibrated.curve, counts).percent;
      const { plusMinus } = uncertaintyOf(calibrated, {
        rawCounts: counts,
        noiseCounts: 3,
        readings: 20,
        stepCounts: 1,
        temperatureC: null,
      });
      expect(Math.abs(read - percent)).toBeLessThan(plusMinus);
      expect(plusMinus).toBeLessThan(6);
    }
  });
});

describe('methods', () => {
  test('every school of the job is there, each with a sentence on when it is right', () => {
    expect(ALL_METHODS.map((method) => method.id)).toEqual([
      'air-water',
      'dry-soaked',
      'dry-right-soaked',
      'mixing',
      'pot',
      'meter',
      'feel',
      'factory',
      'drain',
      'cut-offs',
    ]);
    for (const method of ALL_METHODS) expect(method.when.length).toBeGreaterThan(60);
  });
  test('a run asks for its numbers one by one, and does not take one out of range', () => {
    const mixing = methodOf('mixing');
    expect(missingInput(mixing, usualInputs(mixing))).toMatchObject({ key: 'volumeMl' });
    expect(missingInput(methodOf('air-water'), {})).toBeNull();
    expect(missingInput(methodOf('dry-right-soaked'), { rightPercent: 95 })).toMatchObject({
      key: 'rightPercent',
    });
    // What is optional may be missing.
    expect(missingInput(methodOf('pot'), usualInputs(methodOf('pot')))).toMatchObject({ key: 'tareG' });
    expect(missingInput(methodOf('pot'), { tareG: 1, plantG: 0, scaleStepG: 1 })).toBeNull();
  });
  test('the usual numbers of a method are those of its fields that have one, and no others', () => {
    const mixing = methodOf('mixing');
    const usual = mixing.fields.filter((field) => field.usual !== undefined);
    expect(usual.length).toBeGreaterThan(0);
    expect(usual.length).toBeLessThan(mixing.fields.length);
    expect(usualInputs(mixing)).toEqual(Object.fromEntries(usual.map((field) => [field.key, field.usual])));
  });
  test('a meter shows percent, or a dial from 1 to 10 whose nine steps are the whole range', () => {
    const known = (dial: number, typed: number) => {
      const found = knownOf(methodOf('meter'), { dial }, { condition: 'beside the meter', typed });
      return found.ok ? [Math.round(100 * found.value.percent) / 100, found.value.common] : found.issue;
    };
    expect(known(0, 40)).toEqual([40, []]);
    expect([known(1, 1), known(1, 4), known(1, 10)]).toEqual([
      [0, []],
      [33.33, []],
      [100, []],
    ]);
  });
  test('what is typed is needed where the method asks for it', () => {
    const asked = knownOf(methodOf('meter'), { dial: 0 }, { condition: 'beside the meter', typed: null });
    expect(asked).toMatchObject({ issue: { kind: 'not-typed' } });
  });
});
