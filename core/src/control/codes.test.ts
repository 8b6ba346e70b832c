import { expect, test } from 'vitest';
import { ALERT_CODES, EVENT_CODES, PROGRAM_CODES, REASON_CODES, SIGNAL_CODES } from './codes.ts';

/** Written down once, when they were given out. Lines may be added at the end of a list; no number here ever changes. */
const REASONS_FROZEN = [
  'below-start',
  'timer',
  'dry-enough',
  'follows',
  'fallback',
  'order',
  'dose-done',
  'above-stop',
  'wet-veto',
  'stop-order',
  'max-run',
  'daily-max',
  'min-interval',
  'tank-low',
  'tank-unknown',
  'stale',
  'implausible',
  'no-reading',
  'unsettled',
  'waiting-for-rise',
  'locked',
  'other-line-runs',
  'clock-went-back',
  'not-calibrated',
  'not-below-start',
  'soaking',
  'pulses-used',
  'dose-interval',
  'not-due',
  'too-wet',
  'leader-rests',
  'alert-only',
  'switched-off',
  'no-line',
  'clock-unknown',
  'outside-hours',
  'not-dark',
  'light-unknown',
  'air-warm',
  'air-unknown',
  'soil-cold',
  'soil-temperature-unknown',
  'rain',
  'rain-unknown',
  'battery-low',
  'battery-unknown',
  'already-runs',
  'settings-changed',
  'below-stop',
  'out-of-soil',
  'bad-order',
  'unsound-settings',
  'contradiction',
  'skip-switch',
  'skip-unknown',
  'in-hours',
  'dark',
  'sun-unknown',
  'max-on',
  'min-off',
  'day-max-on',
];

test('the number of a reason never changes', () => {
  expect(Object.entries(REASON_CODES).map(([reason, code]) => `${code} ${reason}`)).toEqual(
    REASONS_FROZEN.map((reason, code) => `${code} ${reason}`),
  );
});

test('the numbers of programs, signals, alerts and events never change', () => {
  const listed = (codes: Readonly<Record<string, number>>) =>
    Object.entries(codes)
      .sort(([, a], [, b]) => a - b)
      .map(([name, code]) => `${code} ${name}`)
      .join(', ');
  expect(listed(PROGRAM_CODES)).toBe(
    '0 alert-only, 1 timer, 2 pulse-soak, 3 until-wet, 4 single-dose, 5 veto, 6 follower',
  );
  expect(listed(SIGNAL_CODES)).toBe(
    '0 content, 1 locked, 2 probe-fault, 3 tank-low, 4 too-cold, 5 too-hot, 6 too-dry, 7 too-wet, 8 night, 9 unknown, 10 watering',
  );
  expect(listed(ALERT_CODES)).toBe(
    '0 dry, 1 wet, 2 hot, 3 cold, 4 probe-fault, 5 silent-board, 6 tank-low, 7 battery-low, 8 line-locked, 9 recalibrate, 10 out-of-soil, 11 frozen-charge',
  );
  expect(listed(EVENT_CODES)).toBe('0 started, 1 stopped, 2 held, 3 refused, 4 locked, 5 unlocked');
});
