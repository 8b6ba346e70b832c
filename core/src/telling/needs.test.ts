/** What needs a person, worked out by hand for one pot with a stick: dry reference 3000 counts, wet 1000. */
import { describe, expect, test } from 'vitest';
import { airAndWater, dice, firstLine, MINT, onePlot } from '../garden/edits/gardenForTests.ts';
import { addPlot, setWaterLine } from '../garden/edits/plots.ts';
import { plotParts } from '../garden/bind/plotParts.ts';
import type { Garden } from '../garden/document/schema.ts';
import { viewPlot } from '../live/plotView.ts';
import { dailyNote, alertLetter, type AlertDraft } from './letters.ts';
import { needsHeadline, needsOf, type NowKnown } from './needs.ts';

const NOON = Date.UTC(2026, 5, 1, 12);
const garden = airAndWater(onePlot({ pump: { flowMlPerS: 9 } }), 3000, 1000).garden;
const plot = garden.plots[0] as Garden['plots'][number];
const board = garden.boards[0] as Garden['boards'][number];
const parts = plotParts(garden, plot.id);

/** Half way between the references, five seconds ago. */
const knownAt = (rawCounts: number | null, change: Partial<NowKnown> = {}): NowKnown => ({
  garden,
  nowMs: NOON,
  viewOf: () => parts && viewPlot(parts, rawCounts === null ? null : { rawCounts, atMs: NOON - 5000 }, NOON),
  active: [],
  pending: [],
  boards: [],
  unknownTanks: [],
  unsent: [],
  ...change,
});
const alert = (kind: 'dry' | 'tank-low' | 'silent-board', subject = plot.name, subjectId = plot.id) => ({
  key: `${kind} ${subjectId}`,
  kind,
  subject,
  raisedMs: NOON - 3_600_000,
  acknowledged: false,
  snoozedUntilMs: null,
});
const saysOf = (known: NowKnown) => needsOf(known).map(({ subject, says }) => `${subject}: ${says}`);
const headline = (known: NowKnown) => needsHeadline(known, needsOf(known));

describe('what needs you', () => {
  test('is nothing where everything is known and nothing is raised', () => {
    expect(needsOf(knownAt(2000))).toEqual([]);
    expect(headline(knownAt(2000))).toBe('Nothing needs you.');
  });
  test('is a plot of which nothing is known: that is never "nothing"', () => {
    expect(saysOf(knownAt(null))).toEqual([`${plot.name}: unknown: no reading yet`]);
    expect(headline(knownAt(null))).toBe(`${plot.name} needs you. The rest can wait.`);
  });
  test('puts what stands without water before what is only dry', () => {
    const known = knownAt(2900, { active: [alert('dry'), alert('tank-low', 'Rain barrel', 'tub')] });
    expect(saysOf(known)).toEqual(['Rain barrel: below its minimum: fill it', `${plot.name}: too dry`]);
    expect(headline(known)).toBe('2 things need you. Rain barrel first.');
  });
  test('says by which reading a plot is too dry, and since when', () => {
    // (3000 − 2900) / 2000 of the span
    expect(needsOf(knownAt(2900, { active: [alert('dry')] }))[0]?.why).toMatch(
      /^dry, 5\.0 % span; since Mon 1 Jun, /,
    );
  });
  test('what has been seen stands last, and is not what the sheet opens with', () => {
    const seen = { ...alert('dry'), acknowledged: true };
    const known = knownAt(2900, { active: [seen, alert('tank-low', 'Rain barrel', 'tub')] });
    expect(saysOf(known)[1]).toBe(`${plot.name}: too dry`);
    expect(headline(knownAt(2900, { active: [seen] }))).toBe(
      'Nothing new needs you: what is wrong has been seen.',
    );
  });
  test('what has only begun is to be watched', () => {
    const pending = { ...alert('dry'), sinceMs: NOON - 60_000, tellsMs: NOON + 60_000, quiet: null };
    expect(headline(knownAt(2900, { pending: [pending] }))).toBe(
      `Nothing needs you yet. Watch ${plot.name}: too dry.`,
    );
    // In quiet hours it is raised and waits to be told: once is enough.
    expect(needsOf(knownAt(2900, { pending: [pending], active: [alert('dry')] }))).toHaveLength(1);
  });
  test('an alert of a plot that is unknown by now says what it was, after why it is unknown', () => {
    const fault = { ...alert('dry'), key: `probe-fault ${plot.id}`, kind: 'probe-fault' as const };
    expect(saysOf(knownAt(null, { active: [alert('dry'), fault] }))).toEqual([
      `${plot.name}: the probe cannot be trusted`,
      `${plot.name}: was too dry when it was last known`,
    ]);
  });
  test('several plots of one board of which nothing has come are one thing, about the board', () => {
    const two = addPlot(
      garden,
      { ...MINT, plotName: 'Sage', streamName: 's1', board: { id: board.id } },
      dice(),
    ).garden;
    const viewOf = (plotId: string) => {
      const of = plotParts(two, plotId);
      return of && viewPlot(of, null, NOON);
    };
    const known = knownAt(null, { garden: two, viewOf });
    expect(needsOf(known).map(({ subject, says, why }) => [subject, says, why])).toEqual([
      [board.name, 'nothing has come from it yet', `nobody knows how these stand: ${plot.name}, Sage`],
    ]);
    expect(headline(known)).toBe(`${board.name} needs you. The rest can wait.`);
  });
  test('a silent board is told once, not again for each of its plots', () => {
    const known = knownAt(null, { active: [alert('silent-board', board.name, board.id)] });
    expect(saysOf(known)).toEqual([`${board.name}: the board is silent`]);
  });
  test('a board with a key that has never reported', () => {
    const boards = [{ boardId: board.id, heardMs: null }];
    expect(saysOf(knownAt(2000, { boards }))).toEqual([`${board.name}: has never reported`]);
  });
  test('a line that contradicts itself waters nothing, if it was meant to', () => {
    // The dose is larger than a day may have.
    const spoilt = setWaterLine(garden, firstLine(garden).id, { automatic: true, dailyMaxMl: 1 });
    expect(saysOf(knownAt(2000, { garden: spoilt }))).toEqual([
      `${firstLine(garden).name}: its settings contradict each other`,
    ]);
  });
  test('a reservoir that nobody knows, where a line waters from it by itself', () => {
    const [line] = garden.waterLines;
    const tank = {
      id: 'tub',
      name: 'Tub',
      kind: 'float' as const,
      float: { highIs: 'water' as const, threshold: 0.5 },
      channelId: null,
      levels: [],
      minimumMl: 0,
      capacityMl: null,
    };
    const withTank = { ...garden, reservoirs: [tank] } as unknown as Garden;
    const watered = setWaterLine(withTank, line?.id ?? '', { automatic: true, tankId: 'tub' });
    const says = (of: Garden) => saysOf(knownAt(2000, { garden: of, unknownTanks: ['tub'] }));
    expect(says(watered)).toContain('Tub: nobody knows whether it still has water');
    expect(says(withTank)).toEqual([]);
  });
  test('alerts that could not be sent', () => {
    expect(saysOf(knownAt(2000, { unsent: [{ way: 'mail', count: 2 }] }))).toEqual([
      'Alerts by mail: 2 could not be sent',
    ]);
  });
  test('a garden in which nothing is measured is not well, it is unknown', () => {
    const bare = { ...garden, channels: [] };
    expect(headline(knownAt(2000, { garden: bare, viewOf: () => null }))).toBe('Nothing is measured yet.');
  });
});

