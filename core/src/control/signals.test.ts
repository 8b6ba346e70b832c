import { describe, expect, test } from 'vitest';
import { UNKNOWNS } from './plotState.ts';
import {
  DEFAULT_SIGNALS,
  holds,
  moveSignal,
  SIGNAL_STATES,
  signalOf,
  type SignalFacts,
  type SignalState,
} from './signals.ts';

const facts: SignalFacts = {
  isLocked: false,
  isFaulty: false,
  isWatering: false,
  unknown: null,
  isTankLow: false,
  tenths: 500,
  soilTenthsC: 150,
  airTenthsC: 180,
  isDark: false,
};
const limits = {
  dryTenths: 300,
  wetTenths: 850,
  soilLowTenthsC: 50,
  soilHighTenthsC: 300,
  airLowTenthsC: 20,
  airHighTenthsC: 350,
};
const shown = (change: Partial<SignalFacts>, rules = DEFAULT_SIGNALS) =>
  signalOf(rules, { ...facts, ...change }, limits)?.state;

test.each([
  [{}, 'content'],
  [{ tenths: 299 }, 'too-dry'],
  [{ tenths: 300 }, 'content'],
  [{ tenths: 850 }, 'too-wet'],
  [{ tenths: 849 }, 'content'],
  [{ soilTenthsC: 49 }, 'too-cold'],
  [{ airTenthsC: 19 }, 'too-cold'],
  [{ airTenthsC: 20 }, 'content'],
  [{ soilTenthsC: 301 }, 'too-hot'],
  [{ airTenthsC: 351 }, 'too-hot'],
  [{ soilTenthsC: null, airTenthsC: null }, 'content'],
  [{ isDark: true }, 'night'],
  [{ isDark: null }, 'content'],
  [{ isDark: true, tenths: 100 }, 'too-dry'],
  [{ isTankLow: true, tenths: 100 }, 'tank-low'],
  [{ isFaulty: true, isTankLow: true }, 'probe-fault'],
  [{ isLocked: true, isFaulty: true }, 'locked'],
  [{ tenths: null, unknown: 'no-reading' }, 'unknown'],
  [{ tenths: null, unknown: 'stale', isFaulty: true }, 'probe-fault'],
  [{ unknown: 'tank-unknown' }, 'unknown'],
  [{ isWatering: true, tenths: 100 }, 'watering'],
  [{ isWatering: true, isLocked: true }, 'locked'],
  [{ unknown: 'tank-unknown', tenths: 100 }, 'too-dry'],
  [{ unknown: 'void', tenths: null, airTenthsC: 19 }, 'too-cold'],
  [{ unknown: 'void', tenths: null, isDark: true }, 'unknown'],
] as const)('%j: %s', (change, state) => expect(shown(change)).toBe(state));

describe('the order is the person’s', () => {
  const up = (state: SignalState, times: number, from = DEFAULT_SIGNALS) =>
    Array.from({ length: times }).reduce<typeof DEFAULT_SIGNALS>(
      (rules) => moveSignal(rules, state, -1),
      from,
    );
  test('night put first hides what comes after it', () => {
    expect(shown({ isDark: true, tenths: 100 }, up('night', 7))).toBe('night');
  });
  test('content stays last, and nothing passes it', () => {
    expect(up('content', 5)).toEqual(DEFAULT_SIGNALS);
    expect(moveSignal(DEFAULT_SIGNALS, 'night', 1)).toEqual(DEFAULT_SIGNALS);
    expect(moveSignal(DEFAULT_SIGNALS, 'locked', -1)).toEqual(DEFAULT_SIGNALS);
  });
  test('one step down changes places with the next', () => {
    const moved = moveSignal(DEFAULT_SIGNALS, 'too-dry', 1).map((one) => one.state);
    expect(moved.indexOf('too-dry')).toBe(moved.indexOf('too-wet') + 1);
    expect([...moved].sort()).toEqual([...SIGNAL_STATES].sort());
  });
  const without = (...states: SignalState[]) =>
    DEFAULT_SIGNALS.map((one) => (states.includes(one.state) ? { ...one, on: false } : one));
  test('a state that is switched off is passed over, but never turned into “content”', () => {
    expect(shown({ tenths: 100, isDark: true }, without('too-dry'))).toBe('night');
    expect(shown({ tenths: 100 }, without('too-dry'))).toBeUndefined();
    expect(shown({ airTenthsC: 19 }, without('too-cold'))).toBeUndefined();
    expect(signalOf([], facts, limits)).toBeNull();
  });
  test('what nobody knows is never content, in whatever order and with whatever switched off', () => {
    for (const unknown of [...UNKNOWNS, 'tank-unknown'] as const)
      for (const rules of [
        DEFAULT_SIGNALS,
        without('unknown'),
        without('unknown', 'probe-fault'),
        [...DEFAULT_SIGNALS].reverse(),
      ])
        expect(shown({ tenths: unknown === 'tank-unknown' ? 500 : null, unknown }, rules)).not.toBe(
          'content',
        );
  });
});

test('a limit that is not set holds nothing', () => {
  const none = { ...limits, soilLowTenthsC: null, airLowTenthsC: null };
  expect(holds('too-cold', { ...facts, soilTenthsC: -100, airTenthsC: -100 }, none)).toBe(false);
});
