import { describe, expect, test } from 'vitest';
import { BUILT_IN } from '../catalogue/catalogue.ts';
import { answerText, NO_ANSWERS, type Answers } from './interview.ts';
import { CANDIDATES, LINK_NAMES, RULES, TOPICS } from './rules.ts';
import { suggest, withPieces } from './suggest.ts';

const known = new Set([...BUILT_IN.map((entry) => entry.id), ...Object.keys(LINK_NAMES)]);
const first = (answers: Partial<Answers>, probes: number) =>
  Object.fromEntries(
    suggest({ ...NO_ANSWERS, ...answers }, probes).map((one) => [one.topic, one.ranked[0]?.id]),
  );

describe('what is suggested', () => {
  test.each([
    {
      says: 'three pots on a windowsill by a socket, Wi-Fi, little money',
      answers: {
        place: 'indoors',
        stays: 'moved',
        wants: 'number',
        power: 'usb',
        wifi: 'good',
        budget: 'little',
        water: 'none',
        cableM: 1,
      },
      probes: 3,
      gives: {
        probe: 'probe-capacitive',
        board: 'board-wifi-two-groups',
        link: 'link-http',
        power: 'supply-usb',
      },
    },
    {
      says: 'a bed thirty metres off, buried for the season, battery and sun, a pump on a tank',
      answers: {
        place: 'bed',
        stays: 'buried',
        wants: 'number',
        power: 'solar',
        wifi: 'weak',
        budget: 'middle',
        water: 'tank',
        cableM: 30,
      },
      probes: 6,
      gives: {
        probe: 'probe-bus-rods',
        board: 'board-wifi-two-groups',
        link: 'link-http',
        power: 'battery-12v solar-panel',
      },
    },
    {
      says: 'one pot, a lamp will do, no Wi-Fi',
      answers: {
        place: 'indoors',
        stays: 'moved',
        wants: 'lamp',
        power: 'battery',
        wifi: 'none',
        budget: 'little',
        water: 'none',
        cableM: 1,
      },
      probes: 1,
      gives: { probe: 'probe-comparator', link: 'link-lamp' },
    },
  ] as const)('$says', ({ answers, probes, gives }) => {
    expect(first(answers, probes)).toMatchObject(gives);
  });
  test('a probe that gives no number is last when a number is wanted', () => {
    const [probe] = suggest({ ...NO_ANSWERS, wants: 'number' }, 1);
    expect(probe?.ranked.at(-1)?.id).toBe('probe-comparator');
    expect(probe?.ranked.at(-1)?.speaksAgainst).toContain('It gives no number to log.');
  });
});

describe('what would change it', () => {
  const answers: Answers = {
    ...NO_ANSWERS,
    place: 'bed',
    stays: 'buried',
    wants: 'number',
    power: 'mains',
    wifi: 'good',
    budget: 'middle',
    water: 'tank',
    cableM: 15,
  };
  test('each turn, tried again, gives the winner it names', () => {
    const suggestions = suggest(answers, 4);
    const turns = suggestions.flatMap((one) => one.turns.map((turn) => ({ topic: one.topic, turn })));
    expect(turns.length).toBeGreaterThan(3);
    for (const { topic, turn } of turns.filter((one) => one.turn.question === 'wifi')) {
      const wifi =
        (['good', 'weak', 'none'] as const).find((value) => answerText('wifi', value) === turn.instead) ??
        null;
      expect(first({ ...answers, wifi }, 4)[topic]).toBe(turn.winner);
    }
  });
  test('a question without an answer that matters is a turn from nothing', () => {
    const [, , link] = suggest({ ...answers, wifi: null }, 4);
    const turn = link?.turns.find((one) => one.question === 'wifi');
    expect(turn).toMatchObject({ now: null, instead: 'not at all', winner: 'link-serial' });
  });
  test('a winner never turns into itself', () => {
    for (const { ranked, turns } of suggest(answers, 4))
      for (const turn of turns) expect(turn.winner).not.toBe(ranked[0]?.id);
  });
});

test('every candidate and every rule names something that exists, and each rule can fire for a candidate of its topic', () => {
  expect(RULES.length).toBeGreaterThan(40);
  for (const topic of TOPICS)
    for (const id of CANDIDATES[topic]) for (const part of id.split(' ')) expect(known, part).toContain(part);
  for (const { topic, candidates } of RULES)
    for (const one of candidates)
      expect(
        CANDIDATES[topic].some((id) => id.split(' ').includes(one)),
        `${topic} ${one}`,
      ).toBe(true);
});

test('points are the sum of the reasons shown', () => {
  for (const { ranked } of suggest(NO_ANSWERS, 2))
    for (const candidate of ranked) {
      const told = [...candidate.speaksFor, ...candidate.speaksAgainst];
      const sum = RULES.filter(
        (rule) =>
          told.includes(rule.says) && rule.candidates.some((one) => candidate.id.split(' ').includes(one)),
      ).reduce((total, rule) => total + rule.points, 0);
      expect(candidate.points).toBe(sum);
    }
});

describe('what lies in the drawer', () => {
  const forkOf = (count: number) =>
    suggest({ ...NO_ANSWERS, budget: 'little' }, 3, { 'probe-fork': count })
      .find((one) => one.topic === 'probe')
      ?.ranked.find((one) => one.id === 'probe-fork');
  test('speaks for itself once there are enough of it', () => {
    expect(forkOf(3)?.speaksFor[0]).toBe('It lies in your drawer.');
    expect((forkOf(3)?.points ?? 0) - (forkOf(2)?.points ?? 0)).toBe(2);
    expect(forkOf(2)?.speaksFor).not.toContain('It lies in your drawer.');
  });
  test('a battery with its panel counts only when both are there', () => {
    const leads = (drawer: Record<string, number>) =>
      suggest({ ...NO_ANSWERS, power: 'solar' }, 1, drawer)
        .find((one) => one.topic === 'power')
        ?.ranked.find((one) => one.id === 'battery-12v solar-panel')?.speaksFor;
    expect(leads({ 'battery-12v': 1 })).not.toContain('It lies in your drawer.');
    expect(leads({ 'battery-12v': 1, 'solar-panel': 1 })).toContain('It lies in your drawer.');
  });
});

test('pieces are put into the drawer and taken out, in whole numbers', () => {
  expect(withPieces({ fork: 1 }, 'pump', 2.4)).toEqual({ fork: 1, pump: 2 });
  expect(withPieces({ fork: 1, pump: 2 }, 'fork', 0)).toEqual({ pump: 2 });
});