describe('a letter', () => {
  const dry: AlertDraft = {
    kind: 'alert',
    atMs: NOON,
    plotId: plot.id,
    simulated: false,
    alert: 'dry',
    phase: 'raised',
    subject: plot.name,
  };
  test('names garden and plot, the time in the garden’s own zone, and the reading', () => {
    const { viewOf } = knownAt(2900);
    const letter = alertLetter({ ...garden, timeZone: 'Europe/Berlin' }, [dry], viewOf);
    expect(letter.subject).toBe(`${garden.name}: ${plot.name}: too dry`);
    expect(letter.text).toContain('Mon 1 Jun, 14:00');
    expect(letter.text).toContain('now dry, 5.0 % span');
  });
  test('says when it is cleared, and when it still is so', () => {
    const of = (phase: AlertDraft['phase']) => alertLetter(garden, [{ ...dry, phase }], () => null).subject;
    expect(of('repeated')).toContain('still too dry');
    expect(of('cleared')).toContain('cleared: too dry');
  });
  test('carries several at once, and says so', () => {
    const { subject, text } = alertLetter(
      garden,
      [dry, { ...dry, alert: 'tank-low', subject: 'Tub' }],
      () => null,
    );
    expect(subject).toContain('and 1 more');
    expect(text).toContain('Tub: below its minimum: fill it');
  });
  test('from a stand-in says so in the first word', () => {
    expect(alertLetter(garden, [{ ...dry, simulated: true }], () => null).subject).toMatch(/^\(stand-in\) /);
  });
  test('no name ends the line of its header', () => {
    const named = { ...garden, name: 'Hare\r\nBcc: all@example.org' };
    expect(alertLetter(named, [dry], () => null).subject).not.toMatch(/[\r\n]/);
  });
});

describe('the note of the day', () => {
  const boards = [{ boardId: board.id, heardMs: NOON - 65_000 }];
  test('says how every plot, line and board stands, and what it means when it does not come', () => {
    const { subject, text } = dailyNote(knownAt(2000, { boards }), () => 240, false);
    expect(subject).toBe(`${garden.name}: Nothing needs you.`);
    expect(text).toContain(`${plot.name}: right, 50.0 % span`);
    expect(text).toContain(`${firstLine(garden).name}: 240 ml in the last 24 h`);
    expect(text).toContain(`${board.name}: heard 1 min 5 s ago`);
    expect(text).toContain('if it does not, the gateway, its network or the mail is down');
  });
  test('does not say that nothing was given where nobody tells', () => {
    expect(dailyNote(knownAt(2000), () => null, false).text).toContain('nobody says what it gave');
  });
  test('begins with what needs a person', () => {
    const { subject, text } = dailyNote(knownAt(2900, { active: [alert('dry')] }), () => 0, false);
    expect(subject).toContain(`${plot.name} needs you`);
    expect(text).toContain(`${plot.name}: too dry (dry, 5.0 % span; since`);
  });
});
