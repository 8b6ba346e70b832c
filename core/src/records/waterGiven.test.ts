import { describe, expect, test } from 'vitest';
import { identified, type EventDraft } from './event.ts';
import { WaterSums } from './waterGiven.ts';

const common = { atMs: 5000, plotId: 'p', simulated: false };
const run = (volumeMl: number, of: Partial<EventDraft> = {}): EventDraft =>
  ({ ...common, kind: 'pump-stopped', reason: 'max-run', ranS: 15, volumeMl, ...of }) as EventDraft;
const summed = (...drafts: EventDraft[]) => {
  const sums = new WaterSums();
  for (const [at, draft] of drafts.entries()) sums.add(identified(draft, `e${at}`, 'board'));
  return sums;
};

describe('water that reached a plot', () => {
  test('runs and pours add up; starts, notes and other plots do not', () => {
    const given = summed(
      run(135),
      run(90),
      run(1000, { plotId: 'other' }),
      { ...common, kind: 'poured', volumeMl: 50 },
      { ...common, kind: 'pump-started', reason: 'below-start', tenths: 300 },
      { ...common, kind: 'note', text: 'rain' },
    ).ofPlot('p');
    expect(given?.value).toBe(275);
    expect(given?.steps[0]?.inputs).toMatchObject({ runs: { value: 2 }, pours: { value: 1 } });
  });
  test('no water, no number', () => {
    expect(summed({ ...common, kind: 'note', text: 'rain' }).ofPlot('p')).toBeNull();
  });
  test('it is as much as was given, however many runs there were', () => {
    expect(summed(...Array.from({ length: 5000 }, () => run(4))).ofPlot('p')?.value).toBe(20_000);
  });
});

describe('two lines of one plot', () => {
  const sums = summed(run(100, { lineId: 'a' }), run(30, { lineId: 'b' }), run(7), run(1, { plotId: 'q' }));
  test('keep their own use', () => {
    expect(sums.ofLineMl('a', null)).toBe(100);
    expect(sums.ofLineMl('b', null)).toBe(30);
    expect(sums.ofPlot('p')?.value).toBe(137);
  });
  test('a run that names no line belongs to the only line of its plot', () => {
    expect(sums.ofLineMl('a', 'p')).toBe(107);
    expect(sums.ofLineMl('c', 'q')).toBe(1);
    expect(sums.ofLineMl('c', null)).toBe(0);
  });
});

test('the first event of any kind says how old the log is', () => {
  expect(summed(run(1), { ...common, atMs: 4000, kind: 'note', text: 'early' }).firstMs).toBe(4000);
  expect(summed().firstMs).toBe(Infinity);
});
