import { describe, expect, test } from 'vitest';
import {
  acknowledge,
  ALERT_KINDS,
  DEFAULT_ALERTS,
  snooze,
  stepAlerts,
  tellsAtMs,
  type AlertRule,
  type AlertStates,
  type Watched,
} from './alerts.ts';

const MINUTE_MS = 60_000;
const rule: AlertRule = {
  kind: 'dry',
  on: true,
  hysteresis: 30,
  holdOffS: 600,
  repeatS: 3600,
  quiet: { fromMinute: 22 * 60, toMinute: 7 * 60 },
};
const dry = (value: number | null): Watched => ({
  key: 'dry lemon',
  kind: 'dry',
  subjectId: 'lemon',
  value,
  limit: 300,
  side: 'below',
});

/** Minutes and values, told as "minute phase". Day begins at noon unless said otherwise. */
function told(
  story: readonly (readonly [number, number | null])[],
  rules: readonly AlertRule[] = [rule],
  noon = 12 * 60,
  hand: (states: AlertStates, minute: number) => AlertStates = (states) => states,
): string[] {
  let states: AlertStates = {};
  return story.flatMap(([minute, value]) => {
    const now = { ms: minute * MINUTE_MS, minute: (noon + minute) % 1440 };
    const step = stepAlerts(hand(states, minute), [dry(value)], rules, now);
    states = step.states;
    return step.told.map((one) => `${minute} ${one.phase}`);
  });
}

describe('a dry alert', () => {
  test('is raised once it has been so for the hold-off, and told once', () => {
    expect(
      told([
        [0, 290],
        [9, 290],
        [10, 290],
        [11, 290],
      ]),
    ).toEqual(['10 raised']);
  });
  test('a moment above the limit and the hysteresis begins the hold-off again', () => {
    expect(
      told([
        [0, 290],
        [5, 330],
        [6, 290],
        [12, 290],
        [16, 290],
      ]),
    ).toEqual(['16 raised']);
  });
  test('at the limit it is not dry; within the hysteresis it is not over', () => {
    expect(
      told([
        [0, 300],
        [20, 300],
      ]),
    ).toEqual([]);
    expect(
      told([
        [0, 299],
        [10, 299],
        [11, 329],
        [12, 330],
        [13, 299],
      ]),
    ).toEqual(['10 raised', '12 cleared']);
  });
  test('is repeated, until acknowledged; when it comes back it is a new one', () => {
    const story = [
      [0, 290],
      [10, 290],
      [69, 290],
      [70, 290],
      [130, 290],
      [131, 400],
      [140, 290],
      [150, 290],
    ] as const;
    expect(told(story)).toEqual(['10 raised', '70 repeated', '130 repeated', '131 cleared', '150 raised']);
    const seen = told(story, [rule], 720, (states, minute) =>
      minute === 69 ? acknowledge(states, 'dry lemon') : states,
    );
    expect(seen).toEqual(['10 raised', '131 cleared', '150 raised']);
  });
  test('snoozed, it keeps still and speaks up after it', () => {
    const story = [
      [0, 290],
      [10, 290],
      [70, 290],
      [130, 290],
      [200, 290],
      [259, 290],
      [260, 290],
    ] as const;
    const snoozed = told(story, [rule], 720, (states, minute) =>
      minute === 70 ? snooze(states, 'dry lemon', 200 * MINUTE_MS) : states,
    );
    expect(snoozed).toEqual(['10 raised', '200 repeated', '260 repeated']);
  });
  test('in quiet hours it waits, and is told in the morning if it is still so', () => {
    // From 21:45: raised at 21:55 would be told, one that begins at 21:55 waits until 07:00.
    const late = 21 * 60 + 45;
    expect(
      told(
        [
          [0, 290],
          [10, 290],
        ],
        [rule],
        late,
      ),
    ).toEqual(['10 raised']);
    expect(
      told(
        [
          [10, 290],
          [20, 290],
          [500, 290],
          [554, 290],
          [555, 290],
        ],
        [rule],
        late,
      ),
    ).toEqual(['555 raised']);
    // Over before anybody was told: nothing to clear.
    expect(
      told(
        [
          [10, 290],
          [20, 290],
          [300, 400],
          [600, 400],
        ],
        [rule],
        late,
      ),
    ).toEqual([]);
  });
  test('a value that nobody knows raises nothing and clears nothing', () => {
    expect(
      told([
        [0, null],
        [20, null],
      ]),
    ).toEqual([]);
    expect(
      told([
        [0, 290],
        [10, 290],
        [20, null],
        [30, 290],
      ]),
    ).toEqual(['10 raised']);
  });
  test('without a repeat it is told once; switched off never', () => {
    expect(
      told(
        [
          [0, 290],
          [10, 290],
          [5000, 290],
        ],
        [{ ...rule, repeatS: 0 }],
      ),
    ).toEqual(['10 raised']);
    expect(
      told(
        [
          [0, 290],
          [10, 290],
        ],
        [{ ...rule, on: false }],
      ),
    ).toEqual([]);
  });
});

