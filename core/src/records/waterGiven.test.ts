import { describe, expect, test } from 'vitest';
import { identified, type EventDraft } from './event.ts';
import { WaterDays, WaterSums } from './waterGiven.ts';
import { zoneClock } from './zoneClock.ts';

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

test('water by day goes by the garden’s clocks; how often counts runs and pours', () => {
  const days = new WaterDays(zoneClock('Europe/Berlin').dayAt);
  const at = (iso: string) => Date.parse(iso);
  const drafts = [
    run(100, { atMs: at('2026-05-03T21:59:00Z') }),
    run(30, { atMs: at('2026-05-03T22:01:00Z') }),
    { ...common, kind: 'poured', volumeMl: 500, atMs: at('2026-05-04T10:00:00Z') } as EventDraft,
    { ...common, kind: 'note', text: 'rain', atMs: at('2026-05-04T10:00:00Z') } as EventDraft,
  ];
  for (const [place, draft] of drafts.entries()) days.add(identified(draft, `e${place}`, 'board'));
  expect([3, 4, 5].map((day) => days.of('p', Date.UTC(2026, 4, day)))).toEqual([100, 530, 0]);
  expect(days.of('q', Date.UTC(2026, 4, 3))).toBe(0);
  expect(summed(...drafts).timesOf('p')).toBe(3);
});

test('a hundred thousand events over a year with both changes of clocks: any span is the sum of whole tenths, and its days add up to it', () => {
  let state = 11;
  const dice = () => (state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0) / 2 ** 32;
  const from = Date.parse('2026-01-01T00:00:00+01:00');
  const to = Date.parse('2027-01-01T00:00:00+01:00');
  const events = Array.from({ length: 100_000 }, (_, at) => {
    const tenths = Math.floor(dice() * 5000);
    const atMs = from + Math.floor(dice() * (to - from));
    const poured = dice() < 0.2;
    const draft = poured
      ? { ...common, kind: 'poured' as const, volumeMl: tenths / 10, atMs }
      : run(tenths / 10, { atMs });
    return { event: identified(draft, `e${at}`, 'board'), tenths, atMs };
  });
  const { dayAt } = zoneClock('Europe/Berlin');
  // The whole year, and spans that begin and end within the nights in which the clocks change.
  for (const [first, last] of [
    [from, to],
    [Date.parse('2026-03-29T00:00:00+01:00'), Date.parse('2026-03-30T00:00:00+02:00')],
    [Date.parse('2026-10-25T00:00:00+02:00'), Date.parse('2026-10-26T00:00:00+01:00')],
    [Date.parse('2026-10-25T00:59:59Z'), Date.parse('2026-12-24T17:30:00Z')],
  ] as const) {
    const inside = events.filter(({ atMs }) => atMs >= first && atMs < last);
    const sums = new WaterSums();
    const days = new WaterDays(dayAt);
    for (const { event } of inside) {
      sums.add(event);
      days.add(event);
    }
    const tenths = inside.reduce((sum, one) => sum + one.tenths, 0);
    expect(sums.ofPlot('p')?.value).toBeCloseTo(tenths / 10, 4);
    const dayStarts = [...new Set(inside.map(({ atMs }) => dayAt(atMs)))];
    const byDay = dayStarts.reduce((sum, dayMs) => sum + days.of('p', dayMs), 0);
    expect(byDay).toBeCloseTo(tenths / 10, 4);
  }
  // By hand: the day of 23 hours holds what fell between its midnights, 23 h apart.
  const spring = events.filter(
    ({ atMs }) => atMs >= Date.UTC(2026, 2, 28, 23) && atMs < Date.UTC(2026, 2, 29, 22),
  );
  const days = new WaterDays(dayAt);
  for (const { event } of events) days.add(event);
  const springTenths = spring.reduce((sum, one) => sum + one.tenths, 0);
  expect(days.of('p', Date.UTC(2026, 2, 29))).toBeCloseTo(springTenths / 10, 4);
});
