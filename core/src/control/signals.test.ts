import { describe, expect, test } from 'vitest';
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
  [{ tenths: null }, 'content'],
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
  test('a state that is switched off is passed over', () => {
    const off = DEFAULT_SIGNALS.map((one) => (one.state === 'too-dry' ? { ...one, on: false } : one));
    expect(shown({ tenths: 100 }, off)).toBe('content');
    expect(signalOf([], facts, limits)).toBeNull();
  });
});

test('a limit that is not set holds nothing', () => {
  const none = { ...limits, soilLowTenthsC: null, airLowTenthsC: null };
  expect(holds('too-cold', { ...facts, soilTenthsC: -100, airTenthsC: -100 }, none)).toBe(false);
});