test('above a limit it is the other way round, and a plain fact has no hysteresis', () => {
  const hot: Watched = {
    key: 'hot air',
    kind: 'hot',
    subjectId: 'air',
    value: 351,
    limit: 350,
    side: 'above',
  };
  const rules = [
    { ...rule, kind: 'hot', holdOffS: 0, quiet: null, hysteresis: 20 },
    { ...rule, kind: 'line-locked', holdOffS: 0, quiet: null },
  ] as const;
  const first = stepAlerts({}, [hot], rules, { ms: 0, minute: 0 });
  expect(first.told).toEqual([{ key: 'hot air', kind: 'hot', subjectId: 'air', phase: 'raised' }]);
  const still = stepAlerts(first.states, [{ ...hot, value: 331 }], rules, { ms: 1, minute: 0 });
  expect(still.told).toEqual([]);
  expect(stepAlerts(still.states, [{ ...hot, value: 330 }], rules, { ms: 2, minute: 0 }).told).toHaveLength(
    1,
  );
  const locked: Watched = { key: 'line-locked pump', kind: 'line-locked', subjectId: 'pump', holds: true };
  const told1 = stepAlerts({}, [locked], rules, { ms: 0, minute: 0 });
  expect(told1.told).toHaveLength(1);
  expect(
    stepAlerts(told1.states, [{ ...locked, holds: false }], rules, { ms: 1, minute: 0 }).told[0]?.phase,
  ).toBe('cleared');
});

test('every kind has a beginning, and what cannot wait does not keep quiet at night', () => {
  expect(DEFAULT_ALERTS.map((one) => one.kind)).toEqual([...ALERT_KINDS]);
  const atNight = DEFAULT_ALERTS.filter((one) => one.quiet === null).map((one) => one.kind);
  expect(atNight).toEqual(['cold', 'out-of-soil', 'tank-low', 'frozen-charge', 'line-locked']);
});

describe('a locked line', () => {
  const lock: AlertRule = {
    kind: 'line-locked',
    on: true,
    hysteresis: 0,
    holdOffS: 0,
    repeatS: 3600,
    quiet: null,
  };
  const locked: Watched = { key: 'line-locked roof', kind: 'line-locked', subjectId: 'roof', holds: true };
  const phases = (rules: readonly AlertRule[], seenAtMinute: number) => {
    let states: AlertStates = {};
    return [0, 59, 60, 120, 360].flatMap((minute) => {
      if (minute === seenAtMinute) states = acknowledge(states, locked.key);
      const step = stepAlerts(states, [locked], rules, { ms: minute * MINUTE_MS, minute });
      states = step.states;
      return step.told.map((one) => `${minute} ${one.phase}`);
    });
  };
  test('is told again until it is unlocked, although it was seen', () => {
    expect(phases([lock], 59)).toEqual(['0 raised', '60 repeated', '120 repeated', '360 repeated']);
  });
  test('even where somebody wants it told once: every six hours', () => {
    expect(phases([{ ...lock, repeatS: 0 }], 59)).toEqual(['0 raised', '360 repeated']);
  });
});

test('an alert that has begun says when it will be told: after its hold-off, unless it was told or seen', () => {
  const state = { sinceMs: 1000, raisedMs: null, toldMs: null, acknowledged: false, snoozedUntilMs: null };
  expect(tellsAtMs(state, rule)).toBe(601_000);
  expect(tellsAtMs({ ...state, toldMs: 5 }, rule)).toBeNull();
  expect(tellsAtMs({ ...state, acknowledged: true }, rule)).toBeNull();
});
